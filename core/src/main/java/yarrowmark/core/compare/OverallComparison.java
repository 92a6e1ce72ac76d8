package yarrowmark.core.compare;

import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import yarrowmark.core.compare.PairComparison.Interval;
import yarrowmark.core.stats.DayBasis;
import yarrowmark.core.stats.SharedDay;

/**
 * Two configurations over all tests that both have: ln G = Σ wδ with weights that sum to 1; variance Σ w²(vA + vB) of runs,
 * and what sessions add, (1 − κ) Σq² + κ (Σq)² with q = w √(σᵤA² ΣuA² + σᵤB² ΣuB²), because a day moves many tests together;
 * degrees of freedom by Satterthwaite over all terms, e + P for those of sessions; 95 % interval from Student's t.
 *
 * <p>Where tests whose noise is only stated or usual carry more than half of the weight, it says "probably": the normal
 * quantile is taken, and the variance is at least Σ w²v ν/(ν − 2) over them.
 *
 * <p>Edge cases: tests of which nothing is known of days add noise of runs alone. Accuracy: that of
 * {@link PairComparison}. Source: sections 4 and 11 of the method.
 *
 * @param difference    ln G
 * @param interval      of G
 * @param contributions of each pair in per cent, in order: 100 (G − 1) · wδ / ln G, which add up to 100 (G − 1)
 * @param smallest      index of the pair with the smallest ratio
 * @param largest       index of the pair with the largest ratio
 * @param counts        pairs by verdict; a verdict that no pair has is not in it
 * @param days          how many configurations tell how days differ
 * @param unmeasured    how many pairs with weight rest on a spread that nobody measured here
 */
public record OverallComparison(
        double difference,
        Interval interval,
        Verdict verdict,
        List<Double> contributions,
        int smallest,
        int largest,
        Map<Verdict, Integer> counts,
        DayBasis days,
        int unmeasured) {
    /** Above this share of the weight, spreads that nobody measured decide how the whole reads. */
    private static final double MOST_OF_THE_WEIGHT = 0.5;

    public OverallComparison {
        contributions = List.copyOf(contributions);
        counts = Map.copyOf(counts);
    }

    /** G, better above 1. */
    public double ratio() {
        return Math.exp(difference);
    }

    /** All tests are of one suite. */
    public static OverallComparison of(
            List<PairComparison> pairs, double[] weights, SharedDay day, Materiality materiality) {
        return of(pairs, weights, Collections.nCopies(pairs.size(), day), materiality);
    }

    /**
     * @param pairs   one or more
     * @param weights one for each pair, 0 or more; scaled here to sum to 1
     * @param days    for each pair, how far a day moves the tests of its suite together
     * @throws IllegalArgumentException where the numbers do not fit, or no pair has weight
     */
    public static OverallComparison of(
            List<PairComparison> pairs, double[] weights, List<SharedDay> days, Materiality materiality) {
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
        double runs = 0;
        double terms = 0;
        double q = 0;
        double qq = 0;
        int unmeasured = 0;
        double unmeasuredWeight = 0;
        double least = 0;
        Map<Verdict, Integer> counts = new EnumMap<>(Verdict.class);
        for (int i = 0; i < weights.length; i++) {
            PairComparison pair = pairs.get(i);
            double w = weights[i] / sum;
            total += w * pair.difference();
            counts.merge(pair.verdict(), 1, Integer::sum);
            runs += w * w * pair.parts().runs();
            terms += w * w * w * w * pair.parts().runsByDegree();
            q += w * Math.sqrt(pair.parts().sessions());
            qq += w * w * pair.parts().sessions();
            if (w > 0 && pair.unmeasured()) {
                unmeasured++;
                unmeasuredWeight += w;
                least += w * w * pair.parts().expected();
            }
        }
        SharedDay day = SharedDay.weighted(days, weights);
        double sessions = day.variance(q, qq);
        terms += sessions * sessions / day.degreesOfFreedom();
        boolean probably = unmeasuredWeight > MOST_OF_THE_WEIGHT + 1e-12;
        double variance = probably ? Math.max(runs + sessions, least) : runs + sessions;
        double df = probably
                ? Double.POSITIVE_INFINITY
                : terms == 0 ? Double.POSITIVE_INFINITY : Math.max(1, variance * variance / terms);
        double scale = total == 0 ? 100 : 100 * Math.expm1(total) / total;
        List<Double> contributions = new ArrayList<>();
        for (int i = 0; i < weights.length; i++) {
            contributions.add(scale * weights[i] / sum * pairs.get(i).difference());
        }
        List<Integer> order = IntStream.range(0, pairs.size())
                .boxed()
                .sorted(Comparator.comparingDouble(i -> pairs.get(i).difference()))
                .toList();
        double limit = materiality.onMerits();
        return new OverallComparison(
                total,
                Interval.around(total, variance, df),
                Verdict.of(total, PairComparison.half(variance, df), limit).ifUnmeasured(probably),
                contributions,
                order.get(0),
                order.get(order.size() - 1),
                counts,
                day.devices(),
                unmeasured);
    }
}
