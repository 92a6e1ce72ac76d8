package yarrowmark.runner;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import org.jspecify.annotations.Nullable;

/**
 * One runner at a time in a state folder: two would disturb each other's times, and could replace each other's files. The
 * system gives the lock back when a runner ends, however it ends.
 */
final class StateLock implements AutoCloseable {
    /** Another runner has it, or there can be none. */
    static final class Taken extends Exception {
        private static final long serialVersionUID = 1L;

        Taken(String words) {
            super(words);
        }
    }

    private final FileChannel file;

    private StateLock(FileChannel file) {
        this.file = file;
    }

    static StateLock of(Path state) throws Taken {
        Path at = state.resolve("one-runner.lock");
        FileChannel file = null;
        try {
            Files.createDirectories(state);
            file = FileChannel.open(at, StandardOpenOption.CREATE, StandardOpenOption.WRITE);
            if (lock(file) == null) {
                file.close();
                throw new Taken("Another runner is at work on this computer, with the same folder " + state
                        + ". Two would disturb each other's times: wait until it is done, or end it.");
            }
            return new StateLock(file);
        } catch (IOException e) {
            throw new Taken("The runner needs a folder of its own, and cannot use " + state + " ("
                    + e.getClass().getSimpleName() + "). Say another with --state.");
        }
    }

    private static @Nullable FileLock lock(FileChannel file) throws IOException {
        try {
            return file.tryLock();
        } catch (OverlappingFileLockException e) {
            return null;
        }
    }

    @Override
    public void close() {
        try {
            file.close();
        } catch (IOException e) {
            // It goes with the program.
        }
    }
}
