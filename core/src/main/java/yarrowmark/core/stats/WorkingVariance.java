package yarrowmark.core.stats;

/**
 * The variance a comparison works with, after borrowing.
 *
 * @param variance              s̃² of a single reading's merit, 0 or more
 * @param degreesOfFreedom      d₀ + d, above 0
 * @param lentDegreesOfFreedom  d₀, the part that other samples lent; 0 where nothing was lent
 */
public record WorkingVariance(double variance, double degreesOfFreedom, double lentDegreesOfFreedom) {
    public WorkingVariance {
        if (!(variance >= 0 && variance < Double.POSITIVE_INFINITY)) {
            throw new IllegalArgumentException("variance must be 0 or more and finite, not " + variance);
        }
        if (!(degreesOfFreedom > 0)) {
            throw new IllegalArgumentException("degreesOfFreedom must be above 0, not " + degreesOfFreedom);
        }
        if (!(lentDegreesOfFreedom >= 0)) {
            throw new IllegalArgumentException("lentDegreesOfFreedom must be 0 or more, not " + lentDegreesOfFreedom);
        }
    }

    /** Of the mean of this sample: rounding does not average out over equal runs, so never below what it alone gives. */
    public double ofMean(OwnSpread sample) {
        return Math.max(variance / sample.n(), sample.resolutionVariance());
    }

    /** The standard deviation of a single reading's merit. */
    public double deviation() {
        return Math.sqrt(variance);
    }
}
