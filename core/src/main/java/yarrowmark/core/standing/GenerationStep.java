package yarrowmark.core.standing;

import java.util.OptionalDouble;
import yarrowmark.core.compare.Materiality;
import yarrowmark.core.compare.Verdict;

/**
 * How far one standing is above another: from one generation of a line to the next.
 *
 * <p>ratio = e^(a of the later − a of the earlier); 95 % interval ± 1.959964 √(var + var), as for places. Where a run noise
 * is not known there is no interval and nothing can be told. Source: sections 3 and 5 of the method.
 *
 * @param ratio above 1 is better
 * @param low   lower end of the interval, as a ratio
 */
public record GenerationStep(double ratio, OptionalDouble low, OptionalDouble high, Verdict verdict) {
    /** @throws IllegalArgumentException where one of them is not linked to the reference */
    public static GenerationStep between(Standing.Entry earlier, Standing.Entry later, Materiality materiality) {
        if (earlier.merit().isEmpty() || later.merit().isEmpty()) {
            throw new IllegalArgumentException("a step needs two configurations that are linked to the reference");
        }
        double delta = later.merit().getAsDouble() - earlier.merit().getAsDouble();
        if (earlier.standardError().isEmpty() || later.standardError().isEmpty()) {
            return new GenerationStep(
                    Math.exp(delta), OptionalDouble.empty(), OptionalDouble.empty(), Verdict.CANNOT_TELL);
        }
        double half = ClearOrder.CLEAR
                * Math.hypot(
                        earlier.standardError().getAsDouble(),
                        later.standardError().getAsDouble());
        return new GenerationStep(
                Math.exp(delta),
                OptionalDouble.of(Math.exp(delta - half)),
                OptionalDouble.of(Math.exp(delta + half)),
                Verdict.of(delta, half, materiality.onMerits()));
    }
}
