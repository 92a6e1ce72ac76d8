package yarrowmark.core.quality;

import java.util.Arrays;
import java.util.Optional;
import org.apache.commons.statistics.descriptive.Median;
import yarrowmark.core.stats.NoisePrior;

/**
 * Readings that lie far from the others of their sample.
 *
 * <p>Formula: with n ≥ 5 merits, |0.6745 (x − median)| / MAD &gt; 3.5, MAD the median of |x − median|; with 3 or 4,
 * |x − median| &gt; 4 s₀, s₀² the lent variance. Neither scale is taken below what rounding alone gives.
 *
 * <p>Edge cases: fewer than 3 readings, or 3 or 4 with nothing lent, mark nothing; nor does a MAD of 0 without a known
 * rounding, because then nothing says how large a usual difference is.
 *
 * <p>Source: B. Iglewicz, D. Hoaglin, "How to Detect and Handle Outliers", 1993, for the modified z score.
 */
public final class Stray {
    private static final double NORMAL_QUARTILE = 0.6745;
    private static final double MOST_SCORE = 3.5;
    private static final double MOST_LENT_DEVIATIONS = 4;

    private Stray() {}

    /**
     * @param merits           of one sample, in any order; not changed
     * @param lent             noise that other samples of the metric lend
     * @param roundingVariance of one merit by its resolution alone, 0 where unknown
     * @return for each merit whether it is stray
     */
    public static boolean[] of(double[] merits, Optional<NoisePrior> lent, double roundingVariance) {
        boolean[] stray = new boolean[merits.length];
        if (merits.length < 3) {
            return stray;
        }
        double median = Median.withDefaults().withCopy(true).evaluate(merits);
        double[] away = Arrays.stream(merits).map(m -> Math.abs(m - median)).toArray();
        double rounding = Math.sqrt(roundingVariance);
        double limit;
        if (merits.length >= 5) {
            double mad = Math.max(Median.withDefaults().withCopy(true).evaluate(away), NORMAL_QUARTILE * rounding);
            limit = mad > 0 ? MOST_SCORE * mad / NORMAL_QUARTILE : Double.POSITIVE_INFINITY;
        } else {
            limit = lent.map(p -> MOST_LENT_DEVIATIONS * Math.max(Math.sqrt(p.variance()), rounding))
                    .orElse(Double.POSITIVE_INFINITY);
        }
        for (int i = 0; i < away.length; i++) {
            stray[i] = away[i] > limit;
        }
        return stray;
    }
}
