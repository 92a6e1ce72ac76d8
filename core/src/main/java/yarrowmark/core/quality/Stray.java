package yarrowmark.core.quality;

import java.util.Arrays;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.apache.commons.statistics.descriptive.Median;
import yarrowmark.core.stats.NoisePrior;
import yarrowmark.core.stats.SampleMoments;

/**
 * Readings that lie far from the others of their sample.
 *
 * <p>Formula: with a lent scale and fewer than ten merits, |x − median| above 3.5 of the working deviation s̃ of the other
 * readings (4 with three or four merits); its own distance is left out of that, so that a stray does not hide itself.
 * Without one, or from ten merits on, |0.6745 (x − median)| / MAD above a limit that one in a hundred clean samples
 * passes, MAD the median of |x − median|. No scale is taken below what rounding alone gives.
 *
 * <p>Edge cases: fewer than 3 readings, or 3 or 4 with nothing lent, mark nothing; nor does a MAD of 0 without a known
 * rounding, because then nothing says how large a usual difference is.
 *
 * <p>Source: section 6 of the method; B. Iglewicz, D. Hoaglin, "How to Detect and Handle Outliers", 1993, for the modified
 * z score. Its usual limit of 3.5 marks 21 % of clean samples of five.
 */
public final class Stray {
    private static final double NORMAL_QUARTILE = 0.6745;
    private static final double MOST_DEVIATIONS = 3.5;
    private static final double MOST_DEVIATIONS_OF_FEW = 4;
    private static final int FEW = 4;
    /** From so many on a sample tells its own scale. */
    private static final int MANY = 10;

    /** One in a hundred clean samples of n has a modified z score above it; between two n the larger holds. */
    private static final TreeMap<Integer, Double> MOST_SCORE = new TreeMap<>(
            Map.of(5, 18.6, 6, 9.9, 7, 10.8, 8, 8.1, 9, 8.4, 10, 6.8, 12, 6.2, 15, 5.9, 20, 5.3, 30, 4.8));

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
        boolean byLent = lent.isPresent() && merits.length < MANY;
        double own = byLent ? 0 : ownLimit(away, roundingVariance);
        for (int i = 0; i < away.length; i++) {
            double limit = byLent ? lentLimit(merits, i, lent.get(), roundingVariance) : own;
            stray[i] = away[i] > limit;
        }
        return stray;
    }

    private static double ownLimit(double[] away, double roundingVariance) {
        if (away.length <= FEW) {
            return Double.POSITIVE_INFINITY;
        }
        double mad = Math.max(
                Median.withDefaults().withCopy(true).evaluate(away), NORMAL_QUARTILE * Math.sqrt(roundingVariance));
        double score = Math.max(
                MOST_SCORE.floorEntry(away.length).getValue(),
                MOST_SCORE
                        .ceilingEntry(Math.min(away.length, MOST_SCORE.lastKey()))
                        .getValue());
        return mad > 0 ? score * mad / NORMAL_QUARTILE : Double.POSITIVE_INFINITY;
    }

    private static double lentLimit(double[] merits, int without, NoisePrior lent, double roundingVariance) {
        int n = merits.length - 1;
        double mean = 0;
        for (int i = 0; i < merits.length; i++) {
            mean += i == without ? 0 : merits[i] / n;
        }
        double squares = 0;
        for (int i = 0; i < merits.length; i++) {
            squares += i == without ? 0 : (merits[i] - mean) * (merits[i] - mean);
        }
        double deviation = lent.workingVariance(new SampleMoments(n, mean, squares, roundingVariance))
                .deviation();
        double most = merits.length <= FEW ? MOST_DEVIATIONS_OF_FEW : MOST_DEVIATIONS;
        return most * Math.max(deviation, Math.sqrt(roundingVariance));
    }
}
