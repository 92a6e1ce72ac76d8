package yarrowmark.server.catalog;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import yarrowmark.core.standing.PurposeWeights;
import yarrowmark.server.platform.Problem;

/**
 * What a purpose says; only proportions count, so nothing needs to add up.
 *
 * @param groups weight of a group; none is 0
 * @param suites by suite id, beside the others of its group; none is 1
 * @param tests  by test id, beside the others of its suite; none is 1
 */
public record PurposeWeighing(Map<TestGroup, Double> groups, Map<Long, Double> suites, Map<Long, Double> tests) {
    private static final double MOST = 1_000_000;

    public PurposeWeighing {
        groups = Map.copyOf(groups);
        suites = Map.copyOf(suites);
        tests = Map.copyOf(tests);
    }

    /** @throws Problem where a weight makes no sense, or there is none */
    PurposeWeighing checked() {
        Map<String, Double> all = new HashMap<>();
        groups.forEach((g, w) -> all.put(g.name().toLowerCase(java.util.Locale.ROOT), w));
        suites.forEach((s, w) -> all.put("suite " + s, w));
        tests.forEach((t, w) -> all.put("test " + t, w));
        all.forEach((what, weight) -> {
            if (!(weight >= 0 && weight <= MOST)) {
                throw Problem.invalid(
                        "not-a-weight",
                        "A weight is a number from 0 to 1 000 000; that of " + what + " is " + weight + ".");
            }
        });
        if (groups.values().stream().noneMatch(w -> w > 0)) {
            throw Problem.invalid(
                    "all-weights-zero", "A purpose needs a weight above 0 for at least one group of tests.");
        }
        return this;
    }

    /**
     * One weight a metric, in order, summing to 1.
     *
     * @throws IllegalArgumentException where none of them gets any weight
     */
    public double[] spread(List<MetricRow> metrics) {
        return PurposeWeights.spread(weights(), places(metrics));
    }

    /** To be spread over parts of these. */
    public PurposeWeights over(List<MetricRow> metrics) {
        return new PurposeWeights(weights(), places(metrics));
    }

    private PurposeWeights.Weights weights() {
        return new PurposeWeights.Weights(named(groups), named(suites), named(tests));
    }

    private static List<PurposeWeights.MetricPlace> places(List<MetricRow> metrics) {
        return metrics.stream()
                .map(m -> new PurposeWeights.MetricPlace(
                        m.group().name(), Long.toString(m.suiteId()), Long.toString(m.testId())))
                .toList();
    }

    private static Map<String, Double> named(Map<?, Double> weights) {
        return weights.entrySet().stream()
                .collect(Collectors.toMap(e -> e.getKey().toString(), Map.Entry::getValue));
    }
}
