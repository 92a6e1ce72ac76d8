package yarrowmark.e2e;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Supplier;
import java.util.stream.Stream;

/**
 * How long tests wait: as long as something moves, however slowly on a busy machine, and never longer than a limit that only
 * a dead program reaches. What moves is what this JVM started, programs and browsers: they work, or wait for a processor.
 */
final class Patience {
    static final Duration LIMIT = Duration.ofMinutes(10);

    private static final long STILL_NANOS = Duration.ofMinutes(2).toNanos();
    /** Of one processor: what pages that only stand there, and programs that only listen, need less than. */
    private static final double STILL_SHARE = 0.1;

    private static final long FIRST_PAUSE_NANOS = Duration.ofMillis(20).toNanos();
    private static final long LONGEST_PAUSE_NANOS = Duration.ofMillis(200).toNanos();

    private Patience() {}

    /**
     * Waits until there is an answer that is neither null nor false.
     *
     * @param what is said where it did not come about
     */
    static <T> T until(Supplier<String> what, Supplier<T> look) {
        return until(what, look, Patience::movedNanos, STILL_NANOS);
    }

    /** @param moved how long what is waited for has worked by now, or waited for a processor, in ns */
    static <T> T until(Supplier<String> what, Supplier<T> look, Supplier<Long> moved, long stillNanos) {
        long began = System.nanoTime();
        long since = began;
        long before = moved.get();
        long pause = FIRST_PAUSE_NANOS;
        while (true) {
            T found = look.get();
            if (found != null && !Boolean.FALSE.equals(found)) {
                return found;
            }
            long now = System.nanoTime();
            if (now - since > stillNanos) {
                long movedNow = moved.get();
                if (movedNow - before < STILL_SHARE * (now - since)) {
                    throw new AssertionError(
                            what.get() + "\nNothing moved for " + (now - since) / 1_000_000_000 + " s.");
                }
                since = now;
                before = movedNow;
            }
            if (now - began > LIMIT.toNanos()) {
                throw new AssertionError(what.get() + "\nIt was waited for " + LIMIT.toMinutes() + " minutes.");
            }
            LockSupport.parkNanos(pause);
            pause = Math.min(LONGEST_PAUSE_NANOS, pause * 3 / 2);
        }
    }

    private static long movedNanos() {
        try (Stream<ProcessHandle> started = ProcessHandle.current().descendants()) {
            return started.mapToLong(p -> movedNanos(p.pid())).sum();
        }
    }

    /** The first two numbers of schedstat: time on a processor, and time of waiting for one. Of all threads. */
    private static long movedNanos(long pid) {
        try (Stream<Path> threads = Files.list(Path.of("/proc", String.valueOf(pid), "task"))) {
            return threads.mapToLong(Patience::ofThread).sum();
        } catch (IOException | java.io.UncheckedIOException e) {
            return 0; // It has ended.
        }
    }

    private static long ofThread(Path thread) {
        try {
            String[] numbers = Files.readString(thread.resolve("schedstat")).split(" ");
            return Long.parseLong(numbers[0]) + Long.parseLong(numbers[1]);
        } catch (IOException e) {
            return 0;
        }
    }
}
