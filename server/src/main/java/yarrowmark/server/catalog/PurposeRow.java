package yarrowmark.server.catalog;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import yarrowmark.core.measure.Scale;

/**
 * A purpose with what it says.
 *
 * @param weights of groups
 * @param suites  by suite id; 1 where there is none
 * @param tests   by test id; 1 where there is none
 * @param usual   the one that everybody has and nobody can change
 */
public record PurposeRow(
        long id,
        String name,
        Map<TestGroup, Double> weights,
        Map<Long, Double> suites,
        Map<Long, Double> tests,
        boolean usual) {
    static PurposeRow of(Purpose p) {
        PurposeWeighing weighing = p.weighing();
        return new PurposeRow(
                p.id(),
                p.name(),
                weighing.groups(),
                weighing.suites(),
                weighing.tests(),
                p.name().equals(Purposes.ALL_ROUND));
    }

    /** The share of each of these in an overall, by metric; none where it gives no weight to any of them. */
    public Map<Long, Double> weights(List<MetricRow> metrics) {
        List<MetricRow> counted = MetricRow.withoutTotals(metrics.stream()
                .filter(m -> m.main() && m.scale() == Scale.RATIO)
                .toList());
        Map<Long, Double> weights = new HashMap<>();
        try {
            double[] spread = weighing().spread(counted);
            for (int i = 0; i < spread.length; i++) {
                weights.put(counted.get(i).id(), spread[i]);
            }
        } catch (IllegalArgumentException e) {
            // No test has weight: each line is still told, and whoever asks says why there is no overall.
        }
        return weights;
    }

    public PurposeWeighing weighing() {
        return new PurposeWeighing(weights, suites, tests);
    }
}
