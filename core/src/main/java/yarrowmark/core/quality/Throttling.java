package yarrowmark.core.quality;

import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import java.util.OptionalInt;
import java.util.stream.IntStream;
import org.apache.commons.statistics.descriptive.Median;
import org.apache.commons.statistics.distribution.NormalDistribution;

/**
 * Whether work per loop falls as a device warms up. Section 6: Mann-Kendall test for a trend (normal approximation,
 * continuity-corrected, with the correction for ties), slope by Theil-Sen.
 *
 * @param slope     change per loop, in the unit of the loops
 * @param s         Mann-Kendall's S: pairs that rise less pairs that fall
 * @param p         two-sided
 * @param best      best loop
 * @param sustained mean of the last quarter of the loops, rounded up, over the best
 * @param onset     the first loop, from 0, from which on none reaches 95 % of the best; absent where it does not throttle
 */
public record Throttling(int loops, double slope, long s, double p, double best, double sustained, OptionalInt onset) {
    /** Keys of the metrics that a test in a loop has beside its curve. */
    public static final String SUSTAINED = "sustained";

    public static final String ONSET = "onset";

    private static final int FEWEST_LOOPS = 8;
    private static final int MOST_LOOPS = 2_000;
    private static final double MOST_P = 0.01;
    private static final double KEPT = 0.95;

    /**
     * @param work of each loop in order, more is better
     * @throws IllegalArgumentException for fewer than two loops, or work that is not above 0
     */
    public static Throttling of(double[] work) {
        if (work.length < 2 || Arrays.stream(work).anyMatch(w -> !(w > 0 && w < Double.POSITIVE_INFINITY))) {
            throw new IllegalArgumentException("throttling is seen in two loops or more, each with work above 0");
        }
        int n = work.length;
        long s = 0;
        double[] slopes = new double[n * (n - 1) / 2];
        int at = 0;
        Map<Double, Integer> ties = new HashMap<>();
        for (int i = 0; i < n; i++) {
            ties.merge(work[i], 1, Integer::sum);
            for (int j = i + 1; j < n; j++) {
                s += (long) Math.signum(work[j] - work[i]);
                slopes[at++] = (work[j] - work[i]) / (j - i);
            }
        }
        double variance = spread(n)
                - ties.values().stream().mapToDouble(Throttling::spread).sum();
        double p = s == 0 || variance <= 0
                ? 1
                : Math.min(
                        1,
                        2 * NormalDistribution.of(0, 1).survivalProbability((Math.abs(s) - 1) / Math.sqrt(variance)));
        double best = Arrays.stream(work).max().orElseThrow();
        int last = (n + 3) / 4;
        double kept = Arrays.stream(work).skip(n - last).average().orElseThrow();
        boolean throttled = n >= FEWEST_LOOPS && s < 0 && p < MOST_P && kept < KEPT * best;
        int onset = n;
        while (onset > 0 && work[onset - 1] < KEPT * best) {
            onset--;
        }
        // Throttled on the whole, though the very last loop came back: then from the last quarter on.
        return new Throttling(
                n,
                Median.withDefaults().evaluate(slopes),
                s,
                p,
                best,
                kept / best,
                throttled ? OptionalInt.of(Math.min(onset, n - last)) : OptionalInt.empty());
    }

    /**
     * The same for loops of any number: every loop is held against every other, so of more than {@value #MOST_LOOPS} as
     * many in a row as it takes are one, with their mean. The slope is then for each such one; the onset is a loop as given.
     */
    public static Throttling ofMany(double[] work) {
        int together = (work.length + MOST_LOOPS - 1) / MOST_LOOPS;
        if (together <= 1) {
            return of(work);
        }
        double[] means = IntStream.iterate(0, i -> i < work.length, i -> i + together)
                .mapToDouble(i -> Arrays.stream(work, i, Math.min(work.length, i + together))
                        .average()
                        .orElseThrow())
                .toArray();
        Throttling found = of(means);
        return new Throttling(
                found.loops(),
                found.slope(),
                found.s(),
                found.p(),
                found.best(),
                found.sustained(),
                found.onset().isPresent() ? OptionalInt.of(found.onset().getAsInt() * together) : OptionalInt.empty());
    }

    private static double spread(int n) {
        return n * (n - 1.0) * (2.0 * n + 5) / 18;
    }

    public boolean throttled() {
        return onset.isPresent();
    }
}
