package yarrowmark.core.stats;

import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * How far a day moves all tests of a device together, from 0 (each by itself) to 1 (all alike).
 *
 * <p>κ̂ = Σ over configurations with two or more sessions, sessions and pairs of tests of dⱼdₗ over Σ(k − 1) Σ σᵤⱼσᵤₗ, kept
 * within 0 and 1, with d the deviations of session means from the configuration's mean, none above
 * √(F₀.₉₉ (σᵤ² + s̃² mean(1/n))); κ = (e κ̂ + 4) / (e + 4), with e the sessions beyond the first of each configuration, as
 * many as the metric with the most has: what is not known is taken as moving together, which errs towards wider intervals.
 * Where two tests were not measured in the same sessions, the number of each counts for its own part.
 *
 * <p>Source: section 11 of the method.
 *
 * @param together        κ, 0 to 1
 * @param furtherSessions e, 0 or more; over several suites the mean of theirs
 * @param devices         configurations measured in two sessions or more
 */
public record SharedDay(double together, double furtherSessions, DayBasis devices) {
    /** Nothing was measured in a second session. */
    public static final SharedDay UNKNOWN = new SharedDay(1, 0, DayBasis.NONE);

    /** How many sessions the belief that a day moves everything alike is worth. */
    private static final int BELIEF = SessionNoise.BELIEF;

    public SharedDay {
        if (!(together >= 0 && together <= 1) || !(furtherSessions >= 0)) {
            throw new IllegalArgumentException("a shared day needs a share of 0 to 1 and sessions of 0 or more, not "
                    + together + ", " + furtherSessions);
        }
    }

    /** Of whatever sessions add to several tests together: e + P. */
    public double degreesOfFreedom() {
        return furtherSessions + BELIEF;
    }

    /** @param cells of one suite version. @param noise of each metric, by index, with what is known of its days */
    public static SharedDay fit(List<SessionNoise.Cell> cells, List<Noise> noise) {
        Map<Long, Integer> most = new HashMap<>();
        Map<Long, Map<Long, Sums>> bySession = new HashMap<>();
        for (SessionNoise.Cell cell : cells) {
            List<Sample.OfSession> sessions = cell.sample().sessions();
            int k = sessions.size();
            Noise own = noise.get(cell.metric());
            if (k < 2) {
                continue;
            }
            most.merge(cell.configuration(), k - 1, Math::max);
            if (own.days().isEmpty()) {
                continue;
            }
            SessionNoise days = own.days().get();
            double mean = sessions.stream()
                    .mapToDouble(s -> s.moments().mean())
                    .average()
                    .orElseThrow();
            Map<Long, Sums> sums = bySession.computeIfAbsent(cell.configuration(), c -> new HashMap<>());
            double expected = Math.sqrt(ofDays(days) * (k - 1) / k);
            double bound = Math.sqrt(
                    OddSessions.mostRatio(k - 1, BELIEF + Math.max(0, days.repeated() - (k - 1))) * ofMean(cell, own));
            for (Sample.OfSession s : sessions) {
                double deviation = s.moments().mean() - mean;
                sums.computeIfAbsent(s.session(), x -> new Sums())
                        .add(Math.max(-bound, Math.min(bound, deviation)), expected);
            }
        }
        int e = most.values().stream().mapToInt(Integer::intValue).sum();
        if (e == 0) {
            return UNKNOWN;
        }
        double seen = 0;
        double expected = 0;
        for (Map<Long, Sums> sessions : bySession.values()) {
            for (Sums s : sessions.values()) {
                seen += s.d * s.d - s.dd;
                expected += s.q * s.q - s.qq;
            }
        }
        // Rounding leaves a little of one test alone, which has no pair.
        double estimate = expected > 1e-12 * sumOfSquares(bySession) ? Math.min(1, Math.max(0, seen / expected)) : 1;
        return new SharedDay((e * estimate + BELIEF) / (e + BELIEF), e, DayBasis.of(most.size()));
    }

    private static double sumOfSquares(Map<Long, Map<Long, Sums>> bySession) {
        double sum = 0;
        for (Map<Long, Sums> sessions : bySession.values()) {
            for (Sums s : sessions.values()) {
                sum += s.qq;
            }
        }
        return sum;
    }

    /** σᵤ²; half of what holds runs as well. */
    private static double ofDays(SessionNoise days) {
        return days.holdsRuns() ? days.variance() / 2 : days.variance();
    }

    /** What one session's mean varies by: σᵤ² + s̃² mean(1/n). */
    private static double ofMean(SessionNoise.Cell cell, Noise noise) {
        SessionNoise days = noise.days().orElseThrow();
        return days.holdsRuns()
                ? days.variance()
                : days.variance()
                        + noise.working(cell.sample()).variance()
                                * SessionNoise.Spread.of(cell.sample()).meanInverse();
    }

    /**
     * Over tests of several suites: the mean of theirs, weighted.
     *
     * @param weights 0 or more, not all 0
     */
    public static SharedDay weighted(List<SharedDay> days, double[] weights) {
        double sum = 0;
        double together = 0;
        double further = 0;
        DayBasis devices = null;
        for (int i = 0; i < weights.length; i++) {
            sum += weights[i];
            together += weights[i] * days.get(i).together;
            further += weights[i] * days.get(i).furtherSessions;
            if (weights[i] > 0) {
                DayBasis own = days.get(i).devices;
                devices = devices == null ? own : devices.with(own);
            }
        }
        return new SharedDay(Math.min(1, together / sum), further / sum, devices == null ? DayBasis.NONE : devices);
    }

    /**
     * What sessions add to the variance of Σ wδ: (1 − κ) Σq² + κ (Σq)².
     *
     * @param sum     Σq, with q = w √(σᵤ² Σu²)
     * @param squares Σq²
     */
    public double variance(double sum, double squares) {
        return variance(together, sum, squares);
    }

    /** The same for a κ of its own. */
    public static double variance(double together, double sum, double squares) {
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
