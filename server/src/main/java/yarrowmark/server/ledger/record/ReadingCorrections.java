package yarrowmark.server.ledger.record;

import static yarrowmark.server.platform.Require.require;

import java.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.measure.Measured;
import yarrowmark.server.catalog.CatalogCache;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.ledger.sample.Samples;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.history.ChangeLog;

/** Sets readings aside and back, and puts corrected ones in the place of others. Nothing is ever overwritten. */
@Service
public class ReadingCorrections {
    private final RunRepository runs;
    private final ReadingRepository readings;
    private final SetAsideRepository asides;
    private final Samples samples;
    private final ConfigurationLock sittings;
    private final ComputedValues computed;
    private final CatalogCache known;
    private final ChangeLog changes;
    private final Clock clock;
    private final Ledger ledger;

    ReadingCorrections(
            RunRepository runs,
            ReadingRepository readings,
            SetAsideRepository asides,
            Samples samples,
            ConfigurationLock sittings,
            ComputedValues computed,
            CatalogCache known,
            ChangeLog changes,
            Clock clock,
            Ledger ledger) {
        this.runs = runs;
        this.readings = readings;
        this.asides = asides;
        this.samples = samples;
        this.sittings = sittings;
        this.computed = computed;
        this.known = known;
        this.changes = changes;
        this.clock = clock;
        this.ledger = ledger;
    }

    /**
     * Puts another value in the place of a reading, which is set aside: nothing is overwritten. Also after the session.
     * Other numbers of the same run come along as they are, so that a run stays whole.
     *
     * @return the id of the new reading
     */
    @Transactional
    public long correct(long readingId, Measured value, @Nullable String note, String reason, String person) {
        Reading reading = sittings.reading(readingId);
        Run run = runs.findById(reading.runId()).orElseThrow();
        MetricRow metric = ledger.metric(reading.metricId());
        if (metric.kind().isSeries() || metric.series() != null) {
            throw Problem.invalid(
                    "many-points",
                    "A reading of many points is not corrected by one number. Put the points into the session anew.");
        }
        List<Run> attempts = runs.findBySessionIdAndTestIdAndRunNumber(run.sessionId(), run.testId(), run.runNumber());
        List<Reading> counted = counted(attempts);
        if (counted.stream().anyMatch(r -> r.metricId() == metric.id())
                && counted.stream().noneMatch(r -> r.id().equals(readingId))) {
            throw Problem.conflict("corrected-already", "Another reading stands for this run now. Correct that one.");
        }
        Map<Long, MetricRow> metrics = known.tests(List.of(run.testId())).get(0).metrics().stream()
                .collect(Collectors.toMap(MetricRow::id, Function.identity()));
        List<NewReading> whole =
                new ArrayList<>(List.of(new NewReading(metric.key(), value.value(), value.resolution(), List.of())));
        Map<String, Long> corrects = new HashMap<>(Map.of(metric.key(), readingId));
        for (Reading r : counted) {
            setAside(r.id(), "Corrected: " + reason.strip(), person);
            if (r.metricId() != metric.id()) {
                whole.add(new NewReading(require(metrics, r.metricId()).key(), r.value(), r.resolution(), List.of()));
                corrects.put(require(metrics, r.metricId()).key(), r.id());
            }
        }
        int attempt = attempts.stream().mapToInt(Run::attempt).max().orElse(0) + 1;
        long stored = ledger.store(
                ledger.session(run.sessionId()),
                new NewRun(
                        run.testId(),
                        run.runNumber(),
                        attempt,
                        RunState.OK,
                        null,
                        note,
                        run.durationMs(),
                        run.finishedAt(),
                        whole,
                        person),
                corrects);
        changes.note(person, "reading", readingId, "value", reading.value(), value.value(), reason.strip());
        return readings.findByRuns(List.of(stored)).stream()
                .filter(r -> r.metricId() == metric.id())
                .findFirst()
                .orElseThrow()
                .id();
    }

    /** Readings of these runs that count. */
    private List<Reading> counted(List<Run> attempts) {
        List<Reading> all = readings.findByRuns(attempts.stream().map(Run::id).toList());
        List<Long> out = all.isEmpty()
                ? List.of()
                : asides.findOpen(all.stream().map(Reading::id).toList());
        return all.stream().filter(r -> !out.contains(r.id())).toList();
    }

    /** The first reading of a run. */
    @Transactional(readOnly = true)
    public long readingOf(long runId) {
        return readings.findByRuns(List.of(runId)).stream()
                .findFirst()
                .map(Reading::id)
                .orElseThrow(() -> Problem.notFound("reading of run", runId));
    }

    /** The reading stays; it only stops counting. */
    @Transactional
    public void setAside(long readingId, String reason, String person) {
        Reading reading = sittings.reading(readingId);
        if (asides.findByReadingIdAndTakenBackAtIsNull(readingId).isPresent()) {
            throw Problem.conflict("set-aside-already", "This reading is set aside already.");
        }
        asides.saveAndFlush(new SetAside(readingId, reason.strip(), person, clock.instant()));
        changes.note(person, "reading", readingId, "set aside", null, reason.strip());
        changed(reading);
    }

    /** All readings of a run. */
    @Transactional
    public void setRunAside(long runId, String reason, String person) {
        readings.findByRuns(List.of(runId)).forEach(r -> setAside(r.id(), reason, person));
    }

    /** A reading counts no longer, or again: its sample follows, and what is computed from it. */
    private void changed(Reading reading) {
        samples.refresh(reading.configurationId(), ledger.metric(reading.metricId()));
        computed.refresh(
                ledger.session(runs.findById(reading.runId()).orElseThrow().sessionId()),
                List.of(reading.metricId()),
                clock.instant());
    }

    @Transactional
    public void takeBack(long readingId, String person) {
        Reading reading = sittings.reading(readingId);
        SetAside aside = asides.findByReadingIdAndTakenBackAtIsNull(readingId)
                .orElseThrow(() -> Problem.conflict("not-set-aside", "This reading counts already."));
        aside.takeBack(person, clock.instant());
        asides.saveAndFlush(aside);
        changes.note(person, "reading", readingId, "set aside", aside.reason(), null);
        changed(reading);
    }
}
