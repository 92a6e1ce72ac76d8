package yarrowmark.core.standing;

import java.util.Comparator;
import java.util.stream.IntStream;

/**
 * The frontier of best value: those for which no other is at least as good and at least as cheap, and better in one of the
 * two. Equal ones are on it together. Work grows with n log n. One alone is on it; none give none.
 *
 * <p>Source: the Pareto order of two quantities, as in any textbook of optimisation.
 */
public final class Frontier {
    private Frontier() {}

    /**
     * @param cost  less is better; finite
     * @param merit more is better; finite
     * @return for each whether it is on the frontier
     */
    public static boolean[] of(double[] cost, double[] merit) {
        if (cost.length != merit.length) {
            throw new IllegalArgumentException(
                    "as many costs as merits are needed, not " + cost.length + " and " + merit.length);
        }
        for (int i = 0; i < cost.length; i++) {
            if (!Double.isFinite(cost[i]) || !Double.isFinite(merit[i])) {
                throw new IllegalArgumentException("costs and merits must be finite, not " + cost[i] + ", " + merit[i]);
            }
        }
        boolean[] on = new boolean[cost.length];
        double best = Double.NEGATIVE_INFINITY;
        double costOfBest = Double.NaN;
        for (int i : IntStream.range(0, cost.length)
                .boxed()
                .sorted(Comparator.comparingDouble((Integer k) -> cost[k]).thenComparingDouble(k -> -merit[k]))
                .toList()) {
            on[i] = merit[i] > best || merit[i] == best && cost[i] == costOfBest;
            if (merit[i] > best) {
                best = merit[i];
                costOfBest = cost[i];
            }
        }
        return on;
    }
}
