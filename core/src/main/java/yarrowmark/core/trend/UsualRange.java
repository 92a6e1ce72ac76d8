package yarrowmark.core.trend;

import java.util.ArrayList;
import java.util.List;
import yarrowmark.core.stats.Centre;
import yarrowmark.core.stats.Noise;
import yarrowmark.core.stats.Sample;
import yarrowmark.core.stats.SessionNoise;
import yarrowmark.core.stats.StudentT;
import yarrowmark.core.stats.WorkingVariance;

/**
 * The same configuration measured again and again: for each session the range in which its mean lies in 95 of 100 such
 * sessions, as told by all the others, and whether it left it. A session is left out of its own range, or a bad day would
 * widen it.
 *
 * <p>Range: centre of the others ± t √(their variance + σᵤ² + s̃²/n); degrees of freedom by Satterthwaite. Edge cases: below
 * three sessions there is no range. σᵤ² is that of the device's own other days from five of them on, before that the lent
 * one where there is any. Source: sections 2 and 11 of the method.
 *
 * @param centre on merits, of the other sessions
 * @param low    lower end, on merits
 * @param high   upper end
 */
public record UsualRange(long session, double mean, double centre, double low, double high) {
    private static final int LEAST = 3;
    /** From so many other sessions on, the device's own days are known better than those of its suite. */
    private static final int OWN_DAYS = 5;

    /** Whether the session's mean is outside of its range. */
    public boolean isOutside() {
        return mean < low || mean > high;
    }

    /** In rising order of sessions; empty where there are too few of them. */
    public static List<UsualRange> of(Sample sample, Noise noise) {
        List<UsualRange> ranges = new ArrayList<>();
        List<Sample.OfSession> all = sample.sessions();
        if (all.size() < LEAST) {
            return ranges;
        }
        boolean single = noise.days().map(SessionNoise::holdsRuns).orElse(false) || !noise.isKnown(sample);
        // With one run a session, days and runs are one spread, which is told by the sessions themselves.
        WorkingVariance work = single ? new WorkingVariance(0, 1, 0) : noise.working(sample);
        double runs = work.variance();
        double runDegrees = work.degreesOfFreedom();
        for (Sample.OfSession own : all) {
            List<Sample.OfSession> others = all.stream().filter(o -> o != own).toList();
            double days = days(others, runs);
            double daysDegrees = others.size() - 1;
            if (others.size() < OWN_DAYS && noise.days().isPresent()) {
                days = noise.days().get().variance();
                daysDegrees = noise.days().get().degreesOfFreedom();
            }
            Centre centre = Centre.of(Sample.of(others), noise);
            double withinOwn = runs / own.moments().n();
            double unsure = days * (1 + 1.0 / others.size());
            double variance = withinOwn
                    + runs / others.stream().mapToInt(o -> o.moments().n()).sum()
                    + unsure;
            double terms = square(withinOwn) / runDegrees + square(unsure) / daysDegrees;
            double degrees = terms == 0 ? Double.POSITIVE_INFINITY : Math.max(1, variance * variance / terms);
            double half = StudentT.upper(degrees) * Math.sqrt(variance);
            ranges.add(new UsualRange(
                    own.session(), own.moments().mean(), centre.merit(), centre.merit() - half, centre.merit() + half));
        }
        return ranges;
    }

    /** σᵤ² of this configuration alone, from the other sessions: its own days are what is asked about. */
    private static double days(List<Sample.OfSession> others, double runs) {
        double mean =
                others.stream().mapToDouble(o -> o.moments().mean()).average().orElseThrow();
        double squares = 0;
        double within = 0;
        for (Sample.OfSession o : others) {
            squares += square(o.moments().mean() - mean);
            within += runs / o.moments().n();
        }
        return Math.max(0, squares / (others.size() - 1) - within / others.size());
    }

    private static double square(double x) {
        return x * x;
    }
}
