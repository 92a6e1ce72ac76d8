package yarrowmark.runner.storage;

import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;
import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.atomic.AtomicLongArray;
import yarrowmark.runner.measure.Measure;
import yarrowmark.runner.measure.Measurement;

/** Blocks of 4 KiB from and to anywhere in a file, by as many threads as operations are under way at once. */
final class Scattered {
    private static final int SLICES = 20;
    private static final double WARM_UP_SHARE = 0.1;
    private static final int SECONDS_TO_BEGIN = 10;

    private final TestFile file;
    private final int depth;
    /** Of a hundred operations. */
    private final int writes;

    Scattered(TestFile file, int depth, int writes) {
        this.file = file;
        this.depth = depth;
        this.writes = writes;
    }

    /**
     * Operations a second; each twentieth of the time is a sample. Each thread ends at least one operation that it
     * began in that time or after it: a drive that stalls for the whole of it is slow, and not without an answer.
     */
    Measurement run(double timedMs) throws Exception {
        AtomicBoolean over = new AtomicBoolean();
        AtomicLongArray done = new AtomicLongArray(SLICES);
        AtomicLong begin = new AtomicLong(Long.MAX_VALUE);
        AtomicLong last = new AtomicLong(Long.MIN_VALUE);
        CountDownLatch ready = new CountDownLatch(depth);
        double sliceNanos = timedMs * 1e6 / SLICES;
        ExecutorService pool = Executors.newFixedThreadPool(depth);
        try {
            List<Future<Latencies>> parts = new ArrayList<>();
            for (int i = 0; i < depth; i++) {
                parts.add(pool.submit(part(i, ready, over, done, begin, last, sliceNanos)));
            }
            // A thread that cannot even begin says why below; the others need not wait for it longer than this.
            ready.await(SECONDS_TO_BEGIN, TimeUnit.SECONDS);
            begin.set(System.nanoTime() + (long) (timedMs * WARM_UP_SHARE * 1e6));
            List<Latencies> latencies = new ArrayList<>();
            for (Future<Latencies> part : parts) {
                latencies.add(part.get());
            }
            List<Double> samples = new ArrayList<>();
            for (int i = 0; i < SLICES; i++) {
                samples.add(done.get(i) / (sliceNanos / 1e9));
            }
            Latencies all = Latencies.together(latencies);
            // A drive so slow that half of the slices are empty still has a mean.
            double middle = Measure.median(samples);
            double tookMs =
                    last.get() == Long.MIN_VALUE ? timedMs : Math.max(timedMs, (last.get() - begin.get()) / 1e6);
            double rate = middle > 0 ? middle : all.count() / (tookMs / 1e3);
            return new Measurement(
                    rate,
                    1e9 / sliceNanos,
                    samples,
                    timedMs,
                    List.of(
                            new Measurement.More("p50", all.micros(0.5), 0.001),
                            new Measurement.More("p99", all.micros(0.99), 0.001),
                            new Measurement.More("p999", all.micros(0.999), 0.001)),
                    null);
        } catch (ExecutionException e) {
            throw e.getCause() instanceof Exception cause ? cause : e;
        } finally {
            over.set(true);
            pool.shutdownNow();
        }
    }

    private Callable<Latencies> part(
            int number,
            CountDownLatch ready,
            AtomicBoolean over,
            AtomicLongArray done,
            AtomicLong begin,
            AtomicLong last,
            double sliceNanos) {
        return () -> {
            SplittableRandom random = new SplittableRandom(31L * number + 7);
            ByteBuffer read = file.buffer(TestFile.BLOCK);
            ByteBuffer written = file.buffer(TestFile.BLOCK);
            long blocks = file.bytes() / TestFile.BLOCK;
            Latencies latencies = new Latencies();
            ready.countDown();
            while (!over.get() && !Thread.currentThread().isInterrupted()) {
                long at = random.nextLong(blocks) * TestFile.BLOCK;
                boolean writing = random.nextInt(100) < writes;
                long from = System.nanoTime();
                if (writing) {
                    file.write(written, at);
                } else {
                    file.read(read, at);
                }
                long to = System.nanoTime();
                long start = begin.get();
                if (from < start) {
                    continue;
                }
                boolean late = to - start >= SLICES * sliceNanos;
                if (late && latencies.count() > 0) {
                    break;
                }
                latencies.add(to - from);
                if (late) {
                    last.accumulateAndGet(to, Math::max);
                    break;
                }
                done.incrementAndGet((int) ((to - start) / sliceNanos));
            }
            return latencies;
        };
    }
}
