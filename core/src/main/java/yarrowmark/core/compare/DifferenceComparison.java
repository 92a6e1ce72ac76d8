package yarrowmark.core.compare;

import java.util.Optional;
import yarrowmark.core.stats.NoisePrior;
import yarrowmark.core.stats.SampleMoments;
import yarrowmark.core.stats.WorkingVariance;

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
        CANNOT_TELL
    }

    public record Range(double low, double high) {}

    /** @param prior what other samples of the same metric lend, fitted on its own scale */
    public static DifferenceComparison of(SampleMoments a, SampleMoments base, Optional<NoisePrior> prior) {
        double difference = a.mean() - base.mean();
        Optional<WorkingVariance> workA = NoisePrior.workingVariance(a, prior);
        Optional<WorkingVariance> workB = NoisePrior.workingVariance(base, prior);
        if (workA.isEmpty() || workB.isEmpty()) {
            return new DifferenceComparison(difference, Optional.empty(), Reading.CANNOT_TELL, a.n(), base.n());
        }
        double va = workA.get().ofMean(a);
        double vb = workB.get().ofMean(base);
        double df = PairComparison.satterthwaite(
                va, workA.get().degreesOfFreedom(), vb, workB.get().degreesOfFreedom());
        double half = va + vb == 0 ? 0 : PairComparison.quantile(df) * Math.sqrt(va + vb);
        Reading reading =
                Math.abs(difference) <= half ? Reading.CANNOT_TELL : difference > 0 ? Reading.BETTER : Reading.WORSE;
        return new DifferenceComparison(
                difference, Optional.of(new Range(difference - half, difference + half)), reading, a.n(), base.n());
    }
}
