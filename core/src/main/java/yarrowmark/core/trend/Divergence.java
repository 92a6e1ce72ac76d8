package yarrowmark.core.trend;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import yarrowmark.core.compare.Materiality;
import yarrowmark.core.compare.PairComparison;

/**
 * How far two lines along the same steps are from one another at one of them, both counted from the first step that both
 * have. They part where that is told after correction for every step that was looked at, and is as much as matters.
 *
 * <p>δ is the difference of both merits, its variance the sum of both, with degrees of freedom by Welch and Satterthwaite:
 * two devices share no run and no session. At the first common step δ is 0 by definition, so that one is not looked at.
 * Source: sections 3 and 7 of the method.
 *
 * @param step     its place
 * @param delta    on merits, above 0 where the second line is better
 * @param interval of the ratio
 * @param corrected two-sided p for all steps that were looked at
 * @param told     whether they are apart here
 */
public record Divergence(int step, double delta, PairComparison.Interval interval, double corrected, boolean told) {
    /** A line at a step. @param merit less that of the first common step. @param interval of the ratio to it */
    public record At(int step, double merit, PairComparison.Interval interval) {}

    public double ratio() {
        return Math.exp(delta);
    }

    /** One for each common step after the first; both lines in the order of their steps. */
    public static List<Divergence> between(List<At> one, List<At> other, Materiality materiality) {
        List<At> ofOne = one.stream().filter(a -> has(other, a.step())).toList();
        List<At> ofOther = other.stream().filter(a -> has(one, a.step())).toList();
        List<PairComparison.Interval> intervals = new ArrayList<>();
        double[] deltas = new double[Math.max(0, ofOne.size() - 1)];
        for (int i = 1; i < ofOne.size(); i++) {
            deltas[i - 1] = ofOther.get(i).merit() - ofOne.get(i).merit();
            intervals.add(around(
                    deltas[i - 1], ofOne.get(i).interval(), ofOther.get(i).interval()));
        }
        double[] corrected = ManyLooks.corrected(IntStream.range(0, deltas.length)
                .mapToDouble(i -> TrendStep.p(deltas[i], intervals.get(i)))
                .toArray());
        return IntStream.range(0, deltas.length)
                .mapToObj(i -> new Divergence(
                        ofOne.get(i + 1).step(),
                        deltas[i],
                        intervals.get(i),
                        corrected[i],
                        TrendStep.isMarked(deltas[i], corrected[i], materiality)))
                .toList();
    }

    private static boolean has(List<At> line, int step) {
        return line.stream().anyMatch(a -> a.step() == step);
    }

    private static PairComparison.Interval around(double delta, PairComparison.Interval a, PairComparison.Interval b) {
        double va = a.standardError() * a.standardError();
        double vb = b.standardError() * b.standardError();
        double terms = va * va / a.degreesOfFreedom() + vb * vb / b.degreesOfFreedom();
        double degrees = terms == 0 ? Double.POSITIVE_INFINITY : (va + vb) * (va + vb) / terms;
        return PairComparison.Interval.around(delta, va + vb, degrees);
    }
}
