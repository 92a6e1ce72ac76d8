package yarrowmark.core.compare;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static yarrowmark.core.ExampleSamples.more;
import static yarrowmark.core.ExampleSamples.sample;

import java.util.Optional;
import org.junit.jupiter.api.Test;
import yarrowmark.core.ExampleSamples;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.stats.Noise;
import yarrowmark.core.stats.NoisePrior;
import yarrowmark.core.stats.SampleMoments;
import yarrowmark.core.stats.SessionNoise;
import yarrowmark.core.stats.StudentT;
import yarrowmark.core.stats.UsualSpread;

class OneValueTest {
    private static final Optional<NoisePrior> LENT = NoisePrior.fit(ExampleSamples.A);

    private static OneValue valued(SampleMoments moments, Noise noise) {
        return OneValue.of(ExampleSamples.one(moments), noise, Direction.MORE_IS_BETTER, Scale.RATIO);
    }

    /** By hand: the mean of the logarithms, and Student's t with d₀ + d degrees of freedom on s̃²/n. */
    @Test
    void theValueIsTheGeometricMeanWithItsInterval() {
        SampleMoments runs = ExampleSamples.A.get(1);
        OneValue value = valued(runs, Noise.ofRuns(LENT));
        var work = LENT.orElseThrow().workingVariance(runs);
        double half = StudentT.upper(work.degreesOfFreedom()) * Math.sqrt(work.ofMean(runs));
        assertThat(value.value()).isCloseTo(Math.exp(runs.mean()), within(1e-9 * value.value()));
        assertThat(Math.log(value.high() / value.value())).isCloseTo(half, within(1e-12));
        assertThat(Math.log(value.value() / value.low())).isCloseTo(half, within(1e-12));
        assertThat(value.unmeasured()).isFalse();
    }

    @Test
    void aRateAndItsTimeAreKnownAlike() {
        OneValue rate = valued(more(100, 102, 101), Noise.ofRuns(LENT));
        OneValue time = OneValue.of(
                ExampleSamples.one(sample(Direction.LESS_IS_BETTER, 1e-9, 1.0 / 100, 1.0 / 102, 1.0 / 101)),
                Noise.ofRuns(LENT),
                Direction.LESS_IS_BETTER,
                Scale.RATIO);
        assertThat(time.value()).isCloseTo(1 / rate.value(), within(1e-6));
        assertThat(time.low()).isLessThan(time.value());
        assertThat(time.high()).isGreaterThan(time.value());
    }

    @Test
    void aSpreadThatIsOnlyUsualIsTakenAndSaid() {
        OneValue one = valued(more(100.0), Noise.of(new UsualSpread(10), Noise.Source.USUAL));
        assertThat(one.unmeasured()).isTrue();
        assertThat(one.high() / one.low()).isGreaterThan(1.2);
        OneValue degrees =
                OneValue.of(ExampleSamples.one(more(61.0)), Noise.UNKNOWN, Direction.LESS_IS_BETTER, Scale.DIFFERENCE);
        assertThat(degrees.low()).isNaN();
        assertThat(degrees.high()).isNaN();
    }

    @Test
    void whatIsKnownOfOtherDaysMakesItWider() {
        SampleMoments runs = ExampleSamples.A.get(1);
        OneValue within = valued(runs, Noise.ofRuns(LENT));
        OneValue days =
                valued(runs, new Noise(LENT, Optional.of(new SessionNoise(4e-4, 6, 0, 3, false)), Noise.Source.METRIC));
        assertThat(days.high()).isGreaterThan(within.high());
        assertThat(days.low()).isLessThan(within.low());
    }

    /** By hand: one session of three runs, so the day counts whole, and its degrees of freedom are few. */
    @Test
    void theDegreesOfFreedomAreThoseOfRunsAndOfDays() {
        SampleMoments runs = ExampleSamples.A.get(1);
        SessionNoise days = new SessionNoise(1e-5, 2.5, 3e-6, 3, false);
        OneValue value = valued(runs, new Noise(LENT, Optional.of(days), Noise.Source.METRIC));
        var work = LENT.orElseThrow().workingVariance(runs);
        double ofRuns = work.ofMean(runs);
        double variance = ofRuns + 1e-5;
        double terms = ofRuns * ofRuns / work.degreesOfFreedom() + Math.pow(1e-5 + 3e-6, 2) / 2.5;
        double half = StudentT.upper(variance * variance / terms) * Math.sqrt(variance);
        assertThat(Math.log(value.high() / value.value())).isCloseTo(half, within(1e-12));
        assertThat(Math.log(value.value() / value.low())).isCloseTo(half, within(1e-12));
    }

    @Test
    void theHalfWidthOfAnIntervalIsHalfOfItsWidthOnMerits() {
        PairComparison pair =
                ExampleSamples.pair(ExampleSamples.A.get(1), ExampleSamples.A.get(0), LENT, Materiality.USUAL);
        PairComparison.Interval i = pair.interval();
        assertThat(i.half())
                .isCloseTo(Math.log(i.high() / i.low()) / 2, within(1e-12))
                .isPositive();
    }
}
