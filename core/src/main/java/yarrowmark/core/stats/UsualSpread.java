package yarrowmark.core.stats;

/**
 * How far two single results of one test usually differ where nobody has measured it here: of runs and days together.
 *
 * <p>T₀ = ln(1 + p)² with 4 degrees of freedom; half of it is the run's and half the day's. Source: section 2 of the
 * method, with the spreads that are usual for each group of tests.
 *
 * @param percent p, above 0 and at most 1000
 */
public record UsualSpread(double percent) {
    private static final double DEGREES_OF_FREEDOM = 4;
    private static final double SHARE_OF_RUNS = 0.5;

    public UsualSpread {
        if (!(percent > 0 && percent <= 1000)) {
            throw new IllegalArgumentException("a usual spread is above 0 and at most 1000 %, not " + percent);
        }
    }

    /** T₀, of a single result's merit. */
    public double variance() {
        double spread = Math.log1p(percent / 100);
        return spread * spread;
    }

    /** What it lends to runs alone. */
    NoisePrior runs() {
        return new NoisePrior(DEGREES_OF_FREEDOM, SHARE_OF_RUNS * variance());
    }
}
