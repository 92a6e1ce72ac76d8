package yarrowmark.core.compare;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;
import static yarrowmark.core.ExampleSamples.more;
import static yarrowmark.core.ExampleSamples.sample;

import java.util.Arrays;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import yarrowmark.core.ExampleSamples;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Measured;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.stats.Noise;
import yarrowmark.core.stats.NoisePrior;
import yarrowmark.core.stats.Sample;
import yarrowmark.core.stats.SampleMoments;
import yarrowmark.core.stats.SessionNoise;
import yarrowmark.core.stats.StudentT;

/** Expected values: the method's examples B and B2, R 4.2.2, to the digits shown there. */
class PairComparisonTest {
    private static final Optional<NoisePrior> NOISE_A = NoisePrior.fit(ExampleSamples.A);
    private static final Optional<NoisePrior> NOISE_A2 = NoisePrior.fit(ExampleSamples.A2);

    private static void expect(PairComparison c, double ratio, double low, double high, Verdict verdict) {
        assertThat(c.ratio()).isCloseTo(ratio, within(5e-10));
        assertThat(c.interval().low()).isCloseTo(low, within(5e-10));
        assertThat(c.interval().high()).isCloseTo(high, within(5e-10));
        assertThat(c.verdict()).isEqualTo(verdict);
    }

    private static double df(PairComparison c) {
        return c.interval().degreesOfFreedom();
    }

    @Test
    void exampleB() {
        PairComparison second =
                ExampleSamples.pair(ExampleSamples.A.get(1), ExampleSamples.A.get(0), NOISE_A, Materiality.USUAL);
        expect(second, 1.038491869, 1.026174562, 1.050957022, Verdict.CLEAR_GAIN);
        assertThat(df(second)).isCloseTo(10.58116046, within(5e-9));

        PairComparison oneRun = ExampleSamples.pair(more(297.0), ExampleSamples.A.get(4), NOISE_A, Materiality.USUAL);
        // A single run counts with half of the lent degrees of freedom (R 4.2.2).
        expect(oneRun, 1.021674003, 0.994853696635, 1.04921735884, Verdict.CANNOT_TELL);
        assertThat(df(oneRun)).isCloseTo(3.09034094703, within(5e-9));
        // With all of them, as the example was computed, it is the same error with its interval.
        double half = StudentT.upper(5.836382892) * oneRun.interval().standardError();
        assertThat(Math.exp(oneRun.difference() - half)).isCloseTo(1.000507058, within(5e-10));
        assertThat(Math.exp(oneRun.difference() + half)).isCloseTo(1.043288760, within(5e-10));

        PairComparison times = ExampleSamples.pair(
                sample(Direction.LESS_IS_BETTER, 1, 234, 236, 233),
                sample(Direction.LESS_IS_BETTER, 1, 277, 279, 276),
                NOISE_A,
                Materiality.USUAL);
        expect(times, 1.183504075, 1.169141425, 1.198043168, Verdict.CLEAR_GAIN);
        assertThat(df(times)).isCloseTo(10.64044355, within(5e-8));
    }

    /** Who is 80 s sooner than another is that other's 80 s less than they took. */
    @Test
    void aDifferenceInTheUnitAddsUpToTheBase() {
        PairComparison times = ExampleSamples.pair(
                sample(Direction.LESS_IS_BETTER, 1, 200),
                sample(Direction.LESS_IS_BETTER, 1, 280),
                NOISE_A,
                Materiality.USUAL);
        assertThat(times.apart(200, Direction.LESS_IS_BETTER)).isCloseTo(-80, within(1e-9));
        PairComparison points = ExampleSamples.pair(more(448), more(400), NOISE_A, Materiality.USUAL);
        assertThat(points.apart(448, Direction.MORE_IS_BETTER)).isCloseTo(48, within(1e-9));
        assertThat(ExampleSamples.pair(more(400), more(448), NOISE_A, Materiality.USUAL)
                        .apart(400, Direction.MORE_IS_BETTER))
                .as("and the other way round")
                .isCloseTo(-48, within(1e-9));
    }

    /** Three equal whole seconds are not three times as exact as one: rounding does not average out. */
    @Test
    void equalRunsAreNeverSurerThanTheirRounding() {
        NoisePrior still = new NoisePrior(10, 1e-12);
        SampleMoments three = sample(Direction.LESS_IS_BETTER, 1, 12, 12, 12);
        SampleMoments one = sample(Direction.LESS_IS_BETTER, 1, 12);
        double rounding = 1.0 / 12 / 12 / 12;
        assertThat(still.workingVariance(three).ofMean(three)).isCloseTo(rounding, within(1e-12));
        assertThat(still.workingVariance(one).ofMean(one)).isCloseTo(rounding, within(1e-12));
        PairComparison c = ExampleSamples.pair(
                three, sample(Direction.LESS_IS_BETTER, 1, 13, 13, 13), Optional.of(still), Materiality.USUAL);
        assertThat(c.interval().standardError()).isCloseTo(Math.sqrt(rounding + 1.0 / 13 / 13 / 12), within(1e-9));
    }

    @Test
    void exampleB2() {
        PairComparison unsure =
                ExampleSamples.pair(more(64.1, 60.9, 63.3), more(60.2, 64.8, 62.9), NOISE_A2, Materiality.USUAL);
        expect(unsure, 1.002349004, 0.949729903, 1.057883428, Verdict.CANNOT_TELL);
        assertThat(df(unsure)).isCloseTo(5.604305156, within(5e-9));
        assertThat(unsure.runsNeeded()).isEqualTo(new RunsNeeded.Runs(8, 5));

        expect(
                ExampleSamples.pair(more(75.4, 75.2, 75.6), more(75.1, 75.0, 75.3), NOISE_A2, Materiality.USUAL),
                1.003548274,
                0.993189421,
                1.014015170,
                Verdict.LEVEL);
    }

    @Test
    void swappingTheTwoTurnsTheAnswerRound() {
        Random random = new Random(3);
        for (int i = 0; i < 200; i++) {
            SampleMoments a = more(around(random, 100), around(random, 100), around(random, 100));
            SampleMoments b = more(around(random, 103), around(random, 103));
            PairComparison there = ExampleSamples.pair(a, b, NOISE_A, Materiality.USUAL);
            PairComparison back = ExampleSamples.pair(b, a, NOISE_A, Materiality.USUAL);
            assertThat(there.ratio() * back.ratio()).isCloseTo(1, within(1e-12));
            assertThat(there.interval().low() * back.interval().high()).isCloseTo(1, within(1e-9));
            assertThat(back.verdict()).isEqualTo(there.verdict().swapped());
            assertThat(back.runsNeeded()).isEqualTo(there.runsNeeded());
        }
    }

    @Test
    void aSmallLossIsCertainButDoesNotMatterMuch() {
        assertThat(ExampleSamples.pair(ExampleSamples.A.get(4), more(297.0, 296.8, 297.3), NOISE_A, Materiality.USUAL)
                        .verdict())
                .isEqualTo(Verdict.SMALL_LOSS);
    }

    @Test
    void oneRunEachOfWhichNothingIsKnownIsTooCloseToCall() {
        PairComparison far = ExampleSamples.pair(more(3170), more(540), Optional.empty(), Materiality.USUAL);
        assertThat(far.verdict()).isEqualTo(Verdict.CANNOT_TELL);
        assertThat(far.unmeasured()).isTrue();
        assertThat(far.runsNeeded()).isEqualTo(new RunsNeeded.ThreeEach());
    }

    @Test
    void whereDaysDifferMoreThanRunsItAsksForSessions() {
        Noise noise = new Noise(NOISE_A, Optional.of(new SessionNoise(4e-4, 10, 1e-5, 3, false)), Noise.Source.METRIC);
        PairComparison c = PairComparison.of(
                ExampleSamples.one(more(104, 105, 103)),
                ExampleSamples.one(more(100, 101, 99)),
                noise,
                Materiality.USUAL);
        assertThat(c.verdict()).isEqualTo(Verdict.CANNOT_TELL);
        RunsNeeded.Sessions needed = (RunsNeeded.Sessions) c.runsNeeded();
        assertThat(needed.more()).isEqualTo(needed.sessionsEachSide() - 1).isPositive();
        // That many sessions of three runs with the same noise are enough, and one fewer is not.
        assertThat(enough(needed.sessionsEachSide(), c)).isTrue();
        assertThat(enough(needed.sessionsEachSide() - 1, c)).isFalse();

        Noise quiet = new Noise(NOISE_A2, Optional.of(new SessionNoise(1e-7, 10, 1e-5, 3, false)), Noise.Source.METRIC);
        assertThat(PairComparison.of(
                                ExampleSamples.one(more(64.1, 60.9, 63.3)),
                                ExampleSamples.one(more(60.2, 64.8, 62.9)),
                                quiet,
                                Materiality.USUAL)
                        .runsNeeded())
                .isInstanceOf(RunsNeeded.Runs.class);
        Noise wild = new Noise(NOISE_A, Optional.of(new SessionNoise(0.3, 10, 1e-5, 3, false)), Noise.Source.METRIC);
        assertThat(PairComparison.of(
                                ExampleSamples.one(more(104, 105, 103)),
                                ExampleSamples.one(more(100, 101, 99)),
                                wild,
                                Materiality.USUAL)
                        .runsNeeded())
                .isInstanceOf(RunsNeeded.MoreThanMost.class);
    }

    /** One further session is known, so its noise has hardly a degree of freedom: only further sessions can help. */
    @Test
    void whereDaysAreHardlyKnownItAsksForSessionsThoughRunsDifferMore() {
        Noise noise = new Noise(NOISE_A, Optional.of(new SessionNoise(1e-5, 1, 4e-5, 3, false)), Noise.Source.METRIC);
        PairComparison c = PairComparison.of(
                ExampleSamples.one(more(102, 103, 101)),
                ExampleSamples.one(more(100, 101, 99)),
                noise,
                Materiality.USUAL);
        assertThat(c.parts().runs()).isGreaterThan(c.parts().sessions());
        assertThat(c.verdict()).isEqualTo(Verdict.CANNOT_TELL);
        assertThat(c.runsNeeded()).isInstanceOf(RunsNeeded.Sessions.class);
    }

    /** By the sections' formulas, written once more: k sessions of three runs a side. */
    private static boolean enough(int k, PairComparison c) {
        double work = NOISE_A.orElseThrow().variance();
        double d0 = NOISE_A.orElseThrow().degreesOfFreedom();
        // The three runs of each side are about as noisy as what is lent; the exact s̃ of both differ.
        double sA = NOISE_A.orElseThrow().workingVariance(more(104, 105, 103)).variance();
        double sB = NOISE_A.orElseThrow().workingVariance(more(100, 101, 99)).variance();
        assertThat(sA).isGreaterThan(work / 10);
        double va = sA / 3 / k;
        double vb = sB / 3 / k;
        double days = 2 * 4e-4 / k;
        double terms = va * va / (d0 + 2 * k)
                + vb * vb / (d0 + 2 * k)
                + Math.pow(2.0 / k * (4e-4 + 1e-5), 2) / (10 + 2 * (k - 1));
        double v = va + vb + days;
        return StudentT.upper(Math.max(1, v * v / terms)) * Math.sqrt(v)
                <= Math.max(Math.abs(c.difference()), Materiality.USUAL.onMerits());
    }

    @Test
    void aNoisyTestMayNeedMoreRunsThanAnybodyHas() {
        PairComparison c =
                ExampleSamples.pair(more(100, 150, 80), more(100, 140, 90), Optional.empty(), Materiality.USUAL);
        assertThat(c.verdict()).isEqualTo(Verdict.CANNOT_TELL);
        assertThat(c.runsNeeded()).isInstanceOf(RunsNeeded.MoreThanMost.class);
    }

    @Test
    void allEqualReadingsWithoutResolutionAreLevel() {
        PairComparison c = ExampleSamples.pair(more(5, 5), more(5, 5), Optional.empty(), Materiality.USUAL);
        assertThat(c.verdict()).isEqualTo(Verdict.LEVEL);
        assertThat(c.interval().low()).isEqualTo(1);
    }

    @Test
    void materialityDecidesBetweenClearAndSmall() {
        SampleMoments a = ExampleSamples.A.get(1);
        SampleMoments b = ExampleSamples.A.get(0);
        assertThat(ExampleSamples.pair(a, b, NOISE_A, new Materiality(0.05)).verdict())
                .isEqualTo(Verdict.SMALL_GAIN);
        assertThatThrownBy(() -> new Materiality(Double.NaN)).hasMessageContaining("materiality");
        assertThatThrownBy(() -> new Materiality(0)).hasMessageContaining("materiality");
    }

    private static double around(Random random, double centre) {
        return centre * Math.exp(0.01 * random.nextGaussian());
    }

    /** Found by halving; here by trying every number of runs on samples that really have so many. */
    @Test
    void runsNeededAreTheFewestThatAreEnough() {
        Random random = new Random(12);
        for (int i = 0; i < 60; i++) {
            double apart = 1 + 0.04 * random.nextDouble();
            double spread = 0.005 + 0.05 * random.nextDouble();
            PairComparison c = ExampleSamples.pair(
                    spread(3, apart, spread), spread(3, 1, spread), Optional.empty(), Materiality.USUAL);
            if (c.verdict() != Verdict.CANNOT_TELL) {
                continue;
            }
            double target = Math.max(Math.abs(c.difference()), Materiality.USUAL.onMerits());
            int fewest = 2;
            while (fewest <= PairComparison.MOST_RUNS
                    && halfWidth(ExampleSamples.pair(
                                    spread(fewest, apart, spread),
                                    spread(fewest, 1, spread),
                                    Optional.empty(),
                                    Materiality.USUAL))
                            > target) {
                fewest++;
            }
            assertThat(c.runsNeeded())
                    .isEqualTo(
                            fewest > PairComparison.MOST_RUNS
                                    ? new RunsNeeded.MoreThanMost()
                                    : new RunsNeeded.Runs(fewest, Math.max(0, fewest - 3)));
        }
    }

    @Test
    void howManyMoreRunsIsSaidForTheSideThatHasFewer() {
        SampleMoments three = spread(3, 1.01, 0.03);
        SampleMoments six = spread(6, 1, 0.03);
        RunsNeeded.Runs there = (RunsNeeded.Runs) ExampleSamples.pair(three, six, Optional.empty(), Materiality.USUAL)
                .runsNeeded();
        RunsNeeded.Runs back = (RunsNeeded.Runs) ExampleSamples.pair(six, three, Optional.empty(), Materiality.USUAL)
                .runsNeeded();
        assertThat(there.more()).isEqualTo(there.runsEachSide() - 3).isPositive();
        assertThat(back).isEqualTo(there);
    }

    private static double halfWidth(PairComparison c) {
        return Math.log(c.interval().high()) - c.difference();
    }

    /** A sample with exactly this centre and standard deviation of the logarithms. */
    private static SampleMoments spread(int n, double centre, double deviation) {
        return new SampleMoments(n, Math.log(centre), deviation * deviation * (n - 1), 0);
    }

    /** Passed is 1 and failed 0; where a side did both, nothing is said. */
    @Test
    void checksAreBetterWorseOrTheSameAndSayNothingWhereASideDidBoth() {
        Sample passed = checks(1, 1, 1);
        Sample failed = checks(0, 0);
        Sample both = checks(1, 0);
        DifferenceComparison better = DifferenceComparison.ofChecks(passed, failed);
        assertThat(better.reading()).isEqualTo(DifferenceComparison.Reading.BETTER);
        assertThat(better.difference()).isEqualTo(1);
        assertThat(better.interval()).isEmpty();
        assertThat(better.runs()).isEqualTo(3);
        assertThat(better.baseRuns()).isEqualTo(2);
        assertThat(DifferenceComparison.ofChecks(failed, passed).reading())
                .isEqualTo(DifferenceComparison.Reading.WORSE);
        assertThat(DifferenceComparison.ofChecks(passed, checks(1)).reading())
                .isEqualTo(DifferenceComparison.Reading.SAME);
        assertThat(DifferenceComparison.ofChecks(both, failed).reading())
                .isEqualTo(DifferenceComparison.Reading.CANNOT_TELL);
        assertThat(DifferenceComparison.ofChecks(passed, both).reading())
                .isEqualTo(DifferenceComparison.Reading.CANNOT_TELL);
    }

    private static Sample checks(double... values) {
        return ExampleSamples.one(SampleMoments.of(
                Arrays.stream(values).mapToObj(v -> new Measured(v, 0)).toList(),
                Direction.MORE_IS_BETTER,
                Scale.DIFFERENCE));
    }
}
