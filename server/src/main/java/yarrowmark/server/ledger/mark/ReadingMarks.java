package yarrowmark.server.ledger.mark;

import static yarrowmark.server.platform.Require.require;

import jakarta.persistence.EntityManager;
import java.util.ArrayList;
import java.util.Collection;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.compare.DifferenceText;
import yarrowmark.core.measure.Kind;
import yarrowmark.core.measure.Measured;
import yarrowmark.core.measure.Merit;
import yarrowmark.core.quality.HeldRate;
import yarrowmark.core.quality.Stray;
import yarrowmark.core.quality.Throttling;
import yarrowmark.core.quality.TooShort;
import yarrowmark.core.quality.WarmUp;
import yarrowmark.core.stats.Noise;
import yarrowmark.core.stats.SampleMoments;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.ledger.record.Reading;
import yarrowmark.server.ledger.sample.KnownNoise;
import yarrowmark.server.ledger.sample.NoisePriorCache;

/** Says of readings why they may not be sound. A mark suggests; the reviewer decides. Section 6 of the method. */
@Service
public class ReadingMarks {
    /** What a reading may suffer from. */
    public enum MarkKind {
        STRAY,
        HELD,
        TOO_SHORT,
        WARM_UP,
        DISTURBED,
        THROTTLED,
        ANOTHER_DAY
    }

    /**
     * @param rate  the display's rate, or the half or third of it, that holds the value, in Hz; when the device became slower, in seconds; absent for other marks
     * @param words what the device noticed, or why somebody decided against the mark; absent for others
     */
    public record ReadingMark(MarkKind kind, @Nullable Double rate, @Nullable String words) {
        ReadingMark(MarkKind kind, @Nullable Double rate) {
            this(kind, rate, null);
        }
    }

    /** A sample that the display holds. */
    public record HeldSample(long configurationId, long metricId) {}

    private record Counted(
            long readingId, long configurationId, long metricId, double value, double resolution, long sessionId) {}

    private final EntityManager entities;
    private final JdbcTemplate jdbc;
    private final HeldSamples heldSamples;
    private final Catalog catalog;
    private final NoisePriorCache lent;
    private final MarkOverrules overrules;

    ReadingMarks(
            EntityManager entities,
            JdbcTemplate jdbc,
            HeldSamples heldSamples,
            Catalog catalog,
            NoisePriorCache lent,
            MarkOverrules overrules) {
        this.overrules = overrules;
        this.lent = lent;
        this.jdbc = jdbc;
        this.entities = entities;
        this.heldSamples = heldSamples;
        this.catalog = catalog;
    }

    /** Marks of one reading, also those that need every session of its metric. */
    @Transactional(readOnly = true)
    public List<ReadingMark> of(Reading reading, MetricRow metric, int runNumber, @Nullable String disturbed) {
        List<ReadingMark> all = new ArrayList<>(marks(Set.of(new HeldSample(reading.configurationId(), metric.id())))
                .getOrDefault(reading.id(), List.of()));
        if (runNumber == 1 && warmUp(metric).applies()) {
            all.add(new ReadingMark(MarkKind.WARM_UP, null));
        }
        return withDisturbance(all, disturbed);
    }

    public static List<ReadingMark> withDisturbance(List<ReadingMark> marks, @Nullable String disturbed) {
        if (disturbed == null) {
            return marks;
        }
        List<ReadingMark> all = new ArrayList<>(marks);
        all.add(new ReadingMark(MarkKind.DISTURBED, null, disturbed));
        return all;
    }

    private WarmUp warmUp(MetricRow metric) {
        Map<Long, List<Double>> sessions = new LinkedHashMap<>();
        entities.createQuery(
                        """
                select r.sessionId, rd.value from Reading rd join Run r on r.id = rd.runId where rd.metricId = :metric
                and not exists (select 1 from SetAside a where a.readingId = rd.id and a.takenBackAt is null) order by r.sessionId, r.runNumber""",
                        Object[].class)
                .setParameter("metric", metric.id())
                .getResultList()
                .forEach(r -> sessions.computeIfAbsent((Long) r[0], s -> new ArrayList<>())
                        .add(Merit.of((Double) r[1], metric.direction(), metric.scale())));
        return WarmUp.of(sessions.values());
    }

    /** Which marks the readings of these samples have, by sample. */
    @Transactional(readOnly = true)
    public Map<HeldSample, Set<MarkKind>> kinds(Set<HeldSample> wanted) {
        Map<HeldSample, Set<MarkKind>> kinds = new HashMap<>();
        if (!wanted.isEmpty()) {
            Map<Long, List<ReadingMark>> marks = marks(wanted);
            counted(wanted)
                    .forEach((sample, readings) -> readings.forEach(r -> marks.getOrDefault(r.readingId(), List.of())
                            .forEach(m -> kinds.computeIfAbsent(sample, s -> EnumSet.noneOf(MarkKind.class))
                                    .add(m.kind()))));
        }
        return kinds;
    }

    /** By reading, of everything that counts in these samples; what a device noticed is with the run. */
    @Transactional(readOnly = true)
    public Map<Long, List<ReadingMark>> ofSamples(Set<HeldSample> wanted) {
        return wanted.isEmpty() ? Map.of() : marks(wanted);
    }

    /** By reading. */
    public Map<Long, List<ReadingMark>> marks(Set<HeldSample> wanted) {
        Set<Long> metricIds = wanted.stream().map(HeldSample::metricId).collect(Collectors.toSet());
        List<MetricRow> all = catalog.metrics();
        Map<Long, MetricRow> metrics =
                all.stream().filter(m -> metricIds.contains(m.id())).collect(Collectors.toMap(MetricRow::id, m -> m));
        KnownNoise noise = lent.of(metrics.values(), all);
        Map<HeldSample, HeldRate> held = heldSamples.rates(metrics.values());
        Map<HeldSample, String> decided = held.isEmpty() ? Map.of() : overrules.open();
        Map<HeldSample, List<Counted>> counted = counted(wanted);
        Map<Long, List<ReadingMark>> marks = throttled(metrics.values(), counted);
        Map<HeldSample, NoisePriorCache.OddSample> odd = lent.odd(metrics.values(), all).stream()
                .collect(Collectors.toMap(o -> new HeldSample(o.configurationId(), o.metricId()), o -> o));
        counted.forEach((sample, readings) -> {
            MetricRow metric = require(metrics, sample.metricId());
            Set<Long> stray = stray(metric, readings, noise.of(metric));
            NoisePriorCache.OddSample apart = odd.get(sample);
            for (Counted c : readings) {
                List<ReadingMark> of = new ArrayList<>();
                if (stray.contains(c.readingId())) {
                    of.add(new ReadingMark(MarkKind.STRAY, null));
                }
                if (held.containsKey(sample)) {
                    of.add(new ReadingMark(
                            MarkKind.HELD,
                            held.get(sample).rate(),
                            decided.containsKey(sample) ? "Counts all the same: " + decided.get(sample) : null));
                }
                if (isTimed(metric) && TooShort.of(c.value(), c.resolution())) {
                    of.add(new ReadingMark(MarkKind.TOO_SHORT, null));
                }
                if (apart != null && apart.session() == c.sessionId()) {
                    of.add(new ReadingMark(MarkKind.ANOTHER_DAY, null, words(apart, metric)));
                }
                if (!of.isEmpty()) {
                    marks.computeIfAbsent(c.readingId(), r -> new ArrayList<>()).addAll(of);
                }
            }
        });
        return marks;
    }

    private static String words(NoisePriorCache.OddSample apart, MetricRow metric) {
        String size = DifferenceText.brief(Math.exp(apart.size()), metric.direction(), metric.whatIsLess());
        return apart.whole()
                ? "Most tests of this session are off the same way, this one " + size
                        + " than in the other sessions: what was different?"
                : "This session has " + size + " than the others of this configuration: what was different?";
    }

    /** Looked for inside one session: a whole session that lies elsewhere is another matter. */
    private static Set<Long> stray(MetricRow metric, List<Counted> readings, Noise noise) {
        Set<Long> stray = new HashSet<>();
        readings.stream()
                .collect(Collectors.groupingBy(Counted::sessionId))
                .values()
                .forEach(own -> {
                    SampleMoments moments = SampleMoments.of(
                            own.stream()
                                    .map(c -> new Measured(c.value(), c.resolution()))
                                    .toList(),
                            metric.direction(),
                            metric.scale());
                    boolean[] found = Stray.of(
                            own.stream()
                                    .mapToDouble(c -> Merit.of(c.value(), metric.direction(), metric.scale()))
                                    .toArray(),
                            noise.source().isMeasured() ? noise.runs() : Optional.empty(),
                            moments.resolutionVariance());
                    for (int i = 0; i < found.length; i++) {
                        if (found[i]) {
                            stray.add(own.get(i).readingId());
                        }
                    }
                });
        return stray;
    }

    /** Work in a loop that became slower and stayed so: its run has a number for when. */
    private Map<Long, List<ReadingMark>> throttled(
            Collection<MetricRow> metrics, Map<HeldSample, List<Counted>> counted) {
        Set<Long> looped = metrics.stream()
                .filter(m -> m.key().equals(Throttling.SUSTAINED))
                .map(MetricRow::id)
                .collect(Collectors.toSet());
        String ids = counted.entrySet().stream()
                .filter(e -> looped.contains(e.getKey().metricId()))
                .flatMap(e -> e.getValue().stream())
                .map(c -> Long.toString(c.readingId()))
                .collect(Collectors.joining(","));
        Map<Long, List<ReadingMark>> marks = new HashMap<>();
        if (!ids.isEmpty()) {
            jdbc.query(
                    "select rd.id, o.value from reading rd join reading o on o.run_id = rd.run_id join metric m on m.id = o.metric_id and m.metric_key = '"
                            + Throttling.ONSET + "' where rd.id in (" + ids + ")",
                    (java.sql.ResultSet row) -> {
                        marks.computeIfAbsent(row.getLong(1), r -> new ArrayList<>())
                                .add(new ReadingMark(MarkKind.THROTTLED, row.getDouble(2)));
                    });
        }
        return marks;
    }

    /** Whether its resolution is that of a clock: times that somebody took, and rates of our own tests. */
    private static boolean isTimed(MetricRow metric) {
        return metric.given()
                && metric.series() == null
                && (metric.kind() == Kind.DURATION || metric.kind() == Kind.NUMBER && metric.builtIn());
    }

    /** The readings of these very samples: asked for as pairs, or every metric of every configuration would come along. */
    private Map<HeldSample, List<Counted>> counted(Set<HeldSample> wanted) {
        String pairs = wanted.stream()
                .map(w -> "(" + w.configurationId() + "," + w.metricId() + ")")
                .collect(Collectors.joining(","));
        return jdbc
                .query(
                        "select rd.id, rd.configuration_id, rd.metric_id, rd.value, rd.resolution, r.session_id from reading rd join run r on r.id = rd.run_id where (rd.configuration_id, rd.metric_id) in ("
                                + pairs
                                + ") and not exists (select 1 from set_aside a where a.reading_id = rd.id and a.taken_back_at is null)",
                        (row, i) -> new Counted(
                                row.getLong(1),
                                row.getLong(2),
                                row.getLong(3),
                                row.getDouble(4),
                                row.getDouble(5),
                                row.getLong(6)))
                .stream()
                .collect(Collectors.groupingBy(c -> new HeldSample(c.configurationId(), c.metricId())));
    }

    /** Samples of these metrics that a display holds: they say nothing about the device, so totals leave them out. */
    public Set<HeldSample> held(Collection<MetricRow> metrics) {
        return heldSamples.held(metrics);
    }
}
