package yarrowmark.core.trend;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import yarrowmark.core.compare.Materiality;
import yarrowmark.core.compare.PairComparison;
import yarrowmark.core.standing.GenerationStep;
import yarrowmark.core.standing.MeritGrid;
import yarrowmark.core.standing.Ranking;
import yarrowmark.core.standing.Standing;
import yarrowmark.core.stats.Centre;
import yarrowmark.core.stats.DayBasis;
import yarrowmark.core.stats.Sample;

/**
 * All metrics with weight together: the fit of a standing whose rows are the steps, with the first one that has a result as
 * its reference. So a metric that is missing at a step does not bend the line, and neither does one that a display holds.
 *
 * <p>Source: sections 5, 7 and 11 of the method.
 *
 * @param points      of steps that a chain of shared metrics links to the first
 * @param steps       from each point to the next
 * @param firstToLast empty where there are fewer than two points
 * @param apart       steps with results that nothing links to the first
 * @param days        how many configurations tell how days differ
 */
public record OverallLine(
        List<Point> points,
        List<TrendStep> steps,
        Optional<GenerationStep> firstToLast,
        List<Integer> apart,
        DayBasis days) {

    /**
     * @param merit    less that of the first
     * @param interval of the ratio to the first, which is exactly 1 itself
     * @param coverage share of the weight that has a result there
     */
    public record Point(int step, double merit, PairComparison.Interval interval, double coverage) {}

    /** Without marks, which depend on all lines that are shown. Empty where no step has a result with weight. */
    static Optional<OverallLine> alone(List<TrendMetric> metrics, Materiality materiality) {
        int steps = metrics.isEmpty() ? 0 : metrics.get(0).samples().size();
        double[] weights = metrics.stream().mapToDouble(TrendMetric::weight).toArray();
        int first = -1;
        MeritGrid.Builder builder = MeritGrid.builder(Math.max(1, steps), Math.max(1, metrics.size()));
        for (int j = 0; j < weights.length; j++) {
            builder.day(j, metrics.get(j).day());
        }
        for (int i = 0; i < steps; i++) {
            for (int j = 0; j < weights.length; j++) {
                Sample sample = metrics.get(j).samples().get(i);
                if (sample != null && !metrics.get(j).held().contains(i)) {
                    builder.cell(i, j, Centre.of(sample, metrics.get(j).noise()));
                    first = first < 0 && weights[j] > 0 ? i : first;
                }
            }
        }
        if (first < 0) {
            return Optional.empty();
        }
        Standing standing = Ranking.of(builder.build(), weights, first);
        List<Standing.Entry> linked = standing.entries().stream()
                .filter(e -> e.merit().isPresent())
                .sorted(Comparator.comparingInt(Standing.Entry::row))
                .toList();
        List<Integer> apart = standing.entries().stream()
                .filter(e -> e.merit().isEmpty() && e.metrics() > 0)
                .map(Standing.Entry::row)
                .sorted()
                .toList();
        return Optional.of(new OverallLine(
                linked.stream().map(OverallLine::point).toList(),
                between(standing, linked),
                linked.size() < 2
                        ? Optional.empty()
                        : Optional.of(GenerationStep.between(
                                standing, linked.get(0), linked.get(linked.size() - 1), materiality)),
                apart,
                standing.days()));
    }

    OverallLine looked(List<TrendStep> looked) {
        return new OverallLine(points, looked, firstToLast, apart, days);
    }

    private static Point point(Standing.Entry e) {
        return new Point(e.row(), e.merit().orElseThrow(), e.interval().orElseThrow(), e.coverage());
    }

    private static List<TrendStep> between(Standing standing, List<Standing.Entry> linked) {
        List<TrendStep> steps = new ArrayList<>();
        for (int i = 1; i < linked.size(); i++) {
            Standing.Entry before = linked.get(i - 1);
            Standing.Entry after = linked.get(i);
            steps.add(TrendStep.alone(
                    before.row(),
                    after.row(),
                    after.merit().orElseThrow() - before.merit().orElseThrow(),
                    standing.between(before, after),
                    before.unmeasured().most() || after.unmeasured().most(),
                    false));
        }
        return steps;
    }
}
