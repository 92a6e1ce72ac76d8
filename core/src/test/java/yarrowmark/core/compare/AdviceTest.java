package yarrowmark.core.compare;

import static org.assertj.core.api.Assertions.assertThat;
import static yarrowmark.core.ExampleSamples.sessions;

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
    private static final SessionNoise DAYS = new SessionNoise(2e-4, 1.5, 6e-5);
    private static final Noise NOISE = new Noise(LENT, Optional.of(DAYS), Noise.Source.METRIC);
    private static final Sample A = sessions(new double[][] {{388.1, 391.7, 386.9}, {381.0, 383.5, 380.2}});
    private static final Sample B = sessions(new double[][] {{402.4, 405.9, 403.3, 401.0}});
    private static final PairComparison.Parts RUNS_LEAD = new PairComparison.Parts(1, 1, 0.5);
    private static final PairComparison.Parts DAYS_LEAD = new PairComparison.Parts(0.5, 1, 1);
    private static final int MOST_SESSIONS = 12;

    private static double half(double variance, double terms) {
        return StudentT.upper(Math.max(1, variance * variance / terms)) * Math.sqrt(variance);
    }

    /** Known well: with few degrees of freedom more runs can widen the interval, as more of it is what days add. */
    private static final SessionNoise WELL_KNOWN = new SessionNoise(2e-5, 30, 6e-6);

    private static final Noise STEADY = new Noise(LENT, Optional.of(WELL_KNOWN), Noise.Source.METRIC);

    private static double halfOfRuns(int k) {
        WorkingVariance wa = STEADY.working(A);
        WorkingVariance wb = STEADY.working(B);
        double va = wa.variance() / k;
        double vb = wb.variance() / k;
        double squares = 1.0 / 2 + 1.0;
        double terms = va * va / (wa.lentDegreesOfFreedom() + k - 1)
                + vb * vb / (wb.lentDegreesOfFreedom() + k - 1)
                + Math.pow(squares * (WELL_KNOWN.variance() + WELL_KNOWN.subtracted()), 2)
                        / WELL_KNOWN.degreesOfFreedom();
        return half(va + vb + squares * WELL_KNOWN.variance(), terms);
    }

    private static double halfOfSessions(int k) {
        WorkingVariance wa = NOISE.working(A);
        WorkingVariance wb = NOISE.working(B);
        double va = wa.variance() / 3 / k;
        double vb = wb.variance() / 3 / k;
        double degrees = DAYS.degreesOfFreedom() + Math.max(0, k - 2) + (k - 1);
        double terms = va * va / (wa.lentDegreesOfFreedom() + 2 * k)
                + vb * vb / (wb.lentDegreesOfFreedom() + 2 * k)
                + Math.pow(2.0 / k * (DAYS.variance() + DAYS.subtracted()), 2) / degrees;
        return half(va + vb + 2 * DAYS.variance() / k, terms);
    }

    @Test
    void theFewestSessionsThatAreEnoughAreFound() {
        int settled = 0;
        for (double target = 0.005; target < 1; target *= 1.013) {
            int fewest = 1;
            while (fewest <= MOST_SESSIONS && halfOfSessions(fewest) > target) {
                fewest++;
            }
            assertThat(Advice.of(A, B, NOISE, DAYS_LEAD, target))
                    .as("target %s", target)
                    .isEqualTo(
                            fewest > MOST_SESSIONS
                                    ? new RunsNeeded.MoreThanMost()
                                    : new RunsNeeded.Sessions(fewest, Math.max(1, fewest - 1)));
            settled += fewest <= MOST_SESSIONS ? 1 : 0;
        }
        assertThat(settled).as("both kinds of answer were met").isBetween(50, 400);
    }

    @Test
    void theFewestRunsThatAreEnoughLeaveTheSessionsWhatTheyAre() {
        int settled = 0;
        for (double target = 0.02; target < 1; target *= 1.003) {
            int fewest = 2;
            while (fewest <= PairComparison.MOST_RUNS && halfOfRuns(fewest) > target) {
                fewest++;
            }
            RunsNeeded found = Advice.of(A, B, STEADY, RUNS_LEAD, target);
            if (fewest <= PairComparison.MOST_RUNS) {
                settled++;
                assertThat(found)
                        .as("target %s", target)
                        .isEqualTo(new RunsNeeded.Runs(fewest, Math.max(0, fewest - 4)));
            } else {
                // No number of runs ends what days keep open.
                assertThat(found).isNotInstanceOf(RunsNeeded.Runs.class);
            }
        }
        assertThat(settled).isGreaterThan(50);
    }

    /** More runs widen this one, because days are hardly known: what helps is another session. */
    @Test
    void whereMoreRunsDoNotNarrowItSessionsAreAdvised() {
        Noise days = new Noise(LENT, Optional.of(new SessionNoise(6e-4, 1, 0)), Noise.Source.METRIC);
        assertThat(Advice.of(A, B, days, RUNS_LEAD, 0.2)).isInstanceOf(RunsNeeded.Sessions.class);
    }
}
