package yarrowmark.server.ledger.exchange;

import static yarrowmark.server.platform.Require.require;

import jakarta.persistence.EntityManager;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
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
import yarrowmark.core.entry.ScoreText;
import yarrowmark.core.entry.TestLines;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.InvalidReadingException;
import yarrowmark.core.measure.Kind;
import yarrowmark.core.measure.Measured;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.setup.FactKey;
import yarrowmark.core.setup.FactReader;
import yarrowmark.core.setup.FactVocabulary;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.TestGroup;
import yarrowmark.server.catalog.TestRow;
import yarrowmark.server.ledger.exchange.ImportCells.Refused;
import yarrowmark.server.ledger.exchange.ImportRow.Measure;
import yarrowmark.server.ledger.exchange.ImportRow.Place;
import yarrowmark.server.ledger.exchange.ImportRow.RunKey;
import yarrowmark.server.ledger.exchange.ImportRow.Setup;
import yarrowmark.server.ledger.exchange.ImportRow.Suite;
import yarrowmark.server.ledger.record.NewReading;
import yarrowmark.server.ledger.record.Reason;
import yarrowmark.server.ledger.record.RunState;
import yarrowmark.server.ledger.record.SeriesReadings;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.shelf.Configurations;
import yarrowmark.server.shelf.DeviceClass;
import yarrowmark.server.shelf.Shelf;

/** Understands the rows of one file, against the ledger as it is. Stores nothing. */
public final class ImportReading {
    /** Columns without which a file is not in the ledger's own form. */
    public static final List<String> NEEDED = List.of("maker", "model", "suite", "version", "test", "started");

    private static final List<String> SETUP_COLUMNS = List.of("maker", "model", "class", "unit");
    static final String POINTS = "points";
    private static final int MOST_REFUSED = 2_000;
    private static final int TELL_EVERY = 2_000;

    /** @param column of the value that cannot be taken */
    public record RefusedCell(long line, String column, String value, String reason) {}

    private final Shelf shelf;
    private final Configurations configurations;
    private final EntityManager entities;
    private final CsvFile csv;
    private final ImportCells cells = new ImportCells();
    private final boolean make;

    private final List<RefusedCell> refused = new ArrayList<>();
    private int refusedTotal;
    private @Nullable List<String> lastCells;
    private int lastSetup;
    private int there;
    private int computed;
    private final List<ImportRow> taken = new ArrayList<>();
    private final Map<String, DeviceClass> classes = new LinkedHashMap<>();
    private final Map<Suite, Map<String, TestRow>> known;
    /** New tests with their new metrics, by name. */
    private final Map<Suite, Map<String, Map<String, ImportRow>>> made = new LinkedHashMap<>();

    private final Map<Setup, Integer> setups = new LinkedHashMap<>();
    private final List<Optional<Long>> found = new ArrayList<>();
    private final Map<String, Boolean> models = new LinkedHashMap<>();
    private final Set<Place> sessions = new LinkedHashSet<>();
    private final Map<Place, ImportConditions> conditions = new HashMap<>();
    private final Map<List<Object>, Long> lines = new HashMap<>();
    private final Map<Long, Map<List<Object>, Optional<Double>>> stored = new HashMap<>();

    ImportReading(
            Shelf shelf,
            Configurations configurations,
            Catalog catalog,
            EntityManager entities,
            CsvFile csv,
            boolean make) {
        this.shelf = shelf;
        this.configurations = configurations;
        this.entities = entities;
        this.csv = csv;
        this.make = make;
        this.known = Suite.all(catalog.tests());
    }

    void read(ImportProgress progress) {
        List<String> missing =
                NEEDED.stream().filter(n -> !csv.columns().contains(n)).toList();
        if (!missing.isEmpty()) {
            throw Problem.invalid(
                    "columns-missing",
                    "The header lacks: " + String.join(", ", missing) + ". It has: "
                            + String.join(", ", csv.columns().stream().limit(30).toList()) + ".");
        }
        List<String> factColumns =
                csv.columns().stream().filter(c -> c.startsWith("fact:")).toList();
        int at = 0;
        for (CsvFile.Row row : csv.rows()) {
            if (at++ % TELL_EVERY == 0) {
                progress.at(ImportProgress.Step.READING, at - 1, csv.rows().size());
            }
            try {
                ImportRow one = row(row, factColumns);
                if (one != null && !isThere(one)) {
                    taken.add(one);
                    sessions.add(one.place());
                }
            } catch (Refused e) {
                refusedTotal++;
                if (refused.size() < MOST_REFUSED) {
                    refused.add(new RefusedCell(
                            row.line(),
                            e.column(),
                            e.value().length() > 80 ? e.value().substring(0, 80) + "…" : e.value(),
                            Problem.words(e)));
                }
            }
        }
        progress.at(ImportProgress.Step.READING, at, csv.rows().size());
    }

    /** @return null for a value that this ledger computes by itself */
    private @Nullable ImportRow row(CsvFile.Row row, List<String> factColumns) throws Refused {
        if (row.cells().length != csv.columns().size()) {
            throw new Refused(
                    "",
                    Integer.toString(row.cells().length),
                    "This row has " + row.cells().length + " cells, the header "
                            + csv.columns().size() + ".");
        }
        for (String column : NEEDED) {
            if (row.cell(column).isEmpty()) {
                throw new Refused(column, "", "This is needed and is empty.");
            }
        }
        ImportCells.checkLengths(row, csv.columns());
        Instant started = cells.time(row, "started");
        Instant finished = row.cell("finished").isEmpty() ? started : cells.time(row, "finished");
        int run = ImportCells.whole(row, "run");
        int attempt = ImportCells.whole(row, "attempt");
        int setup = setup(row, factColumns);
        Suite suite = new Suite(row.cell("suite"), row.cell("version"), row.cell("mode"));
        TestRow test = known.getOrDefault(suite, Map.of()).get(row.cell("test").toLowerCase(Locale.ROOT));
        if (test != null && !test.given()) {
            computed++;
            return null;
        }
        if (test == null && !make) {
            throw new Refused(
                    "test",
                    row.cell("test"),
                    suite.shown()
                            + " has no test of this name in the catalogue. Say that unknown ones may be made, or correct the name.");
        }
        Place place = new Place(setup, row.cell("session").isEmpty() ? "Imported" : row.cell("session"), started);
        ImportConditions own = ImportConditions.of(row);
        ImportConditions said = conditions.putIfAbsent(place, own);
        if (said != null && !said.equals(own)) {
            throw new Refused(
                    ImportConditions.POWER,
                    row.cell(ImportConditions.POWER),
                    "Another line of this session has other conditions. A session has one power, and is recorded or is not.");
        }
        ImportRow one = score(row, place, suite, test, finished, run, attempt);
        Long before = lines.putIfAbsent(
                List.of(
                        one.runKey(),
                        one.value() == null ? "" : one.measure().name().toLowerCase(Locale.ROOT)),
                row.line());
        if (before != null) {
            throw new Refused("run", Integer.toString(run), "Line " + before + " has this very run already.");
        }
        if (test == null) {
            if (known.getOrDefault(suite, Map.of()).values().stream().anyMatch(TestRow::builtIn)) {
                throw new Refused(
                        "test", row.cell("test"), suite.shown() + " is built in and has no test of this name.");
            }
            Map<String, ImportRow> metrics = made.computeIfAbsent(suite, s -> new LinkedHashMap<>())
                    .computeIfAbsent(row.cell("test").toLowerCase(Locale.ROOT), t -> new LinkedHashMap<>());
            if (one.value() != null || metrics.isEmpty()) {
                metrics.merge(one.measure().name().toLowerCase(Locale.ROOT), one, (a, b) -> a.value() == null ? b : a);
            }
        }
        return one;
    }

    /** Rows of one configuration mostly follow one another. */
    private int setup(CsvFile.Row row, List<String> factColumns) throws Refused {
        List<String> told = new ArrayList<>(factColumns.size() + SETUP_COLUMNS.size());
        SETUP_COLUMNS.forEach(c -> told.add(row.cell(c)));
        factColumns.forEach(c -> told.add(row.cell(c)));
        if (!told.equals(lastCells)) {
            lastSetup = newSetup(row, factColumns);
            lastCells = told;
        }
        return lastSetup;
    }

    private int newSetup(CsvFile.Row row, List<String> factColumns) throws Refused {
        String name = row.cell("maker") + " " + row.cell("model");
        if (!models.computeIfAbsent(
                name, n -> shelf.findModel(row.cell("maker"), row.cell("model")).isPresent())) {
            if (!make) {
                throw new Refused(
                        "model",
                        row.cell("model"),
                        name
                                + " is not on the shelf. Say that unknown models, suites and tests may be made, or correct the name.");
            }
            classes.put(
                    name,
                    Arrays.stream(DeviceClass.values())
                            .filter(c -> c.name().equalsIgnoreCase(row.cell("class")))
                            .findFirst()
                            .orElseThrow(() -> new Refused(
                                    "class",
                                    row.cell("class"),
                                    "A new model needs its class: desktop, mini, laptop, tablet, phone or board.")));
        }
        Map<String, String> facts = new TreeMap<>();
        for (String column : factColumns) {
            String value = row.cell(column);
            if (!value.isEmpty()) {
                facts.put(column.substring(5), fact(column, value));
            }
        }
        return setups.computeIfAbsent(
                new Setup(
                        row.cell("maker"),
                        row.cell("model"),
                        row.cell("unit").isEmpty() ? "Unit 1" : row.cell("unit"),
                        facts),
                s -> {
                    found.add(shelf.findModel(s.maker(), s.model())
                            .flatMap(m -> shelf.findUnit(m, s.unit()))
                            .flatMap(u -> configurations.find(u, s.facts())));
                    return found.size() - 1;
                });
    }

    /** A fact in its base unit, or as people write it: "8 GB". */
    private static String fact(String column, String value) throws Refused {
        FactKey key = FactVocabulary.entry(column.substring(5));
        Optional<String> unfit = FactReader.unfit(key, value);
        if (unfit.isEmpty()) {
            return value;
        }
        if (FactReader.read(key, value) instanceof FactReader.Understood u) {
            return u.value();
        }
        throw new Refused(column, value, unfit.get());
    }

    private ImportRow score(
            CsvFile.Row row, Place place, Suite suite, @Nullable TestRow test, Instant finished, int run, int attempt)
            throws Refused {
        String points = row.cell(POINTS);
        boolean withoutValue = row.cell("value").isEmpty() && points.isEmpty();
        List<NewReading> series = points.isEmpty() ? List.of() : series(row, test, points);
        Measure measure = !series.isEmpty() && test != null
                ? measure(whole(test))
                : test != null ? knownMeasure(row, test, withoutValue) : newMeasure(row, suite, withoutValue);
        RunState state = row.cell("state").isEmpty()
                ? withoutValue ? RunState.FAILED : RunState.OK
                : Arrays.stream(RunState.values())
                        .filter(s -> s.name().replace('_', ' ').equalsIgnoreCase(row.cell("state")))
                        .findFirst()
                        .orElseThrow(() -> new Refused(
                                "state", row.cell("state"), "The state is ok, failed, could not run or stopped."));
        if ((state == RunState.OK) == withoutValue) {
            throw new Refused("state", row.cell("state"), "A run that is ok has a value, and no other has one.");
        }
        Double value = null;
        double resolution = 0;
        if (!series.isEmpty()) {
            value = series.get(0).value();
            resolution = series.get(0).resolution();
        } else if (!withoutValue) {
            ScoreText.Value v = ImportCells.value(row.cell("value"), measure);
            value = v.value();
            resolution = ImportCells.resolution(row, v.resolution());
            try {
                new Measured(value, resolution).admittedFor(measure.scale());
            } catch (InvalidReadingException e) {
                throw new Refused("value", row.cell("value"), Problem.words(e));
            }
        }
        Reason reason = state == RunState.OK
                ? null
                : Arrays.stream(Reason.values())
                        .filter(x -> x.name().replace('_', ' ').equalsIgnoreCase(row.cell("reason")))
                        .findFirst()
                        .orElse(Reason.OTHER);
        return new ImportRow(
                row,
                place,
                row.cell("configuration").isEmpty() ? null : row.cell("configuration"),
                suite,
                row.cell("test"),
                measure,
                run,
                attempt,
                finished,
                state,
                reason,
                row.cell("note").isEmpty() ? null : row.cell("note"),
                value,
                resolution,
                !row.cell("counted").equalsIgnoreCase("no"),
                series);
    }

    /** What the points of a curve or of frame times come to, the number that stands for them first. */
    private static List<NewReading> series(CsvFile.Row row, @Nullable TestRow test, String points) throws Refused {
        if (!row.cell("value").isEmpty()) {
            throw new Refused(
                    POINTS, points, "A row has a value or points. The numbers of points are found when they are read.");
        }
        if (test == null || test.metrics().stream().noneMatch(m -> m.kind().isSeries())) {
            throw new Refused(
                    POINTS,
                    points,
                    "Only a test of the catalogue that gives a curve or frame times takes points. Make the test first.");
        }
        try {
            String whole = whole(test).key();
            return SeriesReadings.of(test, points, false).stream()
                    .sorted(Comparator.comparing(r -> !r.metric().equals(whole)))
                    .toList();
        } catch (Problem e) {
            throw new Refused(POINTS, points, Problem.words(e));
        }
    }

    private static MetricRow whole(TestRow test) {
        return test.metrics().stream()
                .filter(m -> m.kind().isSeries())
                .findFirst()
                .orElseThrow();
    }

    private static Measure knownMeasure(CsvFile.Row row, TestRow test, boolean withoutValue) throws Refused {
        String name = row.cell("metric");
        MetricRow metric = test.metrics().get(0);
        if (!withoutValue && test.metrics().size() > 1) {
            metric = test.metrics().stream()
                    .filter(m -> m.name().equalsIgnoreCase(name))
                    .findFirst()
                    .orElseThrow(() -> new Refused(
                            "metric",
                            name,
                            "This test gives several numbers: "
                                    + String.join(
                                            "; ",
                                            test.metrics().stream()
                                                    .map(MetricRow::name)
                                                    .toList()) + "."));
        }
        Optional<Direction> told = ImportCells.direction(row);
        if (!withoutValue
                && (!row.cell("measure unit").isEmpty() && !metric.unit().equals(row.cell("measure unit"))
                        || told.isPresent() && told.get() != metric.direction())) {
            throw new Refused(
                    "measure unit",
                    row.cell("measure unit"),
                    "This test is measured in another unit, or the other way round, than here.");
        }
        return measure(metric);
    }

    private static Measure measure(MetricRow metric) {
        return new Measure(
                metric.name(),
                metric.unit(),
                metric.direction(),
                metric.scale(),
                metric.kind(),
                metric.choices(),
                metric.group(),
                metric.main());
    }

    private Measure newMeasure(CsvFile.Row row, Suite suite, boolean withoutValue) throws Refused {
        String name = row.cell("metric").isEmpty() ? row.cell("test") : row.cell("metric");
        Map<String, ImportRow> metrics =
                made.getOrDefault(suite, Map.of()).getOrDefault(row.cell("test").toLowerCase(Locale.ROOT), Map.of());
        ImportRow before = metrics.get(name.toLowerCase(Locale.ROOT));
        String unit = !row.cell("measure unit").isEmpty()
                ? row.cell("measure unit")
                : before != null ? before.measure().unit() : "1";
        Direction direction = ImportCells.direction(row)
                .orElse(before != null ? before.measure().direction() : null);
        if (direction == null) {
            throw new Refused(
                    "direction", row.cell("direction"), "A new test needs to say whether more or less is better.");
        }
        if (!withoutValue
                && before != null
                && before.value() != null
                && (!before.measure().unit().equals(unit) || before.measure().direction() != direction)) {
            throw new Refused(
                    "measure unit", unit, "This test is measured in another unit, or the other way round, than here.");
        }
        if (before != null && before.value() != null) {
            return before.measure();
        }
        Kind kind = ImportCells.one(Kind.values(), row, "kind", TestLines.kind(unit));
        TestGroup group = ImportCells.one(TestGroup.values(), row, "group", TestGroup.EVERYDAY);
        Scale scale = ImportCells.one(
                Scale.values(),
                row,
                "scale",
                kind == Kind.CHECK || kind == Kind.CHOICE ? Scale.DIFFERENCE : TestLines.scale(unit));
        List<String> choices = row.cell("choices").isEmpty()
                ? List.of()
                : Arrays.stream(row.cell("choices").split("<"))
                        .map(String::strip)
                        .toList();
        // The points of a series are not in a file, only its numbers.
        return new Measure(
                name,
                unit,
                direction,
                scale,
                kind.isSeries() ? TestLines.kind(unit) : kind,
                choices,
                group,
                !row.cell(LedgerCsv.COMPUTED).equalsIgnoreCase("yes")
                        && (metrics.isEmpty()
                                || metrics.keySet().iterator().next().equals(name.toLowerCase(Locale.ROOT))));
    }

    /** Whether the ledger has this very row; where it has something else for the run, the row is refused. */
    private boolean isThere(ImportRow t) throws Refused {
        Optional<Long> configuration = found.get(t.place().setup());
        TestRow test = known.getOrDefault(t.suite(), Map.of()).get(t.test().toLowerCase(Locale.ROOT));
        if (configuration.isEmpty() || test == null) {
            return false;
        }
        Map<List<Object>, Optional<Double>> runs = stored.computeIfAbsent(configuration.get(), this::runsOf);
        List<Object> run = List.of(test.id(), t.place().started(), t.run(), t.attempt());
        if (!runs.containsKey(run)) {
            return false;
        }
        long metric = test.metrics().stream()
                .filter(m -> m.name().equals(t.measure().name()))
                .findFirst()
                .orElse(test.metrics().get(0))
                .id();
        Optional<Double> value =
                t.value() == null ? runs.get(run) : runs.getOrDefault(List.of(run, metric), Optional.empty());
        if (!value.equals(Optional.ofNullable(t.value()))) {
            throw new Refused(
                    "value",
                    t.row().cell("value"),
                    "The ledger has " + value.map(v -> "the value " + v).orElse("no value") + " for this very run.");
        }
        there++;
        return true;
    }

    /** Every run of a configuration with its value, and every reading under its metric: one question for all rows of it. */
    private Map<List<Object>, Optional<Double>> runsOf(long configurationId) {
        Map<List<Object>, Optional<Double>> runs = new HashMap<>();
        entities.createQuery(
                        """
                select r.testId, s.startedAt, r.runNumber, r.attempt, rd.value, rd.metricId from Run r join Session s on s.id = r.sessionId left join Reading rd on rd.runId = r.id
                where r.configurationId = :configuration""",
                        Object[].class)
                .setParameter("configuration", configurationId)
                .getResultList()
                .forEach(x -> {
                    List<Object> run = List.of(x[0], x[1], x[2], x[3]);
                    runs.putIfAbsent(run, Optional.ofNullable((Double) x[4]));
                    if (x[5] != null) {
                        runs.put(List.of(run, x[5]), Optional.of((Double) x[4]));
                    }
                });
        return runs;
    }

    /** Rows that are to be stored. */
    List<ImportRow> taken() {
        return taken;
    }

    /** The rows of each run that is to be stored, in the order of the file. */
    Map<RunKey, List<ImportRow>> runs() {
        Map<RunKey, List<ImportRow>> runs = new LinkedHashMap<>();
        taken.forEach(
                t -> runs.computeIfAbsent(t.runKey(), k -> new ArrayList<>()).add(t));
        return runs;
    }

    List<Setup> setups() {
        return List.copyOf(setups.keySet());
    }

    /** The configuration of a setup, where the shelf has it. */
    Optional<Long> configuration(int setup) {
        return found.get(setup);
    }

    DeviceClass deviceClass(Setup s) {
        return require(classes, s.maker() + " " + s.model());
    }

    Map<Suite, Map<String, Map<String, ImportRow>>> made() {
        return made;
    }

    ImportConditions conditions(Place place) {
        return conditions.getOrDefault(place, ImportConditions.UNKNOWN);
    }

    List<RefusedCell> refused() {
        return refused;
    }

    int refusedTotal() {
        return refusedTotal;
    }

    LedgerImport.ImportOutcome outcome(boolean isStored) {
        List<String> newModels = models.entrySet().stream()
                .filter(e -> !e.getValue())
                .map(Map.Entry::getKey)
                .toList();
        int readings = (int) taken.stream().filter(t -> t.value() != null).count();
        return new LedgerImport.ImportOutcome(
                csv.rows().size(),
                readings,
                taken.size() - readings,
                there,
                computed,
                newModels,
                (int) found.stream().filter(Optional::isEmpty).count(),
                made.keySet().stream().map(Suite::shown).toList(),
                made.values().stream().mapToInt(Map::size).sum(),
                sessions.size(),
                refused,
                refusedTotal,
                csv.columns().stream()
                        .filter(c -> !c.isEmpty()
                                && !c.equals(POINTS)
                                && !LedgerCsv.BEFORE_FACTS.contains(c)
                                && !LedgerCsv.AFTER_FACTS.contains(c)
                                && !c.startsWith("fact:"))
                        .toList(),
                isStored);
    }
}
