package yarrowmark.server.trend;

import static yarrowmark.server.platform.Require.require;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.compare.Materiality;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Merit;
import yarrowmark.core.stats.Centre;
import yarrowmark.core.stats.Sample;
import yarrowmark.core.trend.Ladder;
import yarrowmark.core.trend.OverallLine;
import yarrowmark.core.trend.TrendLines;
import yarrowmark.core.trend.TrendMetric;
import yarrowmark.server.catalog.MetricRow;

/** Steps along a quantity: how far it is worth going. */
final class TrendLadder {
    private static final Set<String> WATTS = Set.of("W", "mW");

    private TrendLadder() {}

    /**
     * @param overall over everything
     * @param metrics of each line, as the core takes them
     */
    static Trends.LadderPart of(
            OverallLine overall,
            List<TrendSteps.Step> steps,
            List<MetricRow> rows,
            List<TrendMetric> metrics,
            Materiality materiality) {
        double[] merits = merits(overall, steps.size());
        OptionalInt knee = Ladder.knee(merits, materiality);
        double[] quantity = steps.stream().mapToDouble(s -> require(s.x())).toArray();
        return new Trends.LadderPart(
                shown(Arrays.stream(Ladder.bestSoFar(merits)).map(Math::exp).toArray()),
                knee.isPresent() ? knee.getAsInt() : null,
                Ladder.gains(merits, quantity).stream()
                        .map(g -> new Trends.GainPart(g.from(), g.to(), g.percent(), g.perUnit()))
                        .toList(),
                perWatt(steps.size(), rows, metrics, materiality));
    }

    /** By the first test whose result is a power; the work is that of everything else. */
    private static Trends.@Nullable PerWattPart perWatt(
            int steps, List<MetricRow> rows, List<TrendMetric> metrics, Materiality materiality) {
        Optional<Integer> power = IntStream.range(0, rows.size())
                .filter(i -> isPower(rows.get(i)))
                .filter(i ->
                        metrics.get(i).samples().stream().filter(s -> s != null).count() > 1)
                .boxed()
                .findFirst();
        if (power.isEmpty()) {
            return null;
        }
        List<TrendMetric> work = IntStream.range(0, rows.size())
                .filter(i -> !isPower(rows.get(i)))
                .mapToObj(metrics::get)
                .toList();
        MetricRow drawn = rows.get(power.get());
        TrendMetric of = metrics.get(power.get());
        double[] watts = new double[steps];
        for (int i = 0; i < steps; i++) {
            Sample sample = of.samples().get(i);
            watts[i] = sample == null
                    ? Double.NaN
                    : Merit.toValue(Centre.of(sample, of.noise()).merit(), drawn.direction());
        }
        return TrendLines.overall(work, materiality)
                .map(line -> new Trends.PerWattPart(drawn.name(), shown(Ladder.perWatt(merits(line, steps), watts))))
                .orElse(null);
    }

    private static boolean isPower(MetricRow m) {
        return WATTS.contains(m.unit()) && m.direction() == Direction.LESS_IS_BETTER;
    }

    private static double[] merits(OverallLine line, int steps) {
        double[] merits = new double[steps];
        Arrays.fill(merits, Double.NaN);
        line.points().forEach(p -> merits[p.step()] = p.merit());
        return merits;
    }

    private static List<@Nullable Double> shown(double[] values) {
        return Arrays.stream(values).mapToObj(v -> Double.isNaN(v) ? null : v).toList();
    }
}
