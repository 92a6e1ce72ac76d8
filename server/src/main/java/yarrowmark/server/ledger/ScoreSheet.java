package yarrowmark.server.ledger;

import java.time.Clock;
import java.util.ArrayList;
import java.util.Comparator;
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
import yarrowmark.core.entry.KindText;
import yarrowmark.core.entry.ScoreDoubt;
import yarrowmark.core.entry.ScoreText;
import yarrowmark.core.measure.Merit;
import yarrowmark.core.measure.Scale;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.TestRow;
import yarrowmark.server.platform.Problem;

/** One session as a sheet of scores that a person types: a row for each test, a place for each run. */
@Service
class ScoreSheet {
    private static final int MOST_RUNS = 30;

    /**
     * @param state absent while nothing was typed
     * @param words why there is no value
     * @param aside whether its reading is out of the count
     */
    record SheetRun(int number, @Nullable Long runId, @Nullable RunState state, @Nullable Double value, @Nullable Double resolution, @Nullable Long readingId, @Nullable String words, boolean aside) { }

    /**
     * @param others   further numbers of the same runs, such as those of a curve; empty for most tests
     * @param computed whether the server computes it; its runs then say why one has no value
     */
    record SheetTest(long testId, String name, String summary, String suite, String version, MetricRow metric, List<SheetRun> runs, List<OtherNumber> others, boolean computed) { }

    record OtherNumber(int run, MetricRow metric, double value) { }

    record Sheet(LedgerPages.SessionPage session, List<SheetTest> tests) { }

    /** @param would what the value would be without the slip, in the metric's unit; for FAR the median of the others */
    record DoubtPart(ScoreDoubt.Kind kind, double would) { }

    /**
     * How a typed text is understood, before it is stored.
     *
     * @param ran       for a run without a value: whether it began and failed
     * @param perOthers value over the mean of the other runs; absent where there are none
     * @param place     where the value would stand alone among the configurations that have this metric
     */
    record Look(@Nullable Double value, @Nullable Double resolution, @Nullable Boolean ran, @Nullable String words, @Nullable String reason, @Nullable Double perOthers,
                List<DoubtPart> doubts, @Nullable Integer place, @Nullable Integer of) { }

    private final Ledger ledger;
    private final LedgerPages pages;
    private final SessionRepository sessions;
    private final RunRepository runs;
    private final ReadingRepository readings;
    private final SetAsideRepository asides;
    private final Samples samples;
    private final ComputedValues computedValues;
    private final Catalog catalog;
    private final Clock clock;

    ScoreSheet(Ledger ledger, LedgerPages pages, SessionRepository sessions, RunRepository runs, ReadingRepository readings, SetAsideRepository asides,
               Samples samples, ComputedValues computedValues, Catalog catalog, Clock clock) {
        this.computedValues = computedValues;
        this.ledger = ledger;
        this.pages = pages;
        this.sessions = sessions;
        this.runs = runs;
        this.readings = readings;
        this.asides = asides;
        this.samples = samples;
        this.catalog = catalog;
        this.clock = clock;
    }

    @Transactional(readOnly = true)
    Sheet sheet(long sessionId) {
        Session session = session(sessionId);
        Map<Long, Map<Integer, Run>> latest = latest(sessionId);
        Map<Long, List<Reading>> byRun = readings.findByRuns(latest.values().stream().flatMap(m -> m.values().stream()).map(Run::id).toList()).stream()
            .collect(Collectors.groupingBy(Reading::runId));
        List<MetricRow> computed = catalog.computed();
        Map<Long, TestByHand> byHand = session.testsByHand().stream().collect(Collectors.toMap(TestByHand::testId, t -> t));
        Set<Long> order = new LinkedHashSet<>(session.testsByHand().stream().map(TestByHand::testId).toList());
        order.addAll(latest.keySet());
        computed.forEach(m -> order.remove(m.testId()));
        Map<Long, TestRow> tests = catalog.tests(order).stream().collect(Collectors.toMap(TestRow::id, t -> t));
        // What a device runs by itself is no row of a sheet, unless the session was made to have it typed.
        order.removeIf(id -> tests.get(id).builtIn() && !byHand.containsKey(id));
        List<SheetTest> rows = new ArrayList<>();
        for (long id : order) {
            TestRow test = tests.get(id);
            Map<Integer, Run> done = latest.getOrDefault(id, Map.of());
            TestByHand hand = byHand.get(id);
            int planned = Math.max(hand == null || hand.runs() == null ? session.runs() : hand.runs(), done.keySet().stream().mapToInt(Integer::intValue).max().orElse(0));
            List<SheetRun> places = new ArrayList<>();
            for (int number = 1; number <= planned; number++) {
                places.add(place(number, done.get(number), byRun));
            }
            rows.add(new SheetTest(id, test.name(), hand == null || hand.todo() == null ? test.summary() : hand.todo(), test.suite(), test.version(), main(test), places, others(test, done, byRun), false));
        }
        Set<Long> metrics = tests.values().stream().flatMap(t -> t.metrics().stream()).map(MetricRow::id).collect(Collectors.toCollection(HashSet::new));
        for (MetricRow metric : computed) {
            if (metric.inputs().values().stream().anyMatch(metrics::contains)) {
                metrics.add(metric.id());
                rows.add(computedRow(sessionId, metric, latest.getOrDefault(metric.testId(), Map.of()), byRun));
            }
        }
        return new Sheet(pages.session(sessionId), rows);
    }

    private static List<OtherNumber> others(TestRow test, Map<Integer, Run> done, Map<Long, List<Reading>> byRun) {
        List<OtherNumber> others = new ArrayList<>();
        test.metrics().stream().filter(m -> m.id() != main(test).id()).forEach(m -> done.forEach((number, run) -> byRun.getOrDefault(run.id(), List.of()).stream()
            .filter(r -> r.metricId() == m.id()).forEach(r -> others.add(new OtherNumber(number, m, r.value())))));
        return others;
    }

    private SheetTest computedRow(long sessionId, MetricRow metric, Map<Integer, Run> done, Map<Long, List<Reading>> byRun) {
        Map<Integer, String> reasons = computedValues.compute(sessionId, metric).reasons();
        Set<Integer> numbers = new TreeSet<>(done.keySet());
        numbers.addAll(reasons.keySet());
        List<SheetRun> runs = numbers.stream().map(n -> {
            SheetRun run = place(n, done.get(n), byRun);
            return run.value() == null || run.aside() ? new SheetRun(n, null, null, null, null, null, reasons.get(n), false) : run;
        }).toList();
        TestRow test = test(metric.testId());
        return new SheetTest(test.id(), test.name(), metric.formula(), test.suite(), test.version(), metric, runs, List.of(), true);
    }

    private SheetRun place(int number, @Nullable Run run, Map<Long, List<Reading>> byRun) {
        if (run == null) {
            return new SheetRun(number, null, null, null, null, null, null, false);
        }
        Reading reading = byRun.getOrDefault(run.id(), List.of()).stream().findFirst().orElse(null);
        return new SheetRun(number, run.id(), run.state(), reading == null ? null : reading.value(), reading == null ? null : reading.resolution(), reading == null ? null : reading.id(),
            run.reasonWords(), reading != null && asides.findByReadingIdAndTakenBackAtIsNull(reading.id()).isPresent());
    }

    @Transactional(readOnly = true)
    Look look(long sessionId, long testId, int runNumber, String text) {
        Session session = session(sessionId);
        MetricRow metric = main(test(testId));
        ScoreText.Said said = KindText.read(text, metric.kind(), metric.unit(), metric.choices()).said();
        if (said instanceof ScoreText.NotUnderstood not) {
            return new Look(null, null, null, null, not.reason(), null, List.of(), null, null);
        }
        if (said instanceof ScoreText.NoValue none) {
            return new Look(null, null, none.ran(), none.words(), null, null, List.of(), null, null);
        }
        ScoreText.Value v = (ScoreText.Value) said;
        double[] others = others(sessionId, testId, runNumber);
        List<Samples.SampleRow> found = samples.ofMetrics(List.of(metric.id()));
        List<Double> merits = found.stream().filter(s -> s.configurationId() != session.configurationId()).map(s -> s.moments().mean()).toList();
        Integer place = null;
        if (!merits.isEmpty() && (metric.scale() == Scale.DIFFERENCE || v.value() > 0)) {
            double merit = metric.scale() == Scale.RATIO ? Merit.of(v.value(), metric.direction()) : metric.direction().sign() * v.value();
            place = 1 + (int) merits.stream().filter(m -> m > merit).count();
        }
        double[] known = others.length > 0 || metric.scale() != Scale.RATIO ? others
            : merits.stream().mapToDouble(m -> Merit.toValue(m, metric.direction())).toArray();
        double mean = others.length == 0 ? 0 : java.util.Arrays.stream(others).average().orElseThrow();
        return new Look(v.value(), v.resolution(), null, null, unusable(v, metric), mean > 0 && metric.scale() == Scale.RATIO ? v.value() / mean : null,
            metric.scale() != Scale.RATIO || others.length == 0 && known.length < 3 ? List.of() : slips(v, metric, known, others.length > 0), place, place == null ? null : merits.size() + 1);
    }

    /** Other models may be far away for good reasons, so without runs of this one only values beyond all of them are doubted. */
    private static List<DoubtPart> slips(ScoreText.Value v, MetricRow metric, double[] known, boolean ownRuns) {
        double least = java.util.Arrays.stream(known).min().orElse(0);
        double most = java.util.Arrays.stream(known).max().orElse(0);
        if (!ownRuns && v.value() >= least / 2 && v.value() <= most * 2) {
            return List.of();
        }
        return ScoreDoubt.of(v.value(), metric.unit(), known).stream().map(d -> new DoubtPart(d.kind(), d.would())).toList();
    }

    private static @Nullable String unusable(ScoreText.Value v, MetricRow metric) {
        return metric.scale() == Scale.RATIO && !(v.value() > 0) ? "A score in " + (metric.unit().equals("1") ? "points" : metric.unit()) + " is above 0." : null;
    }

    /**
     * Stores what was typed for one run. A value that was there is set aside, never overwritten.
     *
     * @param byStopwatch whether a hand stopped the time: its step is then that of a hand, not that of the clock
     */
    @Transactional
    Sheet type(long sessionId, long testId, int runNumber, String text, boolean byStopwatch, String person) {
        Session session = session(sessionId);
        if (runNumber < 1 || runNumber > MOST_RUNS) {
            throw Problem.invalid("run-out-of-range", "Runs are numbered from 1 to " + MOST_RUNS + ", so there is no run " + runNumber + ".");
        }
        samples.lock(session.configurationId());
        TestRow test = test(testId);
        MetricRow metric = main(test);
        KindText.Read read = KindText.read(text, metric.kind(), metric.unit(), metric.choices());
        ScoreText.Said said = read.said();
        if (said instanceof ScoreText.NotUnderstood not) {
            throw Problem.invalid("not-understood", not.reason());
        }
        Run before = latest(sessionId).getOrDefault(testId, Map.of()).get(runNumber);
        int attempt = before == null ? 1 : before.attempt() + 1;
        Ledger.NewRun run;
        if (said instanceof ScoreText.Value v) {
            String unusable = unusable(v, metric);
            if (unusable != null) {
                throw Problem.invalid("not-a-score", unusable);
            }
            run = new Ledger.NewRun(testId, runNumber, attempt, RunState.OK, null, read.note().isEmpty() ? null : read.note(), 0, clock.instant(),
                List.of(new Ledger.NewReading(metric.key(), v.value(), byStopwatch ? Math.max(v.resolution(), ScoreText.handStep(metric.unit())) : v.resolution(), List.of())), person);
        } else {
            ScoreText.NoValue none = (ScoreText.NoValue) said;
            run = new Ledger.NewRun(testId, runNumber, attempt, none.ran() ? RunState.FAILED : RunState.COULD_NOT_RUN, none.ran() ? Reason.ERROR : Reason.NOT_SUPPORTED,
                none.words().isEmpty() ? null : none.words(), 0, clock.instant(), List.of(), person);
        }
        setAside(before, "Typed anew", person);
        ledger.record(sessionId, run);
        return sheet(sessionId);
    }

    /**
     * Stores many points for one run: a curve, or frame times. Every number of them becomes a reading.
     *
     * @param timestamps for frame times: whether the numbers are points in time
     */
    @Transactional
    Sheet points(long sessionId, long testId, int runNumber, String text, boolean timestamps, String person) {
        Session session = session(sessionId);
        TestRow test = test(testId);
        if (runNumber < 1 || runNumber > MOST_RUNS) {
            throw Problem.invalid("run-out-of-range", "Runs are numbered from 1 to " + MOST_RUNS + ", so there is no run " + runNumber + ".");
        }
        samples.lock(session.configurationId());
        List<Ledger.NewReading> numbers = SeriesReadings.of(test, text, timestamps);
        Run before = latest(sessionId).getOrDefault(testId, Map.of()).get(runNumber);
        setAside(before, "Pasted anew", person);
        ledger.record(sessionId, new Ledger.NewRun(testId, runNumber, before == null ? 1 : before.attempt() + 1, RunState.OK, null, null, 0, clock.instant(), numbers, person));
        return sheet(sessionId);
    }

    /** Takes what was typed last for a run out of the count; the one before, if there was one, counts again. */
    @Transactional
    Sheet undo(long sessionId, long testId, int runNumber, String person) {
        samples.lock(session(sessionId).configurationId());
        List<Run> attempts = runs.findBySessionIdInOrderById(List.of(sessionId)).stream().filter(r -> r.testId() == testId && r.runNumber() == runNumber)
            .sorted(Comparator.comparingInt(Run::attempt)).toList();
        if (attempts.isEmpty()) {
            throw Problem.conflict("nothing-typed", "Nothing was typed for this run.");
        }
        setAside(attempts.get(attempts.size() - 1), "Typed by mistake", person);
        if (attempts.size() > 1) {
            readings.findByRuns(List.of(attempts.get(attempts.size() - 2).id())).forEach(r -> {
                if (asides.findByReadingIdAndTakenBackAtIsNull(r.id()).isPresent()) {
                    ledger.takeBack(r.id(), person);
                }
            });
        }
        return sheet(sessionId);
    }

    private void setAside(@Nullable Run run, String reason, String person) {
        if (run != null) {
            readings.findByRuns(List.of(run.id())).stream().filter(r -> asides.findByReadingIdAndTakenBackAtIsNull(r.id()).isEmpty())
                .forEach(r -> ledger.setAside(r.id(), reason, person));
        }
    }

    private double[] others(long sessionId, long testId, int runNumber) {
        List<Long> ids = latest(sessionId).getOrDefault(testId, Map.of()).values().stream().filter(r -> r.runNumber() != runNumber && r.state() == RunState.OK).map(Run::id).toList();
        return ids.isEmpty() ? new double[0] : readings.findByRuns(ids).stream().filter(r -> r.metricId() == main(test(testId)).id()).mapToDouble(Reading::value).toArray();
    }

    /** The last attempt of each run, by test. */
    private Map<Long, Map<Integer, Run>> latest(long sessionId) {
        Map<Long, Map<Integer, Run>> latest = new HashMap<>();
        for (Run run : runs.findBySessionIdInOrderById(List.of(sessionId))) {
            latest.computeIfAbsent(run.testId(), t -> new HashMap<>()).merge(run.runNumber(), run, (a, b) -> b.attempt() >= a.attempt() ? b : a);
        }
        return latest;
    }

    private TestRow test(long id) {
        return catalog.tests(List.of(id)).stream().findFirst().orElseThrow(() -> Problem.notFound("test", id));
    }

    private static MetricRow main(TestRow test) {
        return test.metrics().stream().filter(MetricRow::main).findFirst().orElse(test.metrics().get(0));
    }

    private Session session(long id) {
        return sessions.findById(id).orElseThrow(() -> Problem.notFound("session", id));
    }
}
