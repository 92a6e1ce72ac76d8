package yarrowmark.server.catalog;

import java.util.List;

/** A test with its metrics. */
public record TestRow(long id, String key, String name, String summary, TestGroup group, String suite, String version,
                      List<MetricRow> metrics) {
    static TestRow of(TestDefinition t) {
        return new TestRow(t.id(), t.key(), t.name(), t.summary(), t.group(), t.suiteVersion().suite().name(),
            t.suiteVersion().version(), t.metrics().stream().map(MetricRow::of).toList());
    }
}
