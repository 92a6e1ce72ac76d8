package yarrowmark.runner.storage;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.FileStore;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;

/**
 * A folder of our own within the one that is tested; goes with everything in it when it is closed. One that a crash left goes
 * when the next one is made.
 */
public final class Place implements AutoCloseable {
    private static final String NAME = "yarrow-runner-";
    private static final String LOCK = "in-use";

    private final Path folder;
    private final FileChannel lock;

    private Place(Path folder, FileChannel lock) {
        this.folder = folder;
        this.lock = lock;
    }

    public static Place in(Path tested) throws IOException {
        clean(tested);
        Path folder = Files.createTempDirectory(tested, NAME);
        FileChannel lock = FileChannel.open(folder.resolve(LOCK), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
        lock.lock();
        return new Place(folder, lock);
    }

    public Path folder() {
        return folder;
    }

    /** Takes away what runners left that are not there any more. */
    static void clean(Path tested) throws IOException {
        List<Path> left;
        try (Stream<Path> files = Files.list(tested)) {
            left = files.filter(f -> f.getFileName().toString().startsWith(NAME))
                    .filter(Files::isDirectory)
                    .toList();
        }
        for (Path folder : left) {
            if (!isInUse(folder)) {
                delete(folder);
            }
        }
    }

    private static boolean isInUse(Path folder) {
        try (FileChannel channel = FileChannel.open(folder.resolve(LOCK), StandardOpenOption.WRITE);
                FileLock held = channel.tryLock()) {
            return held == null;
        } catch (OverlappingFileLockException e) {
            return true;
        } catch (IOException e) {
            // Without the file, or without the right to it, nobody can be in it who wrote it.
            return false;
        }
    }

    private static void delete(Path folder) throws IOException {
        List<Path> all;
        try (Stream<Path> files = Files.walk(folder)) {
            all = files.sorted(Comparator.reverseOrder()).toList();
        }
        for (Path file : all) {
            Files.deleteIfExists(file);
        }
    }

    FileStore drive() {
        try {
            return Files.getFileStore(folder);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    @Override
    public void close() throws IOException {
        lock.close();
        delete(folder);
    }
}
