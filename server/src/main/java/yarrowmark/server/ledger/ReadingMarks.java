package yarrowmark.server.ledger;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.measure.Kind;
import yarrowmark.core.measure.Measured;
import yarrowmark.core.measure.Merit;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.quality.HeldRate;
import yarrowmark.core.quality.Stray;
import yarrowmark.core.quality.TooShort;
import yarrowmark.core.quality.WarmUp;
import yarrowmark.core.stats.NoisePrior;
import yarrowmark.core.stats.SampleMoments;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.platform.Page;

/** Says of readings why they may not be sound. A mark suggests; the reviewer decides. Section 6 of the method. */
@Service
public class ReadingMarks {
    /** The fact that says how fast a display can show frames, in Hz. */
    private static final String REFRESH = "display.refresh";
    private static final Duration PRIOR_KEPT = Duration.ofMinutes(1);

    /** What a reading may suffer from. */
    public enum MarkKind { STRAY, HELD, TOO_SHORT, WARM_UP, DISTURBED }

    /**
     * @param rate  the display's rate, or the half or third of it, that holds the value; absent for other marks
     * @param words what the device noticed; absent for other marks
     */
    public record ReadingMark(MarkKind kind, @Nullable Double rate, @Nullable String words) {
        ReadingMark(MarkKind kind, @Nullable Double rate) {
            this(kind, rate, null);
        }
    }

    /** A sample that the display holds. */
    public record HeldSample(long configurationId, long metricId) { }

    private record TimedPrior(Optional<NoisePrior> prior, Instant until) { }

    private record Counted(long readingId, long configurationId, long metricId, double value, double resolution) { }

    private final EntityManager entities;
    private final JdbcTemplate jdbc;
    private final Samples samples;
    private final Catalog catalog;
    private final Clock clock;
    private final Map<Long, TimedPrior> priors = new ConcurrentHashMap<>();

    ReadingMarks(EntityManager entities, JdbcTemplate jdbc, Samples samples, Catalog catalog, Clock clock) {
        this.clock = clock;
        this.jdbc = jdbc;
        this.entities = entities;
        this.samples = samples;
        this.catalog = catalog;
    }

    /** The same page, each line with its marks. */
    @Transactional(readOnly = true)
    Page<LedgerRow> marked(Page<LedgerRow> page) {
        Set<HeldSample> wanted = page.rows().stream().filter(r -> r.readingId() != null && r.asideReason() == null).map(r -> new HeldSample(r.configurationId(), r.metricId())).collect(Collectors.toSet());
        if (wanted.isEmpty()) {
            return page;
        }
        Map<Long, List<ReadingMark>> marks = marks(wanted);
        return new Page<>(page.rows().stream().map(r -> r.readingId() == null ? r : r.with(withDisturbance(marks.getOrDefault(r.readingId(), List.of()), r.disturbed()))).toList(), page.page(), page.size(), page.total());
    }

    /** Marks of one reading, also those that need every session of its metric. */
    @Transactional(readOnly = true)
    List<ReadingMark> of(Reading reading, MetricRow metric, int runNumber, @Nullable String disturbed) {
        List<ReadingMark> all = new ArrayList<>(marks(Set.of(new HeldSample(reading.configurationId(), metric.id()))).getOrDefault(reading.id(), List.of()));
        if (runNumber == 1 && warmUp(metric).applies()) {
            all.add(new ReadingMark(MarkKind.WARM_UP, null));
        }
        return withDisturbance(all, disturbed);
    }

    private static List<ReadingMark> withDisturbance(List<ReadingMark> marks, @Nullable String disturbed) {
        if (disturbed == null) {
            return marks;
        }
        List<ReadingMark> all = new ArrayList<>(marks);
        all.add(new ReadingMark(MarkKind.DISTURBED, null, disturbed));
        return all;
    }

    private WarmUp warmUp(MetricRow metric) {
        Map<Long, List<Double>> sessions = new LinkedHashMap<>();
        entities.createQuery("""
                select r.sessionId, rd.value from Reading rd join Run r on r.id = rd.runId where rd.metricId = :metric
                and not exists (select 1 from SetAside a where a.readingId = rd.id and a.takenBackAt is null) order by r.sessionId, r.runNumber""", Object[].class)
            .setParameter("metric", metric.id()).getResultList().forEach(r -> sessions.computeIfAbsent((Long) r[0], s -> new ArrayList<>()).add(Merit.of((Double) r[1], metric.direction(), metric.scale())));
        return WarmUp.of(sessions.values());
    }

    /** By reading. */
    private Map<Long, List<ReadingMark>> marks(Set<HeldSample> wanted) {
        Set<Long> metricIds = wanted.stream().map(HeldSample::metricId).collect(Collectors.toSet());
        List<MetricRow> all = catalog.metrics();
        Map<Long, MetricRow> metrics = all.stream().filter(m -> metricIds.contains(m.id())).collect(Collectors.toMap(MetricRow::id, m -> m));
        Map<Long, Optional<NoisePrior>> lent = lent(metrics.values(), all);
        Map<HeldSample, HeldRate> held = heldRates(metrics.values());
        Map<HeldSample, List<Counted>> counted = counted(wanted);
        Map<Long, List<ReadingMark>> marks = new HashMap<>();
        counted.forEach((sample, readings) -> {
            MetricRow metric = metrics.get(sample.metricId());
            SampleMoments moments = SampleMoments.of(readings.stream().map(c -> new Measured(c.value(), c.resolution())).toList(), metric.direction(), metric.scale());
            boolean[] stray = Stray.of(readings.stream().mapToDouble(c -> Merit.of(c.value(), metric.direction(), metric.scale())).toArray(), lent.getOrDefault(metric.id(), Optional.empty()), moments.resolutionVariance());
            for (int i = 0; i < stray.length; i++) {
                List<ReadingMark> of = new ArrayList<>();
                if (stray[i]) {
                    of.add(new ReadingMark(MarkKind.STRAY, null));
                }
                if (held.containsKey(sample)) {
                    of.add(new ReadingMark(MarkKind.HELD, held.get(sample).rate()));
                }
                if (isTimed(metric) && TooShort.of(readings.get(i).value(), readings.get(i).resolution())) {
                    of.add(new ReadingMark(MarkKind.TOO_SHORT, null));
                }
                if (!of.isEmpty()) {
                    marks.put(readings.get(i).readingId(), of);
                }
            }
        });
        return marks;
    }

    /** Whether its resolution is that of a clock: times that somebody took, and rates of our own tests. */
    private static boolean isTimed(MetricRow metric) {
        return metric.given() && metric.series() == null && (metric.kind() == Kind.DURATION || metric.kind() == Kind.NUMBER && metric.builtIn());
    }

    /** The readings of these very samples: asked for as pairs, or every metric of every configuration would come along. */
    private Map<HeldSample, List<Counted>> counted(Set<HeldSample> wanted) {
        String pairs = wanted.stream().map(w -> "(" + w.configurationId() + "," + w.metricId() + ")").collect(Collectors.joining(","));
        return jdbc.query("select rd.id, rd.configuration_id, rd.metric_id, rd.value, rd.resolution from reading rd where (rd.configuration_id, rd.metric_id) in (" + pairs
                + ") and not exists (select 1 from set_aside a where a.reading_id = rd.id and a.taken_back_at is null)", (row, i) -> new Counted(row.getLong(1), row.getLong(2), row.getLong(3), row.getDouble(4), row.getDouble(5))).stream()
            .collect(Collectors.groupingBy(c -> new HeldSample(c.configurationId(), c.metricId())));
    }

    /** What samples of these metrics lend. A minute old is good enough for a mark, and spares every page all samples. */
    private Map<Long, Optional<NoisePrior>> lent(Collection<MetricRow> metrics, List<MetricRow> all) {
        Instant now = clock.instant();
        List<MetricRow> wanted = metrics.stream().filter(m -> !priors.containsKey(m.id()) || !priors.get(m.id()).until().isAfter(now)).toList();
        if (!wanted.isEmpty()) {
            Set<Long> versions = wanted.stream().map(MetricRow::suiteVersionId).collect(Collectors.toSet());
            Map<Long, Long> versionOf = all.stream().filter(m -> versions.contains(m.suiteVersionId())).collect(Collectors.toMap(MetricRow::id, MetricRow::suiteVersionId));
            List<Samples.SampleRow> rows = samples.ofMetrics(versionOf.keySet());
            Map<Long, List<SampleMoments>> ofMetric = moments(rows, Samples.SampleRow::metricId);
            Map<Long, List<SampleMoments>> ofVersion = moments(rows, r -> versionOf.get(r.metricId()));
            wanted.forEach(m -> priors.put(m.id(), new TimedPrior(
                NoisePrior.fitWithin(ofMetric.getOrDefault(m.id(), List.of()), ofVersion.getOrDefault(m.suiteVersionId(), List.of())), now.plus(PRIOR_KEPT))));
        }
        return metrics.stream().collect(Collectors.toMap(MetricRow::id, m -> priors.get(m.id()).prior()));
    }

    private static Map<Long, List<SampleMoments>> moments(List<Samples.SampleRow> rows, Function<Samples.SampleRow, Long> by) {
        return rows.stream().collect(Collectors.groupingBy(by, Collectors.mapping(Samples.SampleRow::moments, Collectors.toList())));
    }

    /** Samples of these metrics that a display holds: they say nothing about the device, so totals leave them out. */
    @Transactional(readOnly = true)
    public Set<HeldSample> held(Collection<MetricRow> metrics) {
        return heldRates(metrics).keySet();
    }

    private Map<HeldSample, HeldRate> heldRates(Collection<MetricRow> metrics) {
        Map<Long, MetricRow> capped = metrics.stream().filter(m -> m.capped() && m.scale() == Scale.RATIO).collect(Collectors.toMap(MetricRow::id, m -> m));
        if (capped.isEmpty()) {
            return Map.of();
        }
        Map<Long, List<Samples.SampleRow>> rows = samples.ofMetrics(capped.keySet()).stream().collect(Collectors.groupingBy(Samples.SampleRow::metricId));
        Map<Long, Double> refresh = refreshRates();
        Map<HeldSample, HeldRate> held = new HashMap<>();
        rows.forEach((metricId, all) -> {
            Map<Long, Double> rates = all.stream().collect(Collectors.toMap(Samples.SampleRow::configurationId, r -> Merit.toValue(r.moments().mean(), capped.get(metricId).direction())));
            for (Samples.SampleRow row : all) {
                OptionalDouble display = refresh.containsKey(row.configurationId()) ? OptionalDouble.of(refresh.get(row.configurationId())) : OptionalDouble.empty();
                List<Double> others = rates.entrySet().stream().filter(e -> e.getKey() != row.configurationId()).map(Map.Entry::getValue).toList();
                HeldRate.of(rates.get(row.configurationId()), row.moments().spreadPercent(), display, others).ifPresent(h -> held.put(new HeldSample(row.configurationId(), metricId), h));
            }
        });
        return held;
    }

    private Map<Long, Double> refreshRates() {
        Map<Long, Double> rates = new HashMap<>();
        entities.createQuery("select f.configuration.id, f.factValue from Fact f where f.factKey = :key", Object[].class).setParameter("key", REFRESH).getResultList()
            .forEach(r -> rates.put((Long) r[0], Double.valueOf((String) r[1])));
        return rates;
    }
}
