package yarrowmark.core.stats;

import java.util.Optional;

/**
 * What is known about the noise of one metric: between the runs of a session, and from session to session.
 *
 * @param runs   what is lent to each sample; empty where nothing is
 * @param days   σᵤ² with what belongs to it; empty where nothing was measured in a second session
 * @param source where {@code runs} comes from
 */
public record Noise(Optional<NoisePrior> runs, Optional<SessionNoise> days, Source source) {
    /** Nothing is lent, and no second session is known. */
    public static final Noise UNKNOWN = new Noise(Optional.empty(), Optional.empty(), Source.NOTHING);

    /** 10 %, which nobody measured; see {@link #assumed}. */
    public static final double ASSUMED_SPREAD = 0.1;

    private static final NoisePrior ASSUMED = new NoisePrior(3, square(Math.log1p(ASSUMED_SPREAD)));
    private static final double STATED_DEGREES_OF_FREEDOM = 4;

    /** From the most to the least that is known. */
    public enum Source {
        /** Samples of the metric itself. */
        METRIC,
        /** Samples of all metrics of its suite version. */
        SUITE_VERSION,
        /** What the reviewer says of the test. */
        STATED,
        NOTHING
    }

    /** The same sessions do not matter: runs alone. */
    public static Noise ofRuns(Optional<NoisePrior> runs) {
        return new Noise(runs, Optional.empty(), runs.isPresent() ? Source.METRIC : Source.NOTHING);
    }

    /**
     * A stated repeatability lends s₀ = ln(1 + p) with 4 degrees of freedom.
     *
     * @param percent p, above 0 and at most 1000
     */
    public static NoisePrior stated(double percent) {
        if (!(percent > 0 && percent <= 1000)) {
            throw new IllegalArgumentException("a stated repeatability is above 0 and at most 1000 %, not " + percent);
        }
        return new NoisePrior(STATED_DEGREES_OF_FREEDOM, square(Math.log1p(percent / 100)));
    }

    /** Whether nothing but the assumed spread of 10 % says how noisy this sample is. */
    public boolean assumed(OwnSpread sample) {
        return runs.isEmpty() && sample.degreesOfFreedom() == 0;
    }

    /** Of a single reading; never unknown, because a spread is assumed where there is none. */
    public WorkingVariance working(OwnSpread sample) {
        return working(sample, runs);
    }

    static WorkingVariance working(OwnSpread sample, Optional<NoisePrior> lent) {
        return NoisePrior.workingVariance(sample, lent).orElseGet(() -> ASSUMED.workingVariance(sample));
    }

    private static double square(double x) {
        return x * x;
    }
}
