package yarrowmark.server.ledger;

import jakarta.persistence.EntityManager;
import java.time.Instant;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.entry.ScoreText;
import yarrowmark.core.entry.TestLines;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Scale;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.TestGroup;
import yarrowmark.server.catalog.TestRow;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.shelf.Configurations;
import yarrowmark.server.shelf.DeviceClass;
import yarrowmark.server.shelf.Shelf;

/**
 * Takes readings in from CSV, all of a file or nothing. First the whole file is understood without storing anything;
 * only a file without a refused row can be stored. Rows that the ledger has already are passed over, so that the same
 * file twice adds nothing.
 */
@Service
class LedgerImport {
    private static final List<String> NEEDED = List.of("maker", "model", "suite", "version", "test", "started");
    private static final List<String> KNOWN = List.of("maker", "model", "class", "unit", "configuration", "suite", "version", "mode", "test", "metric", "measure unit", "direction",
        "session", "started", "run", "attempt", "finished", "state", "reason", "value", "resolution", "counted", "note");
    private static final int MOST_REFUSED = 2_000;

    record RefusedCell(long line, String column, String value, String reason) { }

    /**
     * What a file would do, or did.
     *
     * @param there        rows that the ledger has already
     * @param refused      the first of them; refusedTotal counts all
     * @param ignored      columns that nothing is known about
     */
    record Outcome(int rows, int readings, int withoutValue, int there, List<String> newModels, int newConfigurations, List<String> newSuites, int newTests, int newSessions,
                   List<RefusedCell> refused, int refusedTotal, List<String> ignored, boolean stored) { }

    private record Setup(String maker, String model, String unit, Map<String, String> facts) { }

    private record SuiteKey(String suite, String version, String mode) {
        String shown() {
            return suite + " " + version + (mode.isEmpty() ? "" : ", " + mode);
        }
    }

    private record Taken(CsvFile.Row row, Setup setup, @Nullable String configurationName, SuiteKey suite, String test, String unit, Direction direction, String session, Instant started,
                         int run, int attempt, Instant finished, RunState state, @Nullable Reason reason, @Nullable String words, @Nullable Double value, double resolution,
                         boolean counted) { }

    private final Shelf shelf;
    private final Configurations configurations;
    private final Catalog catalog;
    private final Ledger ledger;
    private final EntityManager entities;
    private final LedgerBulk bulkStore;

    LedgerImport(Shelf shelf, Configurations configurations, Catalog catalog, Ledger ledger, EntityManager entities, LedgerBulk bulkStore) {
        this.shelf = shelf;
        this.configurations = configurations;
        this.catalog = catalog;
        this.ledger = ledger;
        this.entities = entities;
        this.bulkStore = bulkStore;
    }

    /** Everything one file needs while it is read. */
    private final class Reader {
        final List<RefusedCell> refused = new ArrayList<>();
        int refusedTotal;
        final List<Taken> taken = new ArrayList<>();
        final Map<String, DeviceClass> classes = new LinkedHashMap<>();
        final Map<SuiteKey, Map<String, TestRow>> known = new LinkedHashMap<>();
        final Map<SuiteKey, Map<String, Taken>> made = new LinkedHashMap<>();
        final Map<Setup, Optional<Long>> found = new LinkedHashMap<>();
        final Map<String, Boolean> models = new LinkedHashMap<>();
        final Set<String> sessions = new LinkedHashSet<>();
        final Map<String, Long> lines = new HashMap<>();
        final Map<Long, Map<String, Optional<Double>>> stored = new HashMap<>();
        int there;

        Reader() {
            for (TestRow t : catalog.tests()) {
                String[] parts = t.version().split(", ", 2);
                known.computeIfAbsent(new SuiteKey(t.suite(), parts[0], parts.length > 1 ? parts[1] : ""), k -> new LinkedHashMap<>()).put(t.name().toLowerCase(Locale.ROOT), t);
            }
        }

        @Nullable Taken refuse(CsvFile.Row row, String column, String value, String reason) {
            refusedTotal++;
            if (refused.size() < MOST_REFUSED) {
                refused.add(new RefusedCell(row.line(), column, value.length() > 80 ? value.substring(0, 80) + "…" : value, reason));
            }
            return null;
        }
    }

    @Transactional(readOnly = true)
    Outcome preview(byte[] file, boolean make) {
        CsvFile csv = CsvFile.read(file);
        return outcome(csv, read(csv, make), false);
    }

    @Transactional
    Outcome store(byte[] file, boolean make, String person) {
        CsvFile csv = CsvFile.read(file);
        Reader reader = read(csv, make);
        if (reader.refusedTotal > 0) {
            throw Problem.invalid("rows-refused", reader.refusedTotal + " rows cannot be taken, so nothing was stored. The first is on line " + reader.refused.get(0).line() + ": " + reader.refused.get(0).reason());
        }
        store(reader, person);
        return outcome(csv, reader, true);
    }

    private Outcome outcome(CsvFile csv, Reader r, boolean stored) {
        List<String> newModels = r.models.entrySet().stream().filter(e -> !e.getValue()).map(Map.Entry::getKey).toList();
        return new Outcome(csv.rows().size(), (int) r.taken.stream().filter(t -> t.value() != null).count(), (int) r.taken.stream().filter(t -> t.value() == null).count(), r.there, newModels,
            (int) r.found.values().stream().filter(Optional::isEmpty).count(), r.made.keySet().stream().filter(k -> !r.known.containsKey(k)).map(SuiteKey::shown).toList(),
            r.made.values().stream().mapToInt(Map::size).sum(), r.sessions.size(), r.refused, r.refusedTotal,
            csv.columns().stream().filter(c -> !c.isEmpty() && !KNOWN.contains(c) && !c.startsWith("fact:")).toList(), stored);
    }

    private Reader read(CsvFile csv, boolean make) {
        List<String> missing = NEEDED.stream().filter(n -> !csv.columns().contains(n)).toList();
        if (!missing.isEmpty()) {
            throw Problem.invalid("columns-missing", "The header lacks: " + String.join(", ", missing) + ". It has: " + String.join(", ", csv.columns().stream().limit(30).toList()) + ".");
        }
        Reader reader = new Reader();
        for (CsvFile.Row row : csv.rows()) {
            Taken taken = take(reader, row, csv, make);
            if (taken != null && !isTwice(reader, taken) && !isThere(reader, taken)) {
                reader.taken.add(taken);
                reader.sessions.add(sessionKey(taken));
            }
        }
        return reader;
    }

    private @Nullable Taken take(Reader r, CsvFile.Row row, CsvFile csv, boolean make) {
        if (row.cells().containsKey("")) {
            return r.refuse(row, "", row.cell(""), "This row has " + row.cell("") + " cells, the header " + csv.columns().size() + ".");
        }
        for (String column : NEEDED) {
            if (row.cell(column).isEmpty()) {
                return r.refuse(row, column, "", "This is needed and is empty.");
            }
        }
        for (String column : csv.columns()) {
            int most = column.equals("version") ? 40 : column.equals("unit") ? 80 : column.equals("note") || column.startsWith("fact:") ? 500 : 120;
            if (row.cell(column).length() > most) {
                return r.refuse(row, column, row.cell(column), "At most " + most + " characters fit here.");
            }
        }
        Instant started = time(row.cell("started"));
        Instant finished = row.cell("finished").isEmpty() ? started : time(row.cell("finished"));
        if (started == null || finished == null) {
            String column = started == null ? "started" : "finished";
            return r.refuse(row, column, row.cell(column), "This is no time. Write it like 2026-03-01T09:10:00Z.");
        }
        Integer run = whole(row.cell("run"));
        Integer attempt = whole(row.cell("attempt"));
        if (run == null || attempt == null) {
            String column = run == null ? "run" : "attempt";
            return r.refuse(row, column, row.cell(column), "This is a whole number from 1 to 1000.");
        }
        Setup setup = setup(r, row, csv, make);
        return setup == null ? null : score(r, row, setup, started, finished, run, attempt, make);
    }

    private @Nullable Setup setup(Reader r, CsvFile.Row row, CsvFile csv, boolean make) {
        String name = row.cell("maker") + " " + row.cell("model");
        boolean there = r.models.computeIfAbsent(name, n -> shelf.findModel(row.cell("maker"), row.cell("model")).isPresent());
        if (!there) {
            if (!make) {
                r.refuse(row, "model", row.cell("model"), name + " is not on the shelf. Say that unknown models, suites and tests may be made, or correct the name.");
                return null;
            }
            Optional<DeviceClass> found = java.util.Arrays.stream(DeviceClass.values()).filter(c -> c.name().equalsIgnoreCase(row.cell("class"))).findFirst();
            if (found.isEmpty()) {
                r.refuse(row, "class", row.cell("class"), "A new model needs its class: desktop, mini, laptop, tablet, phone or board.");
                return null;
            }
            r.classes.put(name, found.get());
        }
        Map<String, String> facts = new TreeMap<>();
        csv.columns().stream().filter(c -> c.startsWith("fact:") && !row.cell(c).isEmpty()).forEach(c -> facts.put(c.substring(5), row.cell(c)));
        Setup setup = new Setup(row.cell("maker"), row.cell("model"), row.cell("unit").isEmpty() ? "Unit 1" : row.cell("unit"), facts);
        r.found.computeIfAbsent(setup, s -> shelf.findModel(s.maker(), s.model()).flatMap(m -> shelf.findUnit(m, s.unit())).flatMap(u -> configurations.find(u, s.facts())));
        return setup;
    }

    private @Nullable Taken score(Reader r, CsvFile.Row row, Setup setup, Instant started, Instant finished, int run, int attempt, boolean make) {
        SuiteKey suite = new SuiteKey(row.cell("suite"), row.cell("version"), row.cell("mode"));
        TestRow test = r.known.getOrDefault(suite, Map.of()).get(row.cell("test").toLowerCase(Locale.ROOT));
        Taken before = r.made.getOrDefault(suite, Map.of()).get(row.cell("test").toLowerCase(Locale.ROOT));
        boolean withoutValue = row.cell("value").isEmpty();
        String unit = !row.cell("measure unit").isEmpty() ? row.cell("measure unit") : test != null ? test.metrics().get(0).unit() : before != null ? before.unit() : "1";
        Optional<Direction> told = switch (row.cell("direction").toLowerCase(Locale.ROOT)) {
            case "more", "higher" -> Optional.of(Direction.MORE_IS_BETTER);
            case "less", "lower" -> Optional.of(Direction.LESS_IS_BETTER);
            default -> Optional.empty();
        };
        Direction direction = told.orElse(test != null ? test.metrics().get(0).direction() : before != null ? before.direction() : null);
        if (test == null && !make) {
            return r.refuse(row, "test", row.cell("test"), suite.shown() + " has no test of this name in the catalogue. Say that unknown ones may be made, or correct the name.");
        }
        if (direction == null) {
            return r.refuse(row, "direction", row.cell("direction"), "A new test needs to say whether more or less is better.");
        }
        if (!withoutValue && (test != null && (!test.metrics().get(0).unit().equals(unit) || test.metrics().get(0).direction() != direction)
            || before != null && (!before.unit().equals(unit) || before.direction() != direction))) {
            return r.refuse(row, "measure unit", unit, "This test is measured in another unit, or the other way round, than here.");
        }
        RunState state = row.cell("state").isEmpty() ? withoutValue ? RunState.FAILED : RunState.OK
            : java.util.Arrays.stream(RunState.values()).filter(s -> s.name().replace('_', ' ').equalsIgnoreCase(row.cell("state"))).findFirst().orElse(null);
        if (state == null || (state == RunState.OK) == withoutValue) {
            return r.refuse(row, "state", row.cell("state"), state == null ? "The state is ok, failed, could not run or stopped." : "A run that is ok has a value, and no other has one.");
        }
        Double value = null;
        double resolution = 0;
        if (!withoutValue) {
            if (!(ScoreText.read(row.cell("value"), unit) instanceof ScoreText.Value v) || scale(unit) == Scale.RATIO && !(v.value() > 0)) {
                return r.refuse(row, "value", row.cell("value"), "This is no value in " + (unit.equals("1") ? "points" : unit) + ", or not above 0.");
            }
            value = v.value();
            resolution = row.cell("resolution").isEmpty() ? v.resolution() : parsed(row.cell("resolution"), v.resolution());
        }
        Reason reason = state == RunState.OK ? null : java.util.Arrays.stream(Reason.values()).filter(x -> x.name().replace('_', ' ').equalsIgnoreCase(row.cell("reason"))).findFirst().orElse(Reason.OTHER);
        Taken taken = new Taken(row, setup, row.cell("configuration").isEmpty() ? null : row.cell("configuration"), suite, row.cell("test"), unit, direction,
            row.cell("session").isEmpty() ? "Imported" : row.cell("session"), started, run, attempt, finished, state, reason, row.cell("note").isEmpty() ? null : row.cell("note"), value, resolution,
            !row.cell("counted").equalsIgnoreCase("no"));
        if (test == null && (before == null || before.value() == null)) {
            r.made.computeIfAbsent(suite, s -> new LinkedHashMap<>()).put(row.cell("test").toLowerCase(Locale.ROOT), taken);
        }
        return taken;
    }

    /** The same run in two rows is a slip of whoever made the file: which of the two is right, only they know. */
    private static boolean isTwice(Reader r, Taken t) {
        Long before = r.lines.putIfAbsent(sessionKey(t) + " " + t.suite() + " " + t.test().toLowerCase(Locale.ROOT) + " " + t.run() + " " + t.attempt(), t.row().line());
        if (before != null) {
            r.refuse(t.row(), "run", Integer.toString(t.run()), "Line " + before + " has this very run already.");
        }
        return before != null;
    }

    /** Whether the ledger has this very run; where it has another value for it, the row is refused. */
    private boolean isThere(Reader r, Taken t) {
        Optional<Long> configuration = r.found.get(t.setup());
        TestRow test = r.known.getOrDefault(t.suite(), Map.of()).get(t.test().toLowerCase(Locale.ROOT));
        if (configuration.isEmpty() || test == null) {
            return false;
        }
        Map<String, Optional<Double>> stored = r.stored.computeIfAbsent(configuration.get(), this::runsOf);
        Optional<Double> value = stored.get(test.id() + " " + t.started() + " " + t.run() + " " + t.attempt());
        if (value == null) {
            return false;
        }
        if (value.equals(Optional.ofNullable(t.value()))) {
            r.there++;
        } else {
            r.refuse(t.row(), "value", t.row().cell("value"), "The ledger has " + value.map(v -> "the value " + v).orElse("no value") + " for this very run.");
        }
        return true;
    }

    /** Every run of a configuration with its value: one question for all rows of it. */
    private Map<String, Optional<Double>> runsOf(long configurationId) {
        Map<String, Optional<Double>> runs = new HashMap<>();
        entities.createQuery("""
                select r.testId, s.startedAt, r.runNumber, r.attempt, rd.value from Run r join Session s on s.id = r.sessionId left join Reading rd on rd.runId = r.id
                where r.configurationId = :configuration""", Object[].class).setParameter("configuration", configurationId).getResultList()
            .forEach(x -> runs.put(x[0] + " " + x[1] + " " + x[2] + " " + x[3], Optional.ofNullable((Double) x[4])));
        return runs;
    }

    private void store(Reader r, String person) {
        r.made.forEach((suite, tests) -> makeTests(r, suite, tests, person));
        Map<SuiteKey, Map<String, TestRow>> all = new Reader().known;
        Map<String, Long> sessions = new LinkedHashMap<>();
        Map<String, Integer> runs = new HashMap<>();
        Map<String, Instant> ends = new HashMap<>();
        r.taken.forEach(t -> {
            runs.merge(sessionKey(t), t.run(), Math::max);
            ends.merge(sessionKey(t), t.finished(), (a, b) -> a.isAfter(b) ? a : b);
        });
        List<LedgerBulk.BulkRun> bulk = new ArrayList<>();
        for (Taken t : r.taken) {
            long configuration = r.found.get(t.setup()).orElseGet(() -> {
                long made = makeConfiguration(r, t, person);
                r.found.put(t.setup(), Optional.of(made));
                return made;
            });
            long session = sessions.computeIfAbsent(sessionKey(t), k -> ledger.open(new Ledger.NewSession(configuration, t.session(), runs.get(k), 0, null, null, t.started(), List.of(), person)));
            TestRow test = all.get(t.suite()).get(t.test().toLowerCase(Locale.ROOT));
            bulk.add(new LedgerBulk.BulkRun(session, configuration, test.metrics().get(0), new Ledger.NewRun(test.id(), t.run(), t.attempt(), t.state(), t.reason(),
                t.value() == null ? t.words() : null, 0, t.finished(),
                t.value() == null ? List.of() : List.of(new Ledger.NewReading(test.metrics().get(0).key(), t.value(), t.resolution(), List.of()))),
                t.value() == null || t.counted() ? null : t.words() == null ? "Set aside where it comes from" : t.words()));
        }
        sessions.forEach((key, id) -> ledger.end(id, SessionState.DONE, ends.get(key)));
        bulkStore.store(bulk, person);
    }

    private void makeTests(Reader r, SuiteKey suite, Map<String, Taken> tests, String person) {
        if (r.known.containsKey(suite)) {
            throw Problem.invalid("suite-is-closed", suite.shown() + " is in the catalogue without the test " + tests.values().iterator().next().test()
                + ". A version that is there does not grow: import it as another version or mode.");
        }
        List<Catalog.NewTest> made = new ArrayList<>();
        for (Taken t : tests.values()) {
            made.add(new Catalog.NewTest("imported-" + (made.size() + 1), t.test(), "", TestGroup.EVERYDAY,
                List.of(new Catalog.NewMetric("value", t.test(), t.unit(), t.direction(), scale(t.unit()), true))));
        }
        catalog.makeOwn(suite.suite(), suite.version(), suite.mode(), made, person);
    }

    private long makeConfiguration(Reader r, Taken t, String person) {
        Setup s = t.setup();
        long model = shelf.findModel(s.maker(), s.model()).orElseGet(() -> shelf.make(new Shelf.ModelFacts(s.maker(), s.model(), r.classes.get(s.maker() + " " + s.model()), null, null, null), person));
        long unit = shelf.findUnit(model, s.unit()).orElseGet(() -> shelf.addUnit(model, s.unit(), person));
        return configurations.find(unit, s.facts()).orElseGet(() -> configurations.makeDescribed(unit, t.configurationName(), s.facts(), person));
    }

    private static String sessionKey(Taken t) {
        return t.setup() + " " + t.session() + " " + t.started();
    }

    private static Scale scale(String unit) {
        return TestLines.scale(unit);
    }

    private static @Nullable Instant time(String text) {
        try {
            return Instant.parse(text);
        } catch (DateTimeParseException e) {
            return null;
        }
    }

    /** 1 where nothing is written; null where it is no such number. */
    private static @Nullable Integer whole(String text) {
        return text.isEmpty() ? Integer.valueOf(1) : text.matches("[1-9]\\d{0,2}|1000") ? Integer.valueOf(text) : null;
    }

    private static double parsed(String text, double otherwise) {
        try {
            double value = Double.parseDouble(text);
            return value >= 0 && value < Double.POSITIVE_INFINITY ? value : otherwise;
        } catch (NumberFormatException e) {
            return otherwise;
        }
    }
}
