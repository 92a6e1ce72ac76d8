package yarrowmark.runner.measure;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.IntFunction;

/**
 * Several threads that take rounds from one shared counter, so that fast and slow cores each do what they can and none waits
 * for another until the last round.
 */
public final class Together implements Work, AutoCloseable {
    private static final int SECONDS_TO_END = 10;

    private final List<Work> parts = new ArrayList<>();
    private final ExecutorService pool;
    private final AtomicLong left = new AtomicLong();

    /** @param part the work of each thread, by its number; made in that thread, so that its memory lies near */
    public Together(int threads, IntFunction<Work> part) throws Exception {
        pool = Executors.newFixedThreadPool(threads, work -> {
            Thread thread = new Thread(work, "work");
            thread.setDaemon(true);
            return thread;
        });
        List<Future<Work>> made = new ArrayList<>();
        for (int i = 0; i < threads; i++) {
            int number = i;
            made.add(pool.submit(() -> part.apply(number)));
        }
        for (Future<Work> one : made) {
            parts.add(answer(one));
        }
    }

    @Override
    public void rounds(long count) throws Exception {
        left.set(count);
        List<Future<?>> running = new ArrayList<>();
        for (Work part : parts) {
            running.add(pool.submit(() -> {
                boolean well = false;
                try {
                    while (left.getAndDecrement() > 0) {
                        part.rounds(1);
                    }
                    well = true;
                } finally {
                    if (!well) {
                        // What the others would still do is worth nothing.
                        left.set(0);
                    }
                }
                return null;
            }));
        }
        for (Future<?> one : running) {
            answer(one);
        }
    }

    private <T> T answer(Future<T> one) throws Exception {
        try {
            return one.get();
        } catch (ExecutionException e) {
            left.set(0);
            if (e.getCause() instanceof Exception cause) {
                throw cause;
            }
            throw e;
        } catch (InterruptedException e) {
            left.set(0);
            throw e;
        }
    }

    @Override
    public void close() {
        left.set(0);
        pool.shutdownNow();
        try {
            pool.awaitTermination(SECONDS_TO_END, TimeUnit.SECONDS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
