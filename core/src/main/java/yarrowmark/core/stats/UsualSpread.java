package yarrowmark.core.stats;

/**
 * How far two single results of one test usually differ where nobody has measured it here: of runs and days together.
 *
 * <p>T₀ = ln(1 + p)² with 4 degrees of freedom; half of it is the run's and half the day's. Source: section 2 of the
 * method, with the spreads that are usual for each group of tests.
 *
 * @param percent p, {@value #LEAST} to 1000; with less the variance would vanish
 */
public record UsualSpread(double percent) {
    private static final double LEAST = 1e-4;
    private static final double DEGREES_OF_FREEDOM = 4;
    private static final double SHARE_OF_RUNS = 0.5;

    public UsualSpread {
        if (!(percent >= LEAST && percent <= 1000)) {
            throw new IllegalArgumentException("a usual spread is 0.0001 to 1000 %, not " + percent);
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
