package yarrowmark.core.trend;

import java.util.Arrays;
import java.util.Optional;

/**
 * By how much a series rises with each step, on merits: the median of the slopes between all pairs (Theil 1950; Sen 1968,
 * doi:10.1080/01621459.1968.10480934), with its 95 % interval from the distribution of Kendall's S, of which the variance
 * is n (n − 1)(2n + 5)/18. One value that is wrong does not move it.
 *
 * <p>Edge cases: fewer than three values have no slope; the interval is empty where there are too few values for one, which
 * is so below five. Source: section 7 of the method.
 *
 * @param perStep  median slope
 * @param interval of it
 */
public record Slope(double perStep, Optional<Ends> interval) {
    /** The ends of an interval. */
    public record Ends(double low, double high) {}

    private static final int LEAST = 3;
    private static final double TWO_SIDED = 1.959963984540054;

    /**
     * @param x places of the values, no two alike
     * @param y merits
     */
    public static Optional<Slope> of(double[] x, double[] y) {
        int n = x.length;
        if (n < LEAST) {
            return Optional.empty();
        }
        double[] slopes = new double[n * (n - 1) / 2];
        int count = 0;
        for (int i = 0; i < n; i++) {
            for (int j = i + 1; j < n; j++) {
                slopes[count++] = (y[j] - y[i]) / (x[j] - x[i]);
            }
        }
        Arrays.sort(slopes);
        double wide = TWO_SIDED * Math.sqrt(n * (n - 1.0) * (2.0 * n + 5) / 18);
        // Ranks of the ends among the sorted slopes, from 1, rounded outwards.
        int low = (int) Math.floor((count - wide) / 2);
        int high = (int) Math.ceil((count + wide) / 2) + 1;
        return Optional.of(new Slope(
                median(slopes),
                low < 1 || high > count ? Optional.empty() : Optional.of(new Ends(slopes[low - 1], slopes[high - 1]))));
    }

    private static double median(double[] sorted) {
        int middle = sorted.length / 2;
        return sorted.length % 2 == 1 ? sorted[middle] : (sorted[middle - 1] + sorted[middle]) / 2;
    }
}
