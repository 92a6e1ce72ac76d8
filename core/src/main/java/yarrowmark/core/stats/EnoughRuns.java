package yarrowmark.core.stats;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.apache.commons.statistics.distribution.TDistribution;

/**
 * As many runs as it takes: a session goes on until the mean of a test is known within an aim.
 *
 * <p>After each run from the least on, the half-width t √(max(s̃²/n, f)) of the interval of the mean within the session is
 * held against ln(1 + aim), with d₀ + n − 1 degrees of freedom. Looking again and again is paid for by taking the 97.5 %
 * interval for that; the 95 % interval of what comes out then holds 96 to 97 % with lent noise, and 91 to 95 % without:
 * where the noise is near the aim, three runs that happen to be alike end it too early, and no wider interval mends that.
 *
 * <p>A device decides by itself, also when it cannot be reached: it is given, for each number of runs, the largest spread
 * and the coarsest rounding that are enough. Source: section 12 of the method.
 */
public final class EnoughRuns {
    /** Of the 97.5 % interval that the looking takes. */
    private static final double UPPER_TAIL = 0.0125;

    private final int least;
    private final List<Limit> limits;

    /**
     * @param least   runs that are made in any case, 3 or more
     * @param most    runs after which it ends in any case
     * @param percent the aim: the mean known within so much, above 0 and at most 100
     * @param lent    what other samples of the metric lend
     */
    public EnoughRuns(int least, int most, double percent, Optional<NoisePrior> lent) {
        if (least < 3 || most < least) {
            throw new IllegalArgumentException(
                    "as many runs as it takes are 3 or more to at least as many, not " + least + " to " + most);
        }
        if (!(percent > 0 && percent <= 100)) {
            throw new IllegalArgumentException("a mean is known within more than 0 and at most 100 %, not " + percent);
        }
        this.least = least;
        this.limits = limits(least, most, Math.log1p(percent / 100), lent);
    }

    /**
     * With so many runs it is enough.
     *
     * @param spread   if the standard deviation of their logarithms (n − 1) is at most this
     * @param rounding and the root of mean((q / x)²)/12 at most this
     */
    public record Limit(int runs, double spread, double rounding) {}

    /** For each number of runs at which it may be enough, least first; numbers at which it never is are left out. */
    public List<Limit> limits() {
        return limits;
    }

    private static List<Limit> limits(int least, int most, double aim, Optional<NoisePrior> lent) {
        List<Limit> limits = new ArrayList<>();
        for (int n = least; n <= most; n++) {
            double d = n - 1;
            double d0 = lent.map(NoisePrior::degreesOfFreedom).orElse(0.0);
            double s0 = lent.map(NoisePrior::variance).orElse(0.0);
            double t = TDistribution.of(d0 + d).inverseSurvivalProbability(UPPER_TAIL);
            double error = aim / t;
            // s̃² ≤ n error², solved for the sample's own variance.
            double own = (n * error * error * (d0 + d) - d0 * s0) / d;
            if (own >= 0) {
                limits.add(new Limit(n, Math.sqrt(own), error));
            }
        }
        return List.copyOf(limits);
    }

    /** Whether the mean of these is known within the aim. */
    public boolean isEnough(SampleMoments session) {
        if (session.n() < least) {
            return false;
        }
        double spread = Math.sqrt(session.variance().orElse(0));
        double rounding = Math.sqrt(session.resolutionVariance());
        return limits.stream()
                .filter(l -> l.runs() == session.n())
                .anyMatch(l -> spread <= l.spread() && rounding <= l.rounding());
    }

    /** How many more runs would be enough if the spread stayed what it is; 0 where it is enough, empty where none up to the most would. */
    public Optional<Integer> more(SampleMoments session) {
        double spread = Math.sqrt(session.variance().orElse(0));
        double rounding = Math.sqrt(session.resolutionVariance());
        return limits.stream()
                .filter(l -> l.runs() >= session.n() && spread <= l.spread() && rounding <= l.rounding())
                .map(l -> l.runs() - session.n())
                .findFirst();
    }
}
