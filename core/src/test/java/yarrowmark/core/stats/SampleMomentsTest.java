package yarrowmark.core.stats;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.junit.jupiter.api.Test;
import yarrowmark.core.ExampleSamples;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Measured;
import yarrowmark.core.measure.Merit;
import yarrowmark.core.measure.Scale;

class SampleMomentsTest {
    private static final SampleMoments A = ExampleSamples.sample(Direction.LESS_IS_BETTER, 1, 234, 236, 233);
    private static final SampleMoments B = ExampleSamples.sample(Direction.LESS_IS_BETTER, 0.1, 251.2, 249.9);

    @Test
    void pooledSamplesAreAsOneSample() {
        SampleMoments whole = ExampleSamples.sample(Direction.LESS_IS_BETTER, 0, 234, 236, 233, 251.2, 249.9);
        assertThat(A.pooled(B).n()).isEqualTo(5);
        assertThat(A.pooled(B).mean()).isCloseTo(whole.mean(), within(1e-14));
        assertThat(A.pooled(B).sumSquares()).isCloseTo(whole.sumSquares(), within(1e-14));
        assertThat(A.pooled(B).resolutionVariance())
                .isCloseTo((3 * A.resolutionVariance() + 2 * B.resolutionVariance()) / 5, within(1e-18));
    }

    @Test
    void theSpreadIsThatOfTheSummary() {
        assertThat(A.spreadPercent().getAsDouble())
                .isCloseTo(
                        SampleSummary.of(
                                        List.of(new Measured(234, 1), new Measured(236, 1), new Measured(233, 1)),
                                        Scale.RATIO)
                                .spreadPercent()
                                .getAsDouble(),
                        within(1e-12));
        assertThat(ExampleSamples.more(5).spreadPercent()).isEmpty();
    }

    @Test
    void bothScalesHaveMeritsThatComeBack() {
        for (Scale scale : Scale.values()) {
            for (Direction direction : Direction.values()) {
                assertThat(Merit.toValue(Merit.of(21.5, direction, scale), direction, scale))
                        .isCloseTo(21.5, within(1e-12));
                assertThat(Merit.of(22, direction, scale) > Merit.of(21, direction, scale))
                        .isEqualTo(direction == Direction.MORE_IS_BETTER);
            }
        }
    }

    @Test
    void whichComesFirstDoesNotMatter() {
        assertThat(A.pooled(B).mean()).isCloseTo(B.pooled(A).mean(), within(1e-14));
        assertThat(A.pooled(B).sumSquares()).isCloseTo(B.pooled(A).sumSquares(), within(1e-14));
    }
}
