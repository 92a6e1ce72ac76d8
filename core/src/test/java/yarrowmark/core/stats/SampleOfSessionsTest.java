package yarrowmark.core.stats;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;
import static org.assertj.core.api.Assertions.within;
import static yarrowmark.core.ExampleSamples.sample;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import yarrowmark.core.ExampleSamples;
import yarrowmark.core.measure.Direction;

/** A sample of several sessions, and what is said of noise at its limits. */
class SampleOfSessionsTest {
    private static final SampleMoments THREE = sample(Direction.MORE_IS_BETTER, 1, 388, 391, 386);
    private static final SampleMoments ONE = sample(Direction.MORE_IS_BETTER, 4, 402);

    /** Each reading counts the same, and so does its rounding. */
    @Test
    void itsMeanAndItsRoundingAreThoseOfAllItsReadings() {
        Sample both = Sample.of(List.of(new Sample.OfSession(1, THREE), new Sample.OfSession(2, ONE)));
        assertThat(both.n()).isEqualTo(4);
        assertThat(both.mean())
                .isCloseTo((Math.log(388) + Math.log(391) + Math.log(386) + Math.log(402)) / 4, within(1e-14));
        double rounding = (1.0 / 388 / 388 + 1.0 / 391 / 391 + 1.0 / 386 / 386 + 16.0 / 402 / 402) / 4 / 12;
        assertThat(both.resolutionVariance()).isCloseTo(rounding, within(1e-18));
        assertThat(both.degreesOfFreedom()).isEqualTo(2);
        Sample alone = Sample.ofOneSession(1, THREE);
        assertThat(alone.mean()).isEqualTo(THREE.mean());
        assertThat(alone.resolutionVariance()).isEqualTo(THREE.resolutionVariance());
    }

    @Test
    void twoOfTheSameSessionsAreEqual() {
        Sample one = Sample.ofOneSession(1, THREE);
        assertThat(one).isEqualTo(Sample.ofOneSession(1, THREE)).hasSameHashCodeAs(Sample.ofOneSession(1, THREE));
        assertThat(one).isNotEqualTo(Sample.ofOneSession(1, ONE)).isNotEqualTo(Sample.ofOneSession(2, THREE));
        assertThat(one.hashCode()).isNotEqualTo(Sample.ofOneSession(1, ONE).hashCode());
        assertThat(one).hasToString("Sample" + one.sessions());
    }

    @Test
    void aRepeatabilityIsAboveNothingAndAtMostAThousandPerCent() {
        assertThat(new UsualSpread(1000).variance()).isCloseTo(Math.pow(Math.log(11), 2), within(1e-12));
        for (double wrong : new double[] {0, -1, 1000.1, Double.NaN}) {
            assertThatIllegalArgumentException().isThrownBy(() -> new UsualSpread(wrong));
        }
        assertThat(Noise.ofRuns(Optional.empty()).source()).isEqualTo(Noise.Source.NOTHING);
        assertThat(Noise.ofRuns(NoisePrior.fit(ExampleSamples.A)).source()).isEqualTo(Noise.Source.METRIC);
    }

    @Test
    void asManyRunsAsItTakesAreThreeAtLeastAndOneHundredPerCentAtMost() {
        assertThat(new EnoughRuns(3, 3, 100, Optional.empty()).limits())
                .extracting(EnoughRuns.Limit::runs)
                .containsExactly(3);
        assertThat(new EnoughRuns(3, 5, 1, Optional.empty()).limits())
                .extracting(EnoughRuns.Limit::runs)
                .containsExactly(3, 4, 5);
        assertThatIllegalArgumentException().isThrownBy(() -> new EnoughRuns(2, 5, 1, Optional.empty()));
        assertThatIllegalArgumentException().isThrownBy(() -> new EnoughRuns(4, 3, 1, Optional.empty()));
        for (double wrong : new double[] {0, 100.1, -1, Double.NaN}) {
            assertThatIllegalArgumentException().isThrownBy(() -> new EnoughRuns(3, 5, wrong, Optional.empty()));
        }
    }

    /** The limits themselves are enough, and a hair beyond them is not. */
    @Test
    void aSampleAtItsLimitIsEnough() {
        EnoughRuns runs = new EnoughRuns(3, 3, 2, Optional.empty());
        EnoughRuns.Limit limit = runs.limits().get(0);
        assertThat(runs.isEnough(moments(limit.spread() * (1 - 1e-9), 0))).isTrue();
        assertThat(runs.isEnough(moments(limit.spread() * (1 + 1e-9), 0))).isFalse();
        assertThat(runs.isEnough(moments(0, limit.rounding() * (1 - 1e-9)))).isTrue();
        assertThat(runs.isEnough(moments(0, limit.rounding() * (1 + 1e-9)))).isFalse();
    }

    /** Of three readings. */
    private static SampleMoments moments(double spread, double rounding) {
        return new SampleMoments(3, 6, 2 * spread * spread, rounding * rounding);
    }
}
