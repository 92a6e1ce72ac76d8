package yarrowmark.core.trend;

import org.apache.commons.statistics.distribution.TDistribution;
import yarrowmark.core.compare.Materiality;
import yarrowmark.core.compare.PairComparison;
import yarrowmark.core.compare.Verdict;

/**
 * From one step to the next that has a result.
 *
 * @param from       step before
 * @param to         step after
 * @param delta      on merits, better above 0
 * @param verdict    without regard to how often was looked
 * @param p          two-sided, of no difference
 * @param corrected  p for all steps of all lines that are shown
 * @param share      of first to last in per cent, 100 (G − 1) δ / ln G with G the whole ratio: all steps add up to 100 (G − 1)
 * @param unmeasured whether it rests on a spread that nobody measured here
 * @param held       whether a display holds one of the two results
 * @param marked     whether it is a step that is shown: corrected p below 0.05, and large enough to matter
 */
public record TrendStep(
        int from,
        int to,
        double delta,
        PairComparison.Interval interval,
        Verdict verdict,
        double p,
        double corrected,
        double share,
        boolean unmeasured,
        boolean held,
        boolean marked) {
    private static final double CLEAR_P = 0.05;

    /** As it is by itself, looked at once and marked nowhere yet. */
    static TrendStep alone(
            int from, int to, double delta, PairComparison.Interval interval, boolean unmeasured, boolean held) {
        double p = p(delta, interval);
        return new TrendStep(from, to, delta, interval, Verdict.CANNOT_TELL, p, p, 0, unmeasured, held, false);
    }

    public double ratio() {
        return Math.exp(delta);
    }

    TrendStep lent(SeriesLending lending) {
        PairComparison.Interval wider = PairComparison.Interval.around(
                delta,
                interval.standardError() * interval.standardError() * lending.factor(),
                interval.degreesOfFreedom() + lending.degrees());
        return alone(from, to, delta, wider, unmeasured, held);
    }

    /** @param whole merit from the first to the last */
    TrendStep looked(double correctedP, double whole, Materiality materiality) {
        return new TrendStep(
                from,
                to,
                delta,
                interval,
                Verdict.of(delta, interval.half(), materiality.onMerits()).ifUnmeasured(unmeasured),
                p,
                correctedP,
                100 * delta * (Math.abs(whole) < 1e-12 ? 1 : Math.expm1(whole) / whole),
                unmeasured,
                held,
                isMarked(delta, correctedP, materiality) && !held);
    }

    static boolean isMarked(double delta, double correctedP, Materiality materiality) {
        return correctedP < CLEAR_P && Math.abs(delta) >= materiality.onMerits();
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
