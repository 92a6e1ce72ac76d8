package yarrowmark.runner.command;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.TimeUnit;

/** What the system keeps of files in memory. */
final class FileCache {
    private static final Path DROP = Path.of("/proc/sys/vm/drop_caches");
    private static final long LONGEST_SYNC_S = 300;

    private FileCache() {}

    static boolean mayDrop() {
        return Files.isWritable(DROP);
    }

    /** What was written goes to the drive first: only what is there can be dropped. */
    static void drop() throws IOException, InterruptedException {
        Process sync = new ProcessBuilder("sync").start();
        if (!sync.waitFor(LONGEST_SYNC_S, TimeUnit.SECONDS)) {
            sync.destroyForcibly();
        }
        Files.writeString(DROP, "3\n");
    }
}
