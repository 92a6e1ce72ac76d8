package yarrowmark.server.analysis;

import static yarrowmark.server.platform.Require.require;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.compare.Bound;
import yarrowmark.core.compare.DifferenceComparison;
import yarrowmark.core.compare.DifferenceText;
import yarrowmark.core.compare.Materiality;
import yarrowmark.core.compare.OverallComparison;
import yarrowmark.core.compare.PairComparison;
import yarrowmark.core.measure.Kind;
import yarrowmark.core.measure.Merit;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.stats.Sample;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.PurposeRow;
import yarrowmark.server.ledger.mark.ReadingMarks.HeldSample;
import yarrowmark.server.ledger.sample.KnownNoise;
import yarrowmark.server.ledger.sample.SessionSelection;
import yarrowmark.server.shelf.configuration.ConfigurationRow;

/** One configuration against the base: brings the pairs of samples to the core and its results into what is shown. */
final class ComparedSide {

    private final ConfigurationRow configuration;
    private final ConfigurationRow base;
    private final String ownName;
    private final String baseName;
    private final Map<Long, Comparison.ComparedCell> cells;
    private final Map<Long, Told> told = new HashMap<>();
    private final Comparison.@Nullable Overall overall;
    private final KnownNoise noises;
    private final NotRun notRun;
    private boolean noWeight;

    /** A metric as this side has it. */
    private record Measured(MetricRow metric, Sample sample, double value) {}

    /** What a sentence is made of. Sentences are asked for after the numbers, or not at all. */
    private record Told(PairComparison pair, Bound bound) {}

    ComparedSide(
            ConfigurationRow configuration,
            ConfigurationRow base,
            ComparedSamples.Table table,
            Set<HeldSample> held,
            PurposeRow purpose,
            KnownNoise noises,
            Materiality materiality,
            Set<String> leftOut,
            SessionSelection take,
            SessionSelection baseTake,
            NotRun notRun,
            ComparisonService.Left left) {
        this.notRun = notRun;
        this.configuration = configuration;
        this.base = base;
        this.ownName = name(configuration, base, take);
        this.baseName = name(base, configuration, baseTake);
        // Over what these two share, and nothing else: what another one on the table has run changes nothing here.
        Map<Long, Sample> ofOwn = table.cells().getOrDefault(configuration.id(), Map.of());
        Map<Long, Double> weights = purpose.weights(table.metrics().stream()
                .filter(m -> ofOwn.containsKey(m.id())
                        && table.base(m.id()) != null
                        && heldOn(m, held) == null
                        && !isOut(m, leftOut))
                .toList());
        List<MetricRow> counted = new ArrayList<>();
        List<PairComparison> pairs = new ArrayList<>();
        Map<Long, CellBuilder> found = new HashMap<>();
        for (MetricRow m : table.metrics()) {
            Sample own = ofOwn.get(m.id());
            Sample there = table.base(m.id());
            if (own == null || there == null) {
                if (own != null || there != null) {
                    long without = own == null ? configuration.id() : base.id();
                    found.put(m.id(), notRun.cell(without, m));
                    left.out(notRun.reason(without, m), m);
                }
                continue;
            }
            Measured measured =
                    new Measured(m, own, Merit.toValue(noises.centre(own, m).merit(), m.direction(), m.scale()));
            if (m.scale() == Scale.DIFFERENCE) {
                found.put(
                        m.id(),
                        difference(
                                measured,
                                m.kind() == Kind.CHECK
                                        ? DifferenceComparison.ofChecks(own, there)
                                        : DifferenceComparison.of(own, there, noises.of(m))));
                left.out("compared by differences, so it enters no mean of ratios", m);
                continue;
            }
            PairComparison pair = PairComparison.of(own, there, noises.of(m), materiality);
            String reason = isOut(m, leftOut) && m.main() ? "left out here" : reason(m, held, weights);
            Bound bound = Bound.of(
                    held.contains(new HeldSample(configuration.id(), m.id())),
                    held.contains(new HeldSample(base.id(), m.id())));
            told.put(m.id(), new Told(pair, bound));
            found.put(
                    m.id(),
                    bound == Bound.NONE ? ratio(measured, pair, reason) : bounded(measured, pair, bound, reason));
            if (reason == null) {
                counted.add(m);
                pairs.add(pair);
            } else if (m.main()) {
                left.out(reason, m);
            }
        }
        this.noises = noises;
        overall = overall(counted, pairs, weights, purpose, materiality, found);
        cells = new HashMap<>(2 * found.size());
        found.forEach((id, cell) -> cells.put(id, cell.build()));
    }

    private static boolean isOut(MetricRow m, Set<String> leftOut) {
        return !leftOut.isEmpty() && m.partKeys().stream().anyMatch(leftOut::contains);
    }

    private @Nullable String reason(MetricRow m, Set<HeldSample> held, Map<Long, Double> weights) {
        if (!m.main()) {
            return "computed from others, or another number of the same test";
        }
        ConfigurationRow limited = heldOn(m, held);
        if (limited != null) {
            return "held at the display's rate on " + name(limited);
        }
        if (m.formula() != null && m.inputs().values().stream().anyMatch(weights::containsKey)) {
            return "its parts are weighed already";
        }
        if (!(weights.getOrDefault(m.id(), 0.0) > 0)) {
            noWeight = true;
            return "has no weight for this purpose";
        }
        return null;
    }

    private @Nullable ConfigurationRow heldOn(MetricRow m, Set<HeldSample> held) {
        if (held.isEmpty()) {
            return null;
        }
        return Stream.of(configuration, base)
                .filter(c -> held.contains(new HeldSample(c.id(), m.id())))
                .findFirst()
                .orElse(null);
    }

    private Comparison.@Nullable Overall overall(
            List<MetricRow> counted,
            List<PairComparison> pairs,
            Map<Long, Double> weights,
            PurposeRow purpose,
            Materiality materiality,
            Map<Long, CellBuilder> found) {
        if (pairs.isEmpty()) {
            return null;
        }
        double[] w = counted.stream().mapToDouble(m -> weights.get(m.id())).toArray();
        OverallComparison all =
                OverallComparison.of(pairs, w, counted.stream().map(noises::day).toList(), materiality);
        for (int i = 0; i < w.length; i++) {
            require(found, counted.get(i).id()).counting(all.contributions().get(i));
        }
        Areas areas = new Areas(counted, pairs, w, all, purpose, noises, materiality);
        return new Comparison.Overall(
                all.ratio(),
                all.interval().low(),
                all.interval().high(),
                all.verdict(),
                all.days().words(),
                all.unmeasured(),
                pairs.size(),
                all.counts(),
                extreme(counted, pairs, all.smallest()),
                extreme(counted, pairs, all.largest()),
                areas.groups(),
                areas.suites(),
                areas.reverses(),
                DifferenceText.overallSize(all.ratio()),
                DifferenceText.overallRange(all.interval()),
                DifferenceText.overall(ownName, baseName, all, pairs.size()));
    }

    private static Comparison.Extreme extreme(List<MetricRow> metrics, List<PairComparison> pairs, int at) {
        return new Comparison.Extreme(
                metrics.get(at).id(), metrics.get(at).test(), pairs.get(at).ratio());
    }

    private static CellBuilder ratio(Measured own, PairComparison pair, @Nullable String reason) {
        MetricRow m = own.metric();
        return Comparison.ComparedCell.measured(own.value(), own.sample())
                .ratio(pair, m)
                .out(reason);
    }

    /** A display holds a value: it is the least there may be, so there is no interval, and nothing is level. */
    private static CellBuilder bounded(Measured own, PairComparison pair, Bound bound, @Nullable String reason) {
        return Comparison.ComparedCell.measured(own.value(), own.sample())
                .bound(bound, pair.ratio())
                .out(reason);
    }

    /** Shown as plain differences of the metric, whichever way is better. */
    private static CellBuilder difference(Measured own, DifferenceComparison d) {
        double sign = own.metric().direction().sign();
        CellBuilder cell = Comparison.ComparedCell.measured(own.value(), own.sample())
                .difference(sign * d.difference(), d.reading())
                .out("compared by differences");
        d.interval().ifPresent(i -> cell.interval(sign > 0 ? i.low() : -i.high(), sign > 0 ? i.high() : -i.low()));
        return cell;
    }

    /** A side's name; its configuration tells it apart where the model is the same, the sessions where that is the same too. */
    private static String name(ConfigurationRow c, ConfigurationRow from, SessionSelection taken) {
        if (c.id() == from.id()) {
            return name(c) + " " + taken.words();
        }
        return c.modelId() == from.modelId() ? name(c) + " (" + c.name() + ")" : name(c);
    }

    static String name(ConfigurationRow c) {
        return c.maker() + " " + c.model();
    }

    ConfigurationRow configuration() {
        return configuration;
    }

    Comparison.@Nullable Overall overall() {
        return overall;
    }

    boolean noWeight() {
        return noWeight;
    }

    /** Of a metric that base or this one has. */
    Comparison.ComparedCell cell(MetricRow m) {
        Comparison.ComparedCell cell = cells.get(m.id());
        return cell == null ? notRun.cell(configuration.id(), m).build() : cell;
    }

    /** To quote; empty where there is no ratio. */
    String sentence(MetricRow m) {
        Told what = told.get(m.id());
        return what == null ? "" : sentence(m, ownName, baseName, what.pair(), what.bound());
    }

    static String sentence(MetricRow m, String own, String base, PairComparison pair, Bound bound) {
        return bound == Bound.NONE
                ? DifferenceText.sentence(m.test(), own, base, pair, m.direction(), m.whatIsLess())
                : DifferenceText.bounded(m.test(), own, base, pair.ratio(), bound);
    }
}
