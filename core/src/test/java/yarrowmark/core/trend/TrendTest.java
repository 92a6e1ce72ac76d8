package yarrowmark.core.trend;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.DoubleStream;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.apache.commons.rng.UniformRandomProvider;
import org.apache.commons.rng.sampling.distribution.ZigguratSampler;
import org.apache.commons.rng.simple.RandomSource;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import yarrowmark.core.compare.Materiality;
import yarrowmark.core.compare.PairComparison;
import yarrowmark.core.compare.Verdict;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Measured;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.stats.Noise;
import yarrowmark.core.stats.NoisePrior;
import yarrowmark.core.stats.Sample;
import yarrowmark.core.stats.SampleMoments;
import yarrowmark.core.stats.SharedDay;
import yarrowmark.core.stats.UsualSpread;

class TrendTest {
    private static final Materiality THREE_PERCENT = new Materiality(0.03);
    private static final Noise LENT =
            new Noise(Optional.of(new NoisePrior(8, 0.005 * 0.005)), Optional.empty(), Noise.Source.METRIC);

    /** Variances that are known exactly. */
    private static final double KNOWN = Double.POSITIVE_INFINITY;

    private static Sample sample(int session, double... values) {
        return sample(Direction.MORE_IS_BETTER, session, values);
    }

    private static Sample sample(Direction direction, int session, double... values) {
        return Sample.ofOneSession(
                session,
                SampleMoments.of(Arrays.stream(values).mapToObj(Measured::exact).toList(), direction, Scale.RATIO));
    }

    /** Three runs around each value, a little apart; 0 is a gap. */
    private static TrendMetric metric(double weight, double... values) {
        List<@Nullable Sample> samples = new ArrayList<>();
        for (int i = 0; i < values.length; i++) {
            samples.add(values[i] == 0 ? null : sample(i, values[i] * 0.996, values[i] * 1.001, values[i] * 1.003));
        }
        return new TrendMetric(samples, LENT, SharedDay.UNKNOWN, weight);
    }

    /** R's p.adjust, method BH. */
    @Test
    void manyLooksAreCorrectedTogether() {
        assertThat(ManyLooks.corrected(new double[] {0.003, 0.21, 0.012, 0.04, 0.008}))
                .containsExactly(new double[] {0.015, 0.21, 0.02, 0.05, 0.02}, within(1e-12));
        assertThat(ManyLooks.corrected(new double[0])).isEmpty();
        assertThat(ManyLooks.corrected(new double[] {0.9, 0.8}))
                .containsExactly(new double[] {0.9, 0.9}, within(1e-15));
    }

    private static List<TrendStep> steps(double... ratios) {
        List<TrendStep> steps = new ArrayList<>();
        for (int i = 1; i < ratios.length; i++) {
            double delta = Math.log(ratios[i] / ratios[i - 1]);
            steps.add(TrendStep.alone(
                    i - 1, i, delta, PairComparison.Interval.around(delta, 0.016 * 0.016, 8.5), false, false));
        }
        return steps;
    }

    /** The method's example J, R 4.2.2. */
    @Test
    void exampleJ() {
        List<List<TrendStep>> lines = List.of(
                steps(1, 1.004, 0.998, 1.011, 1.139, 1.147),
                steps(1, 0.991, 1.003, 0.996, 1.002, 0.994),
                steps(1, 1.013, 1.006, 1.018, 1.009, 1.021));
        SeriesLending lending = SeriesLending.of(lines, 6);
        assertThat(lending.degrees()).isCloseTo(5.55, within(1e-12));
        assertThat(lending.factor()).isCloseTo(0.8123458313, within(5e-11));
        List<TrendStep> looked = TrendLines.looked(lines, lending, THREE_PERCENT).stream()
                .flatMap(List::stream)
                .toList();
        assertThat(looked.get(3).p()).isCloseTo(9.101660662e-07, within(5e-16));
        assertThat(looked.get(3).corrected()).isCloseTo(1.365249099e-05, within(5e-15));
        assertThat(looked.stream().filter(TrendStep::marked)).containsExactly(looked.get(3));
        assertThat(SeriesLending.of(lines, 5)).as("too few").isEqualTo(SeriesLending.NONE);
    }

    /** Whoever looks at ten flat lines has looked ten times as often as at one. */
    @Test
    void allLinesThatAreShownAreCorrectedTogether() {
        TrendMetric flat = metric(1, 100, 100.2, 99.9, 100.1);
        TrendMetric jump = metric(1, 100, 100, 100, 104);
        double alone = TrendLines.ofOne(jump, THREE_PERCENT).steps().get(2).corrected();
        TrendLines ten = TrendLines.of(
                Stream.concat(Stream.generate(() -> flat).limit(9), Stream.of(jump))
                        .toList(),
                List.of(),
                THREE_PERCENT);
        assertThat(ten.looks()).isEqualTo(30);
        assertThat(ten.lines().get(9).steps().get(2).corrected()).isCloseTo(10 * alone, within(1e-12));
    }

    @Test
    void eachResultIsHeldAgainstTheFirstAndGapsStayGaps() {
        TrendLine line = TrendLines.ofOne(metric(1, 0, 100, 0, 110, 110), THREE_PERCENT);
        assertThat(line.points()).extracting(TrendLine.Point::step).containsExactly(1, 3, 4);
        assertThat(line.points().get(0).toFirst()).isEmpty();
        assertThat(Math.exp(line.points().get(1).merit())).isCloseTo(1.1, within(1e-12));
        assertThat(line.steps())
                .extracting(s -> s.from() + "→" + s.to() + " " + s.verdict() + " " + s.marked())
                .containsExactly("1→3 CLEAR_GAIN true", "3→4 LEVEL false");
        assertThat(line.firstToLast().orElseThrow().verdict()).isEqualTo(Verdict.CLEAR_GAIN);
        assertThat(line.steps().stream().mapToDouble(TrendStep::delta).sum())
                .as("the steps add up to first to last")
                .isCloseTo(line.firstToLast().orElseThrow().difference(), within(1e-12));
        assertThat(line.steps().stream().mapToDouble(TrendStep::share).sum())
                .as("and so do their shares in per cent")
                .isCloseTo(10, within(1e-9));
        assertThat(line.changes()).as("too short to be searched").isEmpty();
    }

    @Test
    void aStepIsMarkedOnlyAfterCorrectionAndWhereItMatters() {
        // One step of 1.2 % is clear in itself, and too small; 4 % in noise is large, and not clear.
        TrendLine small = TrendLines.ofOne(metric(1, 100, 101.8, 101.8, 101.8), new Materiality(0.03));
        assertThat(small.steps().get(0).p()).isLessThan(0.05);
        assertThat(small.steps()).noneMatch(TrendStep::marked);
        List<@Nullable Sample> noisy = List.of(sample(0, 100, 110, 90), sample(1, 104, 114, 94));
        assertThat(TrendLines.ofOne(new TrendMetric(noisy, LENT, SharedDay.UNKNOWN, 1), THREE_PERCENT)
                        .steps())
                .noneMatch(TrendStep::marked);
        TrendLine once = TrendLines.ofOne(metric(1, 100, 104), THREE_PERCENT);
        TrendLine often = TrendLines.ofOne(metric(1, 100, 100, 100, 100, 104), THREE_PERCENT);
        assertThat(often.steps().get(3).corrected())
                .as("four looks")
                .isCloseTo(4 * once.steps().get(0).p(), within(1e-12));
    }

    @Test
    void whatNobodyMeasuredIsSaidOfEachStep() {
        Noise usual = Noise.of(new UsualSpread(2), Noise.Source.USUAL);
        List<@Nullable Sample> singles = List.of(sample(0, 100), sample(1, 130), sample(2, 1300));
        TrendLine line = TrendLines.ofOne(new TrendMetric(singles, usual, SharedDay.UNKNOWN, 1), THREE_PERCENT);
        assertThat(line.steps()).allMatch(TrendStep::unmeasured);
        assertThat(line.steps().get(1).verdict()).isEqualTo(Verdict.PROBABLY_GAIN);
        assertThat(TrendLines.ofOne(metric(1, 100, 110), THREE_PERCENT).steps()).noneMatch(TrendStep::unmeasured);
    }

    @Test
    void lessIsBetterGoesUpWhenItFalls() {
        TrendMetric times = new TrendMetric(
                List.of(
                        sample(Direction.LESS_IS_BETTER, 0, 20, 20.1, 20.05),
                        sample(Direction.LESS_IS_BETTER, 1, 10, 10.1, 10.05)),
                LENT,
                SharedDay.UNKNOWN,
                1);
        assertThat(TrendLines.ofOne(times, THREE_PERCENT).steps().get(0).ratio())
                .isGreaterThan(1.9);
    }

    @Test
    void scaleDoesNotMatterAndTurningTheSeriesRoundTurnsTheSteps() {
        double[] values = {100, 103, 99, 120, 121};
        TrendLine line = TrendLines.ofOne(metric(1, values), THREE_PERCENT);
        TrendLine scaled = TrendLines.ofOne(
                metric(1, DoubleStream.of(values).map(v -> v * 7).toArray()), THREE_PERCENT);
        double[] back = IntStream.range(0, 5).mapToDouble(i -> values[4 - i]).toArray();
        TrendLine turned = TrendLines.ofOne(metric(1, back), THREE_PERCENT);
        for (int i = 0; i < 4; i++) {
            assertThat(scaled.steps().get(i).delta())
                    .isCloseTo(line.steps().get(i).delta(), within(1e-12));
            assertThat(turned.steps().get(3 - i).delta())
                    .isCloseTo(-line.steps().get(i).delta(), within(1e-12));
            assertThat(turned.steps().get(3 - i).verdict())
                    .isEqualTo(line.steps().get(i).verdict().swapped());
        }
        assertThat(turned.slope().orElseThrow().perStep())
                .isCloseTo(-line.slope().orElseThrow().perStep(), within(1e-12));
    }

    @Test
    void theSlopeIsTheMedianOfAllPairsAndItsEndsAreRanks() {
        double[] y = {0, 1, 2, 30, 4, 5, 6};
        Slope slope =
                Slope.of(IntStream.range(0, 7).asDoubleStream().toArray(), y).orElseThrow();
        assertThat(slope.perStep())
                .as("one value that is wrong does not move it")
                .isCloseTo(1, within(1e-12));
        // 21 slopes; 1.959964 √(7·6·19/18) = 13.05: the 3rd and the 19th of them.
        assertThat(slope.interval().orElseThrow().low()).isCloseTo(-8, within(1e-12));
        assertThat(slope.interval().orElseThrow().high()).isCloseTo(10, within(1e-12));
        assertThat(Slope.of(new double[] {0, 1}, new double[] {1, 2})).isEmpty();
        assertThat(Slope.of(new double[] {0, 2, 3}, new double[] {1, 2, 5})
                        .orElseThrow()
                        .interval())
                .as("three values have no interval")
                .isEmpty();
    }

    @Test
    void theOverallIsAFitSoThatAMissingTestDoesNotBendIt() {
        TrendMetric fast = metric(0.5, 100, 110, 110);
        TrendMetric missing = metric(0.5, 0, 400, 400);
        OverallLine line =
                TrendLines.overall(List.of(fast, missing), THREE_PERCENT).orElseThrow();
        assertThat(line.points()).extracting(OverallLine.Point::step).containsExactly(0, 1, 2);
        assertThat(Math.exp(line.points().get(1).merit())).isCloseTo(1.1, within(1e-9));
        assertThat(line.points().get(0).interval().low()).isEqualTo(1);
        assertThat(line.points().get(0).coverage()).isCloseTo(0.5, within(1e-12));
        assertThat(line.steps().get(1).verdict()).isEqualTo(Verdict.LEVEL);
        assertThat(line.firstToLast().orElseThrow().ratio()).isCloseTo(1.1, within(1e-9));
        assertThat(TrendLines.overall(List.of(metric(0, 100, 110)), THREE_PERCENT))
                .as("nothing has weight")
                .isEmpty();
        OverallLine apart = TrendLines.overall(List.of(metric(0.5, 100, 110, 0), metric(0.5, 0, 0, 7)), THREE_PERCENT)
                .orElseThrow();
        assertThat(apart.apart()).containsExactly(2);
        assertThat(apart.points()).hasSize(2);
    }

    @Test
    void oneStepAloneAndNoneAtAll() {
        TrendLine one = TrendLines.ofOne(metric(1, 100), THREE_PERCENT);
        assertThat(one.points()).hasSize(1);
        assertThat(one.steps()).isEmpty();
        assertThat(one.firstToLast()).isEmpty();
        assertThat(TrendLines.ofOne(metric(1, 0, 0), THREE_PERCENT).points()).isEmpty();
        assertThat(TrendLines.overall(List.of(), THREE_PERCENT)).isEmpty();
    }

    @Test
    void aLevelThatChangedOnceAndOneThatCameBackAreFound() {
        double[] v = new double[12];
        Arrays.fill(v, 0.01 * 0.01);
        double[] jump = IntStream.range(0, 12)
                .mapToDouble(i -> (i % 2) * 0.004 + (i < 7 ? 0 : 0.1))
                .toArray();
        List<LevelChanges.Change> changes = LevelChanges.of(jump, v, KNOWN, 1);
        assertThat(changes).hasSize(1);
        assertThat(changes.get(0).before()).isEqualTo(6);
        assertThat(changes.get(0).size()).isCloseTo(0.1, within(0.005));
        assertThat(changes.get(0).low()).isLessThan(0.1);
        double[] bump = IntStream.range(0, 12)
                .mapToDouble(i -> i >= 4 && i < 8 ? 0.2 : 0)
                .toArray();
        assertThat(LevelChanges.of(bump, v, KNOWN, 1))
                .extracting(LevelChanges.Change::before)
                .containsExactly(3, 7);
        assertThat(LevelChanges.of(Arrays.copyOf(jump, 7), Arrays.copyOf(v, 7), KNOWN, 1))
                .as("too short")
                .isEmpty();
        assertThat(LevelChanges.of(new double[12], new double[12], KNOWN, 1))
                .as("all alike, and exact")
                .isEmpty();
    }

    /** A part of what the bench simulates; the bounds leave room for 400 series. */
    @Test
    void unchangedSeriesAreSeldomMarkedAndAJumpOfFourErrorsIsFound() {
        UniformRandomProvider random = RandomSource.XO_RO_SHI_RO_128_PP.create(7);
        ZigguratSampler.NormalizedGaussian normal = ZigguratSampler.NormalizedGaussian.of(random);
        double[] v = new double[12];
        Arrays.fill(v, 1.0);
        int falseMarks = 0;
        int found = 0;
        int series = 400;
        for (int s = 0; s < series; s++) {
            double[] quiet = DoubleStream.generate(normal::sample).limit(12).toArray();
            falseMarks += LevelChanges.of(quiet, v, KNOWN, 1).isEmpty() ? 0 : 1;
            double[] jump = IntStream.range(0, 12)
                    .mapToDouble(i -> quiet[i] + (i < 6 ? 0 : 4))
                    .toArray();
            found += LevelChanges.of(jump, v, KNOWN, 1).isEmpty() ? 0 : 1;
        }
        assertThat(falseMarks / (double) series).isLessThan(0.08);
        assertThat(found / (double) series).isGreaterThan(0.9);
    }

    @Test
    void theSimulatedPointLiesBetweenThatOfOneSplitAndBonferronis() {
        double[] v = new double[12];
        Arrays.fill(v, 4.0);
        double point = LevelChanges.point(v, KNOWN, 1);
        assertThat(point).isBetween(2.4, 2.84);
        assertThat(LevelChanges.point(v, KNOWN, 1)).as("a fixed seed").isEqualTo(point);
        assertThat(LevelChanges.point(new double[] {1, 1}, KNOWN, 1))
                .as("one split")
                .isCloseTo(1.96, within(0.04));
    }

    @Test
    void aBadDayIsOutsideOfTheRangeOfTheOthersAndDoesNotWidenItself() {
        List<Sample.OfSession> days = new ArrayList<>();
        double[] wave = {0, 0.004, -0.003, 0.002, 0.005, -0.004, 0.001, -0.08, 0.003, -0.002, 0.004, 0, -0.001, 0.002};
        for (int d = 0; d < wave.length; d++) {
            double level = 100 * Math.exp(wave[d]);
            days.add(new Sample.OfSession(
                    d,
                    sample(d, level * 0.998, level, level * 1.002)
                            .sessions()
                            .get(0)
                            .moments()));
        }
        List<UsualRange> ranges = UsualRange.of(Sample.of(days), LENT);
        assertThat(ranges).hasSize(14);
        assertThat(ranges.stream().filter(UsualRange::isOutside).map(UsualRange::session))
                .containsExactly(7L);
        assertThat(UsualRange.of(Sample.of(days.subList(0, 2)), LENT)).isEmpty();
    }

    @Test
    void theKneeIsWhereNothingFurtherMatters() {
        double[] merits = {0, 0.2, 0.3, 0.31, Double.NaN, 0.29, 0.32};
        assertThat(Ladder.knee(merits, THREE_PERCENT)).hasValue(2);
        assertThat(Ladder.bestSoFar(merits)).containsExactly(0, 0.2, 0.3, 0.31, 0.31, 0.31, 0.32);
        assertThat(Ladder.knee(new double[] {0, 0.1, 0.2}, THREE_PERCENT))
                .as("it goes on")
                .isEmpty();
        assertThat(Ladder.knee(new double[] {0, 0, 0}, THREE_PERCENT)).hasValue(0);
        assertThat(Ladder.knee(new double[] {Double.NaN, 0.1}, THREE_PERCENT)).isEmpty();
        assertThat(Ladder.knee(new double[0], THREE_PERCENT)).isEmpty();
    }

    @Test
    void theErrorOfAStepIsThatOfThePair() {
        TrendLine line = TrendLines.ofOne(metric(1, 100, 104), THREE_PERCENT);
        PairComparison pair = line.firstToLast().orElseThrow();
        assertThat(line.steps().get(0).interval()).isEqualTo(pair.interval());
        assertThat(line.steps().get(0).p())
                .isEqualTo(TrendStep.p(pair.difference(), pair.interval()))
                .isBetween(0.0, 1e-4);
    }

    @Test
    void whatADisplayHoldsIsInNoOverallAndNeverMarked() {
        TrendMetric free = metric(1, 100, 100, 130);
        TrendMetric capped = new TrendMetric(metric(1, 60, 60, 90).samples(), LENT, SharedDay.UNKNOWN, 1, Set.of(0, 1));
        assertThat(TrendLines.ofOne(capped, THREE_PERCENT).steps()).noneMatch(TrendStep::marked);
        assertThat(TrendLines.ofOne(metric(1, 60, 60, 90), THREE_PERCENT)
                        .steps()
                        .get(1)
                        .marked())
                .isTrue();
        OverallLine overall =
                TrendLines.overall(List.of(free, capped), THREE_PERCENT).orElseThrow();
        assertThat(Math.exp(overall.points().get(2).merit()))
                .as("only what is free bends the line")
                .isCloseTo(1.3, within(1e-9));
    }

    @Test
    void gainsAreCountedFromTheStepBeforeAndForEachUnit() {
        double[] merits = {Math.log(100), Double.NaN, Math.log(120), Math.log(126)};
        assertThat(Ladder.gains(merits, new double[] {10, 12, 20, 25}))
                .extracting(g -> g.from() + "→" + g.to() + " " + Math.round(g.percent() * 1000) / 1000.0 + " "
                        + Math.round(g.perUnit() * 1000) / 1000.0)
                .containsExactly("0→2 20.0 2.0", "2→3 5.0 1.0");
        assertThat(Ladder.gains(new double[] {0, 1}, new double[] {10, 10}))
                .as("the same quantity twice")
                .isEmpty();
    }

    @Test
    void workForEachWattIsARatioToTheFirstWhereBothAreKnown() {
        double[] each = Ladder.perWatt(
                new double[] {Double.NaN, Math.log(100), Math.log(150), Math.log(160)},
                new double[] {5, 10, 20, Double.NaN});
        assertThat(each[0]).isNaN();
        assertThat(each[1]).isEqualTo(1);
        assertThat(each[2]).isCloseTo(0.75, within(1e-12));
        assertThat(each[3]).isNaN();
    }

    private static List<Divergence.At> at(double... merits) {
        return IntStream.range(0, merits.length)
                .filter(i -> !Double.isNaN(merits[i]))
                .mapToObj(i -> new Divergence.At(
                        i, merits[i], PairComparison.Interval.around(merits[i], i == 0 ? 0 : 1e-4, 8)))
                .toList();
    }

    @Test
    void twoLinesPartWhereTheirDifferenceIsToldAndMatters() {
        List<Divergence.At> one = at(0, 0.01, 0.02, 0.02);
        List<Divergence> partings = Divergence.between(one, at(0, 0.02, Double.NaN, 0.12), THREE_PERCENT);
        assertThat(partings).extracting(Divergence::step).containsExactly(1, 3);
        assertThat(partings).extracting(Divergence::told).containsExactly(false, true);
        assertThat(partings.get(1).ratio()).isCloseTo(Math.exp(0.1), within(1e-12));
        assertThat(partings.get(1).interval().standardError()).isCloseTo(Math.sqrt(2e-4), within(1e-15));
        assertThat(partings.get(1).interval().degreesOfFreedom()).isCloseTo(16, within(1e-9));
        List<Divergence> swapped = Divergence.between(at(0, 0.02, Double.NaN, 0.12), one, THREE_PERCENT);
        assertThat(swapped.get(1).delta()).isCloseTo(-partings.get(1).delta(), within(1e-15));
        assertThat(swapped.get(1).corrected()).isEqualTo(partings.get(1).corrected());
        assertThat(Divergence.between(one, at(0.0), THREE_PERCENT)).isEmpty();
    }
}
