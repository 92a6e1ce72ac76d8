package yarrowmark.server.catalog;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A test with its metrics.
 *
 * @param number  of the version without its mode
 * @param mode    empty where the version has only one
 * @param repeatability in per cent, as somebody states it. @param repeatabilitySource who, or where
 * @param command that the runner carries out; absent for every other test
 * @param retired nobody runs it any more: its scores stay, but it is not offered, computed or ranked
 */
public record TestRow(
        long id,
        String key,
        String name,
        String summary,
        TestGroup group,
        String suite,
        String version,
        List<MetricRow> metrics,
        long suiteVersionId,
        String number,
        String mode,
        boolean builtIn,
        boolean retired,
        @Nullable Double repeatability,
        @Nullable String repeatabilitySource,
        @Nullable TimedCommand command) {
    static TestRow of(TestDefinition t) {
        return new TestRow(
                t.id(),
                t.key(),
                t.name(),
                t.summary(),
                t.group(),
                t.suiteVersion().suite().name(),
                t.suiteVersion().version(),
                t.metrics().stream().map(MetricRow::of).toList(),
                t.suiteVersion().id(),
                t.suiteVersion().number(),
                t.suiteVersion().mode(),
                t.suiteVersion().suite().builtIn(),
                t.retiredAt() != null,
                t.repeatability(),
                t.repeatabilitySource(),
                t.command());
    }

    /** Whether a device carries it out by itself, rather than a person. */
    public boolean byItself() {
        return builtIn || command != null;
    }

    /** Whether somebody carries it out, rather than the server computing it from other tests. */
    public boolean given() {
        return metrics.stream().anyMatch(MetricRow::given);
    }
}
