package yarrowmark.core.standing;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;

/**
 * Spreads a purpose's weights over metrics: the purpose weighs groups; inside a group each suite weighs the same,
 * inside a suite each test, unless the purpose says otherwise; inside a test each metric. What has no metric, or the weight
 * 0, drops out, and the rest is scaled to 1.
 *
 * <p>Source: section 4 of the method.
 */
public final class PurposeWeights {
    private record Suite(String group, String name) {}

    /** By metric, the position of its test; by test, of its suite; by suite, of its group; and what each weighs. */
    private final int[] testOf;

    private final int[] suiteOf;
    private final int[] groupOf;
    private final double[] tests;
    private final double[] suites;
    private final double[] groups;

    /** @param metrics in any order; those of one test, suite or group need not stand together */
    public PurposeWeights(Weights purpose, List<MetricPlace> metrics) {
        Distinct<MetricPlace> ofTests = new Distinct<>();
        Distinct<Suite> ofSuites = new Distinct<>();
        Distinct<String> ofGroups = new Distinct<>();
        testOf = metrics.stream().mapToInt(ofTests::position).toArray();
        suiteOf = ofTests.all.stream()
                .mapToInt(m -> ofSuites.position(new Suite(m.group(), m.suite())))
                .toArray();
        groupOf = ofSuites.all.stream()
                .mapToInt(s -> ofGroups.position(s.group()))
                .toArray();
        tests = ofTests.all.stream()
                .mapToDouble(m -> purpose.tests().getOrDefault(m.test(), 1.0))
                .toArray();
        suites = ofSuites.all.stream()
                .mapToDouble(s -> purpose.suites().getOrDefault(s.name(), 1.0))
                .toArray();
        groups = ofGroups.all.stream()
                .mapToDouble(g -> purpose.groups().getOrDefault(g, 0.0))
                .toArray();
    }

    /** Numbers what is met, in the order in which it is met first. */
    private static final class Distinct<T> {
        private final List<T> all = new ArrayList<>();
        private final Map<T, Integer> positions = new HashMap<>();

        int position(T one) {
            return positions.computeIfAbsent(one, o -> {
                all.add(o);
                return all.size() - 1;
            });
        }
    }

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
    }

    /**
     * @return one weight a metric, in order, summing to 1
     * @throws IllegalArgumentException when no metric gets any weight
     */
    public static double[] spread(Weights purpose, List<MetricPlace> metrics) {
        double[] weights = new PurposeWeights(purpose, metrics)
                .over(IntStream.range(0, metrics.size()).toArray());
        if (weights.length == 0) {
            throw new IllegalArgumentException(
                    "this purpose gives no weight to any of the " + metrics.size() + " metrics");
        }
        return weights;
    }

    /**
     * Spreads them over a part of the metrics, as often as is wanted: names are looked up once.
     *
     * @param kept positions of the metrics that count, each once
     * @return one weight for each of them, in order, summing to 1; empty where none of them has weight
     */
    public double[] over(int[] kept) {
        int[] metricsOf = new int[tests.length];
        double[] testsOf = new double[suites.length];
        for (int i : kept) {
            if (metricsOf[testOf[i]]++ == 0) {
                testsOf[suiteOf[testOf[i]]] += tests[testOf[i]];
            }
        }
        double[] suitesOf = new double[groups.length];
        for (int s = 0; s < suites.length; s++) {
            // A suite none of whose tests weighs anything leaves its share to the others.
            suitesOf[groupOf[s]] += testsOf[s] > 0 ? suites[s] : 0;
        }
        double[] weight = new double[kept.length];
        double sum = 0;
        for (int k = 0; k < kept.length; k++) {
            int t = testOf[kept[k]];
            int s = suiteOf[t];
            int g = groupOf[s];
            if (testsOf[s] > 0 && suitesOf[g] > 0) {
                weight[k] = groups[g] * suites[s] / suitesOf[g] * tests[t] / testsOf[s] / metricsOf[t];
            }
            sum += weight[k];
        }
        if (!(sum > 0)) {
            return new double[0];
        }
        for (int k = 0; k < kept.length; k++) {
            weight[k] /= sum;
        }
        return weight;
    }
}
