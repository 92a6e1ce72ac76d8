package yarrowmark.server.analysis;

import static yarrowmark.server.platform.Require.require;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.LongPredicate;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.curve.Curve;
import yarrowmark.core.curve.FrameTimes;
import yarrowmark.core.measure.Kind;
import yarrowmark.core.measure.Measured;
import yarrowmark.core.measure.Merit;
import yarrowmark.core.stats.Sample;
import yarrowmark.core.stats.SampleMoments;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.ledger.line.ReadingLines;
import yarrowmark.server.ledger.sample.CountedSessions;
import yarrowmark.server.ledger.sample.Samples;
import yarrowmark.server.ledger.sample.SessionSelection;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.shelf.ShelfPages;
import yarrowmark.server.shelf.configuration.ConfigurationRow;

/** What is behind one line of a comparison: single readings, everything else that was tested, and points where there are any. */
@Service
class ComparedReadings {
    /** @param others centres of all other configurations, for a rail */
    record ComparedMetric(MetricRow metric, List<ReadingsOf> sides, List<Elsewhere> others) {}

    record ReadingsOf(
            long configurationId,
            List<ReadingLines.ReadingLine> readings,
            List<SessionMean> sessions,
            @Nullable CurveOf curve,
            @Nullable FramesOf frames) {}

    /** One session of a side. @param mean of what counts, geometric for ratios. @param at when its first reading was finished */
    record SessionMean(long sessionId, Instant at, int runs, double mean, List<String> conditions) {}

    record Elsewhere(ConfigurationRow configuration, double value) {}

    /** The latest curve that counts. @param overBase ratios where both cover an x; empty for the base itself */
    record CurveOf(
            long readingId,
            List<Curve.Point> points,
            Curve.Point peak,
            double nearPeakFrom,
            List<Curve.Point> dents,
            List<Curve.Ratio> overBase) {}

    /** The latest frames that count, in ms. */
    record FramesOf(long readingId, double[] times, FrameTimes numbers) {}

    private final Catalog catalog;
    private final ReadingLines lines;
    private final Samples samples;
    private final ShelfPages shelf;
    private final CountedSessions taken;

    ComparedReadings(Catalog catalog, ReadingLines lines, Samples samples, ShelfPages shelf, CountedSessions taken) {
        this.taken = taken;
        this.catalog = catalog;
        this.lines = lines;
        this.samples = samples;
        this.shelf = shelf;
    }

    /** @param ids the base first; once more where it is held against itself under another condition */
    @Transactional(readOnly = true)
    public ComparedMetric of(long metricId, List<Long> ids, SessionSelection take, SessionSelection baseTake) {
        List<MetricRow> all = catalog.metrics();
        MetricRow metric = all.stream()
                .filter(m -> m.id() == metricId)
                .findFirst()
                .orElseThrow(() -> Problem.notFound("metric", metricId));
        Map<Long, Long> oldest = catalog.comparable(all);
        Set<Long> members = all.stream()
                .map(MetricRow::id)
                .filter(id -> require(oldest, id).equals(oldest.get(metricId)))
                .collect(Collectors.toSet());
        Map<Long, List<ReadingLines.ReadingLine>> found = lines.of(members, ids);
        Map<Long, double[]> points = metric.kind().isSeries()
                ? lines.points(found.values().stream()
                        .flatMap(Collection::stream)
                        .map(ReadingLines.ReadingLine::id)
                        .toList())
                : Map.of();
        List<ReadingsOf> sides = new ArrayList<>();
        Curve base = null;
        for (long id : ids) {
            LongPredicate in = taken.taken(sides.isEmpty() ? baseTake : take);
            List<ReadingLines.ReadingLine> own = found.getOrDefault(id, List.of()).stream()
                    .filter(l -> in.test(l.sessionId()))
                    .toList();
            ReadingLines.ReadingLine last = own.stream()
                    .filter(l -> l.asideReason() == null && points.containsKey(l.id()))
                    .max(Comparator.comparing(ReadingLines.ReadingLine::id))
                    .orElse(null);
            double[] values = last == null ? null : points.get(last.id());
            Curve curve = values != null && metric.kind() == Kind.CURVE ? curve(values) : null;
            sides.add(new ReadingsOf(
                    id,
                    own,
                    sessions(own, metric),
                    curve == null || last == null
                            ? null
                            : new CurveOf(
                                    last.id(),
                                    curve.points(),
                                    curve.peak(),
                                    curve.nearPeakFrom(),
                                    curve.dents(),
                                    base == null ? List.of() : curve.over(base)),
                    values != null && last != null && metric.kind() == Kind.FRAME_TIMES
                            ? new FramesOf(last.id(), values, FrameTimes.of(values))
                            : null));
            base = base == null ? curve : base;
        }
        return new ComparedMetric(metric, sides, elsewhere(metric, members, Set.copyOf(ids)));
    }

    private static List<SessionMean> sessions(List<ReadingLines.ReadingLine> own, MetricRow metric) {
        Map<Long, List<ReadingLines.ReadingLine>> by = own.stream()
                .filter(l -> l.asideReason() == null)
                .collect(Collectors.groupingBy(
                        ReadingLines.ReadingLine::sessionId, LinkedHashMap::new, Collectors.toList()));
        return by.entrySet().stream()
                .map(e -> new SessionMean(
                        e.getKey(),
                        e.getValue().stream()
                                .map(ReadingLines.ReadingLine::finishedAt)
                                .min(Comparator.naturalOrder())
                                .orElseThrow(),
                        e.getValue().size(),
                        Merit.toValue(
                                SampleMoments.of(
                                                e.getValue().stream()
                                                        .map(l -> new Measured(l.value(), l.resolution()))
                                                        .toList(),
                                                metric.direction(),
                                                metric.scale())
                                        .mean(),
                                metric.direction(),
                                metric.scale()),
                        e.getValue().stream()
                                .flatMap(l -> l.conditions().stream())
                                .distinct()
                                .toList()))
                .sorted(Comparator.comparing(SessionMean::at))
                .toList();
    }

    private List<Elsewhere> elsewhere(MetricRow metric, Set<Long> members, Set<Long> here) {
        Map<Long, Sample> pooled = new HashMap<>();
        samples.ofMetrics(members).stream()
                .filter(s -> !here.contains(s.configurationId()))
                .forEach(s -> pooled.merge(s.configurationId(), s.sample(), Sample::joined));
        return shelf.configurations(pooled.keySet()).stream()
                .map(c -> new Elsewhere(
                        c, Merit.toValue(require(pooled, c.id()).mean(), metric.direction(), metric.scale())))
                .toList();
    }

    private static Curve curve(double[] values) {
        List<Curve.Point> points = new ArrayList<>();
        for (int i = 0; i + 1 < values.length; i += 2) {
            points.add(new Curve.Point(values[i], values[i + 1]));
        }
        return new Curve(points);
    }
}
