package yarrowmark.core.stats;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * How far a day moves all tests of a device together, from 0 (each by itself) to 1 (all alike).
 *
 * <p>κ̂ = Σ over configurations with two or more sessions, sessions and pairs of tests of dⱼdₗ (deviations of session means
 * from the configuration's mean) over Σ(k − 1) Σ σᵤⱼσᵤₗ, kept within 0 and 1; κ = (e κ̂ + 4) / (e + 4), with e the
 * sessions beyond the first of each configuration: what is not known is taken as moving together, which errs towards wider
 * intervals. Where two tests were not measured in the same sessions, the number of each counts for its own part.
 *
 * <p>Source: section 11 of the method.
 *
 * @param together        κ, 0 to 1
 * @param furtherSessions e, 0 or more; the degrees of freedom of whatever sessions add to several tests together
 */
public record SharedDay(double together, int furtherSessions) {
    /** Nothing was measured in a second session. */
    public static final SharedDay UNKNOWN = new SharedDay(1, 0);

    /** How many sessions the belief that a day moves everything alike is worth. */
    private static final int BELIEF = 4;

    public SharedDay {
        if (!(together >= 0 && together <= 1) || furtherSessions < 0) {
            throw new IllegalArgumentException("a shared day needs a share of 0 to 1 and sessions of 0 or more, not "
                    + together + ", " + furtherSessions);
        }
    }

    /** @param sessionVariance σᵤ² of each metric, by index; NaN where it is not known */
    public static SharedDay fit(List<SessionNoise.Cell> cells, double[] sessionVariance) {
        int e = furtherSessions(cells);
        if (e == 0) {
            return UNKNOWN;
        }
        Map<Long, Map<Long, Sums>> bySession = new HashMap<>();
        for (SessionNoise.Cell cell : cells) {
            List<Sample.OfSession> sessions = cell.sample().sessions();
            int k = sessions.size();
            double sigma = Math.sqrt(sessionVariance[cell.metric()]);
            if (k < 2 || !(sigma > 0)) {
                continue;
            }
            double mean = sessions.stream()
                    .mapToDouble(s -> s.moments().mean())
                    .average()
                    .orElseThrow();
            Map<Long, Sums> own = bySession.computeIfAbsent(cell.configuration(), c -> new HashMap<>());
            double expected = sigma * Math.sqrt(1 - 1.0 / k);
            for (Sample.OfSession s : sessions) {
                own.computeIfAbsent(s.session(), x -> new Sums())
                        .add(s.moments().mean() - mean, expected);
            }
        }
        double seen = 0;
        double expected = 0;
        for (Map<Long, Sums> sessions : bySession.values()) {
            for (Sums s : sessions.values()) {
                seen += s.d * s.d - s.dd;
                expected += s.q * s.q - s.qq;
            }
        }
        double estimate = expected > 0 ? Math.min(1, Math.max(0, seen / expected)) : 1;
        return new SharedDay((e * estimate + BELIEF) / (e + BELIEF), e);
    }

    /** e: sessions beyond the first of each configuration. */
    static int furtherSessions(List<SessionNoise.Cell> cells) {
        // Most configurations have one session, so sets are made for the others only.
        Map<Long, Long> first = new HashMap<>();
        Map<Long, Set<Long>> further = new HashMap<>();
        int e = 0;
        for (SessionNoise.Cell cell : cells) {
            for (Sample.OfSession s : cell.sample().sessions()) {
                Long known = first.putIfAbsent(cell.configuration(), s.session());
                if (known != null && known != s.session()) {
                    e += further.computeIfAbsent(cell.configuration(), c -> new HashSet<>())
                                    .add(s.session())
                            ? 1
                            : 0;
                }
            }
        }
        return e;
    }

    /**
     * What sessions add to the variance of Σ wδ: (1 − κ) Σq² + κ (Σq)².
     *
     * @param sum     Σq, with q = w √(σᵤ² Σu²)
     * @param squares Σq²
     */
    public double variance(double sum, double squares) {
        return (1 - together) * squares + together * sum * sum;
    }

    /** Sums over the tests of one session: twice the sum over pairs is the square of the sum less the squares. */
    private static final class Sums {
        double d;
        double dd;
        double q;
        double qq;

        void add(double deviation, double expected) {
            d += deviation;
            dd += deviation * deviation;
            q += expected;
            qq += expected * expected;
        }
    }
}
