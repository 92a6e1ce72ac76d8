package yarrowmark.core.factor;

import java.util.List;
import java.util.Optional;
import org.apache.commons.statistics.distribution.TDistribution;
import yarrowmark.core.compare.PairComparison;
import yarrowmark.core.stats.SampleMoments;
import yarrowmark.core.stats.WorkingVariance;

/**
 * Two factors of two levels each: four cells of merits. The effect of a factor is the mean of its two differences, the
 * interaction the difference of the differences; as ratios, e to their power. 95 % intervals from the cells' variances
 * with Satterthwaite's degrees of freedom.
 *
 * <p>Edge cases: where the noise of a cell is unknown, no interval is given. Accuracy: nine digits against R 4.2.2.
 * Source: section 8 of the method.
 *
 * @param first       effect of the first factor: its second level over its first
 * @param second      effect of the second factor
 * @param interaction how many times larger the second factor's gain is on the first factor's second level
 */
public record TwoFactors(Effect first, Effect second, Effect interaction) {
    private static final double UPPER_TAIL = 0.025;

    /** @param mean of merits. @param noise of that mean; empty where it is unknown */
    public record Cell(double mean, Optional<Noise> noise) {
        /**
         * One metric, or an overall of several: Σ wμ with weights that sum to 1, variance Σ w²s̃²/n, degrees of freedom by
         * Satterthwaite. Where the noise of a part with weight is unknown, so is that of the cell.
         *
         * @param parts one or more, their weights 0 or more and not all 0
         */
        public static Cell of(List<Part> parts) {
            double sum = parts.stream().mapToDouble(Part::weight).sum();
            if (!(sum > 0 && sum < Double.POSITIVE_INFINITY)) {
                throw new IllegalArgumentException("the weights of a cell must add up to more than 0, not " + sum);
            }
            double mean = 0;
            double variance = 0;
            double satterthwaite = 0;
            boolean known = true;
            for (Part part : parts) {
                double w = part.weight() / sum;
                mean += w * part.sample().mean();
                known &= part.noise().isPresent() || w == 0;
                if (part.noise().isPresent()) {
                    double v = w * w * part.noise().get().ofMean(part.sample());
                    variance += v;
                    satterthwaite += v * v / part.noise().get().degreesOfFreedom();
                }
            }
            return new Cell(
                    mean,
                    known && satterthwaite > 0
                            ? Optional.of(new Noise(variance, variance * variance / satterthwaite))
                            : Optional.empty());
        }
    }

    /** @param noise of a single reading, after borrowing */
    public record Part(double weight, SampleMoments sample, Optional<WorkingVariance> noise) {}

    /** @param variance of a cell's mean, 0 or more. @param degreesOfFreedom above 0 */
    public record Noise(double variance, double degreesOfFreedom) {}

    /** @param difference on merits */
    public record Effect(double difference, Optional<PairComparison.Interval> interval) {
        public double ratio() {
            return Math.exp(difference);
        }
    }

    /** @param a1b1 the first level of both factors. @param a2b1 the first factor's second level, and so on */
    public static TwoFactors of(Cell a1b1, Cell a2b1, Cell a1b2, Cell a2b2) {
        Cell[] cells = {a1b1, a2b1, a1b2, a2b2};
        return new TwoFactors(
                effect(cells, -0.5, 0.5, -0.5, 0.5), effect(cells, -0.5, -0.5, 0.5, 0.5), effect(cells, 1, -1, -1, 1));
    }

    private static Effect effect(Cell[] cells, double... weights) {
        double difference = 0;
        double variance = 0;
        double parts = 0;
        boolean known = true;
        for (int i = 0; i < cells.length; i++) {
            difference += weights[i] * cells[i].mean();
            if (cells[i].noise().isPresent()) {
                double v = weights[i] * weights[i] * cells[i].noise().get().variance();
                variance += v;
                parts += v * v / cells[i].noise().get().degreesOfFreedom();
            } else {
                known = false;
            }
        }
        if (!known) {
            return new Effect(difference, Optional.empty());
        }
        double error = Math.sqrt(variance);
        double df = variance == 0 ? Double.POSITIVE_INFINITY : variance * variance / parts;
        double half = error == 0 ? 0 : TDistribution.of(df).inverseSurvivalProbability(UPPER_TAIL) * error;
        return new Effect(
                difference,
                Optional.of(new PairComparison.Interval(
                        Math.exp(difference - half), Math.exp(difference + half), error, df)));
    }
}
