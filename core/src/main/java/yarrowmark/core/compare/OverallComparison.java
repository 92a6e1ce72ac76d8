package yarrowmark.core.compare;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import yarrowmark.core.compare.PairComparison.Interval;

/**
 * Two configurations over all tests that both have: ln G = Σ wδ with weights that sum to 1; variance Σ w²(vA + vB);
 * degrees of freedom by Satterthwaite over all terms; 95 % interval from Student's t. The interval knows run-to-run
 * noise only.
 *
 * <p>Edge cases: where the noise of one pair with weight is unknown, so is the interval, and the verdict is
 * {@link Verdict#CANNOT_TELL}. Accuracy: that of {@link PairComparison}. Source: section 4 of the method.
 *
 * @param difference    ln G
 * @param interval      of G
 * @param contributions of each pair in per cent, in order: 100 (G − 1) · wδ / ln G, which add up to 100 (G − 1)
 * @param smallest      index of the pair with the smallest ratio
 * @param largest       index of the pair with the largest ratio
 * @param counts        pairs by verdict; a verdict that no pair has is not in it
 */
public record OverallComparison(
        double difference,
        Optional<Interval> interval,
        Verdict verdict,
        List<Double> contributions,
        int smallest,
        int largest,
        Map<Verdict, Integer> counts) {
    public OverallComparison {
        contributions = List.copyOf(contributions);
        counts = Map.copyOf(counts);
    }

    /** G, better above 1. */
    public double ratio() {
        return Math.exp(difference);
    }

    /**
     * @param pairs   one or more
     * @param weights one for each pair, 0 or more; scaled here to sum to 1
     * @throws IllegalArgumentException where the numbers do not fit, or no pair has weight
     */
    public static OverallComparison of(List<PairComparison> pairs, double[] weights, Materiality materiality) {
        if (pairs.isEmpty() || pairs.size() != weights.length) {
            throw new IllegalArgumentException("an overall needs one weight for each of one or more pairs, not "
                    + weights.length + " for " + pairs.size());
        }
        double sum = 0;
        for (double w : weights) {
            if (!(w >= 0 && w < Double.POSITIVE_INFINITY)) {
                throw new IllegalArgumentException("a weight must be 0 or more and finite, not " + w);
            }
            sum += w;
        }
        if (!(sum > 0)) {
            throw new IllegalArgumentException("none of the " + pairs.size() + " pairs has weight");
        }
        double total = 0;
        double variance = 0;
        double satterthwaite = 0;
        boolean known = true;
        Map<Verdict, Integer> counts = new EnumMap<>(Verdict.class);
        for (int i = 0; i < weights.length; i++) {
            PairComparison pair = pairs.get(i);
            double w = weights[i] / sum;
            total += w * pair.difference();
            counts.merge(pair.verdict(), 1, Integer::sum);
            if (pair.interval().isPresent()) {
                // vA²/dA + vB²/dB of a pair is the square of its variance over its own degrees of freedom.
                double v = w * w * Math.pow(pair.interval().get().standardError(), 2);
                variance += v;
                satterthwaite += v * v / pair.interval().get().degreesOfFreedom();
            } else {
                known &= w == 0;
            }
        }
        double scale = total == 0 ? 100 : 100 * Math.expm1(total) / total;
        List<Double> contributions = new ArrayList<>();
        for (int i = 0; i < weights.length; i++) {
            contributions.add(scale * weights[i] / sum * pairs.get(i).difference());
        }
        List<Integer> order = IntStream.range(0, pairs.size())
                .boxed()
                .sorted(Comparator.comparingDouble(i -> pairs.get(i).difference()))
                .toList();
        if (!known) {
            return new OverallComparison(
                    total,
                    Optional.empty(),
                    Verdict.CANNOT_TELL,
                    contributions,
                    order.get(0),
                    order.get(order.size() - 1),
                    counts);
        }
        double error = Math.sqrt(variance);
        double df = variance == 0 ? Double.POSITIVE_INFINITY : variance * variance / satterthwaite;
        double half = error == 0 ? 0 : PairComparison.quantile(df) * error;
        Interval interval = new Interval(Math.exp(total - half), Math.exp(total + half), error, df);
        return new OverallComparison(
                total,
                Optional.of(interval),
                Verdict.of(total, half, materiality.onMerits()),
                contributions,
                order.get(0),
                order.get(order.size() - 1),
                counts);
    }
}
