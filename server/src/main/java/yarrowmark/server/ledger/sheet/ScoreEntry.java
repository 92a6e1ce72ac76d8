package yarrowmark.server.ledger.sheet;

import static yarrowmark.server.platform.Require.require;

import java.time.Clock;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.OptionalDouble;
import java.util.function.IntFunction;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.compare.Materiality;
import yarrowmark.core.entry.KindText;
import yarrowmark.core.entry.LikelySlip;
import yarrowmark.core.entry.ScorePreview;
import yarrowmark.core.entry.ScoreText;
import yarrowmark.core.entry.SeveralNumbers;
import yarrowmark.core.measure.Measured;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.stats.EnoughRuns;
import yarrowmark.core.stats.Noise;
import yarrowmark.core.stats.SampleMoments;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.TestRow;
import yarrowmark.server.ledger.record.ConfigurationLock;
import yarrowmark.server.ledger.record.Ledger;
import yarrowmark.server.ledger.record.NewReading;
import yarrowmark.server.ledger.record.NewRun;
import yarrowmark.server.ledger.record.Reading;
import yarrowmark.server.ledger.record.ReadingRepository;
import yarrowmark.server.ledger.record.Reason;
import yarrowmark.server.ledger.record.Run;
import yarrowmark.server.ledger.record.RunRepository;
import yarrowmark.server.ledger.record.RunState;
import yarrowmark.server.ledger.record.SeriesReadings;
import yarrowmark.server.ledger.record.Session;
import yarrowmark.server.ledger.record.SessionRepository;
import yarrowmark.server.ledger.record.SetAsideRepository;
import yarrowmark.server.ledger.sample.NoisePriorCache;
import yarrowmark.server.ledger.sample.Samples;
import yarrowmark.server.platform.Problem;

/** What a person puts into a session's sheet: a text or many points for one run; looking at a text first; taking back. */
@Service
class ScoreEntry {
    private static final int MOST_RUNS = 30;

    /** @param would what the value would be without the slip, in the metric's unit; for FAR the median of the others */
    record DoubtPart(LikelySlip.Kind kind, double would) {}

    /**
     * How a typed text is understood, before it is stored.
     *
     * @param ran       for a run without a value: whether it began and failed
     * @param perOthers value over the mean of the other runs; absent where there are none
     * @param moreRuns  with this one, how many more runs would make the mean known within what matters; absent where it cannot be told
     * @param place     where the value would stand alone among the configurations that have this metric
     */
    record Look(
            @Nullable Double value,
            @Nullable Double resolution,
            @Nullable Boolean ran,
            @Nullable String words,
            @Nullable String reason,
            @Nullable Double perOthers,
            List<DoubtPart> doubts,
            @Nullable Integer place,
            @Nullable Integer of,
            @Nullable Integer moreRuns) {}

    private final ScoreSheet sheets;
    private final Ledger ledger;
    private final SessionRepository sessions;
    private final RunRepository runs;
    private final ReadingRepository readings;
    private final SetAsideRepository asides;
    private final Samples samples;
    private final ConfigurationLock sittings;
    private final Clock clock;

    private final NoisePriorCache lent;
    private final Catalog catalog;

    ScoreEntry(
            ScoreSheet sheets,
            Ledger ledger,
            SessionRepository sessions,
            RunRepository runs,
            ReadingRepository readings,
            SetAsideRepository asides,
            Samples samples,
            ConfigurationLock sittings,
            Clock clock,
            NoisePriorCache lent,
            Catalog catalog) {
        this.lent = lent;
        this.catalog = catalog;
        this.sheets = sheets;
        this.ledger = ledger;
        this.sessions = sessions;
        this.runs = runs;
        this.readings = readings;
        this.asides = asides;
        this.samples = samples;
        this.sittings = sittings;
        this.clock = clock;
    }

    @Transactional(readOnly = true)
    Look look(long sessionId, long testId, int runNumber, String text) {
        long configuration = session(sessionId).configurationId();
        TestRow test = sheets.test(testId);
        MetricRow metric = ScoreSheet.main(test);
        Entered entered = entered(test, text);
        ScoreText.Said said = entered.read().said();
        if (entered.refused() != null) {
            return new Look(null, null, null, null, entered.refused(), null, List.of(), null, null, null);
        }
        if (said instanceof ScoreText.NotUnderstood not) {
            return new Look(null, null, null, null, not.reason(), null, List.of(), null, null, null);
        }
        if (said instanceof ScoreText.NoValue none) {
            return new Look(null, null, none.ran(), none.words(), null, null, List.of(), null, null, null);
        }
        ScoreText.Value v = (ScoreText.Value) said;
        double[] merits = samples.ofMetrics(List.of(metric.id())).stream()
                .filter(s -> s.configurationId() != configuration)
                .mapToDouble(s -> s.sample().mean())
                .toArray();
        ScorePreview look = ScorePreview.of(
                v.value(),
                metric.unit(),
                metric.direction(),
                metric.scale(),
                others(sessionId, testId, runNumber, metric),
                merits);
        OptionalDouble perOthers = look.perOthers();
        boolean placed = look.place().isPresent();
        return new Look(
                v.value(),
                v.resolution(),
                null,
                null,
                metric.unusable(v.value()),
                perOthers.isPresent() ? perOthers.getAsDouble() : null,
                look.doubts().stream()
                        .map(d -> new DoubtPart(d.kind(), d.would()))
                        .toList(),
                placed ? look.place().getAsInt() : null,
                placed ? look.of() : null,
                moreRuns(metric, v, others(sessionId, testId, runNumber, metric)));
    }

    /** What a text says. @param read of the number that stands for the test. @param further others of the run. @param refused why one of these is none */
    private record Entered(KindText.Read read, List<NewReading> further, @Nullable String refused) {}

    /** A test with several numbers takes them in one text, in their order: "57.8 / 17.1". */
    private static Entered entered(TestRow test, String text) {
        MetricRow metric = ScoreSheet.main(test);
        List<MetricRow> others = ScoreSheet.further(test);
        List<String> parts = others.isEmpty() ? List.of(text) : SeveralNumbers.parts(text);
        KindText.Read read = KindText.read(parts.get(0), metric.kind(), metric.unit(), metric.choices());
        List<NewReading> further = new ArrayList<>();
        if (!(read.said() instanceof ScoreText.Value)) {
            // A reason has slashes and semicolons of its own.
            return new Entered(KindText.read(text, metric.kind(), metric.unit(), metric.choices()), further, null);
        }
        if (parts.size() > 1 + others.size()) {
            return new Entered(
                    read,
                    further,
                    test.name() + " has " + (1 + others.size()) + " numbers, and " + parts.size() + " were given.");
        }
        for (int i = 1; i < parts.size(); i++) {
            MetricRow other = others.get(i - 1);
            if (parts.get(i).isEmpty()) {
                continue;
            }
            ScoreText.Said said = ScoreText.read(parts.get(i), other.unit());
            if (!(said instanceof ScoreText.Value v)) {
                return new Entered(
                        read,
                        further,
                        other.name() + ": "
                                + (said instanceof ScoreText.NotUnderstood not
                                        ? not.reason()
                                        : "a dash leaves it out."));
            }
            if (other.unusable(v.value()) != null) {
                return new Entered(read, further, other.name() + ": " + other.unusable(v.value()));
            }
            further.add(new NewReading(other.key(), v.value(), v.resolution(), List.of()));
        }
        return new Entered(read, further, null);
    }

    /** "One more run would tell": held against what usually matters, with the noise that the metric lends. */
    private @Nullable Integer moreRuns(MetricRow metric, ScoreText.Value typed, double[] others) {
        if (metric.scale() != Scale.RATIO || metric.unusable(typed.value()) != null || others.length == 0) {
            return null;
        }
        List<Measured> all = new ArrayList<>();
        all.add(new Measured(typed.value(), typed.resolution()));
        for (double other : others) {
            // What was typed before was typed on the same instrument.
            all.add(new Measured(other, typed.resolution()));
        }
        SampleMoments session = SampleMoments.of(all, metric.direction(), metric.scale());
        Noise noise = lent.of(List.of(metric), catalog.metrics()).of(metric);
        return new EnoughRuns(3, MOST_RUNS, 100 * Materiality.USUAL.share(), noise.runs())
                .more(session)
                .orElse(null);
    }

    /** Values of the other runs of this session that count as done. */
    private double[] others(long sessionId, long testId, int runNumber, MetricRow metric) {
        List<Long> ids = sheets.latest(sessionId).getOrDefault(testId, Map.of()).values().stream()
                .filter(r -> r.runNumber() != runNumber && r.state() == RunState.OK)
                .map(Run::id)
                .toList();
        return ids.isEmpty()
                ? new double[0]
                : readings.findByRuns(ids).stream()
                        .filter(r -> r.metricId() == metric.id())
                        .mapToDouble(Reading::value)
                        .toArray();
    }

    /**
     * Stores what was typed for one run. A value that was there is set aside, never overwritten.
     *
     * @param byStopwatch whether a hand stopped the time: its step is then that of a hand, not that of the clock
     */
    @Transactional
    ScoreSheet.Sheet type(long sessionId, long testId, int runNumber, String text, boolean byStopwatch, String person) {
        TestRow test = sheets.test(testId);
        MetricRow metric = ScoreSheet.main(test);
        Entered entered = entered(test, text);
        KindText.Read read = entered.read();
        if (read.said() instanceof ScoreText.NotUnderstood not) {
            throw Problem.invalid("not-understood", not.reason());
        }
        if (entered.refused() != null) {
            throw Problem.invalid("not-understood", entered.refused());
        }
        if (read.said() instanceof ScoreText.Value v) {
            if (metric.unusable(v.value()) != null) {
                throw Problem.invalid("not-a-score", require(metric.unusable(v.value())));
            }
            if (byStopwatch && !ScoreText.isTime(metric.unit())) {
                throw Problem.invalid(
                        "no-time",
                        metric.test() + " is measured in " + metric.unit()
                                + ", so no stopwatch stops it. Type the value.");
            }
            List<NewReading> numbers = new ArrayList<>(entered.further());
            double resolution =
                    byStopwatch ? Math.max(v.resolution(), ScoreText.handStep(metric.unit())) : v.resolution();
            numbers.add(0, new NewReading(metric.key(), v.value(), resolution, List.of()));
            return put(
                    sessionId,
                    testId,
                    runNumber,
                    "Typed anew",
                    person,
                    attempt -> new NewRun(
                            testId,
                            runNumber,
                            attempt,
                            RunState.OK,
                            null,
                            emptyToNull(read.note()),
                            0,
                            clock.instant(),
                            numbers,
                            person));
        }
        ScoreText.NoValue none = (ScoreText.NoValue) read.said();
        return put(
                sessionId,
                testId,
                runNumber,
                "Typed anew",
                person,
                attempt -> new NewRun(
                        testId,
                        runNumber,
                        attempt,
                        none.ran() ? RunState.FAILED : RunState.COULD_NOT_RUN,
                        none.ran() ? Reason.ERROR : Reason.NOT_SUPPORTED,
                        emptyToNull(none.words()),
                        0,
                        clock.instant(),
                        List.of(),
                        person));
    }

    /**
     * Stores many points for one run: a curve, or frame times. Every number of them becomes a reading.
     *
     * @param timestamps for frame times: whether the numbers are points in time
     */
    @Transactional
    ScoreSheet.Sheet points(
            long sessionId, long testId, int runNumber, String text, boolean timestamps, String person) {
        TestRow test = sheets.test(testId);
        List<NewReading> numbers = SeriesReadings.of(test, text, timestamps);
        return put(
                sessionId,
                testId,
                runNumber,
                "Pasted anew",
                person,
                attempt -> new NewRun(
                        testId, runNumber, attempt, RunState.OK, null, null, 0, clock.instant(), numbers, person));
    }

    /** @param run of the attempt it is given; what stood at its place before is set aside for the reason */
    private ScoreSheet.Sheet put(
            long sessionId, long testId, int runNumber, String reason, String person, IntFunction<NewRun> run) {
        if (runNumber < 1 || runNumber > MOST_RUNS) {
            throw Problem.invalid(
                    "run-out-of-range",
                    "Runs are numbered from 1 to " + MOST_RUNS + ", so there is no run " + runNumber + ".");
        }
        sittings.session(sessionId);
        Run before = sheets.latest(sessionId).getOrDefault(testId, Map.of()).get(runNumber);
        NewRun made = run.apply(before == null ? 1 : before.attempt() + 1);
        if (before != null && stands(before, made)) {
            return sheets.sheet(sessionId);
        }
        if (before != null) {
            setAside(before, reason, person);
        }
        ledger.record(sessionId, made);
        return sheets.sheet(sessionId);
    }

    /** Whether the same counts already: a score whose answer was lost on its way is sent once more. */
    private boolean stands(Run before, NewRun made) {
        if (before.state() != made.state()
                || !Objects.equals(before.reasonWords(), made.reasonWords())
                || made.readings().stream().anyMatch(r -> !r.samples().isEmpty())) {
            return false;
        }
        List<Reading> there = readings.findByRuns(List.of(before.id()));
        boolean counts = there.isEmpty()
                || asides.findOpen(there.stream().map(Reading::id).toList()).isEmpty();
        Map<String, Long> metrics =
                sheets.test(made.testId()).metrics().stream().collect(Collectors.toMap(MetricRow::key, MetricRow::id));
        return counts
                && there.size() == made.readings().size()
                && there.stream().allMatch(r -> made.readings().stream()
                        .anyMatch(m -> Objects.equals(metrics.get(m.metric()), r.metricId())
                                && m.value() == r.value()
                                && m.resolution() == r.resolution()));
    }

    /** Takes what was typed last for a run out of the count; the one before, if there was one, counts again. */
    @Transactional
    ScoreSheet.Sheet undo(long sessionId, long testId, int runNumber, String person) {
        sittings.session(sessionId);
        List<Run> attempts = runs.findBySessionIdAndTestIdAndRunNumber(sessionId, testId, runNumber).stream()
                .sorted(Comparator.comparingInt(Run::attempt))
                .toList();
        if (attempts.isEmpty()) {
            throw Problem.conflict("nothing-typed", "Nothing was typed for this run.");
        }
        setAside(attempts.get(attempts.size() - 1), "Typed by mistake", person);
        if (attempts.size() > 1) {
            List<Long> before = readings
                    .findByRuns(List.of(attempts.get(attempts.size() - 2).id()))
                    .stream()
                    .map(Reading::id)
                    .toList();
            (before.isEmpty() ? before : asides.findOpen(before)).forEach(id -> ledger.takeBack(id, person));
        }
        return sheets.sheet(sessionId);
    }

    private void setAside(Run run, String reason, String person) {
        List<Long> ids =
                readings.findByRuns(List.of(run.id())).stream().map(Reading::id).toList();
        List<Long> out = ids.isEmpty() ? ids : asides.findOpen(ids);
        ids.stream().filter(id -> !out.contains(id)).forEach(id -> ledger.setAside(id, reason, person));
    }

    private static @Nullable String emptyToNull(String words) {
        return words.isEmpty() ? null : words;
    }

    private Session session(long id) {
        return sessions.findById(id).orElseThrow(() -> Problem.notFound("session", id));
    }
}
