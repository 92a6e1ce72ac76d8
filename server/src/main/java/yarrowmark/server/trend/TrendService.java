package yarrowmark.server.trend;

import static yarrowmark.server.platform.Sure.sure;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
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
import yarrowmark.core.trend.Ladder;
import yarrowmark.core.trend.OverallLine;
import yarrowmark.core.trend.TrendLine;
import yarrowmark.core.trend.TrendMetric;
import yarrowmark.core.trend.UsualRange;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.PurposeRow;
import yarrowmark.server.catalog.Purposes;
import yarrowmark.server.ledger.record.LedgerSessions;
import yarrowmark.server.ledger.record.RunsWithoutScore;
import yarrowmark.server.ledger.sample.LentNoise;
import yarrowmark.server.ledger.sample.Samples;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.shelf.ConfigurationRow;
import yarrowmark.server.shelf.KnownFacts;
import yarrowmark.server.shelf.ModelPage;
import yarrowmark.server.shelf.Shelf;

/** Answers what a device does along a fact: brings its samples to the core, and what comes back into words. */
@Service
class TrendService {
    private static final double USUAL_MATERIALITY = 3;

    private final Shelf shelf;
    private final KnownFacts facts;
    private final Catalog catalog;
    private final Purposes purposes;
    private final Samples samples;
    private final LentNoise lent;
    private final LedgerSessions sessions;
    private final RunsWithoutScore ended;
    private final TrendEvents events;

    TrendService(
            Shelf shelf,
            KnownFacts facts,
            Catalog catalog,
            Purposes purposes,
            Samples samples,
            LentNoise lent,
            LedgerSessions sessions,
            RunsWithoutScore ended,
            TrendEvents events) {
        this.shelf = shelf;
        this.facts = facts;
        this.catalog = catalog;
        this.purposes = purposes;
        this.samples = samples;
        this.lent = lent;
        this.sessions = sessions;
        this.ended = ended;
        this.events = events;
    }

    @Transactional(readOnly = true)
    public Trends of(TrendAsk ask) {
        ModelPage page = shelf.model(ask.model());
        List<ModelPage.UnitPart> units = page.units().stream()
                .filter(u -> ask.unit() == null || u.id() == ask.unit())
                .toList();
        if (ask.unit() != null && units.isEmpty()) {
            throw Problem.notFound("unit of this model", ask.unit());
        }
        List<MetricRow> all = catalog.metricsInUse();
        Map<Long, Map<Long, Sample>> cells = cells(units, all);
        List<ConfigurationRow> measured = shelf.configurations(cells.keySet()).stream()
                .sorted((a, b) -> Long.compare(a.id(), b.id()))
                .toList();
        if (measured.isEmpty()) {
            throw Problem.invalid(
                    "nothing-measured",
                    "Nothing of " + page.model().maker() + " " + page.model().name()
                            + " was measured yet. Bring it to the bench first.");
        }
        Set<Long> sessionIds = new HashSet<>();
        cells.values().forEach(c -> c.values().forEach(s -> s.sessions().forEach(o -> sessionIds.add(o.session()))));
        TrendSteps made = new TrendSteps(measured, facts.of(cells.keySet()), cells, sessions.daysOf(sessionIds));
        Trends.Along along = made.along(ask.along());
        List<TrendSteps.Step> steps = made.along(along);

        Set<Long> present =
                steps.stream().flatMap(s -> s.samples().keySet().stream()).collect(Collectors.toSet());
        List<MetricRow> metrics = all.stream()
                .filter(m -> present.contains(m.id()) && ask.takes(m))
                .toList();
        PurposeRow purpose = purposes.purpose(ask.purpose());
        Map<Long, Double> weights = purpose.weights(metrics);
        Map<Long, Noise> noise = lent.of(metrics, all);
        Materiality materiality = new Materiality((ask.matters() == null ? USUAL_MATERIALITY : ask.matters()) / 100);
        TrendWords words = new TrendWords();

        List<Trends.LinePart> lines = new ArrayList<>();
        List<TrendMetric> inOverall = new ArrayList<>();
        for (MetricRow m : metrics) {
            if (m.scale() == Scale.RATIO) {
                TrendMetric metric = new TrendMetric(
                        steps.stream().map(s -> s.samples().get(m.id())).toList(),
                        noise.getOrDefault(m.id(), Noise.UNKNOWN),
                        weights.getOrDefault(m.id(), 0.0));
                lines.add(words.line(m, metric, TrendLine.of(metric, materiality), ranges(along, steps, m, metric)));
                inOverall.add(metric);
            }
        }
        Optional<OverallLine> overall = OverallLine.of(inOverall, lent.day(all), materiality);
        List<Trends.SidePart> sides = metrics.stream()
                .filter(m -> m.scale() != Scale.RATIO && m.series() == null && m.kind() != Kind.CHOICE)
                .map(m -> side(m, steps, noise.getOrDefault(m.id(), Noise.UNKNOWN)))
                .toList();
        return new Trends(
                page.model().id(),
                page.model().maker(),
                page.model().name(),
                ask.unit(),
                ask.unit() == null ? null : units.get(0).label(),
                (int) steps.stream()
                        .flatMap(s -> s.configurations().stream())
                        .map(ConfigurationRow::unit)
                        .distinct()
                        .count(),
                along,
                made.offered(),
                purpose.name(),
                100 * materiality.share(),
                stepParts(made, steps, along, events.of(ask.model())),
                lines,
                sides,
                overall.map(words::overall).orElse(null),
                along.order() == Trends.Order.QUANTITY
                        ? overall.map(o -> ladder(o, steps.size(), materiality)).orElse(null)
                        : null,
                gaps(steps, metrics),
                made.unknown(along),
                lines.stream().mapToInt(l -> l.steps().size()).sum()
                        + overall.map(o -> o.steps().size()).orElse(0));
    }

    /** Samples by configuration and metric, those of joined comparability groups as one. */
    private Map<Long, Map<Long, Sample>> cells(List<ModelPage.UnitPart> units, List<MetricRow> all) {
        Set<Long> ids = units.stream()
                .flatMap(u -> u.configurations().stream())
                .filter(c -> c.mergedInto() == null)
                .map(ModelPage.ConfigurationPart::id)
                .collect(Collectors.toSet());
        Map<Long, Long> oldest = catalog.comparable(all);
        Map<Long, Map<Long, Sample>> cells = new HashMap<>();
        for (Samples.SampleRow row : samples.ofConfigurations(ids)) {
            Long column = oldest.get(row.metricId());
            if (column != null) {
                cells.computeIfAbsent(row.configurationId(), c -> new HashMap<>())
                        .merge(column, row.sample(), Sample::joined);
            }
        }
        return cells;
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

    /** Only where the same configuration was measured again and again does a day have a usual range. */
    private static List<Trends.RangePart> ranges(
            Trends.Along along, List<TrendSteps.Step> steps, MetricRow m, TrendMetric metric) {
        if (along.order() != Trends.Order.DATE
                || steps.stream()
                                .map(s -> s.configurations().get(0).id())
                                .distinct()
                                .count()
                        != 1) {
            return List.of();
        }
        Map<Long, Integer> stepOf = new HashMap<>();
        List<Sample> days = new ArrayList<>();
        for (int i = 0; i < steps.size(); i++) {
            Sample sample = metric.samples().get(i);
            if (sample != null) {
                days.add(sample);
                for (Sample.OfSession s : sample.sessions()) {
                    stepOf.put(s.session(), i);
                }
            }
        }
        if (days.isEmpty()) {
            return List.of();
        }
        Sample all = days.stream().reduce(Sample::joined).orElseThrow();
        return UsualRange.of(all, metric.noise()).stream()
                .map(r -> {
                    double one = Merit.toValue(r.low(), m.direction());
                    double other = Merit.toValue(r.high(), m.direction());
                    return new Trends.RangePart(
                            sure(stepOf, r.session()), Math.min(one, other), Math.max(one, other), r.isOutside());
                })
                .toList();
    }

    private static Trends.LadderPart ladder(OverallLine overall, int steps, Materiality materiality) {
        double[] merits = new double[steps];
        Arrays.fill(merits, Double.NaN);
        overall.points().forEach(p -> merits[p.step()] = p.merit());
        OptionalInt knee = Ladder.knee(merits, materiality);
        return new Trends.LadderPart(
                Arrays.stream(Ladder.bestSoFar(merits))
                        .mapToObj(b -> Double.isNaN(b) ? null : Math.exp(b))
                        .toList(),
                knee.isPresent() ? knee.getAsInt() : null);
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
