package yarrowmark.core.compare;

import static org.assertj.core.api.Assertions.assertThat;
import static yarrowmark.core.ExampleSamples.sessions;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import yarrowmark.core.ExampleSamples;
import yarrowmark.core.stats.Noise;
import yarrowmark.core.stats.NoisePrior;
import yarrowmark.core.stats.Sample;
import yarrowmark.core.stats.SessionNoise;
import yarrowmark.core.stats.StudentT;
import yarrowmark.core.stats.WorkingVariance;

/** What would settle a comparison, against the formulas of section 12 written out and tried one number after the other. */
class AdviceTest {
    private static final Optional<NoisePrior> LENT = NoisePrior.fit(ExampleSamples.A2);
    /** The noise of days above that of runs, beside it and far below it; the last is known well. */
    private static final List<SessionNoise> KNOWN = List.of(
            new SessionNoise(2e-4, 1.5, 6e-5), new SessionNoise(2e-6, 1.5, 1e-6), new SessionNoise(2e-5, 12, 1.5e-5));

    private static final Sample A = sessions(new double[][] {{388.1, 391.7, 386.9}, {381.0, 383.5, 380.2}});
    private static final Sample B = sessions(new double[][] {{402.4, 405.9}, {403.3}, {401.0, 402.2}});
    private static final PairComparison.Parts RUNS_LEAD = new PairComparison.Parts(1, 1, 0.5);
    private static final PairComparison.Parts DAYS_LEAD = new PairComparison.Parts(0.5, 1, 1);
    private static final int MOST_SESSIONS = 12;
    /** Runs of the side that has fewer. */
    private static final int HAVE = 5;

    private static Noise noise(SessionNoise days) {
        return new Noise(LENT, Optional.of(days), Noise.Source.METRIC);
    }

    private static double half(double variance, double terms) {
        return StudentT.upper(Math.max(1, variance * variance / terms)) * Math.sqrt(variance);
    }

    private static double halfOfRuns(int k, SessionNoise days) {
        WorkingVariance wa = noise(days).working(A);
        WorkingVariance wb = noise(days).working(B);
        double va = wa.variance() / k;
        double vb = wb.variance() / k;
        double squares = 1.0 / 2 + 1.0 / 3;
        double terms = va * va / (wa.lentDegreesOfFreedom() + k - 1)
                + vb * vb / (wb.lentDegreesOfFreedom() + k - 1)
                + Math.pow(squares * (days.variance() + days.subtracted()), 2) / days.degreesOfFreedom();
        return half(va + vb + squares * days.variance(), terms);
    }

    private static double halfOfSessions(int k, SessionNoise days) {
        WorkingVariance wa = noise(days).working(A);
        WorkingVariance wb = noise(days).working(B);
        double va = wa.variance() / 3 / k;
        double vb = wb.variance() / 3 / k;
        double degrees = days.degreesOfFreedom() + (k - 2) + Math.max(0, k - 3);
        double terms = va * va / (wa.lentDegreesOfFreedom() + 2 * k)
                + vb * vb / (wb.lentDegreesOfFreedom() + 2 * k)
                + Math.pow(2.0 / k * (days.variance() + days.subtracted()), 2) / degrees;
        return half(va + vb + 2 * days.variance() / k, terms);
    }

    @Test
    void theFewestSessionsThatAreEnoughAreFound() {
        for (SessionNoise days : KNOWN) {
            int settled = 0;
            for (double target = 0.001; target < 1; target *= 1.003) {
                int fewest = 2;
                while (fewest <= MOST_SESSIONS && halfOfSessions(fewest, days) > target) {
                    fewest++;
                }
                assertThat(Advice.of(A, B, noise(days), DAYS_LEAD, target))
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
        for (SessionNoise days : KNOWN) {
            int settled = 0;
            for (double target = 0.005; target < 1; target *= 1.001) {
                // Where as many as there are do not tell, fewer would be no advice.
                int fewest = halfOfRuns(HAVE, days) <= target ? 2 : HAVE;
                while (fewest <= PairComparison.MOST_RUNS && halfOfRuns(fewest, days) > target) {
                    fewest++;
                }
                RunsNeeded found = Advice.of(A, B, noise(days), RUNS_LEAD, target);
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

    /** In this one 22 runs would be enough, and 40 would not. */
    @Test
    void anIntervalThatRisesAgainWithMoreRunsIsSettledWhereItIsNarrow() {
        SessionNoise days = KNOWN.get(2);
        double target = 0.011123257414680773;
        assertThat(halfOfRuns(PairComparison.MOST_RUNS, days)).isGreaterThan(target);
        assertThat(Advice.of(A, B, noise(days), RUNS_LEAD, target)).isEqualTo(new RunsNeeded.Runs(22, 17));
    }

    /** More runs widen this one, because days are hardly known: what helps is another session. */
    @Test
    void whereMoreRunsDoNotNarrowItSessionsAreAdvised() {
        assertThat(Advice.of(A, B, noise(new SessionNoise(6e-4, 1, 0)), RUNS_LEAD, 0.2))
                .isInstanceOf(RunsNeeded.Sessions.class);
    }
}
