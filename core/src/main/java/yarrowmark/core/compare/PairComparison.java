package yarrowmark.core.compare;

import yarrowmark.core.stats.Noise;
import yarrowmark.core.stats.Sample;
import yarrowmark.core.stats.StudentT;

/**
 * Two samples of one ratio metric: δ = merit of A − merit of the base; ratio e^δ, better above 1; 95 % interval from
 * Student's t with v = σᵤ² Σu² + s̃² Σu²/n a side and Welch-Satterthwaite degrees of freedom, at least 1.
 *
 * <p>Edge cases: where σᵤ² is not known, the interval holds within one session only and says so. Where a side rests on the
 * assumed spread, nothing below a ratio of 1.5 is called clear. Where both variances are 0 the interval is the ratio
 * itself. Accuracy: nine digits against R 4.2.2.
 *
 * <p>Source: B. L. Welch, "The generalization of 'Student's' problem when several different population variances are
 * involved", 1947, doi:10.1093/biomet/34.1-2.28; F. E. Satterthwaite, 1946, doi:10.2307/3002019; sections 3 and 11 of the
 * method.
 *
 * @param difference       δ on merits
 * @param interval         of the ratio
 * @param runs             readings of A
 * @param baseRuns         readings of the base
 * @param parts            of the variance of δ
 * @param assumed          whether it rests on the assumed spread of 10 %, which nobody measured
 * @param withinOneSession whether nothing is known about other days
 */
public record PairComparison(
        double difference,
        Interval interval,
        Verdict verdict,
        RunsNeeded runsNeeded,
        int runs,
        int baseRuns,
        Parts parts,
        boolean assumed,
        boolean withinOneSession) {

    /** Past this many runs a side, more runs are not a sensible answer. */
    public static final int MOST_RUNS = 40;

    /** Nothing nearer than this is called clear on an assumed spread. */
    private static final double CLEAR_ON_ASSUMED = Math.log(1.5);

    /**
     * @param low                 lower end of the ratio's 95 % interval
     * @param high                upper end
     * @param standardError       of δ
     * @param degreesOfFreedom    Welch-Satterthwaite
     */
    public record Interval(double low, double high, double standardError, double degreesOfFreedom) {
        /** Half of its width on merits. */
        public double half() {
            return PairComparison.half(standardError * standardError, degreesOfFreedom);
        }

        /** e to the power of a difference on merits, with its 95 % interval. */
        public static Interval around(double difference, double variance, double degreesOfFreedom) {
            double half = PairComparison.half(variance, degreesOfFreedom);
            return new Interval(
                    Math.exp(difference - half), Math.exp(difference + half), Math.sqrt(variance), degreesOfFreedom);
        }
    }

    /**
     * @param runs         the part of runs of both sides
     * @param runsByDegree Σ v²/d over both, for Satterthwaite
     * @param sessions     the part of sessions, (ΣuA² + ΣuB²) σᵤ²
     */
    public record Parts(double runs, double runsByDegree, double sessions) {}

    /** How many times as good as the base, above 1 where better. */
    public double ratio() {
        return Math.exp(difference);
    }

    /** @param noise of the metric: what is lent to runs, and what is known of sessions */
    public static PairComparison of(Sample a, Sample base, Noise noise, Materiality materiality) {
        Gap gap = Gap.between(a, base, noise);
        double delta = gap.difference();
        double half = half(gap.variance(), gap.degreesOfFreedom());
        double limit = materiality.onMerits();
        Verdict verdict = Verdict.of(delta, half, gap.assumed() ? Math.max(limit, CLEAR_ON_ASSUMED) : limit, limit);
        RunsNeeded needed = verdict == Verdict.CANNOT_TELL
                ? Advice.of(a, base, noise, gap.parts(), Math.max(Math.abs(delta), limit))
                : new RunsNeeded.None();
        return new PairComparison(
                delta,
                Interval.around(delta, gap.variance(), gap.degreesOfFreedom()),
                verdict,
                needed,
                a.n(),
                base.n(),
                gap.parts(),
                gap.assumed(),
                gap.withinOneSession());
    }

    /** Half-width of the 95 % interval. */
    static double half(double variance, double degreesOfFreedom) {
        return variance == 0 ? 0 : StudentT.upper(degreesOfFreedom) * Math.sqrt(variance);
    }
}
