package yarrowmark.server.analysis;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.measure.Merit;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.standing.PurposeWeights;
import yarrowmark.core.standing.Ranking;
import yarrowmark.core.standing.Standing;
import yarrowmark.core.stats.SampleMoments;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.PurposeRow;
import yarrowmark.server.catalog.TestGroup;
import yarrowmark.server.ledger.ReadingMarks;
import yarrowmark.server.ledger.Samples.SampleRow;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.reference.References;
import yarrowmark.server.shelf.ConfigurationRow;
import yarrowmark.server.shelf.DeviceClass;
import yarrowmark.server.shelf.ModelRow;
import yarrowmark.server.shelf.Shelf;

/** Ranks what was tested, from stored samples; single readings are never read. */
@Service
class StandingsService {
    /** Half-width of a 95 % interval in standard errors. */
    private static final double WIDTH = 1.959964;

    /** What is asked: null or empty means any, or the usual. */
    record Question(Collection<DeviceClass> classes, @Nullable Long purpose, @Nullable Long metric, @Nullable Long base) { }

    private final Catalog catalog;
    private final ComparedSamples comparedSamples;
    private final ReadingMarks marks;
    private final References references;
    private final Shelf shelf;

    StandingsService(Catalog catalog, ComparedSamples comparedSamples, ReadingMarks marks, References references, Shelf shelf) {
        this.catalog = catalog;
        this.comparedSamples = comparedSamples;
        this.marks = marks;
        this.references = references;
        this.shelf = shelf;
    }

    @Transactional(readOnly = true)
    public Standings standings(Question question) {
        PurposeRow purpose = question.purpose() == null ? catalog.purposes().get(0) : catalog.purpose(question.purpose());
        List<MetricRow> all = catalog.metricsInUse();
        List<Standings.LeftOut> leftOut = new ArrayList<>();
        ComparedSamples.Compared compared = compared(candidates(all, question.metric(), leftOut), all, question.metric() == null, leftOut);
        List<MetricRow> candidates = compared.metrics();
        List<SampleRow> found = compared.samples();
        Map<Long, ConfigurationRow> shown = shown(found, question.classes());
        if (shown.isEmpty()) {
            throw Problem.invalid("nothing-tested", "Nothing that was asked for has a score yet. Bring a device to the bench, or ask for other classes or tests.");
        }
        SampleGrid grid = new SampleGrid(candidates, found, shown::containsKey);
        double[] weights = weights(purpose, grid.metrics(), question.metric() != null);
        noteWithoutScores(candidates, grid, leftOut);

        List<MetricRow> weighted = new ArrayList<>();
        List<Double> weightList = new ArrayList<>();
        for (int j = 0; j < weights.length; j++) {
            if (weights[j] > 0) {
                weighted.add(grid.metrics().get(j));
                weightList.add(weights[j]);
            }
        }
        double[] used = weightList.stream().mapToDouble(Double::doubleValue).toArray();
        int reference = reference(grid, weighted, used, question.base());
        long baseId = grid.configurations().get(reference);
        String note = question.base() == null || question.base() == baseId ? null
            : "The base that was asked for is not among those ranked here, so another one was taken.";
        Standing standing = Ranking.of(grid.grid(weighted), used, reference);
        Map<Long, List<Standings.Mark>> marks = question.metric() == null ? groupMarks(grid, weighted, used, reference) : Map.of();

        List<Standings.Row> rows = standing.entries().stream()
            .map(e -> row(e, grid, shown, marks, question.metric() == null ? null : weighted.get(0))).toList();
        List<Standings.WeightedMetric> metricParts = new ArrayList<>();
        for (int j = 0; j < used.length; j++) {
            MetricRow m = weighted.get(j);
            metricParts.add(new Standings.WeightedMetric(m.id(), m.test(), m.group(), m.suite(), used[j]));
        }
        return new Standings(question.classes().stream().sorted().toList(), purpose.name(), question.metric() == null ? null : weighted.get(0),
            shown.get(baseId), note, groupParts(weighted, used), metricParts, leftOut, standing.tauSquared(), rows,
            question.metric() == null ? List.of() : published(weighted.get(0), grid.sample(baseId, weighted.get(0).id()), question.classes()));
    }

    /** In totals without what a display holds; a metric that is asked for by itself is shown as it is. */
    private ComparedSamples.Compared compared(List<MetricRow> candidates, List<MetricRow> all, boolean total, List<Standings.LeftOut> leftOut) {
        ComparedSamples.Compared compared = comparedSamples.of(candidates, all);
        Set<ReadingMarks.HeldSample> held = total ? marks.held(compared.metrics()) : Set.of();
        if (held.isEmpty()) {
            return compared;
        }
        compared.metrics().forEach(m -> {
            long configurations = held.stream().filter(h -> h.metricId() == m.id()).count();
            if (configurations > 0) {
                leftOut.add(new Standings.LeftOut(m.test(), m.suite(), "held at the display's rate on " + configurations + (configurations == 1 ? " configuration" : " configurations") + ", so it says nothing about them"));
            }
        });
        return new ComparedSamples.Compared(compared.metrics(), compared.samples().stream().filter(s -> !held.contains(new ReadingMarks.HeldSample(s.configurationId(), s.metricId()))).toList());
    }

    /** What others published for the metric, held against the base and not ranked. */
    private List<Standings.Published> published(MetricRow metric, @Nullable SampleMoments base, Collection<DeviceClass> classes) {
        return references.ofMetric(metric.id()).stream().map(r -> {
            ModelRow model = shelf.model(r.modelId()).model();
            return classes.isEmpty() || classes.contains(model.deviceClass())
                ? new Standings.Published(model.id(), model.maker(), model.name(), r.value(), r.resolution(), r.source(), r.publishedOn(), r.results(),
                    base == null ? null : 100 * Math.exp(Merit.of(r.value(), metric.direction()) - base.mean())) : null;
        }).filter(java.util.Objects::nonNull).toList();
    }

    private static List<MetricRow> candidates(List<MetricRow> all, @Nullable Long one, List<Standings.LeftOut> leftOut) {
        if (one != null) {
            MetricRow metric = all.stream().filter(m -> m.id() == one).findFirst().orElseThrow(() -> Problem.notFound("metric", one));
            if (metric.scale() != Scale.RATIO) {
                throw Problem.invalid("not-a-ratio", metric.name() + " is compared by differences; it has no index and cannot be ranked by ratios.");
            }
            return List.of(metric);
        }
        for (MetricRow m : all) {
            // How often a curve dents is no test of its own that anybody would miss.
            if (m.scale() != Scale.RATIO && m.series() == null) {
                leftOut.add(new Standings.LeftOut(m.test(), m.suite(), "compared by differences, so it enters no mean of ratios"));
            }
        }
        return all.stream().filter(m -> m.main() && m.scale() == Scale.RATIO).toList();
    }

    private Map<Long, ConfigurationRow> shown(List<SampleRow> found, Collection<DeviceClass> classes) {
        Set<Long> ids = found.stream().map(SampleRow::configurationId).collect(Collectors.toSet());
        return shelf.configurations(ids).stream()
            .filter(c -> classes.isEmpty() || classes.contains(c.deviceClass()))
            .collect(Collectors.toMap(ConfigurationRow::id, c -> c));
    }

    private static double[] weights(PurposeRow purpose, List<MetricRow> metrics, boolean oneAlone) {
        if (oneAlone) {
            return new double[] {1};
        }
        Map<String, Double> byGroup = purpose.weights().entrySet().stream().collect(Collectors.toMap(e -> e.getKey().name(), Map.Entry::getValue));
        try {
            return PurposeWeights.spread(byGroup, metrics.stream()
                .map(m -> new PurposeWeights.MetricPlace(m.group().name(), m.suite(), Long.toString(m.testId()))).toList());
        } catch (IllegalArgumentException e) {
            throw Problem.invalid("no-weight", "The purpose \"" + purpose.name() + "\" gives no weight to any test that was run. Choose another purpose.");
        }
    }

    private static void noteWithoutScores(List<MetricRow> candidates, SampleGrid grid, List<Standings.LeftOut> leftOut) {
        Set<Long> present = grid.metrics().stream().map(MetricRow::id).collect(Collectors.toCollection(HashSet::new));
        Map<String, List<MetricRow>> bySuite = candidates.stream().collect(Collectors.groupingBy(MetricRow::suite, LinkedHashMap::new, Collectors.toList()));
        bySuite.forEach((suite, metrics) -> {
            List<MetricRow> absent = metrics.stream().filter(m -> !present.contains(m.id())).toList();
            if (absent.size() == metrics.size() && metrics.size() > 1) {
                leftOut.add(new Standings.LeftOut("all " + metrics.size() + " tests", suite, "nothing ranked here was measured with it"));
            } else {
                absent.forEach(m -> leftOut.add(new Standings.LeftOut(m.test(), m.suite(), "nothing ranked here was measured with it")));
            }
        });
    }

    /** The base that was asked for where it can be one, else the first made of those with the most coverage. */
    private static int reference(SampleGrid grid, List<MetricRow> metrics, double[] weights, @Nullable Long asked) {
        List<Long> rows = grid.configurations();
        double[] coverage = new double[rows.size()];
        for (int r = 0; r < coverage.length; r++) {
            for (int j = 0; j < weights.length; j++) {
                coverage[r] += grid.has(rows.get(r), metrics.get(j).id()) ? weights[j] : 0;
            }
        }
        int at = asked == null ? -1 : rows.indexOf(asked);
        if (at >= 0 && coverage[at] > 0) {
            return at;
        }
        int best = 0;
        for (int r = 1; r < coverage.length; r++) {
            if (coverage[r] > coverage[best] + 1e-9) {
                best = r;
            }
        }
        return best;
    }

    private static List<Standings.GroupPart> groupParts(List<MetricRow> metrics, double[] weights) {
        Map<TestGroup, double[]> sums = new EnumMap<>(TestGroup.class);
        for (int j = 0; j < weights.length; j++) {
            double[] sum = sums.computeIfAbsent(metrics.get(j).group(), g -> new double[2]);
            sum[0] += weights[j];
            sum[1]++;
        }
        return sums.entrySet().stream().map(e -> new Standings.GroupPart(e.getKey(), e.getValue()[0], (int) e.getValue()[1])).toList();
    }

    /** Each group ranked on its own, for the small rails. A base without a result in a group is replaced there. */
    private static Map<Long, List<Standings.Mark>> groupMarks(SampleGrid grid, List<MetricRow> metrics, double[] weights, int reference) {
        Map<Long, List<Standings.Mark>> marks = new HashMap<>();
        for (Standings.GroupPart part : groupParts(metrics, weights)) {
            List<MetricRow> columns = metrics.stream().filter(m -> m.group() == part.group()).toList();
            double[] w = columns.stream().mapToDouble(c -> weights[metrics.indexOf(c)]).toArray();
            long base = grid.configurations().get(reference);
            int home = reference(grid, columns, w, base);
            for (Standing.Entry e : Ranking.of(grid.grid(columns), w, home).entries()) {
                if (e.merit().isPresent()) {
                    double merit = e.merit().getAsDouble();
                    Double half = e.standardError().isPresent() ? WIDTH * e.standardError().getAsDouble() : null;
                    marks.computeIfAbsent(grid.configurations().get(e.row()), c -> new ArrayList<>()).add(
                        new Standings.Mark(part.group(), merit, half == null ? null : merit - half, half == null ? null : merit + half));
                }
            }
        }
        marks.values().forEach(list -> list.sort(Comparator.comparing(Standings.Mark::group)));
        return marks;
    }

    private static Standings.Row row(Standing.Entry e, SampleGrid grid, Map<Long, ConfigurationRow> shown,
                                     Map<Long, List<Standings.Mark>> marks, @Nullable MetricRow alone) {
        long id = grid.configurations().get(e.row());
        Double merit = e.merit().isPresent() ? e.merit().getAsDouble() : null;
        Double half = merit != null && e.standardError().isPresent() ? WIDTH * e.standardError().getAsDouble() : null;
        SampleMoments sample = alone == null ? null : grid.sample(id, alone.id());
        return new Standings.Row(shown.get(id), e.status(),
            e.place().map(p -> p.best()).orElse(null), e.place().map(p -> p.worst()).orElse(null),
            merit, e.index().isPresent() ? e.index().getAsDouble() : null,
            half == null ? null : 100 * Math.exp(merit - half), half == null ? null : 100 * Math.exp(merit + half),
            e.coverage(), e.metrics(), e.percentile().isPresent() ? e.percentile().getAsDouble() : null, e.third().orElse(null),
            marks.getOrDefault(id, List.of()),
            sample == null ? null : Merit.toValue(sample.mean(), alone.direction()), sample == null ? null : sample.n());
    }
}
