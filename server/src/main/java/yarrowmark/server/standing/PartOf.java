package yarrowmark.server.standing;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import yarrowmark.server.catalog.MetricRow;

/**
 * Something that a standing is made of, with a name and its columns.
 *
 * @param key of the group, or an id of the suite version or the test
 */
record PartOf(Kind kind, String key, String name, double weight, int[] columns) {
    enum Kind {
        GROUP,
        SUITE,
        TEST
    }

    /** The largest kind of which there are several; one part where everything is one test. In catalogue order. */
    static List<PartOf> of(List<MetricRow> metrics, double[] weights) {
        if (metrics.stream().map(MetricRow::group).distinct().count() > 1) {
            return of(Kind.GROUP, metrics, weights, m -> m.group().name(), m -> m.group()
                    .label());
        }
        if (metrics.stream().map(MetricRow::suiteVersionId).distinct().count() > 1) {
            return of(
                    Kind.SUITE,
                    metrics,
                    weights,
                    m -> Long.toString(m.suiteVersionId()),
                    m -> m.suite() + " " + m.version());
        }
        return of(Kind.TEST, metrics, weights, m -> Long.toString(m.testId()), MetricRow::test);
    }

    private static List<PartOf> of(
            Kind kind,
            List<MetricRow> metrics,
            double[] weights,
            Function<MetricRow, String> key,
            Function<MetricRow, String> name) {
        Map<String, List<Integer>> columns = new LinkedHashMap<>();
        for (int j = 0; j < weights.length; j++) {
            columns.computeIfAbsent(key.apply(metrics.get(j)), k -> new ArrayList<>())
                    .add(j);
        }
        return columns.entrySet().stream()
                .map(e -> new PartOf(
                        kind,
                        e.getKey(),
                        name.apply(metrics.get(e.getValue().get(0))),
                        e.getValue().stream().mapToDouble(j -> weights[j]).sum(),
                        e.getValue().stream().mapToInt(Integer::intValue).toArray()))
                .toList();
    }
}
