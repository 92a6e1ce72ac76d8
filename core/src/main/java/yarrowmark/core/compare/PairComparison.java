package yarrowmark.core.compare;

import yarrowmark.core.measure.Direction;
import yarrowmark.core.stats.Centre;
import yarrowmark.core.stats.Noise;
import yarrowmark.core.stats.Sample;
import yarrowmark.core.stats.StudentT;

/**
 * Two samples of one ratio metric: δ = merit of A − merit of the base; ratio e^δ, better above 1; 95 % interval from
 * Student's t with v = σᵤᵢ² Σu² + s̃² Σu²/n a side and Welch-Satterthwaite degrees of freedom, at least 1.
 *
 * <p>Edge cases: where a side rests on a spread that is only stated or usual, the verdict says "probably" in place of "clear".
 * Where nothing at all is known of its noise, nothing is told. Where both variances are 0 the interval is the ratio itself.
 * Accuracy: nine digits against R 4.2.2.
 *
 * <p>Source: B. L. Welch, "The generalization of 'Student's' problem when several different population variances are
 * involved", 1947, doi:10.1093/biomet/34.1-2.28; F. E. Satterthwaite, 1946, doi:10.2307/3002019; sections 3 and 11 of the
 * method.
 *
 * @param difference δ on merits
 * @param interval   of the ratio
 * @param runs       readings of A
 * @param baseRuns   readings of the base
 * @param parts      of the variance of δ
 * @param unmeasured whether it rests on a stated or usual spread, which nobody measured here
 */
public record PairComparison(
        double difference,
        Interval interval,
        Verdict verdict,
        RunsNeeded runsNeeded,
        int runs,
        int baseRuns,
        Parts parts,
        boolean unmeasured) {

    /** Past this many runs a side, more runs are not a sensible answer. */
    public static final int MOST_RUNS = 40;

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
     * @param sessions     the part of sessions, σᵤA² ΣuA² + σᵤB² ΣuB²
     * @param expected     v ν/(ν − 2) where it rests on a spread that nobody measured, with ν = D + P: the mean of what so few
     *                     degrees of freedom allow; 0 elsewhere
     */
    public record Parts(double runs, double runsByDegree, double sessions, double expected) {
        /** P, where nothing was measured twice, and D + P where one second session was. */
        private static final double FEWEST_BELIEVED = 4;

        private static final double MOST_BELIEVED = 5;

        static Parts of(Centre a, Centre base) {
            double runs = a.runVariance() + base.runVariance();
            double byDegree = a.holdsRuns()
                    ? Gap.square(runs) / a.dayDegrees()
                    : Gap.square(a.runVariance()) / a.runDegrees() + Gap.square(base.runVariance()) / base.runDegrees();
            double variance = a.variance() + base.variance();
            double degrees = Math.max(FEWEST_BELIEVED, Math.min(a.dayDegrees(), MOST_BELIEVED));
            return new Parts(
                    runs,
                    byDegree,
                    a.sessionVariance() + base.sessionVariance(),
                    a.unmeasured() || base.unmeasured() ? variance * degrees / (degrees - 2) : 0);
        }
    }

    /** How many times as good as the base, above 1 where better. */
    public double ratio() {
        return Math.exp(difference);
    }

    /**
     * By how much the value differs from the base's, in the metric's own unit; above 0 where it is more.
     *
     * @param value of the one that is compared, in the same unit
     */
    public double apart(double value, Direction direction) {
        // As the ratio says it, so that both speak of one difference: means of logarithms have other differences than
        // means.
        return value * (1 - (direction == Direction.MORE_IS_BETTER ? 1 / ratio() : ratio()));
    }

    /** @param noise of the metric: what is lent to runs, and what is known of sessions */
    public static PairComparison of(Sample a, Sample base, Noise noise, Materiality materiality) {
        Gap gap = Gap.between(a, base, noise);
        double delta = gap.difference();
        double half = half(gap.variance(), gap.degreesOfFreedom());
        double limit = materiality.onMerits();
        Verdict verdict = Verdict.of(delta, half, limit).ifUnmeasured(gap.unmeasured());
        RunsNeeded needed = verdict == Verdict.CANNOT_TELL
                ? Advice.of(a, base, noise, Math.max(Math.abs(delta), limit))
                : new RunsNeeded.None();
        return new PairComparison(
                delta,
                Interval.around(delta, gap.variance(), gap.degreesOfFreedom()),
                verdict,
                needed,
                a.n(),
                base.n(),
                gap.parts(),
                gap.unmeasured());
    }

    /** Half-width of the 95 % interval. */
    static double half(double variance, double degreesOfFreedom) {
        return variance == 0 ? 0 : StudentT.upper(degreesOfFreedom) * Math.sqrt(variance);
    }
}
