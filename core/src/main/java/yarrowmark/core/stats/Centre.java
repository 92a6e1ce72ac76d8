package yarrowmark.core.stats;

import java.util.List;

/**
 * The mean merit of a sample, and how well it is known.
 *
 * <p>Sessions weigh u ∝ 1/(σᵤᵢ² + s̃²/n), scaled to sum 1; merit Σuȳ; variance σᵤᵢ² Σu² + s̃² Σu²/n, never below what
 * rounding alone gives. Where nothing is known of days, every run weighs the same. Where sessions have one run each, the
 * plain mean with T/k, half of it the run's and half the day's. Where nothing at all says how noisy it is, as for a single
 * temperature, the mean may be anywhere, and nothing is clear of it. Source: section 11 of the method.
 *
 * @param merit           Σuȳ
 * @param runVariance     the part of runs, s̃² Σu²/n
 * @param runDegrees      d₀ + d
 * @param sessionSquares  Σu²
 * @param sessionVariance the part of sessions, σᵤᵢ² Σu²; 0 where nothing is known of days
 * @param dayDegrees      degrees of freedom of what is known of days; infinite where nothing is
 * @param subtracted      c: the noise of runs that was taken off to find σᵤ²
 * @param holdsRuns       whether both parts are halves of one T
 * @param unmeasured      whether it rests on a stated or usual spread, which nobody measured here
 */
public record Centre(
        double merit,
        double runVariance,
        double runDegrees,
        double sessionSquares,
        double sessionVariance,
        double dayDegrees,
        double subtracted,
        boolean holdsRuns,
        boolean unmeasured) {

    /** A variance beside which every difference between readings is nothing. */
    private static final double ANYWHERE = 1e60;

    /** A merit whose variance is known for certain. */
    public static Centre certain(double merit, double variance) {
        return new Centre(merit, variance, Double.POSITIVE_INFINITY, 1, 0, Double.POSITIVE_INFINITY, 0, false, false);
    }

    public static Centre of(Sample sample, Noise noise) {
        if (!noise.isKnown(sample)) {
            return new Centre(sample.mean(), ANYWHERE, 1, 1, 0, Double.POSITIVE_INFINITY, 0, false, true);
        }
        SessionNoise days = noise.days().orElse(null);
        if (days != null && days.holdsRuns()) {
            return ofSingles(sample, noise, days);
        }
        WorkingVariance work = noise.working(sample);
        double between = days == null ? 0 : days.own(sample, work.variance());
        List<Sample.OfSession> sessions = sample.sessions();
        double merit = sample.mean();
        double squares = 1;
        double runs = work.variance() / sample.n();
        if (sessions.size() > 1) {
            double sum = 0;
            double[] u = new double[sessions.size()];
            for (int i = 0; i < u.length; i++) {
                int n = sessions.get(i).moments().n();
                // Without noise of any kind, or none between sessions, u is in proportion to the runs.
                u[i] = between > 0 ? 1 / (between + work.variance() / n) : n;
                sum += u[i];
            }
            merit = 0;
            squares = 0;
            runs = 0;
            for (int i = 0; i < u.length; i++) {
                SampleMoments m = sessions.get(i).moments();
                double share = u[i] / sum;
                merit += share * m.mean();
                squares += share * share;
                runs += share * share * work.variance() / m.n();
            }
        }
        double ofDays = between * squares;
        return new Centre(
                merit,
                Math.max(runs, sample.resolutionVariance() - ofDays),
                work.degreesOfFreedom(),
                squares,
                ofDays,
                days == null ? Double.POSITIVE_INFINITY : days.degreesOfFreedom(),
                days == null ? 0 : days.subtracted(),
                false,
                noise.isUnmeasured(sample));
    }

    private static Centre ofSingles(Sample sample, Noise noise, SessionNoise days) {
        int k = sample.sessions().size();
        double half = Math.max(days.variance() / k, sample.resolutionVariance()) / 2;
        return new Centre(
                sample.mean(),
                half,
                days.degreesOfFreedom(),
                1.0 / k,
                half,
                days.degreesOfFreedom(),
                0,
                true,
                noise.isUnmeasured(sample));
    }

    /** Whether nothing is known of where its true value lies. */
    public boolean isAnywhere() {
        return runVariance >= ANYWHERE;
    }

    /** v, of the mean. */
    public double variance() {
        return runVariance + sessionVariance;
    }

    /** Degrees of freedom of v by itself, at least 1. */
    public double degreesOfFreedom() {
        return degrees(List.of(this));
    }

    /** Of a difference of two: the estimates of days are shared by both. */
    public double degreesWith(Centre other) {
        return degrees(List.of(this, other));
    }

    private static double degrees(List<Centre> sides) {
        double total = 0;
        double terms = 0;
        double days = 0;
        double taken = 0;
        for (Centre c : sides) {
            total += c.variance();
            if (!c.holdsRuns) {
                terms += c.runVariance * c.runVariance / c.runDegrees;
            }
            days += c.holdsRuns ? c.variance() : c.sessionVariance;
            taken += c.sessionSquares;
        }
        Centre any = sides.get(0);
        days += taken * any.subtracted;
        terms += days * days / any.dayDegrees;
        return terms == 0 ? sides.stream().mapToDouble(Centre::runDegrees).sum() : Math.max(1, total * total / terms);
    }
}
