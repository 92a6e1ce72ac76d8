package yarrowmark.core.standing;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * Spreads a purpose's weights over metrics: the purpose weighs groups; inside a group each suite weighs the same,
 * inside a suite each test, unless the purpose says otherwise; inside a test each metric. What has no metric, or the weight
 * 0, drops out, and the rest is scaled to 1.
 *
 * <p>Source: section 4 of the method.
 */
public final class PurposeWeights {
    private PurposeWeights() {}

    /** Where a metric stands in the catalogue. Equal names mean the same place. */
    public record MetricPlace(String group, String suite, String test) {}

    /**
     * What a purpose says; every weight 0 or more.
     *
     * @param groups weight a group; one that is not named has 0
     * @param suites weight of a suite beside the others of its group; one that is not named has 1
     * @param tests  weight of a test beside the others of its suite and group; one that is not named has 1
     */
    public record Weights(Map<String, Double> groups, Map<String, Double> suites, Map<String, Double> tests) {
        public Weights {
            groups = checked("group", groups);
            suites = checked("suite", suites);
            tests = checked("test", tests);
        }

        private static Map<String, Double> checked(String what, Map<String, Double> weights) {
            weights.forEach((name, weight) -> {
                if (!(weight >= 0 && weight < Double.POSITIVE_INFINITY)) {
                    throw new IllegalArgumentException(
                            "the weight of the " + what + " " + name + " must be 0 or more and finite, not " + weight);
                }
            });
            return Map.copyOf(weights);
        }

        public static Weights ofGroups(Map<String, Double> groups) {
            return new Weights(groups, Map.of(), Map.of());
        }

        double group(MetricPlace m) {
            return groups.getOrDefault(m.group(), 0.0);
        }

        double suite(MetricPlace m) {
            return suites.getOrDefault(m.suite(), 1.0);
        }

        double test(MetricPlace m) {
            return tests.getOrDefault(m.test(), 1.0);
        }
    }

    /**
     * @return one weight a metric, in order, summing to 1
     * @throws IllegalArgumentException when no metric gets any weight
     */
    public static double[] spread(Weights purpose, List<MetricPlace> metrics) {
        Map<MetricPlace, Integer> perTest = new HashMap<>();
        metrics.forEach(m -> perTest.merge(m, 1, Integer::sum));
        Map<String, Double> testsOf = new HashMap<>();
        perTest.keySet().forEach(m -> testsOf.merge(m.group() + "\n" + m.suite(), purpose.test(m), Double::sum));
        Map<String, Double> suitesOf = new HashMap<>();
        Set<String> seen = new HashSet<>();
        for (MetricPlace m : perTest.keySet()) {
            // A suite none of whose tests weighs anything leaves its share to the others.
            if (testsOf.getOrDefault(m.group() + "\n" + m.suite(), 0.0) > 0 && seen.add(m.group() + "\n" + m.suite())) {
                suitesOf.merge(m.group(), purpose.suite(m), Double::sum);
            }
        }
        double[] weight = new double[metrics.size()];
        double sum = 0;
        for (int i = 0; i < weight.length; i++) {
            MetricPlace m = metrics.get(i);
            double tests = testsOf.getOrDefault(m.group() + "\n" + m.suite(), 0.0);
            double suites = suitesOf.getOrDefault(m.group(), 0.0);
            weight[i] = tests > 0 && suites > 0
                    ? purpose.group(m)
                            * purpose.suite(m)
                            / suites
                            * purpose.test(m)
                            / tests
                            / perTest.getOrDefault(m, 1)
                    : 0;
            sum += weight[i];
        }
        if (!(sum > 0)) {
            throw new IllegalArgumentException(
                    "this purpose gives no weight to any of the " + metrics.size() + " metrics");
        }
        for (int i = 0; i < weight.length; i++) {
            weight[i] /= sum;
        }
        return weight;
    }
}
