package yarrowmark.core.stats;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.stream.DoubleStream;
import org.junit.jupiter.api.Test;
import yarrowmark.core.ExampleSamples;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Measured;
import yarrowmark.core.measure.Scale;

class SampleTest {
    @Test
    void threeEqualWholeSecondsAreNotInfinitelyExact() {
        SampleMoments sample = ExampleSamples.sample(Direction.LESS_IS_BETTER, 1, 234, 234, 234);
        assertThat(sample.variance().getAsDouble()).isCloseTo(1.0 / 234 / 234 / 12, within(1e-20));
    }

    @Test
    void oneReadingHasNoVariance() {
        assertThat(ExampleSamples.more(388).variance()).isEmpty();
    }

    @Test
    void scalingMovesTheMeanAndLeavesTheSpread() {
        SampleMoments one = ExampleSamples.more(388.1, 391.7, 386.9);
        SampleMoments thousand = ExampleSamples.more(388_100, 391_700, 386_900);
        assertThat(thousand.mean() - one.mean()).isCloseTo(Math.log(1000), within(1e-12));
        assertThat(thousand.variance().getAsDouble()).isCloseTo(one.variance().getAsDouble(), within(1e-16));
    }

    @Test
    void theOrderOfReadingsDoesNotMatter() {
        assertThat(ExampleSamples.more(386.9, 388.1, 391.7).sumSquares())
                .isCloseTo(ExampleSamples.more(391.7, 386.9, 388.1).sumSquares(), within(1e-18));
    }

    @Test
    void largeNearlyEqualReadingsKeepTheirSpread() {
        // Python 3.11.7 decimal, 50 digits: the variance of ln(1e12 + k 1e4), k = 0, 1, 2. Near 1e12 a logarithm has
        // steps of 3.6e-15 beside a standard deviation of 1e-8, hence the tolerance.
        SampleMoments sample = ExampleSamples.more(1e12, 1e12 + 1e4, 1e12 + 2e4);
        assertThat(sample.variance().getAsDouble()).isCloseTo(9.9999998000e-17, within(1e-22));
    }

    @Test
    void theCentreIsTheMeanThatTimesAndRatesAgreeOn() {
        List<Measured> times = DoubleStream.of(2, 8).mapToObj(Measured::exact).toList();
        List<Measured> rates =
                DoubleStream.of(0.5, 0.125).mapToObj(Measured::exact).toList();
        assertThat(SampleSummary.of(times, Scale.RATIO).centre()).isCloseTo(4, within(1e-14));
        assertThat(1 / SampleSummary.of(rates, Scale.RATIO).centre()).isCloseTo(4, within(1e-14));
    }

    @Test
    void aDifferenceMetricIsCentredByItsArithmeticMeanAndHasNoPercentage() {
        List<Measured> degrees =
                DoubleStream.of(-1, 0, 4).mapToObj(Measured::exact).toList();
        SampleSummary summary = SampleSummary.of(degrees, Scale.DIFFERENCE);
        assertThat(summary.centre()).isCloseTo(1, within(1e-15));
        assertThat(summary.spreadPercent()).isEmpty();
        assertThat(summary.median()).isZero();
        assertThat(summary.smallest()).isEqualTo(-1);
        assertThat(summary.largest()).isEqualTo(4);
    }

    @Test
    void theSummaryLeavesItsListAsItWas() {
        List<Measured> readings = List.of(Measured.exact(3), Measured.exact(1), Measured.exact(2), Measured.exact(10));
        SampleSummary summary = SampleSummary.of(readings, Scale.RATIO);
        assertThat(summary.median()).isEqualTo(2.5);
        // Python 3.11.7: 100 * (math.exp(statistics.stdev(map(math.log, [3, 1, 2, 10]))) - 1)
        assertThat(summary.spreadPercent().getAsDouble()).isCloseTo(162.69231491378758, within(1e-9));
    }

    @Test
    void nothingMakesNoSample() {
        assertThatThrownBy(() -> SampleMoments.of(List.of(), Direction.MORE_IS_BETTER, Scale.RATIO))
                .hasMessageContaining("at least one");
    }
}
