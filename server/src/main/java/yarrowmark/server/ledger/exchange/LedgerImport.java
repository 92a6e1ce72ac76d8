package yarrowmark.server.ledger.exchange;

import static yarrowmark.server.platform.Require.require;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.TestRow;
import yarrowmark.server.ledger.exchange.ImportRow.Measure;
import yarrowmark.server.ledger.exchange.ImportRow.Place;
import yarrowmark.server.ledger.exchange.ImportRow.Setup;
import yarrowmark.server.ledger.exchange.ImportRow.Suite;
import yarrowmark.server.ledger.exchange.LedgerImportEntry.Kind;
import yarrowmark.server.ledger.exchange.LedgerImportEntry.Part;
import yarrowmark.server.ledger.record.Ledger;
import yarrowmark.server.ledger.record.NewSession;
import yarrowmark.server.ledger.record.SessionLifecycle;
import yarrowmark.server.ledger.record.SessionState;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.shelf.Shelf;
import yarrowmark.server.shelf.configuration.Configurations;

/**
 * Takes readings in from CSV, all of a file or nothing. First the whole file is understood without storing anything;
 * only a file without a refused row can be stored. Rows that the ledger has already are passed over, so that the same
 * file twice adds nothing.
 */
@Service
public class LedgerImport {
    /**
     * What a file would do, or did.
     *
     * @param there    rows that the ledger has already
     * @param computed rows of values that this ledger computes by itself, and does not take
     * @param refused  the first of them; refusedTotal counts all
     * @param ignored  columns that nothing is known about
     * @param importId names what was stored, so that it can be undone; null where nothing was
     */
    public record ImportOutcome(
            int rows,
            int readings,
            int withoutValue,
            int there,
            int computed,
            List<String> newModels,
            int newConfigurations,
            List<String> newSuites,
            int newTests,
            int newSessions,
            List<ImportReading.RefusedCell> refused,
            int refusedTotal,
            List<String> ignored,
            boolean stored,
            @Nullable Long importId) {}

    private static final int CLEAR_EVERY = 20;

    private final Shelf shelf;
    private final Configurations configurations;
    private final Catalog catalog;
    private final SessionLifecycle lifecycle;
    private final EntityManager entities;
    private final LedgerBulk bulkStore;
    private final LedgerImportRepository imports;
    private final Clock clock;

    LedgerImport(
            Shelf shelf,
            Configurations configurations,
            Catalog catalog,
            SessionLifecycle lifecycle,
            EntityManager entities,
            LedgerBulk bulkStore,
            LedgerImportRepository imports,
            Clock clock) {
        this.imports = imports;
        this.clock = clock;
        this.shelf = shelf;
        this.configurations = configurations;
        this.catalog = catalog;
        this.lifecycle = lifecycle;
        this.entities = entities;
        this.bulkStore = bulkStore;
    }

    @Transactional(readOnly = true)
    public ImportOutcome preview(byte[] file, boolean make, ImportProgress progress) {
        return read(CsvFile.read(file), make, progress).outcome(false, null);
    }

    @Transactional
    public ImportOutcome store(byte[] file, boolean make, String person, ImportProgress progress) {
        return storeRows(CsvFile.read(file), make, person, progress);
    }

    @Transactional(readOnly = true)
    public ImportOutcome previewRows(CsvFile rows, ImportProgress progress) {
        return read(rows, true, progress).outcome(false, null);
    }

    @Transactional
    public ImportOutcome storeRows(CsvFile rows, boolean make, String person, ImportProgress progress) {
        ImportReading reading = read(rows, make, progress);
        if (reading.refusedTotal() > 0) {
            throw Problem.invalid(
                    "rows-refused",
                    reading.refusedTotal() + " rows cannot be taken, so nothing was stored. The first is on line "
                            + reading.refused().get(0).line() + ": "
                            + reading.refused().get(0).reason());
        }
        Set<Part> made = store(reading, person, progress);
        // What adds nothing is nothing that could be undone.
        Long importId = made.isEmpty()
                ? null
                : imports.save(new LedgerImportEntry(person, clock.instant(), reading.readings(), made))
                        .id();
        return reading.outcome(true, importId);
    }

    private ImportReading read(CsvFile rows, boolean make, ImportProgress progress) {
        ImportReading reading = new ImportReading(shelf, configurations, catalog, entities, rows, make);
        reading.read(progress);
        return reading;
    }

    /** @return what it made */
    private Set<Part> store(ImportReading r, String person, ImportProgress progress) {
        Set<Part> made = new HashSet<>();
        Set<Suite> there = Suite.all(catalog.tests()).keySet();
        r.made().forEach((suite, tests) -> makeTests(suite, tests, there.contains(suite), person));
        Map<Suite, Map<String, TestRow>> tests = Suite.all(catalog.tests());
        List<Optional<Long>> known = new ArrayList<>();
        for (int i = 0; i < r.setups().all().size(); i++) {
            known.add(r.setups().configuration(i));
        }
        Map<Place, Long> sessions = openSessions(r, known, person, made);
        List<LedgerBulk.BulkRun> bulk = new ArrayList<>();
        r.runs().forEach((key, rows) -> {
            ImportRow first = rows.get(0);
            TestRow test = require(require(tests, first.suite()), key.test());
            Map<String, MetricRow> metrics = test.metrics().stream()
                    .collect(Collectors.toMap(m -> m.name().toLowerCase(Locale.ROOT), m -> m, (a, b) -> a));
            List<LedgerBulk.BulkReading> readings = rows.stream()
                    .filter(t -> t.value() != null)
                    .flatMap(t -> bulkReadings(t, test, metrics))
                    .toList();
            bulk.add(new LedgerBulk.BulkRun(
                    require(sessions, key.place()),
                    known.get(key.place().setup()).orElseThrow(),
                    test.id(),
                    first.run(),
                    first.attempt(),
                    first.state(),
                    first.reason(),
                    first.value() == null || first.counted() ? first.words() : null,
                    first.finished(),
                    readings));
        });
        bulkStore.store(bulk, person, progress);
        sessions.values().forEach(id -> made.add(new Part(Kind.SESSION, id)));
        return made;
    }

    private static Stream<LedgerBulk.BulkReading> bulkReadings(
            ImportRow t, TestRow test, Map<String, MetricRow> byName) {
        String aside = t.counted() ? null : t.words() == null ? "Set aside where it comes from" : t.words();
        if (!t.series().isEmpty()) {
            Map<String, MetricRow> byKey = test.metrics().stream().collect(Collectors.toMap(MetricRow::key, m -> m));
            return t.series().stream()
                    .map(r -> new LedgerBulk.BulkReading(
                            require(byKey, r.metric()), r.value(), r.resolution(), aside, r.samples()));
        }
        MetricRow metric = byName.getOrDefault(
                t.measure().name().toLowerCase(Locale.ROOT), test.metrics().get(0));
        return Stream.of(new LedgerBulk.BulkReading(metric, require(t.value()), t.resolution(), aside, List.of()));
    }

    private Map<Place, Long> openSessions(ImportReading r, List<Optional<Long>> known, String person, Set<Part> made) {
        Map<Place, Integer> runs = new HashMap<>();
        Map<Place, Instant> ends = new HashMap<>();
        Map<Place, ImportRow> first = new LinkedHashMap<>();
        r.taken().forEach(t -> {
            runs.merge(t.place(), t.run(), Math::max);
            ends.merge(t.place(), t.finished(), (a, b) -> a.isAfter(b) ? a : b);
            first.putIfAbsent(t.place(), t);
        });
        Map<Place, Long> sessions = new HashMap<>();
        first.forEach((place, row) -> {
            if (known.get(place.setup()).isEmpty()) {
                known.set(
                        place.setup(),
                        Optional.of(makeConfiguration(r, r.setups().all().get(place.setup()), row, person, made)));
            }
            known.set(
                    place.setup(),
                    Optional.of(configurations.resolveMerged(
                            known.get(place.setup()).orElseThrow())));
            long session = lifecycle.open(new NewSession(
                    known.get(place.setup()).orElseThrow(),
                    place.session(),
                    require(runs, place),
                    0,
                    r.conditions(place).onMains(),
                    null,
                    place.started(),
                    List.of(),
                    person,
                    Ledger.ByHand.read(
                            r.conditions(place).recording(), r.conditions(place).otherWork()),
                    null));
            lifecycle.end(session, SessionState.DONE, require(ends, place));
            sessions.put(place, session);
            if (sessions.size() % CLEAR_EVERY == 0) {
                // A long list of stored things would be looked through again with every question.
                entities.flush();
                entities.clear();
            }
        });
        return sessions;
    }

    private void makeTests(Suite suite, Map<String, Map<String, ImportRow>> tests, boolean isThere, String person) {
        List<Catalog.NewTest> made = new ArrayList<>();
        for (Map<String, ImportRow> metrics : tests.values()) {
            List<Catalog.NewMetric> all = new ArrayList<>();
            for (ImportRow t : metrics.values()) {
                Measure m = t.measure();
                all.add(new Catalog.NewMetric(
                        "value" + (all.isEmpty() ? "" : "-" + (all.size() + 1)),
                        m.name(),
                        m.unit(),
                        m.direction(),
                        m.scale(),
                        m.main(),
                        new Catalog.More(m.kind(), m.choices(), null, false, null, null, Map.of())));
            }
            ImportRow first = metrics.values().iterator().next();
            made.add(new Catalog.NewTest(
                    (isThere ? "added-" + UUID.randomUUID().toString().substring(0, 8) : "imported") + "-"
                            + (made.size() + 1),
                    first.test(),
                    "",
                    first.measure().group(),
                    all));
        }
        if (isThere) {
            catalog.addTests(suite.suite(), suite.version(), suite.mode(), made, person);
        } else {
            catalog.makeOwn(suite.suite(), suite.version(), suite.mode(), made, person);
        }
    }

    private long makeConfiguration(ImportReading r, Setup s, ImportRow t, String person, Set<Part> made) {
        long model = shelf.findModel(s.maker(), s.model())
                .orElseGet(() -> noted(
                        made,
                        Kind.MODEL,
                        shelf.make(
                                new Shelf.ModelFacts(
                                        s.maker(), s.model(), r.setups().deviceClass(s), null, null, null),
                                person)));
        long unit = shelf.findUnit(model, s.unit())
                .orElseGet(() -> noted(made, Kind.UNIT, shelf.addUnit(model, s.unit(), person)));
        return configurations
                .find(unit, s.facts())
                .orElseGet(() -> noted(
                        made,
                        Kind.CONFIGURATION,
                        configurations.makeDescribed(unit, t.configurationName(), s.facts(), person)));
    }

    private static long noted(Set<Part> made, Kind kind, long id) {
        made.add(new Part(kind, id));
        return id;
    }
}
