package yarrowmark.server.ledger.exchange;

import java.time.Instant;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Kind;
import yarrowmark.core.measure.Scale;
import yarrowmark.server.catalog.TestGroup;
import yarrowmark.server.catalog.TestRow;
import yarrowmark.server.ledger.record.NewReading;
import yarrowmark.server.ledger.record.Reason;
import yarrowmark.server.ledger.record.RunState;

/** One row of a file as it was understood: a reading, or a run without one. @param series what points come to, all numbers of the run; empty for a row with one number */
record ImportRow(
        CsvFile.Row row,
        Place place,
        @Nullable String configurationName,
        Suite suite,
        String test,
        Measure measure,
        int run,
        int attempt,
        Instant finished,
        RunState state,
        @Nullable Reason reason,
        @Nullable String words,
        @Nullable Double value,
        double resolution,
        boolean counted,
        List<NewReading> series) {

    /** A configuration by what it is: the facts decide, not its name. */
    record Setup(String maker, String model, String unit, Map<String, String> facts) {}

    record Suite(String suite, String version, String mode) {
        static Suite of(TestRow t) {
            return new Suite(t.suite(), t.number(), t.mode());
        }

        /** Tests by suite version, and in it by name in lower case. */
        static Map<Suite, Map<String, TestRow>> all(Collection<TestRow> tests) {
            Map<Suite, Map<String, TestRow>> all = new LinkedHashMap<>();
            tests.forEach(t -> all.computeIfAbsent(of(t), k -> new LinkedHashMap<>())
                    .put(t.name().toLowerCase(Locale.ROOT), t));
            return all;
        }

        String shown() {
            return suite + " " + version + (mode.isEmpty() ? "" : ", " + mode);
        }
    }

    /** A session of a configuration. @param setup its number among those of the file, which is quicker to compare than its facts */
    record Place(int setup, String session, Instant started) {}

    /** Run of a test in a session. */
    record RunKey(Place place, Suite suite, String test, int run, int attempt) {}

    /** What was measured. @param name of the metric; empty where the row names none */
    record Measure(
            String name,
            String unit,
            Direction direction,
            Scale scale,
            Kind kind,
            List<String> choices,
            TestGroup group,
            boolean main) {}

    RunKey runKey() {
        return new RunKey(place, suite, test.toLowerCase(Locale.ROOT), run, attempt);
    }
}
