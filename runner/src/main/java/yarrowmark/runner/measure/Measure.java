package yarrowmark.runner.measure;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.LongSupplier;

/**
 * Times a piece of work the way the device page does: finds how many rounds make a sample long enough for the clock, warms
 * up untimed until it is warm, then takes samples until their sum is the timed part. Interrupted, it ends at once.
 */
public final class Measure {
    /** A sample is never shorter than this many steps of the clock. */
    private static final int CLOCK_STEPS = 100;
    /** Many short samples: their median looks past a burst in which another program disturbs the machine. */
    private static final int SAMPLES = 50;

    private static final int FEWEST_SAMPLES = 5;
    private static final double WARM_ENOUGH = 0.02;
    /** Timings whose best is held against the best of those before. */
    private static final int LATEST = 4;

    private static final double LONGEST_WARM_UP_MS = 5_000;
    private static final double SHORTEST_SAMPLE_MS = 2;
    private static final double FIRST_WARM_UP_SHARE = 1 / 4.0;
    /** Where the same code has been warmed up before. */
    public static final double LATER_WARM_UP_SHARE = 1 / 10.0;

    private final double timedMs;
    private final LongSupplier nanos;
    private final double clockMs;

    /** @param clockMs step of the clock */
    Measure(double timedMs, double clockMs, LongSupplier nanos) {
        if (!(timedMs > 0) || !(clockMs >= 0)) {
            throw new IllegalArgumentException(
                    "timedMs must be above 0 and clockMs 0 or more, not " + timedMs + ", " + clockMs);
        }
        this.timedMs = timedMs;
        this.nanos = nanos;
        this.clockMs = clockMs;
    }

    public static Measure of(double timedMs) {
        return new Measure(timedMs, stepOfClock(), System::nanoTime);
    }

    /** The smallest difference that the clock shows, in ms. */
    static double stepOfClock() {
        long least = Long.MAX_VALUE;
        for (int i = 0; i < 1_000; i++) {
            long from = System.nanoTime();
            long to = System.nanoTime();
            if (to > from) {
                least = Math.min(least, to - from);
            }
        }
        return least == Long.MAX_VALUE ? 0.001 : least / 1e6;
    }

    private double now() {
        return nanos.getAsLong() / 1e6;
    }

    private double time(Work work, long rounds) throws Exception {
        if (Thread.interrupted()) {
            throw new InterruptedException();
        }
        double start = now();
        work.rounds(rounds);
        return now() - start;
    }

    public Measurement run(Work work, double perRound) throws Exception {
        return run(work, perRound, FIRST_WARM_UP_SHARE);
    }

    /** @param perRound how much of the test's unit one round is, for rates per second */
    public Measurement run(Work work, double perRound, double warmUpShare) throws Exception {
        double least = Math.max(Math.max(CLOCK_STEPS * clockMs, timedMs / SAMPLES), SHORTEST_SAMPLE_MS);
        long rounds = 1;
        double took = time(work, rounds);
        while (took < least) {
            // The first timings are too slow, and a guess from them too small, never too large.
            double factor = took > 0 ? Math.min(8, Math.max(1.2, 1.1 * least / took)) : 8;
            rounds = (long) Math.ceil(rounds * factor);
            took = time(work, rounds);
        }
        double warmUpEnd = now() + Math.min(LONGEST_WARM_UP_MS, timedMs * warmUpShare);
        List<Double> recent = new ArrayList<>(List.of(took));
        while (now() < warmUpEnd && !isWarm(recent)) {
            recent.add(time(work, rounds));
        }
        double warm = recent.get(recent.size() - 1);
        if (warm < least) {
            // What warmed up may be much faster than what was calibrated.
            rounds = (long) Math.ceil(rounds * Math.min(8, 1.1 * least / Math.max(warm, Math.max(clockMs, 0.001))));
        }
        List<Double> times = new ArrayList<>();
        double sum = 0;
        while (sum < timedMs || times.size() < FEWEST_SAMPLES) {
            double t = time(work, rounds);
            times.add(t);
            sum += t;
        }
        long each = rounds;
        List<Double> samples =
                times.stream().map(t -> each * perRound * 1000 / t).toList();
        double rate = median(samples);
        return new Measurement(rate, rate * clockMs / median(times), samples, sum, List.of(), null);
    }

    /**
     * Three timings in a row agree, or, where other programs disturb the machine so that they never will, the best of the
     * latest is no better than the best before.
     */
    static boolean isWarm(List<Double> timings) {
        int n = timings.size();
        if (n < 3) {
            return false;
        }
        List<Double> three = timings.subList(n - 3, n);
        if (max(three) <= min(three) * (1 + WARM_ENOUGH)) {
            return true;
        }
        return n >= 2 * LATEST
                && min(timings.subList(n - LATEST, n)) >= min(timings.subList(0, n - LATEST)) * (1 - WARM_ENOUGH);
    }

    private static double min(List<Double> values) {
        return values.stream().mapToDouble(Double::doubleValue).min().orElseThrow();
    }

    private static double max(List<Double> values) {
        return values.stream().mapToDouble(Double::doubleValue).max().orElseThrow();
    }

    /** The middle value; the mean of the middle two where there is an even number. */
    public static double median(List<Double> values) {
        double[] sorted = values.stream().mapToDouble(Double::doubleValue).toArray();
        Arrays.sort(sorted);
        int middle = sorted.length / 2;
        return sorted.length % 2 == 1 ? sorted[middle] : (sorted[middle - 1] + sorted[middle]) / 2;
    }
}
