package yarrowmark.server.ledger.exchange;

import jakarta.persistence.EntityManager;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.entry.ScoreText;
import yarrowmark.core.measure.InvalidReadingException;
import yarrowmark.core.measure.Measured;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.TestRow;
import yarrowmark.server.ledger.exchange.ImportCells.Refused;
import yarrowmark.server.ledger.exchange.ImportRow.Measure;
import yarrowmark.server.ledger.exchange.ImportRow.Place;
import yarrowmark.server.ledger.exchange.ImportRow.RunKey;
import yarrowmark.server.ledger.exchange.ImportRow.Suite;
import yarrowmark.server.ledger.record.NewReading;
import yarrowmark.server.ledger.record.Reason;
import yarrowmark.server.ledger.record.RunState;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.shelf.Shelf;
import yarrowmark.server.shelf.configuration.Configurations;

/** Understands the rows of one file, against the ledger as it is. Stores nothing. */
public final class ImportReading {
    /** Columns without which a file is not in the ledger's own form. */
    public static final List<String> NEEDED = List.of("maker", "model", "suite", "version", "test", "started");

    static final String POINTS = "points";
    private static final int MOST_REFUSED = 2_000;
    private static final int TELL_EVERY = 2_000;

    /** @param column of the value that cannot be taken */
    public record RefusedCell(long line, String column, String value, String reason) {}

    private final CsvFile csv;
    private final ImportCells cells = new ImportCells();
    private final boolean make;

    private final List<RefusedCell> refused = new ArrayList<>();
    private int refusedTotal;
    private int there;
    private int computed;
    private final List<ImportRow> taken = new ArrayList<>();
    private final Map<Suite, Map<String, TestRow>> known;
    /** New tests with their new metrics, by name. */
    private final Map<Suite, Map<String, Map<String, ImportRow>>> made = new LinkedHashMap<>();

    private final ImportSetups setups;
    private final StoredRuns stored;
    private final Set<Place> sessions = new LinkedHashSet<>();
    private final Map<Place, ImportConditions> conditions = new HashMap<>();
    private final Map<List<Object>, Long> lines = new HashMap<>();

    ImportReading(
            Shelf shelf,
            Configurations configurations,
            Catalog catalog,
            EntityManager entities,
            CsvFile csv,
            boolean make) {
        this.setups = new ImportSetups(shelf, configurations, csv.columns(), make);
        this.stored = new StoredRuns(entities);
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
        int at = 0;
        for (CsvFile.Row row : csv.rows()) {
            if (at++ % TELL_EVERY == 0) {
                progress.at(ImportProgress.Step.READING, at - 1, csv.rows().size());
            }
            try {
                ImportRow one = row(row);
                if (one == null) {
                    continue;
                }
                if (stored.has(one, setups.configuration(one.place().setup()), test(one.suite(), one.test()))) {
                    there++;
                } else {
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
    private @Nullable ImportRow row(CsvFile.Row row) throws Refused {
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
        int setup = setups.setup(row);
        Suite suite = new Suite(row.cell("suite"), row.cell("version"), row.cell("mode"));
        TestRow test = test(suite, row.cell("test"));
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

    private ImportRow score(
            CsvFile.Row row, Place place, Suite suite, @Nullable TestRow test, Instant finished, int run, int attempt)
            throws Refused {
        String points = row.cell(POINTS);
        boolean withoutValue = row.cell("value").isEmpty() && points.isEmpty();
        List<NewReading> series = points.isEmpty() ? List.of() : ImportMeasures.series(row, test, points);
        Measure measure = !series.isEmpty() && test != null
                ? ImportMeasures.measure(ImportMeasures.whole(test))
                : test != null
                        ? ImportMeasures.knownMeasure(row, test, withoutValue)
                        : ImportMeasures.newMeasure(
                                row,
                                made.getOrDefault(suite, Map.of())
                                        .getOrDefault(row.cell("test").toLowerCase(Locale.ROOT), Map.of()),
                                withoutValue);
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

    private @Nullable TestRow test(Suite suite, String name) {
        return known.getOrDefault(suite, Map.of()).get(name.toLowerCase(Locale.ROOT));
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

    ImportSetups setups() {
        return setups;
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

    /** How many rows have a value that would be stored. */
    int readings() {
        return (int) taken.stream().filter(t -> t.value() != null).count();
    }

    /** @param importId names what was stored; null where nothing was */
    LedgerImport.ImportOutcome outcome(boolean isStored, @Nullable Long importId) {
        int readings = readings();
        return new LedgerImport.ImportOutcome(
                csv.rows().size(),
                readings,
                taken.size() - readings,
                there,
                computed,
                setups.newModels(),
                setups.newConfigurations(),
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
                isStored,
                importId);
    }
}
