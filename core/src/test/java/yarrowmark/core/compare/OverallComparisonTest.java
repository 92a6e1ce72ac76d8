package yarrowmark.core.compare;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;
import static yarrowmark.core.ExampleSamples.more;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import yarrowmark.core.ExampleSamples;
import yarrowmark.core.stats.DayBasis;
import yarrowmark.core.stats.Noise;
import yarrowmark.core.stats.NoisePrior;
import yarrowmark.core.stats.SampleMoments;
import yarrowmark.core.stats.SessionNoise;
import yarrowmark.core.stats.SharedDay;
import yarrowmark.core.stats.UsualSpread;

class OverallComparisonTest {
    private static final Optional<NoisePrior> NOISE = NoisePrior.fit(ExampleSamples.A);

    private static PairComparison pair(SampleMoments a, SampleMoments base) {
        return ExampleSamples.pair(a, base, NOISE, Materiality.USUAL);
    }

    private static List<PairComparison> some(Random random, int count) {
        List<PairComparison> pairs = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            double a = 100 + 20 * random.nextGaussian();
            pairs.add(pair(more(a, a * 1.01, a * 0.99), more(100, 101, 102)));
        }
        return pairs;
    }

    @Test
    void onePairAloneIsThatPair() {
        PairComparison pair = pair(ExampleSamples.A.get(1), ExampleSamples.A.get(0));
        OverallComparison overall =
                OverallComparison.of(List.of(pair), new double[] {7}, SharedDay.UNKNOWN, Materiality.USUAL);
        assertThat(overall.ratio()).isCloseTo(pair.ratio(), within(1e-12));
        assertThat(overall.interval().low()).isCloseTo(pair.interval().low(), within(1e-12));
        assertThat(overall.interval().degreesOfFreedom())
                .isCloseTo(pair.interval().degreesOfFreedom(), within(1e-9));
        assertThat(overall.verdict()).isEqualTo(pair.verdict());
        assertThat(overall.contributions().get(0)).isCloseTo(100 * (pair.ratio() - 1), within(1e-9));
    }

    @Test
    void contributionsAddUpToTheWhole() {
        Random random = new Random(8);
        for (int round = 0; round < 50; round++) {
            List<PairComparison> pairs = some(random, 1 + random.nextInt(8));
            double[] weights = random.doubles(pairs.size(), 0.1, 3).toArray();
            OverallComparison overall = OverallComparison.of(pairs, weights, SharedDay.UNKNOWN, Materiality.USUAL);
            assertThat(overall.contributions().stream().mapToDouble(c -> c).sum())
                    .isCloseTo(100 * (overall.ratio() - 1), within(1e-9));
            assertThat(overall.counts().values().stream().mapToInt(c -> c).sum())
                    .isEqualTo(pairs.size());
            assertThat(pairs.get(overall.smallest()).ratio()).isLessThanOrEqualTo(overall.ratio() + 1e-12);
            assertThat(pairs.get(overall.largest()).ratio()).isGreaterThanOrEqualTo(overall.ratio() - 1e-12);
        }
    }

    @Test
    void theOrderOfTheTestsAndTheScaleOfTheWeightsDoNotMatter() {
        List<PairComparison> pairs = new ArrayList<>(some(new Random(4), 6));
        double[] alike = {1, 1, 1, 1, 1, 1};
        OverallComparison there = OverallComparison.of(pairs, alike, SharedDay.UNKNOWN, Materiality.USUAL);
        Collections.shuffle(pairs, new Random(5));
        OverallComparison again =
                OverallComparison.of(pairs, new double[] {9, 9, 9, 9, 9, 9}, SharedDay.UNKNOWN, Materiality.USUAL);
        assertThat(again.ratio()).isCloseTo(there.ratio(), within(1e-12));
        assertThat(again.interval().high()).isCloseTo(there.interval().high(), within(1e-12));
    }

    @Test
    void moreTestsNarrowTheInterval() {
        PairComparison pair = pair(more(105, 106, 104), more(100, 101, 99));
        double one = width(OverallComparison.of(List.of(pair), new double[] {1}, SharedDay.UNKNOWN, Materiality.USUAL));
        double four = width(OverallComparison.of(
                List.of(pair, pair, pair, pair), new double[] {1, 1, 1, 1}, SharedDay.UNKNOWN, Materiality.USUAL));
        // Half the error, and more degrees of freedom besides.
        assertThat(four).isLessThan(one / 2);
    }

    private static double width(OverallComparison o) {
        return Math.log(o.interval().high() / o.interval().low());
    }

    private static final Noise USUAL = Noise.of(new UsualSpread(2.5), Noise.Source.USUAL);

    private static List<PairComparison> singles(double... ratios) {
        List<SessionNoise.Cell> cells = new ArrayList<>();
        for (int j = 0; j < ratios.length; j++) {
            cells.add(new SessionNoise.Cell(1, j, ExampleSamples.one(more(100 * ratios[j]))));
            cells.add(new SessionNoise.Cell(2, j, ExampleSamples.one(more(100))));
        }
        List<Noise> runs = Collections.nCopies(ratios.length, USUAL);
        List<Optional<SessionNoise>> days = SessionNoise.fit(cells, runs).noise();
        List<PairComparison> pairs = new ArrayList<>();
        for (int j = 0; j < ratios.length; j++) {
            pairs.add(PairComparison.of(
                    cells.get(2 * j).sample(),
                    cells.get(2 * j + 1).sample(),
                    USUAL.withDays(days.get(j).orElseThrow()),
                    Materiality.USUAL));
        }
        return pairs;
    }

    /** The method's example F5, R 4.2.2. */
    @Test
    void fiveSingleRunsOnAUsualSpread() {
        OverallComparison whole = OverallComparison.of(
                singles(1.10, 1.28, 1.20, 1.04, 1.07),
                new double[] {1, 1, 1, 1, 1},
                SharedDay.UNKNOWN,
                Materiality.USUAL);
        assertThat(variance(whole)).isCloseTo(0.0007316701398, within(5e-14));
        assertThat(whole.ratio()).isCloseTo(1.134593271, within(5e-10));
        assertThat(whole.interval().low()).isCloseTo(1.076008522, within(5e-10));
        assertThat(whole.interval().high()).isCloseTo(1.196367747, within(5e-10));
        assertThat(whole.verdict()).isEqualTo(Verdict.PROBABLY_GAIN);
        assertThat(whole.unmeasured()).isEqualTo(5);
        assertThat(whole.days().words()).contains("nobody here has measured a device on two days yet");
    }

    /** What so few degrees of freedom allow: with days that move each test by itself, twice Σ w²v. */
    @Test
    void manySingleRunsAreNotSurerThanTheirSpreadIsKnown() {
        List<PairComparison> pairs = singles(1.1, 1.1, 1.1, 1.1);
        OverallComparison whole = OverallComparison.of(
                pairs, new double[] {1, 1, 1, 1}, new SharedDay(0, 0, DayBasis.NONE), Materiality.USUAL);
        double v = 2 * Math.pow(Math.log(1.025), 2);
        assertThat(variance(whole)).isCloseTo(2 * v / 4, within(1e-15));
    }

    @Test
    void itIsProbableOnlyWhereMostOfTheWeightRestsOnAUsualSpread() {
        PairComparison known = pair(more(105, 106), more(100, 101));
        PairComparison usual = singles(0.9).get(0);
        assertThat(usual.verdict()).isEqualTo(Verdict.PROBABLY_LOSS);
        OverallComparison half =
                OverallComparison.of(List.of(known, usual), new double[] {1, 1}, SharedDay.UNKNOWN, Materiality.USUAL);
        assertThat(half.unmeasured()).isEqualTo(1);
        assertThat(half.interval().degreesOfFreedom()).isFinite();
        OverallComparison most =
                OverallComparison.of(List.of(known, usual), new double[] {1, 9}, SharedDay.UNKNOWN, Materiality.USUAL);
        assertThat(most.interval().degreesOfFreedom()).isInfinite();
        assertThat(most.verdict()).isEqualTo(Verdict.PROBABLY_LOSS);
        assertThat(OverallComparison.of(
                                List.of(known, usual), new double[] {1, 0}, SharedDay.UNKNOWN, Materiality.USUAL)
                        .unmeasured())
                .isZero();
    }

    /** Each suite brings what is known of its own days, and counts with its weight. */
    @Test
    void severalSuitesBringTheirOwnDays() {
        Noise noise = new Noise(NOISE, Optional.of(new SessionNoise(4e-4, 6, 0, 3, false)), Noise.Source.METRIC);
        PairComparison one = PairComparison.of(
                ExampleSamples.one(more(105, 106, 104)),
                ExampleSamples.one(more(100, 101, 99)),
                noise,
                Materiality.USUAL);
        OverallComparison whole = OverallComparison.of(
                List.of(one, one),
                new double[] {1, 3},
                List.of(new SharedDay(1, 8, DayBasis.of(5)), SharedDay.UNKNOWN),
                Materiality.USUAL);
        assertThat(whole.days()).isEqualTo(new DayBasis(0, 5));
        assertThat(whole.days().words())
                .isEqualTo("day to day from 5 devices for some of the tests, and as is usual for the others");
        OverallComparison alike = OverallComparison.of(
                List.of(one, one), new double[] {1, 3}, new SharedDay(1, 2, DayBasis.of(1)), Materiality.USUAL);
        assertThat(whole.interval()).isEqualTo(alike.interval());
    }

    /** By hand: q is w √(both sides' part of sessions), and a day moves both tests alike, or each by itself. */
    @Test
    void aDayMovesManyTestsTogether() {
        SessionNoise days = new SessionNoise(4e-4, 6, 0, 3, false);
        Noise noise = new Noise(NOISE, Optional.of(days), Noise.Source.METRIC);
        PairComparison one = PairComparison.of(
                ExampleSamples.one(more(105, 106, 104)),
                ExampleSamples.one(more(100, 101, 99)),
                noise,
                Materiality.USUAL);
        assertThat(one.parts().sessions()).isCloseTo(8e-4, within(1e-15));
        double[] alike = {1, 1};
        double together = variance(
                OverallComparison.of(List.of(one, one), alike, new SharedDay(1, 5, DayBasis.of(4)), Materiality.USUAL));
        double apart = variance(
                OverallComparison.of(List.of(one, one), alike, new SharedDay(0, 5, DayBasis.of(4)), Materiality.USUAL));
        assertThat(together).isCloseTo(one.parts().runs() / 2 + 8e-4, within(1e-15));
        assertThat(apart).isCloseTo(one.parts().runs() / 2 + 4e-4, within(1e-15));
        OverallComparison whole =
                OverallComparison.of(List.of(one, one), alike, new SharedDay(1, 5, DayBasis.of(4)), Materiality.USUAL);
        double terms = one.parts().runsByDegree() / 8 + 8e-4 * 8e-4 / 9;
        assertThat(whole.interval().degreesOfFreedom()).isCloseTo(together * together / terms, within(1e-9));
        assertThat(whole.days().words()).isEqualTo("day to day from 4 devices");
    }

    private static double variance(OverallComparison o) {
        return Math.pow(o.interval().standardError(), 2);
    }

    @Test
    void allTheSameIsLevelAndEachPartIsNothing() {
        SampleMoments same = more(100, 100, 100);
        OverallComparison overall = OverallComparison.of(
                List.of(pair(same, same), pair(same, same)), new double[] {1, 1}, SharedDay.UNKNOWN, Materiality.USUAL);
        assertThat(overall.ratio()).isEqualTo(1);
        assertThat(overall.contributions()).containsOnly(0.0);
        assertThat(overall.verdict()).isEqualTo(Verdict.LEVEL);
        assertThat(overall.counts()).isEqualTo(Map.of(Verdict.LEVEL, 2));
    }

    @Test
    void refusesWeightsThatMeanNothing() {
        List<PairComparison> one = List.of(pair(more(1, 2), more(1, 2)));
        for (double w : new double[] {0, -1, Double.NaN, Double.POSITIVE_INFINITY}) {
            assertThatThrownBy(() -> OverallComparison.of(one, new double[] {w}, SharedDay.UNKNOWN, Materiality.USUAL))
                    .isInstanceOf(IllegalArgumentException.class);
        }
        assertThatThrownBy(() -> OverallComparison.of(List.of(), new double[0], SharedDay.UNKNOWN, Materiality.USUAL))
                .hasMessageContaining("one or more pairs");
    }

    @Test
    void differencesAreComparedInTheirUnit() {
        SampleMoments cool = ExampleSamples.degrees(61, 62, 61.5);
        SampleMoments warm = ExampleSamples.degrees(71, 70.5, 72);
        DifferenceComparison there = ExampleSamples.apart(cool, warm);
        // Less is better, so ten degrees less is ten better.
        assertThat(there.difference()).isCloseTo(9.6666666667, within(1e-9));
        assertThat(there.reading()).isEqualTo(DifferenceComparison.Reading.BETTER);
        DifferenceComparison back = ExampleSamples.apart(warm, cool);
        assertThat(back.interval().orElseThrow().low())
                .isCloseTo(-there.interval().orElseThrow().high(), within(1e-12));
        assertThat(back.reading()).isEqualTo(DifferenceComparison.Reading.WORSE);
        assertThat(ExampleSamples.apart(ExampleSamples.degrees(60), warm).reading())
                .isEqualTo(DifferenceComparison.Reading.CANNOT_TELL);
    }

    @Test
    void perQuantityMovesTheMeritAndNotTheNoise() {
        SampleMoments fast = more(200, 202, 198);
        PairComparison plain = pair(fast, more(100, 101, 99));
        PairComparison perGhz = pair(fast.per(4e9), more(100, 101, 99).per(2e9));
        assertThat(perGhz.ratio()).isCloseTo(plain.ratio() / 2, within(1e-12));
        assertThat(perGhz.interval().standardError()).isEqualTo(plain.interval().standardError());
        assertThatThrownBy(() -> fast.per(0)).isInstanceOf(IllegalArgumentException.class);
    }
}
