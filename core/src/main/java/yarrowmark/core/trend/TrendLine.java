package yarrowmark.core.trend;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import yarrowmark.core.compare.Materiality;
import yarrowmark.core.compare.PairComparison;
import yarrowmark.core.stats.Centre;
import yarrowmark.core.stats.Sample;

/**
 * One metric along the steps: each result as a ratio to the first one, every step with its verdict, and what the whole of
 * it comes to. A step without a result is a gap: the next step goes from the last result before it.
 *
 * <p>Source: sections 3, 7 and 11 of the method.
 *
 * @param points      results, in order
 * @param steps       one less than points
 * @param firstToLast empty where there are fewer than two results
 * @param slope       per step, on merits; the places count gaps
 * @param changes     of the level; searched from eight results on
 */
public record TrendLine(
        List<Point> points,
        List<TrendStep> steps,
        Optional<PairComparison> firstToLast,
        Optional<Slope> slope,
        List<Change> changes) {

    /**
     * @param step    its place
     * @param merit   less that of the first result
     * @param toFirst the comparison with it; empty for the first itself
     */
    public record Point(int step, double merit, Optional<PairComparison> toFirst) {}

    /** @param before the last step before the change. @param after the first one after it. @param size on merits */
    public record Change(int before, int after, double size, double low, double high) {}

    /** Without marks and changes, which depend on all lines that are shown, see {@link TrendLines}. */
    static TrendLine alone(TrendMetric metric, Materiality materiality) {
        List<Integer> at = places(metric);
        List<Sample> samples = at.stream().map(i -> sample(metric, i)).toList();
        int n = samples.size();
        double[] merits = new double[n];
        List<Point> points = new ArrayList<>();
        List<TrendStep> steps = new ArrayList<>();
        for (int i = 0; i < n; i++) {
            merits[i] = Centre.of(samples.get(i), metric.noise()).merit();
            points.add(new Point(
                    at.get(i),
                    merits[i] - merits[0],
                    i == 0
                            ? Optional.empty()
                            : Optional.of(
                                    PairComparison.of(samples.get(i), samples.get(0), metric.noise(), materiality))));
            if (i > 0) {
                PairComparison c = PairComparison.of(samples.get(i), samples.get(i - 1), metric.noise(), materiality);
                steps.add(TrendStep.alone(
                        at.get(i - 1),
                        at.get(i),
                        c.difference(),
                        c.interval(),
                        c.unmeasured(),
                        metric.held().contains(at.get(i - 1)) || metric.held().contains(at.get(i))));
            }
        }
        return new TrendLine(
                points,
                steps,
                n < 2 ? Optional.empty() : points.get(n - 1).toFirst(),
                Slope.of(at.stream().mapToDouble(Integer::doubleValue).toArray(), merits),
                List.of());
    }

    TrendLine looked(List<TrendStep> looked, List<Change> found) {
        return new TrendLine(points, looked, firstToLast, slope, found);
    }

    /** Changes of the level, with the noise of days that the series shows. @param together lines that are searched for one plot */
    static List<Change> changes(TrendMetric metric, SeriesLending lending, int together) {
        List<Integer> at = places(metric);
        if (at.size() < LevelChanges.LEAST) {
            return List.of();
        }
        List<Sample> samples = at.stream().map(i -> sample(metric, i)).toList();
        List<Centre> centres =
                samples.stream().map(s -> Centre.of(s, metric.noise())).toList();
        SeriesNoise known = SeriesNoise.of(samples, centres, metric.noise());
        return LevelChanges.of(
                        centres.stream().mapToDouble(Centre::merit).toArray(),
                        Arrays.stream(known.variances())
                                .map(v -> v * lending.factor())
                                .toArray(),
                        known.degrees(),
                        together)
                .stream()
                .map(c -> new Change(at.get(c.before()), at.get(c.before() + 1), c.size(), c.low(), c.high()))
                .toList();
    }

    /** Steps that have a result. */
    private static List<Integer> places(TrendMetric metric) {
        List<Integer> at = new ArrayList<>();
        for (int i = 0; i < metric.samples().size(); i++) {
            if (metric.samples().get(i) != null) {
                at.add(i);
            }
        }
        return at;
    }

    private static Sample sample(TrendMetric metric, int step) {
        Sample sample = metric.samples().get(step);
        if (sample == null) {
            throw new IllegalStateException("step " + step + " has no result");
        }
        return sample;
    }
}
