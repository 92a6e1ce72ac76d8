package yarrowmark.core.compare;

import yarrowmark.core.stats.Centre;
import yarrowmark.core.stats.Noise;
import yarrowmark.core.stats.NoisePrior;
import yarrowmark.core.stats.Sample;
import yarrowmark.core.stats.SessionNoise;
import yarrowmark.core.stats.WorkingVariance;

/**
 * What would settle a comparison that cannot tell: more runs, or, where days differ more than runs do, more sessions.
 * The half-width falls with more of them, so the fewest that are enough are found by halving. Where days are known by few
 * degrees of freedom it may rise in between, because more runs leave ever more of it to the days: there each number is tried,
 * and fewer runs than there are, which did not tell, are no advice.
 */
final class Advice {
    /** Past this many sessions a side, nobody goes on. */
    private static final int MOST_SESSIONS = 12;

    private Advice() {}

    /** @param target largest half-width that tells */
    static RunsNeeded of(Sample a, Sample base, Noise noise, double target) {
        if (!noise.source().isMeasured() && (a.n() == 1 || base.n() == 1)
                || unknown(a, noise)
                || unknown(base, noise)) {
            return new RunsNeeded.ThreeEach();
        }
        Side one = new Side(noise, a);
        Side other = new Side(noise, base);
        if (one.centre.holdsRuns()) {
            return singles(one, other, target);
        }
        double days = one.centre.sessionVariance() + other.centre.sessionVariance();
        if (days > one.centre.runVariance() + other.centre.runVariance()) {
            return sessions(one, other, target);
        }
        RunsNeeded byRuns = runs(one, other, target);
        // Where hardly a second session is known, it is the days that keep it open, and no number of runs ends that.
        return byRuns instanceof RunsNeeded.MoreThanMost && days > 0 ? sessions(one, other, target) : byRuns;
    }

    private static boolean unknown(Sample sample, Noise noise) {
        return !noise.isKnown(sample);
    }

    private static final class Side {
        private final Centre centre;
        private final WorkingVariance work;
        private final Sample sample;
        private final double lent;
        /** σᵤᵢ². */
        private final double between;

        Side(Noise noise, Sample sample) {
            this.sample = sample;
            centre = Centre.of(sample, noise);
            work = noise.days().map(SessionNoise::holdsRuns).orElse(false)
                    ? new WorkingVariance(0, 1, 0)
                    : noise.working(sample);
            lent = noise.runs().map(NoisePrior::degreesOfFreedom).orElse(0.0);
            between = centre.sessionVariance() / centre.sessionSquares();
        }

        double variance(int runs) {
            return Math.max(work.variance() / runs, sample.resolutionVariance());
        }

        int sessions() {
            return sample.sessions().size();
        }
    }

    private interface HalfWidth {
        double at(int count);
    }

    private static RunsNeeded runs(Side a, Side b, double target) {
        // More runs leave the sessions what they are.
        double sessions = a.centre.sessionVariance() + b.centre.sessionVariance();
        double squares = a.centre.sessionSquares() + b.centre.sessionSquares();
        HalfWidth half = k -> {
            double va = a.variance(k);
            double vb = b.variance(k);
            double terms = va * va / (a.lent + k - 1)
                    + vb * vb / (b.lent + k - 1)
                    + Gap.square(sessions + squares * a.centre.subtracted()) / a.centre.dayDegrees();
            double v = va + vb + sessions;
            return PairComparison.half(v, Math.max(1, v == 0 ? 1 : v * v / terms));
        };
        int have = Math.min(a.sample.n(), b.sample.n());
        int most = PairComparison.MOST_RUNS;
        int enough = sessions == 0
                ? fewest(2, most, target, half)
                // Runs never take away what sessions add, however well that is known.
                : PairComparison.half(sessions, Double.POSITIVE_INFINITY) > target
                        ? 0
                        : first(half.at(have) <= target ? 2 : have, most, target, half);
        return enough == 0 ? new RunsNeeded.MoreThanMost() : new RunsNeeded.Runs(enough, Math.max(0, enough - have));
    }

    private static RunsNeeded sessions(Side a, Side b, double target) {
        int runs = RunsNeeded.Sessions.RUNS_EACH;
        return further(a, b, target, (k, degrees) -> {
            double va = a.variance(runs) / k;
            double vb = b.variance(runs) / k;
            double shared = (a.between + b.between) / k;
            int d = k * (runs - 1);
            double terms = va * va / (a.lent + d)
                    + vb * vb / (b.lent + d)
                    + Gap.square(shared + 2.0 / k * a.centre.subtracted()) / degrees;
            double v = va + vb + shared;
            return PairComparison.half(v, Math.max(1, v * v / terms));
        });
    }

    /** One run a session: T falls with each of them, and is known better. */
    private static RunsNeeded singles(Side a, Side b, double target) {
        double t = a.between + b.between;
        return further(a, b, target, (k, degrees) -> PairComparison.half(2 * t / k, degrees));
    }

    private interface BySessions {
        /** @param degrees of freedom with which days are known then */
        double half(int k, double degrees);
    }

    private static RunsNeeded further(Side a, Side b, double target, BySessions by) {
        int ka = a.sessions();
        int kb = b.sessions();
        // Sessions that are added tell more about sessions.
        int enough = fewest(
                Math.max(1, Math.min(ka, kb)),
                MOST_SESSIONS,
                target,
                k -> by.half(k, a.centre.dayDegrees() + Math.max(0, k - ka) + Math.max(0, k - kb)));
        return enough == 0
                ? new RunsNeeded.MoreThanMost()
                : new RunsNeeded.Sessions(enough, Math.max(1, enough - Math.min(ka, kb)));
    }

    /** 0 where not even the most are enough. */
    private static int fewest(int least, int most, double target, HalfWidth half) {
        if (half.at(most) > target) {
            return 0;
        }
        int enough = most;
        int tooFew = least - 1;
        while (enough - tooFew > 1) {
            int between = (enough + tooFew) / 2;
            if (half.at(between) <= target) {
                enough = between;
            } else {
                tooFew = between;
            }
        }
        return enough;
    }

    /** The first number that is enough; 0 where none is. */
    private static int first(int least, int most, double target, HalfWidth half) {
        for (int k = least; k <= most; k++) {
            if (half.at(k) <= target) {
                return k;
            }
        }
        return 0;
    }
}
