package yarrowmark.core.stats;

import java.util.List;

/**
 * The mean merit of a sample, and how well it is known.
 *
 * <p>Sessions weigh u ∝ 1/(σᵤ² + s̃²/n), scaled to sum 1; merit Σuȳ; variance σᵤ² Σu² + s̃² Σu²/n, never below what
 * rounding alone gives. Where σᵤ² is not known, or 0, every run weighs the same. Source: section 11 of the method.
 *
 * @param merit            Σuȳ
 * @param runVariance      the part of runs, s̃² Σu²/n
 * @param runDegrees       d₀ + d
 * @param sessionSquares   Σu²
 * @param sessionVariance  the part of sessions, σᵤ² Σu²; 0 where σᵤ² is not known
 * @param assumed          whether s̃ is the assumed spread, which nobody measured
 * @param withinOneSession whether nothing is known about other days
 */
public record Centre(
        double merit,
        double runVariance,
        double runDegrees,
        double sessionSquares,
        double sessionVariance,
        boolean assumed,
        boolean withinOneSession) {

    /** A variance beside which every difference between readings is nothing. */
    private static final double ANYWHERE = 1e60;

    public static Centre of(Sample sample, Noise noise) {
        WorkingVariance work = noise.working(sample);
        double between = noise.days().map(SessionNoise::variance).orElse(0.0);
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
        double days = between * squares;
        return new Centre(
                merit,
                Math.max(runs, sample.resolutionVariance() - days),
                work.degreesOfFreedom(),
                squares,
                days,
                noise.assumed(sample),
                noise.days().isEmpty());
    }

    /**
     * The same of a difference metric. Of such nothing is assumed, because a spread in per cent is none in degrees: where
     * no spread is known, the mean may be anywhere, and nothing is clear of it.
     */
    public static Centre ofDifference(Sample sample, Noise noise) {
        Centre known = of(sample, noise);
        return known.assumed
                ? new Centre(
                        known.merit, ANYWHERE, known.runDegrees, known.sessionSquares, 0, true, known.withinOneSession)
                : known;
    }

    /** Whether nothing is known of where its true value lies. */
    public boolean isAnywhere() {
        return runVariance >= ANYWHERE;
    }

    /** v, of the mean. */
    public double variance() {
        return runVariance + sessionVariance;
    }
}
