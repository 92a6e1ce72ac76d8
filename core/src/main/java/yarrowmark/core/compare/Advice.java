package yarrowmark.core.compare;

import yarrowmark.core.stats.Noise;
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
    static RunsNeeded of(Sample a, Sample base, Noise noise, PairComparison.Parts parts, double target) {
        Side one = new Side(noise.working(a), a);
        Side other = new Side(noise.working(base), base);
        if (parts.sessions() > parts.runs()) {
            return sessions(one, other, noise.days().orElseThrow(), target);
        }
        RunsNeeded byRuns = runs(one, other, noise, target);
        // Where hardly a second session is known, it is the days that keep it open, and no number of runs ends that.
        return byRuns instanceof RunsNeeded.MoreThanMost && parts.sessions() > 0
                ? sessions(one, other, noise.days().orElseThrow(), target)
                : byRuns;
    }

    private record Side(WorkingVariance work, Sample sample) {
        double variance(int runs) {
            return Math.max(work.variance() / runs, sample.resolutionVariance());
        }
    }

    private interface HalfWidth {
        double at(int count);
    }

    private static RunsNeeded runs(Side a, Side b, Noise noise, double target) {
        double sessions = noise.days().map(SessionNoise::variance).orElse(0.0);
        HalfWidth half = k -> {
            double va = a.variance(k);
            double vb = b.variance(k);
            double terms = va * va / (a.work().lentDegreesOfFreedom() + k - 1)
                    + vb * vb / (b.work().lentDegreesOfFreedom() + k - 1);
            double shared = 0;
            // More runs leave the sessions what they are.
            if (sessions > 0) {
                SessionNoise days = noise.days().orElseThrow();
                double squares = squares(a, b);
                shared = squares * sessions;
                terms += Gap.square(squares * (sessions + days.subtracted())) / days.degreesOfFreedom();
            }
            double v = va + vb + shared;
            return PairComparison.half(v, Math.max(1, v == 0 ? 1 : v * v / terms));
        };
        int have = Math.min(a.sample().n(), b.sample().n());
        int most = PairComparison.MOST_RUNS;
        int enough = sessions == 0
                ? fewest(2, most, target, half)
                // Runs never take away what sessions add, however well that is known.
                : PairComparison.half(squares(a, b) * sessions, Double.POSITIVE_INFINITY) > target
                        ? 0
                        : first(half.at(have) <= target ? 2 : have, most, target, half);
        return enough == 0 ? new RunsNeeded.MoreThanMost() : new RunsNeeded.Runs(enough, Math.max(0, enough - have));
    }

    private static double squares(Side a, Side b) {
        return 1.0 / a.sample().sessions().size() + 1.0 / b.sample().sessions().size();
    }

    private static RunsNeeded sessions(Side a, Side b, SessionNoise days, double target) {
        int ka = a.sample().sessions().size();
        int kb = b.sample().sessions().size();
        int runs = RunsNeeded.Sessions.RUNS_EACH;
        int enough = fewest(Math.max(1, Math.min(ka, kb)), MOST_SESSIONS, target, k -> {
            double va = a.variance(runs) / k;
            double vb = b.variance(runs) / k;
            double shared = 2 * days.variance() / k;
            int d = k * (runs - 1);
            // Sessions that are added tell more about sessions.
            double degrees = days.degreesOfFreedom() + Math.max(0, k - ka) + Math.max(0, k - kb);
            double terms = va * va / (a.work().lentDegreesOfFreedom() + d)
                    + vb * vb / (b.work().lentDegreesOfFreedom() + d)
                    + Gap.square(2.0 / k * (days.variance() + days.subtracted())) / degrees;
            double v = va + vb + shared;
            return PairComparison.half(v, Math.max(1, v * v / terms));
        });
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
