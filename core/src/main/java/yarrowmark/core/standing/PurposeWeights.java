package yarrowmark.core.standing;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * Spreads a purpose's weights over metrics: the purpose weighs groups; inside a group each suite weighs the same,
 * inside a suite each test, inside a test each metric. Groups without a metric drop out and the rest is scaled to 1.
 *
 * <p>Source: section 4 of the method.
 */
public final class PurposeWeights {
    private PurposeWeights() {
    }

    /** Where a metric stands in the catalogue. Equal names mean the same place. */
    public record MetricPlace(String group, String suite, String test) { }

    /**
     * @param groupWeights weight a group, 0 or more; a group that is not named has 0
     * @return one weight a metric, in order, summing to 1
     * @throws IllegalArgumentException when no metric gets any weight
     */
    public static double[] spread(Map<String, Double> groupWeights, List<MetricPlace> metrics) {
        Map<String, Set<String>> suites = new HashMap<>();
        Map<String, Set<String>> tests = new HashMap<>();
        Map<MetricPlace, Integer> perTest = new HashMap<>();
        for (MetricPlace m : metrics) {
            suites.computeIfAbsent(m.group(), g -> new HashSet<>()).add(m.suite());
            tests.computeIfAbsent(m.group() + "\n" + m.suite(), s -> new HashSet<>()).add(m.test());
            perTest.merge(m, 1, Integer::sum);
        }
        double[] weight = new double[metrics.size()];
        double sum = 0;
        for (int i = 0; i < weight.length; i++) {
            MetricPlace m = metrics.get(i);
            double group = groupWeights.getOrDefault(m.group(), 0.0);
            if (!(group >= 0 && group < Double.POSITIVE_INFINITY)) {
                throw new IllegalArgumentException("the weight of " + m.group() + " must be 0 or more and finite, not " + group);
            }
            weight[i] = group / suites.get(m.group()).size() / tests.get(m.group() + "\n" + m.suite()).size() / perTest.get(m);
            sum += weight[i];
        }
        if (!(sum > 0)) {
            throw new IllegalArgumentException("this purpose gives no weight to any of the " + metrics.size() + " metrics");
        }
        for (int i = 0; i < weight.length; i++) {
            weight[i] /= sum;
        }
        return weight;
    }
}
