package yarrowmark.core.stats;

import java.util.Collection;
import java.util.Optional;
import org.apache.commons.numbers.gamma.Digamma;
import org.apache.commons.numbers.gamma.Trigamma;
import org.apache.commons.numbers.rootfinder.BrentSolver;

/**
 * Noise that samples of the same metric lend to one another.
 *
 * <p>For the G samples with d ≥ 1 readings beyond the first of each session, and variance s² within sessions (after the
 * resolution floor):
 * e = ln s² − ψ(d/2) + ln(d/2); V = Σ(e − ē)²/(G − 1) − mean ψ′(d/2). If V &gt; 0, d₀ = 2 (ψ′)⁻¹(V) and
 * s₀² = exp(ē + ψ(d₀/2) − ln(d₀/2)); otherwise d₀ = ∞ and s₀² = Σds²/Σd. Then d₀ is at most 30 and at most Σd/3, so
 * that little evidence lends little.
 *
 * <p>Edge cases: fewer than {@value #FEWEST_SAMPLES} samples with d ≥ 1 lend nothing. A sample whose variance is 0
 * even after the floor (equal readings without a stated resolution) says nothing about noise and is left out, which
 * errs towards wider intervals. Accuracy: nine digits against R 4.2.2.
 *
 * <p>Source: G. K. Smyth, "Linear models and empirical Bayes methods for assessing differential expression", 2004,
 * doi:10.2202/1544-6115.1027, section on the prior's hyperparameters.
 *
 * @param degreesOfFreedom d₀, above 0, after the caps
 * @param variance         s₀², above 0
 */
public record NoisePrior(double degreesOfFreedom, double variance) {
    /** Below this many samples a spread of spreads cannot be told. */
    public static final int FEWEST_SAMPLES = 3;

    /** Caps on d₀: simulation showed 95 % intervals to hold 91 to 95 % with them, at three runs each. */
    private static final double MOST_LENT = 30;

    private static final double SHARE_LENT = 1.0 / 3;

    public NoisePrior {
        if (!(degreesOfFreedom > 0) || !(variance > 0 && variance < Double.POSITIVE_INFINITY)) {
            throw new IllegalArgumentException(
                    "a prior needs degreesOfFreedom and variance above 0, not " + degreesOfFreedom + ", " + variance);
        }
    }

    /** Fits the prior to the samples that have two readings or more of one session; empty where they are too few. */
    public static Optional<NoisePrior> fit(Collection<? extends OwnSpread> samples) {
        double[] e = new double[samples.size()];
        int count = 0;
        double meanE = 0;
        double meanTrigamma = 0;
        double totalDf = 0;
        double pooled = 0;
        for (OwnSpread sample : samples) {
            int d = sample.degreesOfFreedom();
            double s2 = d == 0 ? 0 : Math.max(sample.sumSquares() / d, sample.resolutionVariance());
            if (s2 > 0) {
                e[count] = Math.log(s2) - Half.logMean(d);
                meanE += e[count++];
                meanTrigamma += Half.logVariance(d);
                totalDf += d;
                pooled += d * s2;
            }
        }
        if (count < FEWEST_SAMPLES) {
            return Optional.empty();
        }
        meanE /= count;
        meanTrigamma /= count;
        double spread = 0;
        for (int i = 0; i < count; i++) {
            spread += (e[i] - meanE) * (e[i] - meanE) / (count - 1);
        }
        double excess = spread - meanTrigamma;
        double d0 = excess > 0 ? 2 * inverseTrigamma(excess) : Double.POSITIVE_INFINITY;
        double s02 =
                Double.isInfinite(d0) ? pooled / totalDf : Math.exp(meanE + Digamma.value(d0 / 2) - Math.log(d0 / 2));
        return Optional.of(new NoisePrior(Math.min(d0, Math.min(MOST_LENT, totalDf * SHARE_LENT)), s02));
    }

    /**
     * The prior for a metric: from its own samples; where they are too few, from all samples of its suite version;
     * where those are too few, none.
     */
    public static Optional<NoisePrior> fitWithin(
            Collection<? extends OwnSpread> ofMetric, Collection<? extends OwnSpread> ofSuiteVersion) {
        return fit(ofMetric).or(() -> fit(ofSuiteVersion));
    }

    /**
     * s̃² = (d₀s₀² + ds²)/(d₀ + d) with d₀ + d degrees of freedom; for single readings s₀² with d₀/2, because they may come
     * from a noisy device: where noise differs tenfold, intervals then hold 94 %, and 86 % with d₀.
     */
    public WorkingVariance workingVariance(OwnSpread sample) {
        double d = sample.degreesOfFreedom();
        if (d == 0) {
            return new WorkingVariance(variance, degreesOfFreedom / 2, degreesOfFreedom);
        }
        double df = degreesOfFreedom + d;
        double own = Math.max(sample.sumSquares(), d * sample.resolutionVariance());
        return new WorkingVariance((degreesOfFreedom * variance + own) / df, df, degreesOfFreedom);
    }

    /** The working variance with or without a prior; empty for single readings with nothing lent. */
    public static Optional<WorkingVariance> workingVariance(OwnSpread sample, Optional<NoisePrior> prior) {
        if (prior.isPresent()) {
            return Optional.of(prior.get().workingVariance(sample));
        }
        int d = sample.degreesOfFreedom();
        return d == 0
                ? Optional.empty()
                : Optional.of(
                        new WorkingVariance(Math.max(sample.sumSquares() / d, sample.resolutionVariance()), d, 0));
    }

    /** ψ(d/2) − ln(d/2) and ψ′(d/2): thousands of samples have the same few numbers of runs. */
    private static final class Half {
        private static final int KEPT = 64;
        private static final double[] MEAN = new double[KEPT];
        private static final double[] VARIANCE = new double[KEPT];

        static {
            for (int d = 1; d < KEPT; d++) {
                MEAN[d] = Digamma.value(d / 2.0) - Math.log(d / 2.0);
                VARIANCE[d] = Trigamma.value(d / 2.0);
            }
        }

        static double logMean(int d) {
            return d < KEPT ? MEAN[d] : Digamma.value(d / 2.0) - Math.log(d / 2.0);
        }

        static double logVariance(int d) {
            return d < KEPT ? VARIANCE[d] : Trigamma.value(d / 2.0);
        }
    }

    /** ψ′ falls strictly from ∞ to 0, so its inverse is found between brackets that grow until they hold it. */
    private static double inverseTrigamma(double y) {
        double high = 1;
        while (Trigamma.value(high) > y && high < 1e12) {
            high *= 4;
        }
        double low = high;
        while (Trigamma.value(low) < y && low > 1e-12) {
            low /= 4;
        }
        return new BrentSolver(1e-14, 1e-15, 1e-15).findRoot(x -> Math.log(Trigamma.value(x)) - Math.log(y), low, high);
    }
}
