package yarrowmark.server.catalog;

import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Scale;

/** A metric with its place in the catalogue. */
public record MetricRow(long id, String key, String name, String unit, Direction direction, Scale scale, boolean main,
                        long testId, String test, TestGroup group, String suite, String version, long suiteVersionId) {
    static MetricRow of(Metric m) {
        TestDefinition t = m.test();
        return new MetricRow(m.id(), m.key(), m.name(), m.unit(), m.direction(), m.scale(), m.main(), t.id(), t.name(), t.group(),
            t.suiteVersion().suite().name(), t.suiteVersion().version(), t.suiteVersion().id());
    }
}
