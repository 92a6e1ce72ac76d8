package yarrowmark.core.compare;

import java.util.Optional;
import org.apache.commons.statistics.distribution.TDistribution;
import yarrowmark.core.stats.NoisePrior;
import yarrowmark.core.stats.SampleMoments;
import yarrowmark.core.stats.WorkingVariance;

/**
 * Two samples of one ratio metric: δ = mean merit of A − mean merit of the base; ratio e^δ, better above 1; 95 %
 * interval from Student's t with v = s̃²/n a side and Welch-Satterthwaite degrees of freedom.
 *
 * <p>Edge cases: where a variance is unknown there is no interval and the verdict is {@link Verdict#CANNOT_TELL}.
 * Where both variances are 0 the interval is the ratio itself. Accuracy: nine digits against R 4.2.2.
 *
 * <p>Source: B. L. Welch, "The generalization of 'Student's' problem when several different population variances are
 * involved", 1947, doi:10.1093/biomet/34.1-2.28; F. E. Satterthwaite, 1946, doi:10.2307/3002019.
 *
 * @param difference δ on merits
 * @param interval   of the ratio; empty where a variance is unknown
 * @param runs       readings of A
 * @param baseRuns   readings of the base
 */
public record PairComparison(
        double difference,
        Optional<Interval> interval,
        Verdict verdict,
        RunsNeeded runsNeeded,
        int runs,
        int baseRuns) {

    /** Past this many runs a side, more runs are not a sensible answer. */
    public static final int MOST_RUNS = 40;

    private static final double UPPER_TAIL = 0.025;

    /**
     * @param low                 lower end of the ratio's 95 % interval
     * @param high                upper end
     * @param standardError       of δ
     * @param degreesOfFreedom    Welch-Satterthwaite
     */
    public record Interval(double low, double high, double standardError, double degreesOfFreedom) {}

    /** How many times as good as the base, above 1 where better. */
    public double ratio() {
        return Math.exp(difference);
    }

    public static PairComparison of(
            SampleMoments a, SampleMoments base, Optional<NoisePrior> prior, Materiality materiality) {
        double delta = a.mean() - base.mean();
        Optional<WorkingVariance> workA = NoisePrior.workingVariance(a, prior);
        Optional<WorkingVariance> workB = NoisePrior.workingVariance(base, prior);
        if (workA.isEmpty() || workB.isEmpty()) {
            return new PairComparison(
                    delta, Optional.empty(), Verdict.CANNOT_TELL, new RunsNeeded.Unknown(), a.n(), base.n());
        }
        WorkingVariance wa = workA.get();
        WorkingVariance wb = workB.get();
        double va = wa.ofMean(a);
        double vb = wb.ofMean(base);
        double se = Math.sqrt(va + vb);
        double df = satterthwaite(va, wa.degreesOfFreedom(), vb, wb.degreesOfFreedom());
        double half = se == 0 ? 0 : quantile(df) * se;
        double limit = materiality.onMerits();
        Verdict verdict = Verdict.of(delta, half, limit);
        RunsNeeded needed = verdict == Verdict.CANNOT_TELL
                ? runsNeeded(
                        new Side(wa, a.resolutionVariance()),
                        new Side(wb, base.resolutionVariance()),
                        Math.max(Math.abs(delta), limit),
                        Math.min(a.n(), base.n()))
                : new RunsNeeded.None();
        Interval interval = new Interval(Math.exp(delta - half), Math.exp(delta + half), se, df);
        return new PairComparison(delta, Optional.of(interval), verdict, needed, a.n(), base.n());
    }

    /** The half-width only falls with more runs, so the fewest that are enough are found by halving. */
    private static RunsNeeded runsNeeded(Side a, Side b, double target, int fewer) {
        if (halfWidth(a, b, MOST_RUNS) > target) {
            return new RunsNeeded.MoreThanMost();
        }
        int enough = MOST_RUNS;
        int tooFew = 1;
        while (enough - tooFew > 1) {
            int between = (enough + tooFew) / 2;
            if (halfWidth(a, b, between) <= target) {
                enough = between;
            } else {
                tooFew = between;
            }
        }
        return new RunsNeeded.Runs(enough, Math.max(0, enough - fewer));
    }

    /** @param rounding the variance that no number of runs takes away */
    private record Side(WorkingVariance work, double rounding) {
        double variance(int runs) {
            return Math.max(work.variance() / runs, rounding);
        }

        double degreesOfFreedom(int runs) {
            return work.lentDegreesOfFreedom() + runs - 1;
        }
    }

    private static double halfWidth(Side a, Side b, int runs) {
        double va = a.variance(runs);
        double vb = b.variance(runs);
        double df = satterthwaite(va, a.degreesOfFreedom(runs), vb, b.degreesOfFreedom(runs));
        return quantile(df) * Math.sqrt(va + vb);
    }

    static double satterthwaite(double va, double da, double vb, double db) {
        double sum = va + vb;
        return sum == 0 ? da + db : sum * sum / (va * va / da + vb * vb / db);
    }

    static double quantile(double df) {
        return TDistribution.of(df).inverseSurvivalProbability(UPPER_TAIL);
    }
}
