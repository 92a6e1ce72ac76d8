package yarrowmark.core.stats;

import java.util.Optional;

/**
 * What is known about the noise of one metric: between the runs of a session, and from session to session.
 *
 * @param runs   what is lent to each sample; empty where nothing is, not even a usual spread
 * @param days   what is known of sessions; empty where intervals are of runs alone
 * @param source where {@code runs} comes from
 */
public record Noise(Optional<NoisePrior> runs, Optional<SessionNoise> days, Source source) {
    /** Nothing is lent, and nothing is known of days. */
    public static final Noise UNKNOWN = new Noise(Optional.empty(), Optional.empty(), Source.NOTHING);

    /** From the most to the least that is known. */
    public enum Source {
        /** Samples of the metric itself. */
        METRIC,
        /** Samples of all metrics of its suite version. */
        SUITE_VERSION,
        /** What the reviewer says of the test. */
        STATED,
        /** Other tests of the same group on this shelf. */
        GROUP,
        /** What is usual for the group. */
        USUAL,
        NOTHING;

        /** Whether runs of this test, or of tests beside it, were measured again. */
        public boolean isMeasured() {
            return this == METRIC || this == SUITE_VERSION;
        }
    }

    /** Of runs alone: sessions do not matter. */
    public static Noise ofRuns(Optional<NoisePrior> runs) {
        return new Noise(runs, Optional.empty(), runs.isPresent() ? Source.METRIC : Source.NOTHING);
    }

    /** Runs as the spread says, and nothing is known of days yet. */
    public static Noise of(UsualSpread spread, Source source) {
        return new Noise(Optional.of(spread.runs()), Optional.empty(), source);
    }

    public Noise withDays(SessionNoise known) {
        return new Noise(runs, Optional.of(known), source);
    }

    /**
     * Whether nothing that was measured here says how noisy this sample is: it has no second run in any session, nothing
     * measured is lent to it, and hardly a configuration was measured on a second day.
     */
    public boolean isUnmeasured(OwnSpread sample) {
        return sample.degreesOfFreedom() == 0
                && !source.isMeasured()
                && days.map(d -> !d.isMeasured()).orElse(true);
    }

    /** Whether anything says how noisy this sample is; where not, its mean may be anywhere. */
    public boolean isKnown(OwnSpread sample) {
        return runs.isPresent()
                || sample.degreesOfFreedom() > 0
                || days.map(SessionNoise::holdsRuns).orElse(false);
    }

    /**
     * Of a single reading.
     *
     * @throws IllegalArgumentException where nothing is known of it, see {@link #isKnown}
     */
    public WorkingVariance working(OwnSpread sample) {
        return NoisePrior.workingVariance(sample, runs)
                .orElseThrow(() -> new IllegalArgumentException("nothing says how noisy a single reading is"));
    }
}
