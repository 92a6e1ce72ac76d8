package yarrowmark.server.platform.health;

import java.io.IOException;
import java.nio.file.FileStore;
import java.nio.file.Files;
import java.nio.file.Path;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.core.env.Environment;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import yarrowmark.server.platform.Problem;

/** How much room the disk with the records has left. It is said before it runs out, while there is time to make some. */
@Component
public class DiskSpace {
    private static final Logger LOG = LoggerFactory.getLogger(DiskSpace.class);
    private static final long LOW_BYTES = 1L << 30;
    private static final double LOW_SHARE = 0.05;

    /** @param free bytes that can still be written. @param of bytes of the whole disk */
    public record Room(long free, long of) {
        /** Under 1 GiB, or under 5 % of a disk. */
        public boolean isLow() {
            return free < LOW_BYTES || free < LOW_SHARE * of;
        }
    }

    /** Reads the disk; a test puts another in its place. */
    public interface Disk {
        Room room() throws IOException;
    }

    private final Disk disk;

    @Autowired
    public DiskSpace(Environment environment) {
        this(diskOf(Path.of(environment.getProperty("YARROWMARK_VAR", "var")).toAbsolutePath()));
    }

    public DiskSpace(Disk disk) {
        this.disk = disk;
    }

    private static Disk diskOf(Path directory) {
        return () -> {
            Path there = directory;
            while (!Files.exists(there) && there.getParent() != null) {
                there = there.getParent();
            }
            FileStore store = Files.getFileStore(there);
            return new Room(store.getUsableSpace(), store.getTotalSpace());
        };
    }

    /** What is left; plenty where the system does not say. */
    public Room room() {
        try {
            return disk.room();
        } catch (IOException e) {
            LOG.debug("the disk does not say how much room it has", e);
            return new Room(Long.MAX_VALUE, Long.MAX_VALUE);
        }
    }

    /** @throws Problem where what is needed would not fit beside what must stay free to go on */
    public void need(long bytes, String forWhat) {
        long free = room().free();
        if (free - LOW_BYTES / 4 < bytes) {
            throw new Problem(
                    HttpStatus.INSUFFICIENT_STORAGE,
                    "disk-full",
                    "The disk has " + megabytes(free) + " left, which is too little for " + forWhat + " ("
                            + megabytes(bytes) + "). Free some space, then start again.");
        }
    }

    private static String megabytes(long bytes) {
        return Math.round(bytes / 1e6) + " MB";
    }
}
