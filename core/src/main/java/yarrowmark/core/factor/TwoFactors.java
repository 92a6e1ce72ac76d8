package yarrowmark.core.factor;

import java.util.List;
import yarrowmark.core.compare.Covers;
import yarrowmark.core.compare.PairComparison;
import yarrowmark.core.stats.Centre;
import yarrowmark.core.stats.SharedDay;

/**
 * Two factors of two levels each: four cells of merits. The effect of a factor is the mean of its two differences, the
 * interaction the difference of the differences; as ratios, e to their power. 95 % intervals from the cells' variances
 * with Satterthwaite's degrees of freedom.
 *
 * <p>Accuracy: nine digits against R 4.2.2.
 * Source: sections 8 and 11 of the method.
 *
 * @param first       effect of the first factor: its second level over its first
 * @param second      effect of the second factor
 * @param interaction how many times larger the second factor's gain is on the first factor's second level
 */
public record TwoFactors(Effect first, Effect second, Effect interaction) {
    /** @param mean of merits. @param noise of that mean */
    public record Cell(double mean, Noise noise) {
        /**
         * One metric, or an overall of several: Σ wμ with weights that sum to 1, variance Σ w²v of the runs and what sessions
         * add to all of them together.
         *
         * @param parts one or more, their weights 0 or more and not all 0
         * @param day   how far a day moves tests together
         */
        public static Cell of(List<Part> parts, SharedDay day) {
            double sum = parts.stream().mapToDouble(Part::weight).sum();
            if (!(sum > 0 && sum < Double.POSITIVE_INFINITY)) {
                throw new IllegalArgumentException("the weights of a cell must add up to more than 0, not " + sum);
            }
            double mean = 0;
            double runs = 0;
            double terms = 0;
            double q = 0;
            double qq = 0;
            int oneSession = 0;
            int assumed = 0;
            int weighed = 0;
            for (Part part : parts) {
                double w = part.weight() / sum;
                Centre c = part.centre();
                mean += w * c.merit();
                double v = w * w * c.runVariance();
                runs += v;
                terms += v * v / c.runDegrees();
                q += w * Math.sqrt(c.sessionVariance());
                qq += w * w * c.sessionVariance();
                weighed += w > 0 ? 1 : 0;
                oneSession += w > 0 && c.withinOneSession() ? 1 : 0;
                assumed += w > 0 && c.assumed() ? 1 : 0;
            }
            return new Cell(
                    mean,
                    new Noise(
                            runs,
                            terms,
                            day.variance(q, qq),
                            day.furtherSessions(),
                            Covers.of(oneSession, weighed),
                            assumed > 0));
        }
    }

    public record Part(double weight, Centre centre) {}

    /**
     * @param runs            variance of a cell's mean by its runs, 0 or more
     * @param runsByDegree    Σ v²/d of them
     * @param sessions        what sessions add
     * @param furtherSessions degrees of freedom of that
     */
    public record Noise(
            double runs, double runsByDegree, double sessions, int furtherSessions, Covers covers, boolean assumed) {}

    /** @param difference on merits */
    public record Effect(double difference, PairComparison.Interval interval) {
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
        double runs = 0;
        double sessions = 0;
        double terms = 0;
        int further = 1;
        for (int i = 0; i < cells.length; i++) {
            Noise noise = cells[i].noise();
            double w2 = weights[i] * weights[i];
            difference += weights[i] * cells[i].mean();
            runs += w2 * noise.runs();
            terms += w2 * w2 * noise.runsByDegree();
            sessions += w2 * noise.sessions();
            further = Math.max(further, noise.furtherSessions());
        }
        terms += sessions * sessions / further;
        double variance = runs + sessions;
        double df = terms == 0 ? Double.POSITIVE_INFINITY : Math.max(1, variance * variance / terms);
        return new Effect(difference, PairComparison.Interval.around(difference, variance, df));
    }

    /** The cell that knows least decides what all of it covers. */
    public static Covers covers(List<Cell> cells) {
        return cells.stream()
                .map(c -> c.noise().covers())
                .min(Covers::compareTo)
                .orElseThrow();
    }
}
