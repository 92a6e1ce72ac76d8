package yarrowmark.core.stats;

/** What a sample says about the noise of its own runs: of one session, or of several put together within each. */
public sealed interface OwnSpread permits SampleMoments, Sample {
    /** Counted readings, 1 or more. */
    int n();

    /** Readings beyond the first of each session; 0 says nothing about noise. */
    int degreesOfFreedom();

    /** Σ(merit − mean of its session)². */
    double sumSquares();

    /** The variance that rounding alone gives. */
    double resolutionVariance();
}
