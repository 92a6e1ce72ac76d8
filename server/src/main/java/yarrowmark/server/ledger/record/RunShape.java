package yarrowmark.server.ledger.record;

import java.util.List;
import yarrowmark.core.curve.SeriesText;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.TestRow;
import yarrowmark.server.platform.Problem;

/** Whether a run fits its test. */
final class RunShape {
    private static final int MOST_SAMPLES = 20_000;

    private RunShape() {}

    /** @throws Problem where it does not */
    static void check(NewRun run, TestRow test) {
        List<String> known = test.metrics().stream().map(MetricRow::key).toList();
        for (NewReading given : run.readings()) {
            if (!known.contains(given.metric())) {
                throw Problem.invalid(
                        "unknown-metric",
                        "The test " + test.name() + " has no metric \"" + given.metric() + "\". It has: "
                                + String.join(", ", known) + ".");
            }
            int most = test.metrics().stream().anyMatch(m -> m.kind().isSeries())
                    ? 2 * SeriesText.MOST_POINTS
                    : MOST_SAMPLES;
            if (given.samples().size() > most
                    || given.samples().stream().anyMatch(s -> s == null || !Double.isFinite(s))) {
                throw Problem.invalid(
                        "invalid-samples", "Timing samples must be finite numbers, at most " + most + " of them.");
            }
        }
        if (run.readings().stream().map(NewReading::metric).distinct().count()
                != run.readings().size()) {
            throw Problem.invalid("twice", "A run has at most one reading of each metric.");
        }
        if (run.state() == RunState.OK) {
            List<String> missing = test.metrics().stream()
                    .filter(MetricRow::main)
                    .map(MetricRow::key)
                    .filter(k ->
                            run.readings().stream().noneMatch(r -> r.metric().equals(k)))
                    .toList();
            if (!missing.isEmpty()) {
                throw Problem.invalid(
                        "reading-missing", "A run that is ok needs a reading of: " + String.join(", ", missing) + ".");
            }
        } else if (run.reason() == null || !run.readings().isEmpty()) {
            throw Problem.invalid("reason-missing", "A run that is not ok needs a reason and has no readings.");
        }
    }
}
