package yarrowmark.core.stats;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;

/**
 * How much the means of one metric differ from session to session, beyond what their runs explain.
 *
 * <p>Before anything is measured twice, days are taken to differ as much as runs do, which is worth P = 4 sessions:
 * σᵤ² = max(0, (D raw + H ρ s₀² + P s₀²) / (D + H + P)). From the configurations with k ≥ 2 sessions: D = Σ(k − 1) and
 * raw = Σ(k − 1)(var′ − s̃² mean(1/n)) / D, which may be negative, with var′ the variance of the session means, bounded by
 * {@link OddSessions}. Lent by the other metrics of the suite version: ρ = max(0, Σ D raw/s₀² / Σ D) and H = min(8, e), 0 where
 * no other metric was measured again; e = Σ over configurations of the most sessions that any metric has there, less 1.
 *
 * <p><b>One run a session.</b> Where no session of the metric has two runs and nothing measured is lent, the spread between
 * sessions holds runs and days together: T = (Σ(k − 1)var′ + P T₀) / (D + P) with D + P degrees of freedom.
 *
 * <p>Edge cases: a metric of which not even a usual spread is known, such as a temperature, takes its own pooled variance
 * within sessions for s₀²; where there is none, days are known only from its own sessions, and without a second one not at
 * all. Accuracy: nine digits against R 4.2.2. Source: section 11 of the method.
 *
 * @param variance         σᵤ², 0 or more; T where it holds runs as well
 * @param degreesOfFreedom D + H + P, above 0
 * @param subtracted       c = Σ(k − 1) s̃² mean(1/n) / (D + H + P), the noise of runs that was taken off
 * @param repeated         D, sessions beyond the first of each configuration
 * @param holdsRuns        whether {@code variance} is of runs and days together
 */
public record SessionNoise(
        double variance, double degreesOfFreedom, double subtracted, int repeated, boolean holdsRuns) {
    /** P: how many sessions the belief is worth that days differ as much as runs do. */
    public static final int BELIEF = 4;

    /** Other tests of the suite lend at most as much as eight second sessions. */
    private static final int MOST_LENT = 8;
    /** A configuration's own days count beside those of all others, which are worth at most so many sessions. */
    private static final int MOST_OF_ALL = 8;
    /** From so many second sessions on, what is known of days was measured. */
    private static final int MEASURED = 2;
    /** Half of a spread of runs and days together is that of runs, so all of it is twice that. */
    private static final double WHOLE_OF_RUNS = 2;

    public SessionNoise {
        if (!(variance >= 0 && variance < Double.POSITIVE_INFINITY) || !(degreesOfFreedom > 0) || !(subtracted >= 0)) {
            throw new IllegalArgumentException(
                    "noise of sessions needs a variance of 0 or more and degrees above 0, not " + variance + ", "
                            + degreesOfFreedom + ", " + subtracted);
        }
    }

    /** A sample of a suite version. @param metric index of its metric */
    public record Cell(long configuration, int metric, Sample sample) {}

    /**
     * @param noise for each metric what is known of its sessions; empty where nothing is
     * @param odd   of each metric, the samples whose sessions differ far more than sessions do elsewhere
     */
    public record Found(List<Optional<SessionNoise>> noise, List<List<Cell>> odd) {}

    /** Whether enough was measured on a second day to say so. */
    public boolean isMeasured() {
        return repeated >= MEASURED;
    }

    /** @param cells of one suite version. @param runs what is known of the runs of each metric, by index */
    public static Found fit(List<Cell> cells, List<Noise> runs) {
        List<Own> own = runs.stream().map(Own::new).toList();
        Map<Long, Integer> most = new HashMap<>();
        for (Cell cell : cells) {
            own.get(cell.metric()).note(cell.sample());
        }
        for (Cell cell : cells) {
            int sessions = cell.sample().sessions().size();
            if (sessions > 1) {
                own.get(cell.metric()).repeat(cell);
                most.merge(cell.configuration(), sessions - 1, Math::max);
            }
        }
        own.forEach(Own::bound);
        int e = most.values().stream().mapToInt(Integer::intValue).sum();
        return new Found(
                IntStream.range(0, own.size()).mapToObj(j -> known(own, j, e)).toList(),
                own.stream().map(o -> List.copyOf(o.odd)).toList());
    }

    private static Optional<SessionNoise> known(List<Own> all, int metric, int e) {
        Own own = all.get(metric);
        if (own.holdsRuns()) {
            int belief = Double.isNaN(own.s02) ? 0 : BELIEF;
            int degrees = own.degrees + belief;
            double expected = belief == 0 ? 0 : belief * WHOLE_OF_RUNS * own.s02;
            return degrees == 0
                    ? Optional.empty()
                    : Optional.of(new SessionNoise((own.squares + expected) / degrees, degrees, 0, own.degrees, true));
        }
        double ratios = 0;
        int degrees = 0;
        for (int j = 0; j < all.size(); j++) {
            Own other = all.get(j);
            if (j != metric && other.degrees > 0 && other.s02 > 0) {
                ratios += other.raw() / other.s02;
                degrees += other.degrees;
            }
        }
        int lent = degrees == 0 ? 0 : Math.min(MOST_LENT, e);
        double rho = degrees == 0 ? 0 : Math.max(0, ratios / degrees);
        double whole = own.degrees + lent + BELIEF;
        return Optional.of(new SessionNoise(
                Math.max(0, (own.raw() + (lent * rho + BELIEF) * own.s02) / whole),
                whole,
                own.subtracted / whole,
                own.degrees,
                false));
    }

    /**
     * σᵤᵢ²: for its own centre a configuration keeps what it showed, where that is more than elsewhere.
     *
     * @param working s̃² of a run
     */
    double own(Sample sample, double working) {
        Spread spread = Spread.of(sample);
        if (spread.k() < 2) {
            return variance;
        }
        double others = Math.min(MOST_OF_ALL, degreesOfFreedom);
        double showed = Math.max(0, spread.variance() - working * spread.meanInverse());
        return Math.max(variance, (others * variance + (spread.k() - 1) * showed) / (others + spread.k() - 1));
    }

    /** How a sample's session means scatter. @param meanInverse mean(1/n) over its sessions */
    record Spread(int k, double variance, double meanInverse) {
        static Spread of(Sample sample) {
            List<Sample.OfSession> sessions = sample.sessions();
            int k = sessions.size();
            double mean = 0;
            double inverse = 0;
            for (Sample.OfSession s : sessions) {
                mean += s.moments().mean() / k;
                inverse += 1.0 / s.moments().n() / k;
            }
            double squares = 0;
            for (Sample.OfSession s : sessions) {
                squares += (s.moments().mean() - mean) * (s.moments().mean() - mean);
            }
            return new Spread(k, k < 2 ? 0 : squares / (k - 1), inverse);
        }
    }

    /** What one metric says by itself. */
    private static final class Own {
        private final Noise runs;
        private boolean severalRuns;
        private double within;
        private int withinDegrees;
        private double s02 = Double.NaN;
        private final List<Cell> repeated = new ArrayList<>();
        private final List<OddSessions.Repeated> spreads = new ArrayList<>();
        private final List<Cell> odd = new ArrayList<>();
        private int degrees;
        /** Σ(k − 1) var′. */
        private double squares;
        /** Σ(k − 1) s̃² mean(1/n). */
        private double subtracted;

        Own(Noise runs) {
            this.runs = runs;
            runs.runs().ifPresent(prior -> s02 = prior.variance());
        }

        void note(Sample sample) {
            int d = sample.degreesOfFreedom();
            severalRuns |= d > 0;
            if (d > 0 && runs.runs().isEmpty()) {
                within += Math.max(sample.sumSquares(), d * sample.resolutionVariance());
                withinDegrees += d;
                s02 = within / withinDegrees;
            }
        }

        void repeat(Cell cell) {
            Spread spread = Spread.of(cell.sample());
            double working =
                    runs.isKnown(cell.sample()) ? runs.working(cell.sample()).variance() : s02;
            double ofRuns = Double.isNaN(working) ? 0 : working * spread.meanInverse();
            repeated.add(cell);
            spreads.add(new OddSessions.Repeated(
                    spread.k(), spread.variance(), Double.isNaN(s02) ? Double.NaN : s02 + ofRuns));
            degrees += spread.k() - 1;
            subtracted += (spread.k() - 1) * ofRuns;
        }

        void bound() {
            double[] bounded = OddSessions.bounded(spreads);
            for (int i = 0; i < bounded.length; i++) {
                squares += (spreads.get(i).k() - 1) * bounded[i];
                if (bounded[i] < spreads.get(i).variance()) {
                    odd.add(repeated.get(i));
                }
            }
        }

        /** D times raw. */
        double raw() {
            return squares - subtracted;
        }

        boolean holdsRuns() {
            return !severalRuns && !runs.source().isMeasured();
        }
    }
}
