package yarrowmark.server.ledger.line;

import static yarrowmark.server.platform.Require.require;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.measure.Measured;
import yarrowmark.core.stats.SampleSummary;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.ledger.mark.ReadingMarks;
import yarrowmark.server.ledger.record.Ledger;
import yarrowmark.server.ledger.record.Reading;
import yarrowmark.server.ledger.record.ReadingRepository;
import yarrowmark.server.ledger.record.ReadingSamples;
import yarrowmark.server.ledger.record.ReadingSamplesRepository;
import yarrowmark.server.ledger.record.Run;
import yarrowmark.server.ledger.record.RunRepository;
import yarrowmark.server.ledger.record.RunTrack;
import yarrowmark.server.ledger.record.RunTrackRepository;
import yarrowmark.server.ledger.record.Session;
import yarrowmark.server.ledger.record.SessionRepository;
import yarrowmark.server.ledger.record.SessionState;
import yarrowmark.server.ledger.record.SetAsideRepository;
import yarrowmark.server.ledger.sample.Samples;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.shelf.ShelfPages;
import yarrowmark.server.shelf.configuration.ConfigurationRow;

/** Reads single readings and sessions with everything that belongs to them. */
@Service
public class LedgerPages {
    /** @param takenBackAt absent while the reading is out of the count */
    record AsidePart(
            String reason, String person, Instant at, @Nullable Instant takenBackAt, @Nullable String takenBackBy) {}

    /**
     * All counted readings of the same metric on the same configuration.
     *
     * @param centre        geometric mean, in the metric's unit
     * @param spreadPercent standard deviation in per cent of the centre
     */
    record SamplePart(int n, double centre, @Nullable Double spreadPercent, double smallest, double largest) {}

    /** Another value of the same run: the one it corrects, or one that stands for it. */
    record OtherReading(long id, double value, double resolution) {}

    /**
     * @param timings  the timing samples behind the value, in its unit, in order; for a curve x and y in turn, for frame times the times in ms
     * @param corrects the reading it stands for
     * @param correctedBy the readings that stand for it
     * @param tracks what sensors said during its run
     */
    record ReadingPage(
            long id,
            long runId,
            double value,
            double resolution,
            MetricRow metric,
            ConfigurationRow configuration,
            long sessionId,
            int runNumber,
            int attempt,
            int durationMs,
            @Nullable Integer timedMs,
            Instant finishedAt,
            @Nullable String person,
            @Nullable String note,
            double[] timings,
            List<AsidePart> asides,
            @Nullable SamplePart sample,
            @Nullable OtherReading corrects,
            List<OtherReading> correctedBy,
            List<ReadingMarks.ReadingMark> marks,
            List<Ledger.Track> tracks) {}

    public record SessionPage(
            long id,
            ConfigurationRow configuration,
            String planName,
            int runs,
            int timedMs,
            SessionState state,
            @Nullable Boolean onMains,
            @Nullable Double batteryLevel,
            Instant startedAt,
            @Nullable Instant endedAt,
            List<CheckPart> checks,
            @Nullable Double roomTemperature,
            @Nullable Boolean recording,
            @Nullable Boolean otherWork,
            @Nullable String remarks,
            boolean byHand) {}

    /** One line of the checklist before the first run, in the words of that day. */
    record CheckPart(String text, boolean ticked, String person) {}

    private final SessionRepository sessions;
    private final RunRepository runs;
    private final ReadingRepository readings;
    private final ReadingSamplesRepository timings;
    private final RunTrackRepository tracks;
    private final SetAsideRepository asides;
    private final Catalog catalog;
    private final ShelfPages shelf;
    private final ReadingMarks marks;
    private final Samples samples;

    LedgerPages(
            SessionRepository sessions,
            RunRepository runs,
            ReadingRepository readings,
            ReadingSamplesRepository timings,
            RunTrackRepository tracks,
            Samples samples,
            SetAsideRepository asides,
            Catalog catalog,
            ShelfPages shelf,
            ReadingMarks marks) {
        this.marks = marks;
        this.sessions = sessions;
        this.runs = runs;
        this.readings = readings;
        this.timings = timings;
        this.tracks = tracks;
        this.samples = samples;
        this.asides = asides;
        this.catalog = catalog;
        this.shelf = shelf;
    }

    @Transactional(readOnly = true)
    ReadingPage reading(long id) {
        Reading reading = readings.findById(id).orElseThrow(() -> Problem.notFound("reading", id));
        Run run = runs.findById(reading.runId()).orElseThrow();
        MetricRow metric = catalog.metrics().stream()
                .filter(m -> m.id() == reading.metricId())
                .findFirst()
                .orElseThrow();
        List<Measured> counted = samples.counted(reading.configurationId(), reading.metricId());
        SamplePart sample = null;
        if (!counted.isEmpty()) {
            SampleSummary s = SampleSummary.of(counted, metric.scale());
            sample = new SamplePart(s.n(), s.centre(), boxed(s.spreadPercent()), s.smallest(), s.largest());
        }
        return new ReadingPage(
                id,
                run.id(),
                reading.value(),
                reading.resolution(),
                metric,
                configuration(reading.configurationId()),
                run.sessionId(),
                run.runNumber(),
                run.attempt(),
                run.durationMs(),
                run.timedMs(),
                run.finishedAt(),
                run.person(),
                run.reasonWords(),
                timings.findById(id).map(ReadingSamples::values).orElse(new double[0]),
                asides.findByReadingIdOrderById(id).stream()
                        .map(a -> new AsidePart(a.reason(), a.person(), a.at(), a.takenBackAt(), a.takenBackBy()))
                        .toList(),
                sample,
                reading.correctsId() == null
                        ? null
                        : other(readings.findById(reading.correctsId()).orElseThrow()),
                readings.findByCorrectsIdOrderById(id).stream()
                        .map(LedgerPages::other)
                        .toList(),
                marks.of(reading, metric, run.runNumber(), run.disturbed()),
                tracks.findByRunIdOrderById(run.id()).stream()
                        .map(RunTrack::track)
                        .toList());
    }

    private static OtherReading other(Reading r) {
        return new OtherReading(r.id(), r.value(), r.resolution());
    }

    @Transactional(readOnly = true)
    public SessionPage session(long id) {
        return pages(List.of(sessions.findById(id).orElseThrow(() -> Problem.notFound("session", id))))
                .get(0);
    }

    @Transactional(readOnly = true)
    List<SessionPage> sessionsOf(long configurationId) {
        return pages(sessions.findByConfigurationIdOrderByStartedAtDesc(configurationId));
    }

    @Transactional(readOnly = true)
    List<SessionPage> sessionsOfModel(long modelId) {
        List<Long> configurations = shelf.model(modelId).units().stream()
                .flatMap(u -> u.configurations().stream())
                .map(c -> c.id())
                .toList();
        return pages(sessions.findByConfigurationIdInOrderByStartedAtDesc(configurations));
    }

    private List<SessionPage> pages(List<Session> of) {
        Map<Long, ConfigurationRow> rows =
                shelf
                        .configurations(of.stream()
                                .map(Session::configurationId)
                                .distinct()
                                .toList())
                        .stream()
                        .collect(Collectors.toMap(ConfigurationRow::id, c -> c));
        return of.stream().map(s -> page(s, require(rows, s.configurationId()))).toList();
    }

    private static SessionPage page(Session s, ConfigurationRow configuration) {
        return new SessionPage(
                s.id(),
                configuration,
                s.planName(),
                s.runs(),
                s.timedMs(),
                s.state(),
                s.onMains(),
                s.batteryLevel(),
                s.startedAt(),
                s.endedAt(),
                s.checks().stream()
                        .map(c -> new CheckPart(c.text, c.ticked, c.person))
                        .toList(),
                s.roomTemperature(),
                s.recording(),
                s.otherWork(),
                s.remarks(),
                !s.testsByHand().isEmpty());
    }

    private ConfigurationRow configuration(long id) {
        return shelf.configurations(List.of(id)).get(0);
    }

    private static @Nullable Double boxed(OptionalDouble value) {
        return value.isPresent() ? value.getAsDouble() : null;
    }
}
