package yarrowmark.server.trend;

import static yarrowmark.server.platform.Require.require;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.compare.Materiality;
import yarrowmark.core.measure.Kind;
import yarrowmark.core.measure.Merit;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.setup.FactDifference;
import yarrowmark.core.setup.FactGroup;
import yarrowmark.core.setup.FactText;
import yarrowmark.core.stats.Centre;
import yarrowmark.core.stats.Noise;
import yarrowmark.core.stats.Sample;
import yarrowmark.core.trend.OverallLine;
import yarrowmark.core.trend.TrendLines;
import yarrowmark.core.trend.TrendMetric;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.PurposeRow;
import yarrowmark.server.catalog.Purposes;
import yarrowmark.server.catalog.TestGroup;
import yarrowmark.server.ledger.line.ReadingLines;
import yarrowmark.server.ledger.record.RunsWithoutScore;
import yarrowmark.server.ledger.sample.KnownNoise;
import yarrowmark.server.ledger.sample.NoisePriorCache;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.shelf.configuration.ConfigurationRow;

/** Answers what a device does along a fact: brings its samples to the core, and what comes back into words. */
@Service
class TrendService {
    private static final double USUAL_MATERIALITY = 3;

    private final TrendSource source;
    private final Catalog catalog;
    private final Purposes purposes;
    private final NoisePriorCache lent;
    private final RunsWithoutScore ended;
    private final TrendEvents events;
    private final ReadingLines readings;

    TrendService(
            TrendSource source,
            Catalog catalog,
            Purposes purposes,
            NoisePriorCache lent,
            RunsWithoutScore ended,
            TrendEvents events,
            ReadingLines readings) {
        this.source = source;
        this.catalog = catalog;
        this.purposes = purposes;
        this.lent = lent;
        this.ended = ended;
        this.events = events;
        this.readings = readings;
    }

    @Transactional(readOnly = true)
    public Trends of(TrendAsk ask) {
        List<MetricRow> all = catalog.metricsInUse();
        TrendSource.Measured measured = source.of(ask, all);
        TrendSteps made = measured.steps();
        Trends.Along along = made.along(ask.along(), ask.between());
        List<TrendSteps.Step> every = made.along(along);
        List<TrendSteps.Step> steps = from(every, ask.from());
        List<MetricRow> metrics = metrics(ask, steps, all);
        PurposeRow purpose = purposes.purpose(ask.purpose());
        Map<Long, Double> weights = purpose.weights(metrics);
        KnownNoise noise = lent.of(metrics, all);
        Materiality materiality = materiality(ask.matters());
        TrendWords words = new TrendWords();

        List<MetricRow> rows =
                metrics.stream().filter(m -> m.scale() == Scale.RATIO).toList();
        List<TrendMetric> inLines = rows.stream()
                .map(m -> metric(made, steps, m, noise, weights.getOrDefault(m.id(), 0.0)))
                .toList();
        Map<TestGroup, List<TrendMetric>> groups = groups(rows, inLines);
        List<List<TrendMetric>> overalls = new ArrayList<>(List.of(inLines));
        overalls.addAll(groups.values());
        TrendLines shown = TrendLines.of(inLines, overalls, materiality);
        List<Trends.LinePart> lines = new ArrayList<>();
        for (int i = 0; i < rows.size(); i++) {
            TrendMetric metric = inLines.get(i);
            lines.add(words.line(
                    rows.get(i), metric, shown.lines().get(i), TrendRanges.of(along, steps, rows.get(i), metric)));
        }
        Optional<OverallLine> overall = shown.overalls().get(0);
        List<Trends.SidePart> sides = metrics.stream()
                .filter(m -> m.scale() != Scale.RATIO && m.series() == null && m.kind() != Kind.CHOICE)
                .map(m -> side(m, steps, noise.of(m)))
                .toList();
        return new Trends(
                measured.modelId(),
                measured.maker(),
                measured.model(),
                measured.unitId(),
                measured.unit(),
                (int) steps.stream()
                        .flatMap(s -> s.configurations().stream())
                        .map(ConfigurationRow::unit)
                        .distinct()
                        .count(),
                along,
                made.offered(),
                every.stream()
                        .map(s -> new Trends.FromPart(
                                s.key(), s.label(), s.configurations().get(0).name()))
                        .toList(),
                purpose.name(),
                100 * materiality.share(),
                stepParts(made, steps, along, events.of(ask.model())),
                lines,
                sides,
                overall.map(words::overall).orElse(null),
                groupParts(groups, shown.overalls().subList(1, shown.overalls().size()), words),
                along.order() == Trends.Order.QUANTITY
                        ? overall.map(o -> TrendLadder.of(o, steps, rows, inLines, materiality))
                                .orElse(null)
                        : null,
                gaps(steps, metrics),
                made.unknown(along),
                shown.looks());
    }

    /** The single values behind the points, for panels that draw them as dots. @param values in the order they were made */
    record DotsPart(int step, long metricId, List<Double> values) {}

    @Transactional(readOnly = true)
    public List<DotsPart> dots(TrendAsk ask) {
        List<MetricRow> all = catalog.metricsInUse();
        TrendSteps made = source.of(ask, all).steps();
        List<TrendSteps.Step> steps = from(made.along(made.along(ask.along(), ask.between())), ask.from());
        Map<Long, Long> oldest = catalog.comparable(all);
        Set<Long> wanted = metrics(ask, steps, all).stream().map(MetricRow::id).collect(Collectors.toSet());
        Map<Long, Integer> stepOf = new HashMap<>();
        Set<Long> configurations = new HashSet<>();
        for (int i = 0; i < steps.size(); i++) {
            for (long session : steps.get(i).sessions()) {
                stepOf.put(session, i);
            }
            steps.get(i).configurations().forEach(c -> configurations.add(c.id()));
        }
        Map<Integer, Map<Long, List<Double>>> values = new TreeMap<>();
        readings.counted(
                        oldest.entrySet().stream()
                                .filter(e -> wanted.contains(e.getValue()))
                                .map(Map.Entry::getKey)
                                .collect(Collectors.toSet()),
                        configurations)
                .forEach(v -> {
                    Integer step = stepOf.get(v.sessionId());
                    if (step != null) {
                        values.computeIfAbsent(step, s -> new TreeMap<>())
                                .computeIfAbsent(require(oldest, v.metricId()), m -> new ArrayList<>())
                                .add(v.value());
                    }
                });
        List<DotsPart> dots = new ArrayList<>();
        values.forEach((step, by) -> by.forEach((metric, of) -> dots.add(new DotsPart(step, metric, of))));
        return dots;
    }

    static Materiality materiality(@Nullable Double percent) {
        return new Materiality((percent == null ? USUAL_MATERIALITY : percent) / 100);
    }

    static TrendMetric metric(
            TrendSteps made, List<TrendSteps.Step> steps, MetricRow m, KnownNoise noise, double weight) {
        return new TrendMetric(
                steps.stream().map(s -> s.samples().get(m.id())).toList(),
                noise.of(m),
                noise.day(m),
                weight,
                IntStream.range(0, steps.size())
                        .filter(i -> made.isHeld(steps.get(i), m.id()))
                        .boxed()
                        .collect(Collectors.toSet()));
    }

    /** From the step that everything is counted from; an old address may name one that is no more. */
    private static List<TrendSteps.Step> from(List<TrendSteps.Step> every, @Nullable String key) {
        if (key == null) {
            return every;
        }
        int at = IntStream.range(0, every.size())
                .filter(i -> every.get(i).key().equals(key))
                .findFirst()
                .orElseThrow(
                        () -> Problem.invalid(
                                "no-such-step",
                                "There is no such step to begin with: take another first one, or begin with the first of all."));
        return every.subList(at, every.size());
    }

    private static List<MetricRow> metrics(TrendAsk ask, List<TrendSteps.Step> steps, List<MetricRow> all) {
        Set<Long> present =
                steps.stream().flatMap(s -> s.samples().keySet().stream()).collect(Collectors.toSet());
        return all.stream()
                .filter(m -> present.contains(m.id()) && ask.takes(m))
                .toList();
    }

    /** Each group of tests has a line of its own, where there are several. */
    private static Map<TestGroup, List<TrendMetric>> groups(List<MetricRow> rows, List<TrendMetric> metrics) {
        Map<TestGroup, List<TrendMetric>> by = new EnumMap<>(TestGroup.class);
        for (int i = 0; i < rows.size(); i++) {
            by.computeIfAbsent(rows.get(i).group(), g -> new ArrayList<>()).add(metrics.get(i));
        }
        return by.size() < 2 ? Map.of() : by;
    }

    private static List<Trends.GroupPart> groupParts(
            Map<TestGroup, List<TrendMetric>> groups, List<Optional<OverallLine>> overalls, TrendWords words) {
        List<Trends.GroupPart> parts = new ArrayList<>();
        int at = 0;
        for (Map.Entry<TestGroup, List<TrendMetric>> e : groups.entrySet()) {
            overalls.get(at++)
                    .ifPresent(line -> parts.add(
                            new Trends.GroupPart(e.getKey(), e.getValue().size(), words.overall(line))));
        }
        return parts;
    }

    private static List<Trends.StepPart> stepParts(
            TrendSteps made,
            List<TrendSteps.Step> steps,
            Trends.Along along,
            Map<String, List<Trends.EventPart>> events) {
        List<Trends.StepPart> parts = new ArrayList<>();
        for (int i = 0; i < steps.size(); i++) {
            TrendSteps.Step s = steps.get(i);
            List<LocalDate> days = s.sessions().stream().map(made::day).sorted().toList();
            parts.add(new Trends.StepPart(
                    s.key(),
                    s.label(),
                    s.x(),
                    s.configurations(),
                    s.configurations().get(0).unit(),
                    i == 0 ? List.of() : changed(made.factsOf(steps.get(i - 1)), made.factsOf(s), along),
                    days.get(0),
                    days.get(days.size() - 1),
                    s.sessions().size(),
                    events.getOrDefault(s.key(), List.of())));
        }
        return parts;
    }

    private static List<Trends.ChangePart> changed(
            Map<String, String> before, Map<String, String> after, Trends.Along along) {
        return FactDifference.between(before, after).stream()
                .filter(d -> !d.key().key().equals(along.key()) && d.key().group() != FactGroup.ROOM)
                .map(d -> new Trends.ChangePart(
                        d.key().key(),
                        d.key().brief(),
                        d.before().map(v -> FactText.of(d.key(), v)).orElse(null),
                        d.after().map(v -> FactText.of(d.key(), v)).orElse(null)))
                .toList();
    }

    private static Trends.SidePart side(MetricRow m, List<TrendSteps.Step> steps, Noise noise) {
        List<Trends.SidePoint> points = new ArrayList<>();
        for (int i = 0; i < steps.size(); i++) {
            Sample sample = steps.get(i).samples().get(m.id());
            if (sample != null) {
                points.add(new Trends.SidePoint(
                        i, Merit.toValue(Centre.of(sample, noise).merit(), m.direction(), m.scale()), sample.n()));
            }
        }
        return new Trends.SidePart(m, points);
    }

    private List<Trends.GapPart> gaps(List<TrendSteps.Step> steps, List<MetricRow> metrics) {
        Map<RunsWithoutScore.Place, RunsWithoutScore.Ended> latest = ended.latest(steps.stream()
                .flatMap(s -> s.configurations().stream())
                .map(ConfigurationRow::id)
                .collect(Collectors.toSet()));
        return IntStream.range(0, steps.size())
                .boxed()
                .flatMap(i -> metrics.stream()
                        .filter(m -> m.given() && !steps.get(i).samples().containsKey(m.id()))
                        .flatMap(m -> steps.get(i).configurations().stream()
                                .map(c -> latest.get(new RunsWithoutScore.Place(c.id(), m.testId())))
                                .filter(e -> e != null)
                                .limit(1)
                                .map(e -> new Trends.GapPart(i, m.id(), why(e)))))
                .toList();
    }

    private static String why(RunsWithoutScore.@Nullable Ended e) {
        return e == null
                ? ""
                : e.words() != null
                        ? e.words()
                        : switch (e.state()) {
                            case FAILED -> "its run failed";
                            case COULD_NOT_RUN -> "it could not run";
                            default -> "its run was stopped";
                        };
    }
}
