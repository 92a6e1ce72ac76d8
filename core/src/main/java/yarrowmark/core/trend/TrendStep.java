package yarrowmark.core.trend;

import yarrowmark.core.compare.PairComparison;
import yarrowmark.core.compare.Verdict;

/**
 * From one step to the next that has a result.
 *
 * @param from      step before
 * @param to        step after
 * @param delta     on merits, better above 0
 * @param verdict   without regard to how often was looked
 * @param p         two-sided, of no difference
 * @param corrected p by Holm over all steps of the line
 * @param share     of first to last in per cent, 100 (G − 1) δ / ln G with G the whole ratio: all steps add up to 100 (G − 1)
 * @param assumed   whether it rests on a spread that nobody measured
 * @param marked    whether it is a step that is shown: corrected p below 0.05, and large enough to matter
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
        boolean assumed,
        boolean marked) {
    public double ratio() {
        return Math.exp(delta);
    }

    /** @param whole merit from the first to the last */
    static double share(double delta, double whole) {
        return 100 * delta * (Math.abs(whole) < 1e-12 ? 1 : Math.expm1(whole) / whole);
    }
}
