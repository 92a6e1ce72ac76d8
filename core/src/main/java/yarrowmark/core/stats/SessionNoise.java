package yarrowmark.core.stats;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * How much the means of one metric differ from session to session, beyond what their runs explain.
 *
 * <p>From the configurations with k ≥ 2 sessions: D = Σ(k − 1),
 * raw = Σ(k − 1)(var of the session means − s̃² mean(1/n)) / D, which may be negative. Lent by the other metrics of the
 * suite version: ρ = max(0, Σ D raw/s₀² / Σ D); with e the sessions beyond the first of each configuration there and
 * Dₗ = min(8, e): σᵤ² = max(0, (D raw + Dₗ ρ s₀²) / (D + Dₗ)).
 *
 * <p>Edge cases: without a second session of any configuration, or where no metric was measured in two of them, nothing is
 * known and nothing comes back. A metric to which no noise of runs is lent takes nothing from the others. Accuracy: nine
 * digits against R 4.2.2. Source: section 11 of the method.
 *
 * @param variance         σᵤ², 0 or more
 * @param degreesOfFreedom D + Dₗ, above 0
 * @param subtracted       c = Σ(k − 1) s̃² mean(1/n) / D, the noise of runs that was taken off; 0 where D = 0
 */
public record SessionNoise(double variance, double degreesOfFreedom, double subtracted) {
    /** Other tests of the suite lend at most as much as eight second sessions. */
    private static final int MOST_LENT = 8;

    public SessionNoise {
        if (!(variance >= 0 && variance < Double.POSITIVE_INFINITY) || !(degreesOfFreedom > 0) || !(subtracted >= 0)) {
            throw new IllegalArgumentException(
                    "noise of sessions needs a variance of 0 or more and degrees above 0, not " + variance + ", "
                            + degreesOfFreedom + ", " + subtracted);
        }
    }

    /** A sample of a suite version. @param metric index of its metric */
    public record Cell(long configuration, int metric, Sample sample) {}

    /** What one metric says by itself. */
    private static final class Own {
        int degrees;
        double raw;
        double subtracted;
    }

    /**
     * @param cells of one suite version
     * @param noise what is lent to the runs of each metric, by index
     * @return for each metric what is known of its sessions
     */
    public static List<Optional<SessionNoise>> fit(List<Cell> cells, List<Optional<NoisePrior>> noise) {
        return fit(cells, noise, Math.min(MOST_LENT, SharedDay.furtherSessions(cells)));
    }

    /** A metric by itself, as a difference metric is: nothing is lent by others. */
    public static Optional<SessionNoise> ofOneMetric(List<Cell> cells, Optional<NoisePrior> noise) {
        return fit(cells, List.of(noise), 0).get(0);
    }

    /** @param lent Dₗ */
    static List<Optional<SessionNoise>> fit(List<Cell> cells, List<Optional<NoisePrior>> noise, int lent) {
        Own[] own = new Own[noise.size()];
        for (int j = 0; j < own.length; j++) {
            own[j] = new Own();
        }
        for (Cell cell : cells) {
            if (cell.sample().sessions().size() > 1) {
                add(own[cell.metric()], cell.sample(), noise.get(cell.metric()));
            }
        }
        double ratios = 0;
        int degrees = 0;
        for (int j = 0; j < own.length; j++) {
            if (own[j].degrees > 0 && noise.get(j).isPresent()) {
                ratios += own[j].raw / noise.get(j).get().variance();
                degrees += own[j].degrees;
            }
        }
        double rho = degrees == 0 ? 0 : Math.max(0, ratios / degrees);
        List<Optional<SessionNoise>> found = new ArrayList<>();
        for (int j = 0; j < own.length; j++) {
            int taken = degrees > 0 && noise.get(j).isPresent() ? lent : 0;
            int all = own[j].degrees + taken;
            double lends =
                    taken == 0 ? 0 : taken * rho * noise.get(j).orElseThrow().variance();
            found.add(
                    all == 0
                            ? Optional.empty()
                            : Optional.of(new SessionNoise(
                                    Math.max(0, (own[j].raw + lends) / all),
                                    all,
                                    own[j].degrees == 0 ? 0 : own[j].subtracted / own[j].degrees)));
        }
        return found;
    }

    /** Adds (k − 1) times what a configuration says; the sums are divided by D only at the end. */
    private static void add(Own own, Sample sample, Optional<NoisePrior> lent) {
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
        double runs = Noise.working(sample, lent).variance() * inverse;
        own.degrees += k - 1;
        own.raw += squares - (k - 1) * runs;
        own.subtracted += (k - 1) * runs;
    }
}
