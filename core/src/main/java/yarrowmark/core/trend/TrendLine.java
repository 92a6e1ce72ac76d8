package yarrowmark.core.trend;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.apache.commons.statistics.distribution.TDistribution;
import yarrowmark.core.compare.Materiality;
import yarrowmark.core.compare.PairComparison;
import yarrowmark.core.stats.Centre;
import yarrowmark.core.stats.Noise;
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

    static final double CLEAR_P = 0.05;
    /** What rests on an assumed spread is never marked below this. */
    private static final double MARKED_ON_ASSUMED = Math.log(1.5);

    public static TrendLine of(TrendMetric metric, Materiality materiality) {
        List<Integer> at = new ArrayList<>();
        for (int i = 0; i < metric.samples().size(); i++) {
            if (metric.samples().get(i) != null) {
                at.add(i);
            }
        }
        List<Sample> samples = at.stream().map(i -> sample(metric, i)).toList();
        int n = samples.size();
        double[] merits = new double[n];
        List<Centre> centres = new ArrayList<>();
        List<Point> points = new ArrayList<>();
        for (int i = 0; i < n; i++) {
            Centre centre = Centre.of(samples.get(i), metric.noise());
            merits[i] = centre.merit();
            centres.add(centre);
            points.add(new Point(
                    at.get(i),
                    merits[i] - merits[0],
                    i == 0
                            ? Optional.empty()
                            : Optional.of(
                                    PairComparison.of(samples.get(i), samples.get(0), metric.noise(), materiality))));
        }
        return new TrendLine(
                points,
                steps(at, samples, metric, materiality),
                n < 2 ? Optional.empty() : points.get(n - 1).toFirst(),
                Slope.of(at.stream().mapToDouble(Integer::doubleValue).toArray(), merits),
                changes(at, merits, samples, centres, metric.noise()));
    }

    private static List<Change> changes(
            List<Integer> at, double[] merits, List<Sample> samples, List<Centre> centres, Noise noise) {
        if (merits.length < LevelChanges.LEAST) {
            return List.of();
        }
        SeriesNoise known = SeriesNoise.of(samples, centres, noise);
        return LevelChanges.of(merits, known.variances(), known.degrees()).stream()
                .map(c -> new Change(at.get(c.before()), at.get(c.before() + 1), c.size(), c.low(), c.high()))
                .toList();
    }

    private static Sample sample(TrendMetric metric, int step) {
        Sample sample = metric.samples().get(step);
        if (sample == null) {
            throw new IllegalStateException("step " + step + " has no result");
        }
        return sample;
    }

    private static List<TrendStep> steps(
            List<Integer> at, List<Sample> samples, TrendMetric metric, Materiality materiality) {
        List<PairComparison> pairs = new ArrayList<>();
        for (int i = 1; i < samples.size(); i++) {
            pairs.add(PairComparison.of(samples.get(i), samples.get(i - 1), metric.noise(), materiality));
        }
        double[] p =
                pairs.stream().mapToDouble(c -> p(c.difference(), c.interval())).toArray();
        double[] corrected = Holm.corrected(p);
        double whole = pairs.stream().mapToDouble(PairComparison::difference).sum();
        List<TrendStep> steps = new ArrayList<>();
        for (int i = 0; i < p.length; i++) {
            PairComparison c = pairs.get(i);
            double least = c.assumed() ? Math.max(MARKED_ON_ASSUMED, materiality.onMerits()) : materiality.onMerits();
            steps.add(new TrendStep(
                    at.get(i),
                    at.get(i + 1),
                    c.difference(),
                    c.interval(),
                    c.verdict(),
                    p[i],
                    corrected[i],
                    TrendStep.share(c.difference(), whole),
                    c.assumed(),
                    corrected[i] < CLEAR_P
                            && Math.abs(c.difference()) >= least
                            && !metric.held().contains(at.get(i))
                            && !metric.held().contains(at.get(i + 1))));
        }
        return steps;
    }

    /** Two-sided, of a difference that is none, by Student's t. */
    static double p(double difference, PairComparison.Interval interval) {
        if (interval.standardError() == 0) {
            return difference == 0 ? 1 : 0;
        }
        return 2
                * TDistribution.of(interval.degreesOfFreedom())
                        .survivalProbability(Math.abs(difference) / interval.standardError());
    }
}
