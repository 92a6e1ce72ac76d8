package yarrowmark.core.curve;

import java.util.Arrays;
import org.apache.commons.statistics.descriptive.Median;
import org.apache.commons.statistics.descriptive.Quantile;

/**
 * What a list of frame times says.
 *
 * <p>With t the n frame times in ms: mean rate 1000 n / Σt; 1 % low as a mean, 1000 over the mean of the ceil(0.01 n)
 * longest; 1 % low as a percentile, 1000 over the 99th percentile of type 7 (R. Hyndman, Y. Fan, "Sample Quantiles in
 * Statistical Packages", 1996, doi:10.1080/00031305.1996.10473566); stutters, frames longer than 2.5 medians. The two
 * lows are different metrics and are never compared.
 *
 * <p>Input: one frame or more, each above 0 and finite.
 *
 * @param meanRate      in frames a second
 * @param lowMean       in frames a second
 * @param lowPercentile in frames a second
 */
public record FrameTimes(int frames, double meanRate, double lowMean, double lowPercentile, int stutters) {
    private static final double LONGEST_SHARE = 0.01;
    private static final double STUTTER_MEDIANS = 2.5;
    private static final double MS = 1000;

    /** @param times in ms, in order; not changed */
    public static FrameTimes of(double[] times) {
        if (times.length == 0 || Arrays.stream(times).anyMatch(t -> !(t > 0 && t < Double.POSITIVE_INFINITY))) {
            throw new IllegalArgumentException("frame times are one or more numbers above 0");
        }
        double[] sorted = times.clone();
        Arrays.sort(sorted);
        int n = sorted.length;
        int longest = (int) Math.ceil(LONGEST_SHARE * n);
        double median = Median.withDefaults().withCopy(true).evaluate(sorted);
        double percentile = Quantile.withDefaults()
                .with(Quantile.EstimationMethod.HF7)
                .withCopy(true)
                .evaluate(sorted, 1 - LONGEST_SHARE);
        return new FrameTimes(
                n,
                MS * n / Arrays.stream(sorted).sum(),
                MS / Arrays.stream(sorted, n - longest, n).average().orElseThrow(),
                MS / percentile,
                (int) Arrays.stream(sorted)
                        .filter(t -> t > STUTTER_MEDIANS * median)
                        .count());
    }

    /** The times between points in time: one fewer than these. @throws IllegalArgumentException where a time does not rise */
    public static double[] between(double[] timestamps) {
        if (timestamps.length < 2) {
            throw new IllegalArgumentException("two timestamps or more make frame times");
        }
        double[] times = new double[timestamps.length - 1];
        for (int i = 0; i < times.length; i++) {
            times[i] = timestamps[i + 1] - timestamps[i];
            if (!(times[i] > 0)) {
                throw new IllegalArgumentException("timestamp " + (i + 2) + " is not later than the one before it");
            }
        }
        return times;
    }
}
