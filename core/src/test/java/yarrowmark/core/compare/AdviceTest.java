package yarrowmark.core.compare;

import static org.assertj.core.api.Assertions.assertThat;
import static yarrowmark.core.ExampleSamples.sessions;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import yarrowmark.core.ExampleSamples;
import yarrowmark.core.stats.Centre;
import yarrowmark.core.stats.Noise;
import yarrowmark.core.stats.NoisePrior;
import yarrowmark.core.stats.Sample;
import yarrowmark.core.stats.SessionNoise;
import yarrowmark.core.stats.StudentT;
import yarrowmark.core.stats.UsualSpread;
import yarrowmark.core.stats.WorkingVariance;

/** What would settle a comparison, against the formulas of section 12 written out and tried one number after the other. */
class AdviceTest {
    private static final Optional<NoisePrior> LENT = NoisePrior.fit(ExampleSamples.A2);
    private static final List<SessionNoise> DAYS_LEAD = List.of(days(2e-3, 5, 6e-5), days(4e-3, 12, 6e-4));
    private static final List<SessionNoise> RUNS_LEAD = List.of(days(2e-6, 40, 1e-6), days(6e-6, 200, 4e-6));

    private static final Sample A = sessions(new double[][] {{388.1, 391.7, 386.9}, {381.0, 383.5, 380.2}});
    private static final Sample B = sessions(new double[][] {{402.4, 405.9}, {403.3}, {401.0, 402.2}});
    /** Days that differ no more than runs do. */
    private static final Sample QUIET_A = sessions(new double[][] {{388.1, 391.7, 386.9}, {388.5, 389.3, 390.2}});

    private static final Sample QUIET_B = sessions(new double[][] {{402.4, 405.9}, {403.3}, {404.0, 402.9}});
    private static final int MOST_SESSIONS = 12;
    /** Runs of the side that has fewer. */
    private static final int HAVE = 5;

    private static SessionNoise days(double variance, double degreesOfFreedom, double subtracted) {
        return new SessionNoise(variance, degreesOfFreedom, subtracted, 3, false);
    }

    private static Noise noise(SessionNoise days) {
        return new Noise(LENT, Optional.of(days), Noise.Source.METRIC);
    }

    private static double half(double variance, double terms) {
        return StudentT.upper(Math.max(1, variance * variance / terms)) * Math.sqrt(variance);
    }

    private static Centre centre(Sample sample, SessionNoise days) {
        return Centre.of(sample, noise(days));
    }

    private static double halfOfRuns(int k, SessionNoise days) {
        WorkingVariance wa = noise(days).working(QUIET_A);
        WorkingVariance wb = noise(days).working(QUIET_B);
        double va = wa.variance() / k;
        double vb = wb.variance() / k;
        double sessions =
                centre(QUIET_A, days).sessionVariance() + centre(QUIET_B, days).sessionVariance();
        double squares =
                centre(QUIET_A, days).sessionSquares() + centre(QUIET_B, days).sessionSquares();
        double terms = va * va / (wa.lentDegreesOfFreedom() + k - 1)
                + vb * vb / (wb.lentDegreesOfFreedom() + k - 1)
                + Math.pow(sessions + squares * days.subtracted(), 2) / days.degreesOfFreedom();
        return half(va + vb + sessions, terms);
    }

    private static double halfOfSessions(int k, SessionNoise days) {
        WorkingVariance wa = noise(days).working(A);
        WorkingVariance wb = noise(days).working(B);
        double va = wa.variance() / 3 / k;
        double vb = wb.variance() / 3 / k;
        double degrees = days.degreesOfFreedom() + (k - 2) + Math.max(0, k - 3);
        double own = centre(A, days).sessionVariance() / centre(A, days).sessionSquares()
                + centre(B, days).sessionVariance() / centre(B, days).sessionSquares();
        double terms = va * va / (wa.lentDegreesOfFreedom() + 2 * k)
                + vb * vb / (wb.lentDegreesOfFreedom() + 2 * k)
                + Math.pow(own / k + 2.0 / k * days.subtracted(), 2) / degrees;
        return half(va + vb + own / k, terms);
    }

    private static boolean daysLead(Sample a, Sample b, SessionNoise days) {
        return centre(a, days).sessionVariance() + centre(b, days).sessionVariance()
                > centre(a, days).runVariance() + centre(b, days).runVariance();
    }

    @Test
    void theFewestSessionsThatAreEnoughAreFound() {
        for (SessionNoise days : DAYS_LEAD) {
            assertThat(daysLead(A, B, days)).isTrue();
            int settled = 0;
            for (double target = 0.001; target < 1; target *= 1.003) {
                int fewest = 2;
                while (fewest <= MOST_SESSIONS && halfOfSessions(fewest, days) > target) {
                    fewest++;
                }
                assertThat(Advice.of(A, B, noise(days), target))
                        .as("%s, target %s", days, target)
                        .isEqualTo(
                                fewest > MOST_SESSIONS
                                        ? new RunsNeeded.MoreThanMost()
                                        : new RunsNeeded.Sessions(fewest, Math.max(1, fewest - 2)));
                settled += fewest > 2 && fewest <= MOST_SESSIONS ? 1 : 0;
            }
            assertThat(settled)
                    .as("numbers between the least and the most were met")
                    .isGreaterThan(50);
        }
    }

    @Test
    void theFewestRunsThatAreEnoughLeaveTheSessionsWhatTheyAre() {
        for (SessionNoise days : RUNS_LEAD) {
            assertThat(daysLead(QUIET_A, QUIET_B, days)).isFalse();
            int settled = 0;
            for (double target = 0.005; target < 1; target *= 1.001) {
                // Where as many as there are do not tell, fewer would be no advice.
                int fewest = halfOfRuns(HAVE, days) <= target ? 2 : HAVE;
                while (fewest <= PairComparison.MOST_RUNS && halfOfRuns(fewest, days) > target) {
                    fewest++;
                }
                RunsNeeded found = Advice.of(QUIET_A, QUIET_B, noise(days), target);
                if (fewest <= PairComparison.MOST_RUNS) {
                    settled++;
                    assertThat(found)
                            .as("%s, target %s", days, target)
                            .isEqualTo(new RunsNeeded.Runs(fewest, Math.max(0, fewest - HAVE)));
                } else {
                    assertThat(found).as("%s, target %s", days, target).isNotInstanceOf(RunsNeeded.Runs.class);
                }
            }
            assertThat(settled).isGreaterThan(50);
        }
    }

    /** More runs widen this one, because days are hardly known: what helps is another session. */
    @Test
    void whereMoreRunsDoNotNarrowItSessionsAreAdvised() {
        assertThat(Advice.of(A, B, noise(days(6e-4, 4, 0)), 0.05)).isInstanceOf(RunsNeeded.Sessions.class);
    }

    @Test
    void singleRunsWithNothingMeasuredAreToBeRunThreeTimes() {
        Noise usual = Noise.of(new UsualSpread(2), Noise.Source.USUAL).withDays(days(1e-4, 4, 0));
        Sample one = sessions(new double[][] {{100}});
        assertThat(Advice.of(one, B, usual, 0.05)).isEqualTo(new RunsNeeded.ThreeEach());
        assertThat(Advice.of(A, B, usual, 0.0001)).isInstanceOf(RunsNeeded.MoreThanMost.class);
    }

    /** One run a session, as a battery takes: by hand, t √(2 T/k) with two degrees more for each further session. */
    @Test
    void oneRunASessionAsksForSessions() {
        SessionNoise days = new SessionNoise(4e-4, 9, 0, 5, true);
        Noise noise = new Noise(Optional.of(new NoisePrior(4, 2e-4)), Optional.of(days), Noise.Source.METRIC);
        Sample two = sessions(new double[][] {{100}, {101}});
        double target = 0.02;
        int k = 2;
        while (StudentT.upper(9 + 2 * (k - 2)) * Math.sqrt(2 * 4e-4 / k) > target) {
            k++;
        }
        assertThat(k).isBetween(3, 12);
        assertThat(Advice.of(two, two, noise, target)).isEqualTo(new RunsNeeded.Sessions(k, k - 2));
    }
}
