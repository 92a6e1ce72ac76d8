package yarrowmark.runner.measure;

import java.util.ArrayList;
import java.util.List;
import java.util.function.LongSupplier;

/**
 * Works without a pause, and notes how much was done in each loop: a curve of rates over seconds since the start. Nothing is
 * warmed up before: that a device is cold at first is what the curve is to show.
 */
public final class Endure {
    /** Shorter loops would show the work of others, longer ones would hide when a device slows down. */
    private static final double LOOP_MS = 5_000;

    private static final int FEWEST_LOOPS = 8;
    /** Between two looks at the clock: long enough to be timed, short enough to end a loop where it should end. */
    private static final double CHUNK_MS = 50;

    private final double timedMs;
    private final LongSupplier nanos;

    Endure(double timedMs, LongSupplier nanos) {
        this.timedMs = timedMs;
        this.nanos = nanos;
    }

    public static Endure of(double timedMs) {
        return new Endure(timedMs, System::nanoTime);
    }

    private double now() {
        return nanos.getAsLong() / 1e6;
    }

    /** @param perRound how much of the test's unit one round is */
    public Measurement run(Work work, double perRound) throws Exception {
        double loopMs = Math.min(LOOP_MS, timedMs / FEWEST_LOOPS);
        double chunkMs = Math.min(CHUNK_MS, loopMs / 4);
        long rounds = 1;
        while (true) {
            double start = now();
            work.rounds(rounds);
            double took = now() - start;
            if (took >= chunkMs) {
                break;
            }
            rounds = (long) Math.ceil(rounds * Math.min(8, took > 0 ? Math.max(1.2, 1.1 * chunkMs / took) : 8));
        }
        List<Measurement.Point> points = new ArrayList<>();
        double begin = now();
        double loopBegin = begin;
        double done = 0;
        while (now() - begin < timedMs || points.size() < FEWEST_LOOPS) {
            if (Thread.interrupted()) {
                throw new InterruptedException();
            }
            work.rounds(rounds);
            done += rounds;
            double end = now();
            if (end - loopBegin >= loopMs) {
                points.add(new Measurement.Point((end - begin) / 1000, done * perRound * 1000 / (end - loopBegin)));
                loopBegin = end;
                done = 0;
            }
        }
        return Measurement.ofCurve(points, now() - begin, List.of(), null);
    }
}
