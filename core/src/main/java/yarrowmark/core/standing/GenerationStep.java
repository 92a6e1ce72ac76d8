package yarrowmark.core.standing;

import yarrowmark.core.compare.Materiality;
import yarrowmark.core.compare.PairComparison;
import yarrowmark.core.compare.Verdict;

/**
 * How far one standing is above another: from one generation of a line to the next.
 *
 * <p>ratio = e^(a of the later − a of the earlier); 95 % interval from Student's t with the noise of both, as for places.
 * Source: sections 3 and 5 of the method.
 *
 * @param ratio above 1 is better
 */
public record GenerationStep(double ratio, PairComparison.Interval interval, Verdict verdict) {
    /** @throws IllegalArgumentException where one of them is not linked to the reference */
    public static GenerationStep between(
            Standing standing, Standing.Entry earlier, Standing.Entry later, Materiality materiality) {
        if (earlier.merit().isEmpty() || later.merit().isEmpty()) {
            throw new IllegalArgumentException("a step needs two configurations that are linked to the reference");
        }
        double delta = later.merit().getAsDouble() - earlier.merit().getAsDouble();
        PairComparison.Interval interval = standing.between(earlier, later);
        return new GenerationStep(
                Math.exp(delta),
                interval,
                Verdict.of(delta, interval.half(), materiality.onMerits())
                        .ifUnmeasured(earlier.unmeasured().most()
                                || later.unmeasured().most()));
    }
}
