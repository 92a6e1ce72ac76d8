package yarrowmark.server.ledger.sheet;

import static yarrowmark.server.platform.Require.require;

import java.time.Clock;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.IntFunction;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.entry.KindText;
import yarrowmark.core.entry.ScoreText;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.TestRow;
import yarrowmark.server.ledger.record.ConfigurationLock;
import yarrowmark.server.ledger.record.Ledger;
import yarrowmark.server.ledger.record.NewReading;
import yarrowmark.server.ledger.record.NewRun;
import yarrowmark.server.ledger.record.Reading;
import yarrowmark.server.ledger.record.ReadingCorrections;
import yarrowmark.server.ledger.record.ReadingRepository;
import yarrowmark.server.ledger.record.Reason;
import yarrowmark.server.ledger.record.Run;
import yarrowmark.server.ledger.record.RunRepository;
import yarrowmark.server.ledger.record.RunState;
import yarrowmark.server.ledger.record.SeriesReadings;
import yarrowmark.server.ledger.record.Session;
import yarrowmark.server.ledger.record.SessionRepository;
import yarrowmark.server.ledger.record.SetAsideRepository;
import yarrowmark.server.platform.Problem;

/** What a person puts into a session's sheet: a text or many points for one run; looking at a text first; taking back. */
@Service
class ScoreEntry {
    static final int MOST_RUNS = 30;

    private final ScoreSheet sheets;
    private final Ledger ledger;
    private final ReadingCorrections corrections;
    private final SessionRepository sessions;
    private final RunRepository runs;
    private final ReadingRepository readings;
    private final SetAsideRepository asides;
    private final ConfigurationLock sittings;
    private final Clock clock;

    ScoreEntry(
            ScoreSheet sheets,
            Ledger ledger,
            ReadingCorrections corrections,
            SessionRepository sessions,
            RunRepository runs,
            ReadingRepository readings,
            SetAsideRepository asides,
            ConfigurationLock sittings,
            Clock clock) {
        this.sheets = sheets;
        this.ledger = ledger;
        this.corrections = corrections;
        this.sessions = sessions;
        this.runs = runs;
        this.readings = readings;
        this.asides = asides;
        this.sittings = sittings;
        this.clock = clock;
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
        EnteredScore entered = EnteredScore.of(test, text);
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
    boolean stands(Run before, NewRun made) {
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
            (before.isEmpty() ? before : asides.findOpen(before)).forEach(id -> corrections.takeBack(id, person));
        }
        return sheets.sheet(sessionId);
    }

    private void setAside(Run run, String reason, String person) {
        List<Long> ids =
                readings.findByRuns(List.of(run.id())).stream().map(Reading::id).toList();
        List<Long> out = ids.isEmpty() ? ids : asides.findOpen(ids);
        ids.stream().filter(id -> !out.contains(id)).forEach(id -> corrections.setAside(id, reason, person));
    }

    private static @Nullable String emptyToNull(String words) {
        return words.isEmpty() ? null : words;
    }

    Session session(long id) {
        return sessions.findById(id).orElseThrow(() -> Problem.notFound("session", id));
    }
}
