package yarrowmark.server.ledger.sheet;

import static yarrowmark.server.platform.Require.require;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.measure.Kind;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.sensor.Sensed;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.TestRow;
import yarrowmark.server.ledger.line.LedgerPages;
import yarrowmark.server.ledger.record.ComputedValues;
import yarrowmark.server.ledger.record.Reading;
import yarrowmark.server.ledger.record.ReadingRepository;
import yarrowmark.server.ledger.record.Run;
import yarrowmark.server.ledger.record.RunRepository;
import yarrowmark.server.ledger.record.RunState;
import yarrowmark.server.ledger.record.Session;
import yarrowmark.server.ledger.record.SessionRepository;
import yarrowmark.server.ledger.record.SetAsideRepository;
import yarrowmark.server.ledger.record.TestByHand;
import yarrowmark.server.platform.Problem;

/** One session as a sheet of scores that a person types: a row for each test, a place for each run. */
@Service
class ScoreSheet {
    /**
     * @param state absent while nothing was typed
     * @param words why there is no value
     * @param aside whether its reading is out of the count
     */
    record SheetRun(
            int number,
            @Nullable Long runId,
            @Nullable RunState state,
            @Nullable Double value,
            @Nullable Double resolution,
            @Nullable Long readingId,
            @Nullable String words,
            boolean aside) {}

    /**
     * @param others   further numbers of the same runs, such as those of a curve; empty for most tests
     * @param further  those of them that can be typed behind the first, by name
     * @param computed whether the server computes it; its runs then say why one has no value
     */
    record SheetTest(
            long testId,
            String name,
            String summary,
            String suite,
            String version,
            MetricRow metric,
            List<SheetRun> runs,
            List<OtherNumber> others,
            List<MetricRow> further,
            boolean computed) {}

    record OtherNumber(int run, MetricRow metric, double value) {}

    record Sheet(LedgerPages.SessionPage session, List<SheetTest> tests) {}

    private final LedgerPages pages;
    private final SessionRepository sessions;
    private final RunRepository runs;
    private final ReadingRepository readings;
    private final SetAsideRepository asides;
    private final ComputedValues computedValues;
    private final Catalog catalog;

    ScoreSheet(
            LedgerPages pages,
            SessionRepository sessions,
            RunRepository runs,
            ReadingRepository readings,
            SetAsideRepository asides,
            ComputedValues computedValues,
            Catalog catalog) {
        this.computedValues = computedValues;
        this.pages = pages;
        this.sessions = sessions;
        this.runs = runs;
        this.readings = readings;
        this.asides = asides;
        this.catalog = catalog;
    }

    @Transactional(readOnly = true)
    Sheet sheet(long sessionId) {
        Session session = session(sessionId);
        Map<Long, Map<Integer, Run>> latest = latest(sessionId);
        Map<Long, List<Reading>> byRun =
                readings
                        .findByRuns(latest.values().stream()
                                .flatMap(m -> m.values().stream())
                                .map(Run::id)
                                .toList())
                        .stream()
                        .collect(Collectors.groupingBy(Reading::runId));
        Set<Long> out = outOfCount(byRun);
        List<MetricRow> computed = catalog.computed();
        Map<Long, TestByHand> byHand =
                session.testsByHand().stream().collect(Collectors.toMap(TestByHand::testId, t -> t));
        Set<Long> order = new LinkedHashSet<>(
                session.testsByHand().stream().map(TestByHand::testId).toList());
        order.addAll(latest.keySet());
        computed.forEach(m -> order.remove(m.testId()));
        Map<Long, TestRow> tests = catalog.tests(order).stream().collect(Collectors.toMap(TestRow::id, t -> t));
        // What a device runs by itself is no row of a sheet, unless the session was made to have it typed.
        order.removeIf(id -> require(tests, id).byItself() && !byHand.containsKey(id));
        List<SheetTest> rows = new ArrayList<>();
        for (long id : order) {
            TestRow test = require(tests, id);
            Map<Integer, Run> done = latest.getOrDefault(id, Map.of());
            TestByHand hand = byHand.get(id);
            int planned = Math.max(
                    hand == null || hand.runs() == null ? session.runs() : hand.runs(),
                    done.keySet().stream().mapToInt(Integer::intValue).max().orElse(0));
            List<SheetRun> places = new ArrayList<>();
            for (int number = 1; number <= planned; number++) {
                places.add(place(number, done.get(number), main(test), byRun, out));
            }
            rows.add(new SheetTest(
                    id,
                    test.name(),
                    hand == null || hand.todo() == null ? test.summary() : hand.todo(),
                    test.suite(),
                    test.version(),
                    main(test),
                    places,
                    others(test, done, byRun),
                    further(test),
                    false));
        }
        Set<Long> metrics = tests.values().stream()
                .flatMap(t -> t.metrics().stream())
                .map(MetricRow::id)
                .collect(Collectors.toCollection(HashSet::new));
        for (MetricRow metric : computed) {
            if (metric.inputs().values().stream().anyMatch(metrics::contains)) {
                metrics.add(metric.id());
                rows.add(computedRow(sessionId, metric, latest.getOrDefault(metric.testId(), Map.of()), byRun, out));
            }
        }
        return new Sheet(pages.session(sessionId), rows);
    }

    /** Which of these readings do not count: one question for all of them. */
    private Set<Long> outOfCount(Map<Long, List<Reading>> byRun) {
        List<Long> ids =
                byRun.values().stream().flatMap(List::stream).map(Reading::id).toList();
        return ids.isEmpty() ? Set.of() : Set.copyOf(asides.findOpen(ids));
    }

    private static List<OtherNumber> others(TestRow test, Map<Integer, Run> done, Map<Long, List<Reading>> byRun) {
        List<OtherNumber> others = new ArrayList<>();
        test.metrics().stream()
                .filter(m -> m.id() != main(test).id())
                .forEach(m -> done.forEach((number, run) -> byRun.getOrDefault(run.id(), List.of()).stream()
                        .filter(r -> r.metricId() == m.id())
                        .forEach(r -> others.add(new OtherNumber(number, m, r.value())))));
        return others;
    }

    private SheetTest computedRow(
            long sessionId, MetricRow metric, Map<Integer, Run> done, Map<Long, List<Reading>> byRun, Set<Long> out) {
        Map<Integer, String> reasons =
                computedValues.compute(session(sessionId), metric).reasons();
        Set<Integer> numbers = new TreeSet<>(done.keySet());
        numbers.addAll(reasons.keySet());
        List<SheetRun> runs = numbers.stream()
                .map(n -> {
                    SheetRun run = place(n, done.get(n), metric, byRun, out);
                    return run.value() == null || run.aside()
                            ? new SheetRun(n, null, null, null, null, null, reasons.get(n), false)
                            : run;
                })
                .toList();
        TestRow test = test(metric.testId());
        return new SheetTest(
                test.id(),
                test.name(),
                require(metric.formula()),
                test.suite(),
                test.version(),
                metric,
                runs,
                List.of(),
                List.of(),
                true);
    }

    private static SheetRun place(
            int number, @Nullable Run run, MetricRow metric, Map<Long, List<Reading>> byRun, Set<Long> out) {
        if (run == null) {
            return new SheetRun(number, null, null, null, null, null, null, false);
        }
        Reading reading = byRun.getOrDefault(run.id(), List.of()).stream()
                .filter(r -> r.metricId() == metric.id())
                .findFirst()
                .orElse(null);
        return new SheetRun(
                number,
                run.id(),
                run.state(),
                reading == null ? null : reading.value(),
                reading == null ? null : reading.resolution(),
                reading == null ? null : reading.id(),
                run.reasonWords(),
                reading != null && out.contains(reading.id()));
    }

    /** The last attempt of each run, by test. */
    Map<Long, Map<Integer, Run>> latest(long sessionId) {
        Map<Long, Map<Integer, Run>> latest = new HashMap<>();
        for (Run run : runs.findBySessionIdInOrderById(List.of(sessionId))) {
            latest.computeIfAbsent(run.testId(), t -> new HashMap<>())
                    .merge(run.runNumber(), run, (a, b) -> b.attempt() >= a.attempt() ? b : a);
        }
        return latest;
    }

    TestRow test(long id) {
        return catalog.tests(List.of(id)).stream().findFirst().orElseThrow(() -> Problem.notFound("test", id));
    }

    /** Other numbers of a run that a person may type behind the first, in their order: an average has a low beside it. */
    static List<MetricRow> further(TestRow test) {
        MetricRow main = main(test);
        if (main.kind() == Kind.CURVE || main.kind() == Kind.CHECK || main.kind() == Kind.CHOICE) {
            return List.of();
        }
        return test.metrics().stream()
                .filter(m -> m.id() != main.id() && m.given() && !Sensed.KEYS.contains(m.key()))
                .filter(m -> m.series() == null || m.scale() == Scale.RATIO)
                .filter(m -> m.kind() != Kind.CHECK
                        && m.kind() != Kind.CHOICE
                        && !m.kind().isSeries())
                .toList();
    }

    static MetricRow main(TestRow test) {
        return test.metrics().stream()
                .filter(MetricRow::main)
                .findFirst()
                .orElse(test.metrics().get(0));
    }

    private Session session(long id) {
        return sessions.findById(id).orElseThrow(() -> Problem.notFound("session", id));
    }
}
