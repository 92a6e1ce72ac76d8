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
 * continuity-corrected, with the correction for ties), slope by Theil-Sen. From 12 loops on the mean of the best three stands
 * for the best, below which the last quarter has to be by more than 5 %. From 30 on the test's variance is multiplied by
 * (1 + r)/(1 − r), r the lag-1 autocorrelation of what remains beside the Theil-Sen line, plus 1/n, kept within 0 and 0.9:
 * loops that resemble their neighbours are no trend. (Without it up to 19 % of flat loops were marked, with it at most 2 %.)
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
    private static final int SEVERAL_LOOPS = 12;
    private static final int BEST_OF_SEVERAL = 3;
    private static final int MANY = 30;
    private static final double MOST_ALIKE = 0.9;

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
        double slope = Median.withDefaults().evaluate(slopes);
        double variance = (spread(n)
                        - ties.values().stream().mapToDouble(Throttling::spread).sum())
                * (n < MANY ? 1 : alike(work, slope));
        double p = s == 0 || variance <= 0
                ? 1
                : Math.min(
                        1,
                        2 * NormalDistribution.of(0, 1).survivalProbability((Math.abs(s) - 1) / Math.sqrt(variance)));
        double best = Arrays.stream(work).max().orElseThrow();
        double top = n < SEVERAL_LOOPS
                ? best
                : Arrays.stream(work)
                        .sorted()
                        .skip(n - BEST_OF_SEVERAL)
                        .average()
                        .orElseThrow();
        int last = (n + 3) / 4;
        double kept = Arrays.stream(work).skip(n - last).average().orElseThrow();
        boolean throttled = n >= FEWEST_LOOPS && s < 0 && p < MOST_P && kept < KEPT * top;
        int onset = n;
        while (onset > 0 && work[onset - 1] < KEPT * top) {
            onset--;
        }
        // Throttled on the whole, though the very last loop came back: then from the last quarter on.
        return new Throttling(
                n,
                slope,
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

    /** How many times as far as independent loops these may wander by themselves. */
    private static double alike(double[] work, double slope) {
        int n = work.length;
        double[] rest = new double[n];
        double mean = 0;
        for (int i = 0; i < n; i++) {
            rest[i] = work[i] - slope * i;
            mean += rest[i] / n;
        }
        double squares = 0;
        double neighbours = 0;
        for (int i = 0; i < n; i++) {
            squares += (rest[i] - mean) * (rest[i] - mean);
            neighbours += i == 0 ? 0 : (rest[i] - mean) * (rest[i - 1] - mean);
        }
        double r = squares == 0 ? 0 : Math.min(MOST_ALIKE, Math.max(0, neighbours / squares + 1.0 / n));
        return (1 + r) / (1 - r);
    }

    private static double spread(int n) {
        return n * (n - 1.0) * (2.0 * n + 5) / 18;
    }

    public boolean throttled() {
        return onset.isPresent();
    }
}
