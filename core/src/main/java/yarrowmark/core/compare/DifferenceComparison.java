package yarrowmark.core.compare;

import java.util.Optional;
import yarrowmark.core.stats.Noise;
import yarrowmark.core.stats.Sample;

/**
 * Two samples of a difference metric, such as temperatures: compared by their difference alone, in the metric's unit,
 * never by a ratio. 95 % interval from Student's t with Welch-Satterthwaite degrees of freedom.
 *
 * <p>Edge cases: where a variance is unknown there is no interval, and nothing is said. What difference is too small to
 * matter is not known of such metrics, so an interval that holds 0 is never "level". Source: sections 1 and 3 of the
 * method.
 *
 * @param difference A less the base on the scale where more is better: above 0 is better
 */
public record DifferenceComparison(
        double difference, Optional<Range> interval, Reading reading, int runs, int baseRuns) {
    public enum Reading {
        BETTER,
        WORSE,
        /** Of checks: both passed every time, or neither ever did. */
        SAME,
        CANNOT_TELL
    }

    public record Range(double low, double high) {}

    /**
     * Checks, 1 where passed and 0 where failed, have no noise to estimate: where each side did the same every time, one
     * that fails where the other passes is worse. Where a side did both, nothing is said.
     */
    public static DifferenceComparison ofChecks(Sample a, Sample base) {
        boolean unanimous = a.together().sumSquares() == 0 && base.together().sumSquares() == 0;
        double difference = a.mean() - base.mean();
        Reading reading = !unanimous
                ? Reading.CANNOT_TELL
                : difference > 0 ? Reading.BETTER : difference < 0 ? Reading.WORSE : Reading.SAME;
        return new DifferenceComparison(difference, Optional.empty(), reading, a.n(), base.n());
    }

    /** @param noise of the metric, on its own scale: nothing is assumed of differences */
    public static DifferenceComparison of(Sample a, Sample base, Noise noise) {
        Gap gap = Gap.between(a, base, noise);
        double difference = gap.difference();
        if (!gap.known()) {
            return new DifferenceComparison(difference, Optional.empty(), Reading.CANNOT_TELL, a.n(), base.n());
        }
        double half = PairComparison.half(gap.variance(), gap.degreesOfFreedom());
        Reading reading =
                Math.abs(difference) <= half ? Reading.CANNOT_TELL : difference > 0 ? Reading.BETTER : Reading.WORSE;
        return new DifferenceComparison(
                difference, Optional.of(new Range(difference - half, difference + half)), reading, a.n(), base.n());
    }
}
