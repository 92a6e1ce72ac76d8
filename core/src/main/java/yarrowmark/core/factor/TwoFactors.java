package yarrowmark.core.factor;

import java.util.List;
import yarrowmark.core.compare.PairComparison;
import yarrowmark.core.stats.Centre;
import yarrowmark.core.stats.DayBasis;
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
public record TwoFactors(Effect first, Effect second, Effect interaction, Alone firstAlone, Alone secondAlone) {
    /** @param mean of merits. @param noise of that mean */
    public record Cell(double mean, Noise noise) {
        /**
         * One metric, or an overall of several: Σ wμ with weights that sum to 1, variance Σ w²v of the runs and what sessions
         * add to all of them together.
         *
         * @param parts one or more, their weights 0 or more and not all 0
         */
        public static Cell of(List<Part> parts) {
            double sum = parts.stream().mapToDouble(Part::weight).sum();
            if (!(sum > 0 && sum < Double.POSITIVE_INFINITY)) {
                throw new IllegalArgumentException("the weights of a cell must add up to more than 0, not " + sum);
            }
            double mean = 0;
            double runs = 0;
            double terms = 0;
            double q = 0;
            double qq = 0;
            int unmeasured = 0;
            for (Part part : parts) {
                double w = part.weight() / sum;
                Centre c = part.centre();
                mean += w * c.merit();
                double v = w * w * c.runVariance();
                runs += v;
                terms += v * v / c.runDegrees();
                q += w * Math.sqrt(c.sessionVariance());
                qq += w * w * c.sessionVariance();
                unmeasured += w > 0 && c.unmeasured() ? 1 : 0;
            }
            SharedDay day = SharedDay.weighted(
                    parts.stream().map(Part::day).toList(),
                    parts.stream().mapToDouble(Part::weight).toArray());
            return new Cell(
                    mean,
                    new Noise(runs, terms, day.variance(q, qq), day.degreesOfFreedom(), day.devices(), unmeasured > 0));
        }
    }

    /** @param day how far a day moves the tests of its suite together */
    public record Part(double weight, Centre centre, SharedDay day) {}

    /**
     * @param runs         variance of a cell's mean by its runs, 0 or more
     * @param runsByDegree Σ v²/d of them
     * @param sessions     what sessions add
     * @param dayDegrees   degrees of freedom of that
     * @param days         how many configurations tell how days differ
     * @param unmeasured   whether some of it rests on a spread that nobody measured here
     */
    public record Noise(
            double runs, double runsByDegree, double sessions, double dayDegrees, DayBasis days, boolean unmeasured) {}

    /** @param difference on merits */
    public record Effect(double difference, PairComparison.Interval interval) {
        public double ratio() {
            return Math.exp(difference);
        }
    }

    /** What a factor does on each level of the other one. */
    public record Alone(Effect onFirst, Effect onSecond) {
        boolean opposite() {
            return onFirst.difference() * onSecond.difference() < 0;
        }
    }

    /**
     * Whether a gain on one level of the second factor is a loss on its other one, and that is no chance: then the mean of
     * the two says nothing by itself.
     */
    public boolean firstTurns() {
        return told() && firstAlone.opposite();
    }

    /** The same of the second factor, on the levels of the first. */
    public boolean secondTurns() {
        return told() && secondAlone.opposite();
    }

    private boolean told() {
        return interaction.interval().low() > 1 || interaction.interval().high() < 1;
    }

    /** @param a1b1 the first level of both factors. @param a2b1 the first factor's second level, and so on */
    public static TwoFactors of(Cell a1b1, Cell a2b1, Cell a1b2, Cell a2b2) {
        Cell[] cells = {a1b1, a2b1, a1b2, a2b2};
        return new TwoFactors(
                effect(cells, -0.5, 0.5, -0.5, 0.5),
                effect(cells, -0.5, -0.5, 0.5, 0.5),
                effect(cells, 1, -1, -1, 1),
                new Alone(effect(cells, -1, 1, 0, 0), effect(cells, 0, 0, -1, 1)),
                new Alone(effect(cells, -1, 0, 1, 0), effect(cells, 0, -1, 0, 1)));
    }

    private static Effect effect(Cell[] cells, double... weights) {
        double difference = 0;
        double runs = 0;
        double sessions = 0;
        double terms = 0;
        double dayDegrees = 1;
        for (int i = 0; i < cells.length; i++) {
            Noise noise = cells[i].noise();
            double w2 = weights[i] * weights[i];
            difference += weights[i] * cells[i].mean();
            runs += w2 * noise.runs();
            terms += w2 * w2 * noise.runsByDegree();
            sessions += w2 * noise.sessions();
            dayDegrees = Math.max(dayDegrees, noise.dayDegrees());
        }
        terms += sessions * sessions / dayDegrees;
        double variance = runs + sessions;
        double df = terms == 0 ? Double.POSITIVE_INFINITY : Math.max(1, variance * variance / terms);
        return new Effect(difference, PairComparison.Interval.around(difference, variance, df));
    }

    /** The cell that knows least decides what all of it rests on. */
    public static DayBasis days(List<Cell> cells) {
        return cells.stream().map(c -> c.noise().days()).reduce(DayBasis::with).orElse(DayBasis.NONE);
    }
}
