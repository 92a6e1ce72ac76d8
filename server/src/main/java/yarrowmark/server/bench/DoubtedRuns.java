package yarrowmark.server.bench;

import java.util.List;
import java.util.OptionalInt;
import java.util.OptionalLong;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.quality.Consistency;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.TestRow;
import yarrowmark.server.ledger.record.NewReading;
import yarrowmark.server.ledger.record.NewRun;
import yarrowmark.server.ledger.record.RunState;

/**
 * Runs that contradict themselves or the server's clock. They are kept and set aside at once, with the reason, so that they
 * count only when a reviewer says so.
 */
final class DoubtedRuns {
    /** Who set them aside. */
    static final String BY = "Yarrowmark";

    private DoubtedRuns() {}

    /** @param watchedMs the run's length by the server's clock, where it heard its beginning */
    static List<String> doubts(@Nullable TestRow test, NewRun run, OptionalLong watchedMs) {
        if (test == null || run.state() != RunState.OK || run.readings().isEmpty()) {
            return List.of();
        }
        NewReading main = run.readings().get(0);
        boolean series = test.metrics().stream()
                .filter(m -> m.key().equals(main.metric()))
                .findFirst()
                .map(MetricRow::kind)
                .filter(kind -> !kind.isSeries())
                .isEmpty();
        List<String> wrong = Consistency.contradictions(
                main.value(),
                series
                        ? new double[0]
                        : main.samples().stream().mapToDouble(s -> s).toArray(),
                run.durationMs(),
                run.timedMs() == null ? OptionalInt.empty() : OptionalInt.of(run.timedMs()),
                watchedMs);
        return wrong.stream().map(words -> "Inconsistent: " + words).toList();
    }
}
