package yarrowmark.server.trend;

import static yarrowmark.server.platform.Require.require;

import java.util.ArrayList;
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
import yarrowmark.core.compare.DifferenceText;
import yarrowmark.core.compare.Materiality;
import yarrowmark.core.compare.PairComparison;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.stats.Sample;
import yarrowmark.core.trend.Divergence;
import yarrowmark.core.trend.TrendLines;
import yarrowmark.core.trend.TrendMetric;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.PurposeRow;
import yarrowmark.server.catalog.Purposes;
import yarrowmark.server.ledger.sample.KnownNoise;
import yarrowmark.server.ledger.sample.NoisePriorCache;
import yarrowmark.server.platform.Problem;

/** Several units or models along the same fact, and where they part. */
@Service
class TogetherService {
    private static final int MOST_STEPS = 120;

    private final TrendSource source;
    private final Catalog catalog;
    private final Purposes purposes;
    private final NoisePriorCache lent;

    TogetherService(TrendSource source, Catalog catalog, Purposes purposes, NoisePriorCache lent) {
        this.source = source;
        this.catalog = catalog;
        this.purposes = purposes;
        this.lent = lent;
    }

    /** A model, or one of its units. */
    record Who(long model, @Nullable Long unit) {
        /** @param text "model" or "model-unit" */
        static Who of(String text) {
            int dash = text.indexOf('-');
            return dash < 0
                    ? new Who(Long.parseLong(text), null)
                    : new Who(Long.parseLong(text.substring(0, dash)), Long.parseLong(text.substring(dash + 1)));
        }
    }

    /** What stands at one value of the fact. */
    private record At(String label, @Nullable Double x, Map<Long, Sample> samples, Set<Long> held, int configurations) {
        At joined(At other) {
            Map<Long, Sample> all = new HashMap<>(samples);
            other.samples.forEach((metric, sample) -> all.merge(metric, sample, Sample::joined));
            Set<Long> both = new HashSet<>(held);
            both.addAll(other.held);
            return new At(label, x, all, both, configurations + other.configurations);
        }
    }

    private record Device(TrendSource.Measured measured, Who who, Map<String, At> byValue) {
        boolean has(long metric) {
            return byValue.values().stream().anyMatch(at -> at.samples().containsKey(metric));
        }
    }

    /** What the lines are made from. */
    private record Wanted(
            List<MetricRow> metrics,
            boolean one,
            KnownNoise noise,
            Map<Long, Double> weights,
            Materiality materiality) {}

    /**
     * @param with   those that stand beside the one that was asked for
     * @param metric one test instead of the overall
     */
    @Transactional(readOnly = true)
    public Together of(TrendAsk ask, List<String> with, @Nullable Long metric) {
        List<MetricRow> all = catalog.metricsInUse();
        TrendSource.Measured first = source.of(ask, all);
        List<Who> who = new ArrayList<>(List.of(new Who(ask.model(), first.unitId())));
        with.stream().map(Who::of).filter(w -> !who.contains(w)).forEach(who::add);
        Trends.Along along = first.steps().along(ask.along(), ask.between());
        List<Device> devices = who.stream()
                .map(w -> device(w, w.equals(who.get(0)) ? first : source.of(w.model(), w.unit(), all), along))
                .toList();
        Map<String, At> steps = new TreeMap<>(TrendSteps.order(along.order()));
        devices.forEach(d -> d.byValue().forEach(steps::putIfAbsent));
        if (steps.size() > MOST_STEPS) {
            throw Problem.invalid(
                    "too-many-steps",
                    "Together they have " + steps.size() + " steps along " + along.label() + "; " + MOST_STEPS
                            + " are the most that are shown. Take fewer units, or another fact.");
        }
        List<String> values = List.copyOf(steps.keySet());
        Wanted wanted = wanted(ask, metric, all, devices);
        List<List<Divergence.At>> lines =
                devices.stream().map(d -> line(d, values, wanted)).toList();
        return new Together(
                along,
                purposes.purpose(ask.purpose()).name(),
                100 * wanted.materiality().share(),
                wanted.one() ? wanted.metrics().get(0) : null,
                wanted.metrics().stream().map(MetricRow::name).toList(),
                (int) all.stream()
                                .filter(m -> m.scale() == Scale.RATIO
                                        && ask.takes(m)
                                        && devices.stream().anyMatch(d -> d.has(m.id())))
                                .count()
                        - wanted.metrics().size(),
                values.stream()
                        .map(v -> new Together.CommonStep(
                                require(steps, v).label(), require(steps, v).x()))
                        .toList(),
                IntStream.range(0, devices.size())
                        .mapToObj(i -> shown(devices.get(i), lines.get(i)))
                        .toList(),
                IntStream.range(1, devices.size())
                        .mapToObj(i -> parting(i, devices, lines, values, wanted))
                        .toList());
    }

    private static Device device(Who who, TrendSource.Measured measured, Trends.Along along) {
        // Values that are written differently and mean the same are one step.
        Map<String, At> byValue = new TreeMap<>(TrendSteps.order(along.order()));
        for (TrendSteps.Step s : measured.steps().along(along)) {
            Set<Long> held = s.samples().keySet().stream()
                    .filter(m -> measured.steps().isHeld(s, m))
                    .collect(Collectors.toSet());
            byValue.merge(
                    s.value(),
                    new At(
                            s.label(),
                            s.x(),
                            s.samples(),
                            held,
                            s.configurations().size()),
                    At::joined);
        }
        return new Device(measured, who, byValue);
    }

    /** Only what every one of them has: an overall over other tests is another overall. */
    private Wanted wanted(TrendAsk ask, @Nullable Long metric, List<MetricRow> all, List<Device> devices) {
        List<MetricRow> metrics = all.stream()
                .filter(m -> m.scale() == Scale.RATIO
                        && (metric == null ? ask.takes(m) : m.id() == metric)
                        && devices.stream().allMatch(d -> d.has(m.id())))
                .toList();
        if (metrics.isEmpty()) {
            throw Problem.invalid(
                    "no-shared-test",
                    metric == null
                            ? "There is no test that all of them have a result of along this fact, so they have no overall in common."
                            : "Not all of them have a result of this test along this fact. Take another test, or the overall.");
        }
        PurposeRow purpose = purposes.purpose(ask.purpose());
        return new Wanted(
                metrics,
                metric != null,
                lent.of(metrics, all),
                purpose.weights(metrics),
                TrendService.materiality(ask.matters()));
    }

    /** Counted from its first step, at the places that its values have among all of them. */
    private static List<Divergence.At> line(Device device, List<String> values, Wanted wanted) {
        List<TrendMetric> metrics = wanted.metrics().stream()
                .map(m -> new TrendMetric(
                        values.stream()
                                .map(v -> Optional.ofNullable(device.byValue().get(v))
                                        .map(at -> at.samples().get(m.id()))
                                        .orElse(null))
                                .toList(),
                        wanted.noise().of(m),
                        wanted.noise().day(m),
                        wanted.weights().getOrDefault(m.id(), 0.0),
                        IntStream.range(0, values.size())
                                .filter(i -> Optional.ofNullable(
                                                device.byValue().get(values.get(i)))
                                        .filter(at -> at.held().contains(m.id()))
                                        .isPresent())
                                .boxed()
                                .collect(Collectors.toSet())))
                .toList();
        if (wanted.one()) {
            return TrendLines.ofOne(metrics.get(0), wanted.materiality()).points().stream()
                    .map(p -> new Divergence.At(
                            p.step(),
                            p.merit(),
                            p.toFirst()
                                    .map(PairComparison::interval)
                                    .orElseGet(() -> PairComparison.Interval.around(0, 0, Double.POSITIVE_INFINITY))))
                    .toList();
        }
        return TrendLines.overall(metrics, wanted.materiality())
                .map(o -> o.points().stream()
                        .map(p -> new Divergence.At(p.step(), p.merit(), p.interval()))
                        .toList())
                .orElse(List.of());
    }

    private static Together.DeviceLine shown(Device d, List<Divergence.At> line) {
        return new Together.DeviceLine(
                d.measured().modelId(),
                d.measured().maker(),
                d.measured().model(),
                d.who().unit(),
                d.measured().unit(),
                d.byValue().values().stream().anyMatch(at -> at.configurations() > 1),
                line.stream()
                        .map(p -> new Together.DevicePoint(
                                p.step(),
                                Math.exp(p.merit()),
                                p.interval().low(),
                                p.interval().high()))
                        .toList());
    }

    /** Both lines are made anew from the steps that both have, so that they begin together. */
    private static Together.PartingPart parting(
            int index, List<Device> devices, List<List<Divergence.At>> lines, List<String> values, Wanted wanted) {
        Set<Integer> first = places(lines.get(0));
        List<String> common = places(lines.get(index)).stream()
                .filter(first::contains)
                .sorted()
                .map(values::get)
                .toList();
        if (common.isEmpty()) {
            return new Together.PartingPart(index, 0, null, null, null);
        }
        List<Divergence> partings = Divergence.between(
                line(devices.get(0), common, wanted), line(devices.get(index), common, wanted), wanted.materiality());
        Optional<Divergence> apart = partings.stream().filter(Divergence::told).findFirst();
        return new Together.PartingPart(
                index,
                common.size(),
                values.indexOf(common.get(0)),
                apart.map(p -> apart(p, common, values)).orElse(null),
                partings.isEmpty() ? null : apart(partings.get(partings.size() - 1), common, values));
    }

    private static Set<Integer> places(List<Divergence.At> line) {
        return line.stream().map(Divergence.At::step).collect(Collectors.toSet());
    }

    private static Together.ApartPart apart(Divergence p, List<String> common, List<String> values) {
        return new Together.ApartPart(
                values.indexOf(common.get(p.step())),
                p.ratio(),
                p.interval().low(),
                p.interval().high(),
                p.corrected(),
                p.told(),
                DifferenceText.brief(p.ratio(), Direction.MORE_IS_BETTER, Optional.empty()));
    }
}
