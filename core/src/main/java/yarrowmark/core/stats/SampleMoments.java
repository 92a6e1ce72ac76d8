package yarrowmark.core.stats;

import java.util.List;
import java.util.OptionalDouble;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Measured;
import yarrowmark.core.measure.Merit;
import yarrowmark.core.measure.Scale;

/**
 * What later calculations need of a sample, small enough to be stored beside it.
 *
 * <p>For ratio metrics everything is on merits; for difference metrics on the signed values.
 *
 * @param n                  counted readings, 1 or more
 * @param mean               mean merit (signed value for difference metrics)
 * @param sumSquares         Σ(merit − mean)², 0 or more
 * @param resolutionVariance mean((q/x)²)/12, the variance that rounding alone gives; mean(q²)/12 for differences
 */
public record SampleMoments(int n, double mean, double sumSquares, double resolutionVariance) implements OwnSpread {

    public SampleMoments {
        if (n < 1) {
            throw new IllegalArgumentException("n must be 1 or more, not " + n);
        }
        if (!Double.isFinite(mean)) {
            throw new IllegalArgumentException("mean must be finite, not " + mean);
        }
        if (!(sumSquares >= 0) || !(resolutionVariance >= 0)) {
            throw new IllegalArgumentException(
                    "sums of squares must be 0 or more, not " + sumSquares + ", " + resolutionVariance);
        }
    }

    /**
     * Moments of the counted readings, in two passes, so that close values do not cancel.
     *
     * @param readings at least one, each above 0 for a ratio metric
     */
    public static SampleMoments of(List<Measured> readings, Direction direction, Scale scale) {
        if (readings.isEmpty()) {
            throw new IllegalArgumentException("a sample needs at least one reading");
        }
        int n = readings.size();
        double[] merit = new double[n];
        double sum = 0;
        double rounding = 0;
        for (int i = 0; i < n; i++) {
            Measured reading = readings.get(i).checkedFor(scale);
            merit[i] = Merit.of(reading.value(), direction, scale);
            double relative = scale == Scale.RATIO ? reading.resolution() / reading.value() : reading.resolution();
            sum += merit[i];
            rounding += relative * relative;
        }
        double mean = sum / n;
        double squares = 0;
        for (double m : merit) {
            squares += (m - mean) * (m - mean);
        }
        return new SampleMoments(n, mean, squares, rounding / n / 12);
    }

    /** 100 (e^s − 1) with s the standard deviation, for a ratio metric; empty for a single reading. */
    public OptionalDouble spreadPercent() {
        return n < 2
                ? OptionalDouble.empty()
                : OptionalDouble.of(100 * Math.expm1(Math.sqrt(variance().getAsDouble())));
    }

    /** The moments of the readings of both, as if they had been one sample. */
    public SampleMoments pooled(SampleMoments other) {
        int all = n + other.n;
        double apart = other.mean - mean;
        return new SampleMoments(
                all,
                mean + apart * other.n / all,
                sumSquares + other.sumSquares + apart * apart * n * other.n / all,
                (resolutionVariance * n + other.resolutionVariance * other.n) / all);
    }

    /**
     * The same readings for one unit of a quantity: per GHz, per watt, per gram. On merits that is the mean less ln of the
     * quantity, whichever way is better: half the price for the same time is as good as half the time for the same price.
     *
     * @param quantity above 0 and finite, in any unit that all sides share
     */
    public SampleMoments per(double quantity) {
        return new SampleMoments(n, Merit.per(mean, quantity), sumSquares, resolutionVariance);
    }

    /** n − 1. */
    @Override
    public int degreesOfFreedom() {
        return n - 1;
    }

    /** s², never below what rounding alone gives; empty for a single reading. */
    public OptionalDouble variance() {
        return n < 2 ? OptionalDouble.empty() : OptionalDouble.of(Math.max(sumSquares / (n - 1), resolutionVariance));
    }

    /** The best that any of the readings can be, on merits: no value is further from the mean than s (n − 1)/√n. */
    public double bestPossible() {
        return mean + Math.sqrt(sumSquares * (n - 1) / n);
    }
}
