package yarrowmark.server.analysis;

import static yarrowmark.server.platform.Require.require;

import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.ledger.record.RunsWithoutScore;
import yarrowmark.server.shelf.configuration.ConfigurationRow;

/** Why one of those compared has no value of a test: it failed there, another version was run, or nobody ran it. */
final class NotRun {
    private final Map<Long, ConfigurationRow> rows;
    private final Map<RunsWithoutScore.Place, RunsWithoutScore.Ended> ended;
    private final Map<OtherVersion, MetricRow> measured = new HashMap<>();

    /** The same test in any version of its suite. */
    private record OtherVersion(long configurationId, long suiteId, String test) {}

    /** @param measured metrics that each configuration has any result of */
    NotRun(
            Map<Long, ConfigurationRow> rows,
            Map<RunsWithoutScore.Place, RunsWithoutScore.Ended> ended,
            Map<Long, List<MetricRow>> measured) {
        this.rows = rows;
        this.ended = ended;
        measured.forEach((id, metrics) -> metrics.forEach(m -> this.measured.put(key(id, m), m)));
    }

    private static OtherVersion key(long configurationId, MetricRow m) {
        return new OtherVersion(configurationId, m.suiteId(), m.test().toLowerCase(Locale.ROOT));
    }

    /** Told apart by their configurations where one model is compared twice. */
    String name(long configurationId) {
        ConfigurationRow c = require(rows, configurationId);
        boolean twice =
                rows.values().stream().filter(o -> o.modelId() == c.modelId()).count() > 1;
        return ComparedSide.name(c) + (twice ? " (" + c.name() + ")" : "");
    }

    String reason(long configurationId, MetricRow m) {
        RunsWithoutScore.Ended run = run(configurationId, m);
        MetricRow other = measured.get(key(configurationId, m));
        String name = name(configurationId);
        if (run != null) {
            return (switch (run.state()) {
                        case COULD_NOT_RUN -> "could not run on ";
                        case STOPPED -> "stopped on ";
                        default -> "failed on ";
                    })
                    + name;
        }
        return other == null || other.suiteVersionId() == m.suiteVersionId()
                ? "not run on " + name
                : "other version: " + name + " has run " + other.suite() + " " + other.version();
    }

    /** Whether it was tried there and gave no score, which is a result of a kind. */
    boolean ended(long configurationId, MetricRow m) {
        return run(configurationId, m) != null;
    }

    CellBuilder cell(long configurationId, MetricRow m) {
        RunsWithoutScore.Ended run = run(configurationId, m);
        return Comparison.ComparedCell.none(reason(configurationId, m), run);
    }

    private RunsWithoutScore.@Nullable Ended run(long configurationId, MetricRow m) {
        return ended.get(new RunsWithoutScore.Place(configurationId, m.testId()));
    }
}
