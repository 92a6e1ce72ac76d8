package yarrowmark.server.standing;

import static yarrowmark.server.platform.Require.require;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import yarrowmark.core.compare.PairComparison;
import yarrowmark.core.measure.Merit;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.setup.FactVocabulary;
import yarrowmark.core.standing.Ranking;
import yarrowmark.core.standing.Reference;
import yarrowmark.core.standing.Standing;
import yarrowmark.core.stats.Centre;
import yarrowmark.core.stats.Sample;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.ledger.sample.CountedSessions;
import yarrowmark.server.reference.References;
import yarrowmark.server.shelf.ShelfPages;
import yarrowmark.server.shelf.model.DeviceClass;
import yarrowmark.server.shelf.model.ModelRow;

/** Brings a standing into the shape in which it is shown. */
@Component
class StandingsShaper {
    /** Half-width of a mark on a rail, in standard errors: a mark is a picture, its numbers are in the table. */
    static final double WIDTH = 1.959964;

    private static final double STEP = 1e6;
    /** Wider than any reading may be: nothing is known of the spread. */
    private static final double UNKNOWN_HALF = 1e30;

    private static final int MOST_RAILS = 12;

    private final References references;
    private final ShelfPages shelf;
    private final CountedSessions taken;

    StandingsShaper(References references, ShelfPages shelf, CountedSessions taken) {
        this.taken = taken;
        this.references = references;
        this.shelf = shelf;
    }

    Standings shaped(Ranked ranked) {
        StandingsAsk ask = ranked.ask();
        MetricRow alone = ask.oneMetric() ? ranked.metrics().get(0) : null;
        Set<DeviceClass> classes = ask.deviceClass() == null ? Set.of() : ask.deviceClass();
        List<PartOf> parts = alone == null ? ranked.parts() : List.of();
        List<List<Standings.Mark>> marks = marks(ranked, parts);
        CensoredPlaces places = new CensoredPlaces(ranked);
        List<Standings.Row> rows = ranked.standing().entries().stream()
                .map(e -> row(e, ranked, places, marks.get(e.row()), alone))
                .toList();
        Map<DeviceClass, Integer> apart = classes.isEmpty() ? apart(rows) : Map.of();
        List<Standings.Row> shown = rows.stream()
                .filter(r -> !apart.containsKey(r.configuration().deviceClass()))
                .toList();
        List<Standings.WeightedMetric> metrics = new ArrayList<>();
        for (int j = 0; j < ranked.weights().length; j++) {
            MetricRow m = ranked.metrics().get(j);
            metrics.add(new Standings.WeightedMetric(m.id(), m.test(), m.suite(), ranked.weights()[j]));
        }
        return new Standings(
                classes.stream().sorted().toList(),
                ranked.purpose(),
                scope(ask, ranked),
                alone,
                ranked.base() == null
                        ? null
                        : require(ranked.chosen().members(), ranked.base()).configuration(),
                ranked.baseNote(),
                per(ask.per(), ranked),
                parts.stream()
                        .map(p ->
                                new Standings.StandingPart(p.kind(), p.key(), p.name(), p.weight(), p.columns().length))
                        .toList(),
                metrics,
                ranked.leftOut(),
                ranked.chosen().unknown().entrySet().stream()
                        .map(e -> new Standings.UnknownCount(e.getKey(), e.getValue()))
                        .toList(),
                (int) rows.stream()
                        .filter(r -> r.status() == Standing.Status.PLACED)
                        .count(),
                ranked.common(),
                ranked.offers(),
                apart.entrySet().stream()
                        .map(e -> new Standings.ApartClass(e.getKey(), e.getValue()))
                        .toList(),
                ask.taken(),
                taken.notCounted(ranked.rows()),
                ranked.standing().tauSquared(),
                ranked.standing().days().words(),
                shown,
                alone == null || ask.per() != null ? List.of() : published(alone, base(ranked, alone), classes));
    }

    /** Classes none of whose configurations is linked to the base: under it, they would be a list that says nothing. */
    private static Map<DeviceClass, Integer> apart(List<Standings.Row> rows) {
        Map<DeviceClass, Integer> apart = new EnumMap<>(DeviceClass.class);
        rows.forEach(r -> apart.merge(r.configuration().deviceClass(), 1, Integer::sum));
        rows.stream()
                .filter(r -> r.status() != Standing.Status.NOT_LINKED)
                .forEach(r -> apart.remove(r.configuration().deviceClass()));
        return apart;
    }

    private static @Nullable Double base(Ranked ranked, MetricRow metric) {
        Centre base = ranked.base() == null ? null : ranked.centre(ranked.row(require(ranked.base())), metric);
        return base == null ? null : base.merit();
    }

    /** What is ranked, in words. */
    String scopeOf(Ranked ranked) {
        return scope(ranked.ask(), ranked);
    }

    private static String scope(StandingsAsk ask, Ranked ranked) {
        MetricRow any = ranked.metrics().get(0);
        return ask.metric() != null
                ? any.name()
                : ask.test() != null
                        ? any.test()
                        : ask.suite() != null
                                ? any.suite() + " " + any.version()
                                : ask.group() != null
                                        ? ask.group().label() + " tests"
                                        : ask.onlyTests() != null
                                                ? ask.onlyTests().size() + " tests of a list"
                                                : overAll(ranked);
    }

    /** What is left out of every test is said at once: nobody takes a place by one test for one by all. */
    private static String overAll(Ranked ranked) {
        if (ranked.metrics().size() == 1 && !ranked.leftOut().isEmpty()) {
            return "one test only, " + ranked.metrics().get(0).test();
        }
        return ranked.common()
                ? "the tests in common use"
                : ranked.leftOut().isEmpty() ? "every test" : "the shared tests";
    }

    private static @Nullable String per(@Nullable String per, Ranked ranked) {
        return per == null
                ? null
                : switch (per) {
                    case StandingFilter.PRICE ->
                        "price in "
                                + ranked.chosen()
                                        .members()
                                        .values()
                                        .iterator()
                                        .next()
                                        .currency();
                    case StandingFilter.WEIGHT -> "gram";
                    default -> FactVocabulary.entry(per).label().toLowerCase(java.util.Locale.ROOT);
                };
    }

    /** What others published for the metric, held against the base and not ranked. */
    private List<Standings.Published> published(
            MetricRow metric, @Nullable Double base, Collection<DeviceClass> classes) {
        return references.ofMetric(metric.id()).stream()
                .map(r -> {
                    ModelRow model = shelf.model(r.modelId()).model();
                    return classes.isEmpty() || classes.contains(model.deviceClass())
                            ? new Standings.Published(
                                    model.id(),
                                    model.maker(),
                                    model.name(),
                                    r.value(),
                                    r.resolution(),
                                    r.source(),
                                    r.publishedOn(),
                                    r.results(),
                                    base == null || metric.scale() == Scale.DIFFERENCE
                                            ? null
                                            : 100 * Math.exp(Merit.of(r.value(), metric.direction()) - base))
                            : null;
                })
                .filter(Objects::nonNull)
                .toList();
    }

    /** Each part ranked on its own, for the small rails, by row. A base without a result in a part is replaced there by the typical one. */
    private static List<List<Standings.Mark>> marks(Ranked ranked, List<PartOf> parts) {
        List<List<Standings.Mark>> marks = new ArrayList<>();
        ranked.rows().forEach(r -> marks.add(new ArrayList<>(parts.size())));
        int[] shown = heaviest(parts);
        // Each part is a fit of its own, so the processors share them.
        double[][][] levels = Arrays.stream(shown)
                .parallel()
                .mapToObj(p -> levels(ranked, parts.get(p).columns()))
                .toArray(double[][][]::new);
        for (int i = 0; i < shown.length; i++) {
            for (int r = 0; r < marks.size(); r++) {
                if (!Double.isNaN(levels[i][0][r])) {
                    marks.get(r)
                            .add(new Standings.Mark(
                                    shown[i], rounded(levels[i][0][r]), rounded(WIDTH * levels[i][1][r])));
                }
            }
        }
        return marks;
    }

    private static double[][] levels(Ranked ranked, int[] columns) {
        double[] weights =
                Arrays.stream(columns).mapToDouble(j -> ranked.weights()[j]).toArray();
        boolean has = ranked.base() != null
                && Arrays.stream(columns)
                        .anyMatch(j -> ranked.sample(
                                        ranked.row(require(ranked.base())),
                                        ranked.metrics().get(j))
                                != null);
        return Ranking.levels(ranked.grid().columns(columns), weights, has ? ranked.reference() : Reference.typical());
    }

    /** A suite of a thousand tests has no thousand rails. */
    private static int[] heaviest(List<PartOf> parts) {
        return IntStream.range(0, parts.size())
                .boxed()
                .sorted(Comparator.comparingDouble((Integer p) -> -parts.get(p).weight()))
                .limit(MOST_RAILS)
                .mapToInt(Integer::intValue)
                .sorted()
                .toArray();
    }

    private static double rounded(double merit) {
        return Math.round(merit * STEP) / STEP;
    }

    private static Standings.Row row(
            Standing.Entry e,
            Ranked ranked,
            CensoredPlaces places,
            List<Standings.Mark> marks,
            @Nullable MetricRow alone) {
        long id = ranked.rows().get(e.row());
        Double merit = e.merit().isPresent() ? e.merit().getAsDouble() : null;
        Sample sample = alone == null ? null : ranked.sample(e.row(), alone);
        boolean held = ranked.held().contains(id);
        boolean ratios = !ranked.byDifferences();
        Optional<PairComparison.Interval> interval = held || !ratios ? Optional.empty() : e.interval();
        return new Standings.Row(
                require(ranked.chosen().members(), id).configuration(),
                e.status(),
                places.order(e),
                places.best(e),
                places.worst(e),
                merit,
                ratios && e.index().isPresent() ? e.index().getAsDouble() : null,
                interval.map(i -> 100 * i.low()).orElse(null),
                interval.map(i -> 100 * i.high()).orElse(null),
                e.coverage(),
                e.metrics(),
                e.percentile().isPresent() ? e.percentile().getAsDouble() : null,
                e.third().orElse(null),
                marks,
                sample == null || alone == null
                        ? null
                        : Merit.toValue(
                                require(ranked.centre(e.row(), alone)).merit(), alone.direction(), alone.scale()),
                sample == null ? null : sample.n(),
                ranked.staleTests().get(id),
                ranked.chosen().outdated().get(id),
                null,
                ratios ? e.unmeasured().metrics() : 0,
                ratios && e.unmeasured().most(),
                held,
                alone == null || ratios || merit == null ? null : difference(merit, e.interval(), alone));
    }

    private static Standings.ValueDifference difference(
            double merit, Optional<PairComparison.Interval> interval, MetricRow metric) {
        double value = metric.direction().sign() * merit;
        Double half = interval.map(PairComparison.Interval::half)
                .filter(h -> h < UNKNOWN_HALF)
                .orElse(null);
        return new Standings.ValueDifference(
                value, half == null ? null : value - half, half == null ? null : value + half);
    }
}
