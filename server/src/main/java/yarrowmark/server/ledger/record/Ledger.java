package yarrowmark.server.ledger.record;

import static yarrowmark.server.platform.Require.require;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.measure.Measured;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.CatalogCache;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.TestRow;
import yarrowmark.server.ledger.sample.Samples;
import yarrowmark.server.platform.Problem;

/** Writes to the ledger: sessions, runs with their readings, and setting aside. Nothing is ever taken out. */
@Service
public class Ledger {
    private final SessionRepository sessions;
    private final RunRepository runs;
    private final ReadingRepository readings;
    private final ReadingSamplesRepository timings;
    private final RunTrackRepository tracks;
    private final Samples samples;
    private final ConfigurationLock sittings;
    private final ComputedValues computed;
    private final Catalog catalog;
    private final CatalogCache known;
    private final ApplicationEventPublisher events;

    Ledger(
            SessionRepository sessions,
            RunRepository runs,
            ReadingRepository readings,
            ReadingSamplesRepository timings,
            RunTrackRepository tracks,
            Samples samples,
            ConfigurationLock sittings,
            ComputedValues computed,
            Catalog catalog,
            CatalogCache known,
            ApplicationEventPublisher events) {
        this.events = events;
        this.sessions = sessions;
        this.runs = runs;
        this.readings = readings;
        this.timings = timings;
        this.tracks = tracks;
        this.samples = samples;
        this.sittings = sittings;
        this.computed = computed;
        this.catalog = catalog;
        this.known = known;
    }

    /**
     * What a person carries out, and under which conditions.
     *
     * @param roomTemperature in °C
     * @param recording       whether the screen was being recorded
     * @param otherWork       whether something else was going on
     */
    public record ByHand(
            List<TestByHand> tests,
            @Nullable Double roomTemperature,
            @Nullable Boolean recording,
            @Nullable Boolean otherWork,
            @Nullable String remarks) {
        static final ByHand NOTHING = new ByHand(List.of(), null, null, null, null);

        /** Conditions of a session that is read from a file. */
        public static ByHand read(@Nullable Boolean recording, @Nullable Boolean otherWork) {
            return new ByHand(List.of(), null, recording, otherWork, null);
        }
    }

    /** One line of the checklist before the first run. */
    public record Check(String text, boolean ticked) {}

    /** What is kept with a run, and is no score. @param output the end of what its command printed */
    public record RunAttachments(@Nullable String output, List<Track> tracks) {}

    /**
     * What a sensor said during a run, at equal steps of time.
     *
     * @param kind   such as temperature; tracks of one kind are shown together
     * @param values in the unit, the first at the run's beginning
     */
    public record Track(String kind, String name, String unit, int stepMs, List<Double> values) {}

    /** A run of a session, as the bench shows it. */
    public record RunPart(
            long sessionId,
            long testId,
            int runNumber,
            int attempt,
            RunState state,
            @Nullable Reason reason,
            @Nullable String reasonWords,
            int durationMs) {}

    /**
     * Stores a run with its readings and brings the touched samples up to date, all or nothing.
     *
     * @throws Problem when the session is over, the test unknown, or the run does not fit together
     */
    @Transactional
    public long record(long sessionId, NewRun run) {
        Session session = sittings.session(sessionId);
        if (session.state() != SessionState.OPEN) {
            throw Problem.conflict(
                    "session-over",
                    "This session ended at " + session.endedAt()
                            + ". What was stored stays; this run was not added. Bring the device to the bench with a new code to go on.");
        }
        return recordWhole(session, run);
    }

    /** The same for a run that was finished while its session was open and arrived after its end. */
    @Transactional
    public long recordLate(long sessionId, NewRun run) {
        return recordWhole(sittings.session(sessionId), run);
    }

    private static NewRun completed(TestRow test, NewRun run) {
        return SensorReadings.completed(test, SeriesReadings.completed(test, run));
    }

    private long recordWhole(Session session, NewRun run) {
        TestRow test = known.tests(List.of(run.testId())).stream().findFirst().orElse(null);
        return store(session, test == null ? run : completed(test, run), Map.of());
    }

    /**
     * Stores many runs of one session: what is made from them is made once.
     *
     * @return their ids, in the same order
     */
    @Transactional
    public List<Long> recordAll(long sessionId, List<NewRun> all) {
        Session session = sittings.session(sessionId);
        Map<Long, TestRow> tests = known
                .tests(all.stream().map(NewRun::testId).distinct().toList())
                .stream()
                .collect(Collectors.toMap(TestRow::id, Function.identity()));
        List<Long> ids = new ArrayList<>();
        for (NewRun run : all) {
            TestRow test = tests.get(run.testId());
            ids.add(insert(session, test, test == null ? run : completed(test, run), Map.of()));
        }
        List<MetricRow> touched =
                tests.values().stream().flatMap(t -> t.metrics().stream()).toList();
        samples.refreshAll(session.configurationId(), touched);
        if (!all.isEmpty()) {
            computed.refresh(
                    session,
                    touched.stream().map(MetricRow::id).toList(),
                    all.get(all.size() - 1).finishedAt());
        }
        tests.keySet().forEach(test -> events.publishEvent(new RunStored(session.id(), test)));
        return ids;
    }

    /** The caller holds the configuration's lock. @param corrects by metric, the readings that those of this run stand for */
    long store(Session session, NewRun run, Map<String, Long> corrects) {
        TestRow test = known.tests(List.of(run.testId())).stream().findFirst().orElse(null);
        long stored = insert(session, test, run, corrects);
        List<MetricRow> touched = require(test).metrics().stream()
                .filter(m -> run.readings().stream().anyMatch(r -> r.metric().equals(m.key())))
                .toList();
        samples.refreshAll(session.configurationId(), touched);
        computed.refresh(
                session, require(test).metrics().stream().map(MetricRow::id).toList(), run.finishedAt());
        events.publishEvent(new RunStored(session.id(), run.testId()));
        return stored;
    }

    /** The run and its readings alone. The caller holds the configuration's lock and brings the samples up to date. */
    private long insert(Session session, @Nullable TestRow test, NewRun run, Map<String, Long> corrects) {
        if (test == null) {
            throw Problem.invalid("unknown-test", "There is no test " + run.testId() + " in the catalogue.");
        }
        if (!test.given()) {
            throw Problem.invalid(
                    "computed", test.name() + " is computed from other tests and is not measured itself.");
        }
        RunShape.check(run, test);
        Run stored = runs.save(new Run(session, numbered(session, test, run)));
        Map<String, MetricRow> metrics =
                test.metrics().stream().collect(Collectors.toMap(MetricRow::key, Function.identity()));
        for (NewReading given : run.readings()) {
            MetricRow metric = require(metrics, given.metric());
            new Measured(given.value(), given.resolution()).admittedFor(metric.scale());
            Reading reading = readings.save(new Reading(
                    stored.id(),
                    metric.id(),
                    session.configurationId(),
                    given.value(),
                    given.resolution(),
                    corrects.get(given.metric())));
            if (!given.samples().isEmpty()) {
                timings.save(new ReadingSamples(
                        reading.id(),
                        given.samples().stream()
                                .mapToDouble(Double::doubleValue)
                                .toArray()));
            }
        }
        keepBeside(stored, run.beside());
        return stored.id();
    }

    private void keepBeside(Run stored, @Nullable RunAttachments beside) {
        if (beside == null) {
            return;
        }
        beside.tracks().forEach(t -> tracks.save(new RunTrack(stored.id(), t)));
        if (beside.output() != null && !beside.output().isBlank()) {
            events.publishEvent(new OutputCame(stored.sessionId(), stored.id(), stored.runNumber(), beside.output()));
        }
    }

    /** A device counts its own attempts; what a person typed or corrected in between has taken a number, too. */
    private NewRun numbered(Session session, TestRow test, NewRun run) {
        List<Run> attempts = runs.findBySessionIdAndTestIdAndRunNumber(session.id(), run.testId(), run.runNumber());
        Optional<Run> same =
                attempts.stream().filter(r -> r.attempt() == run.attempt()).findFirst();
        if (same.isEmpty()) {
            return run;
        }
        if (run.person() == null && same.get().person() == null) {
            throw Problem.conflict(
                    "run-there",
                    "Attempt " + run.attempt() + " at run " + run.runNumber() + " of " + test.name()
                            + " is in the ledger already, from another delivery. A device that runs in two windows does everything twice.");
        }
        return run.withAttempt(attempts.stream().mapToInt(Run::attempt).max().orElse(0) + 1);
    }

    /** Runs of these sessions, oldest first. */
    @Transactional(readOnly = true)
    public List<RunPart> runs(Collection<Long> sessionIds) {
        if (sessionIds.isEmpty()) {
            return List.of();
        }
        return runs.findBySessionIdInOrderById(sessionIds).stream()
                .map(r -> new RunPart(
                        r.sessionId(),
                        r.testId(),
                        r.runNumber(),
                        r.attempt(),
                        r.state(),
                        r.reason(),
                        r.reasonWords(),
                        r.durationMs()))
                .toList();
    }

    /** What a session measured of these metrics and counts, by metric and run. */
    @Transactional(readOnly = true)
    public Map<Long, Map<Integer, Measured>> measured(long sessionId, Collection<Long> metricIds) {
        Map<Long, Map<Integer, Measured>> measured = new HashMap<>();
        if (!metricIds.isEmpty()) {
            readings.findCountedInSession(sessionId, metricIds)
                    .forEach(r -> measured.computeIfAbsent(r.metricId(), m -> new HashMap<>())
                            .put(r.run(), new Measured(r.value(), r.resolution())));
        }
        return measured;
    }

    MetricRow metric(long id) {
        return catalog.metrics().stream()
                .filter(m -> m.id() == id)
                .findFirst()
                .orElseThrow(() -> Problem.notFound("metric", id));
    }

    Session session(long id) {
        return sessions.findById(id).orElseThrow(() -> Problem.notFound("session", id));
    }
}
