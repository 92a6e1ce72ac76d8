package yarrowmark.core.factor;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static yarrowmark.core.ExampleSamples.more;

import java.util.Optional;
import org.junit.jupiter.api.Test;
import yarrowmark.core.stats.SampleMoments;

class TwoFactorsTest {
    private static final TwoFactors.Cell A1B1 = cell(201, 204, 199);
    private static final TwoFactors.Cell A2B1 = cell(246, 250, 244);
    private static final TwoFactors.Cell A1B2 = cell(205, 203, 207);
    private static final TwoFactors.Cell A2B2 = cell(281, 278, 284);

    private static TwoFactors.Cell cell(double... readings) {
        SampleMoments m = more(readings);
        return new TwoFactors.Cell(m.mean(), Optional.of(new TwoFactors.Noise(m.variance().orElseThrow() / m.n(), m.n() - 1)));
    }

    /** Expected values: the method's example of section 8, R 4.2.2. */
    @Test
    void exampleOfTheMethod() {
        TwoFactors t = TwoFactors.of(A1B1, A2B1, A1B2, A2B2);
        assertThat(t.first().ratio()).isCloseTo(1.295902941, within(5e-10));
        assertThat(t.second().ratio()).isCloseTo(1.077021177, within(5e-10));
        assertThat(t.interaction().ratio()).isCloseTo(1.118805322, within(5e-10));
        assertThat(t.interaction().interval().orElseThrow().low()).isGreaterThan(1);
    }

    @Test
    void exchangingTheFactorsExchangesTheirEffectsAndKeepsTheInteraction() {
        TwoFactors there = TwoFactors.of(A1B1, A2B1, A1B2, A2B2);
        TwoFactors turned = TwoFactors.of(A1B1, A1B2, A2B1, A2B2);
        assertThat(turned.first()).isEqualTo(there.second());
        assertThat(turned.second()).isEqualTo(there.first());
        assertThat(turned.interaction().difference()).isCloseTo(there.interaction().difference(), within(1e-15));
    }

    @Test
    void exchangingTheLevelsOfOneFactorTurnsItsEffectAndTheInteraction() {
        TwoFactors there = TwoFactors.of(A1B1, A2B1, A1B2, A2B2);
        TwoFactors turned = TwoFactors.of(A2B1, A1B1, A2B2, A1B2);
        assertThat(turned.first().difference()).isCloseTo(-there.first().difference(), within(1e-15));
        assertThat(turned.second().difference()).isCloseTo(there.second().difference(), within(1e-15));
        assertThat(turned.interaction().difference()).isCloseTo(-there.interaction().difference(), within(1e-15));
        assertThat(turned.interaction().interval().orElseThrow().low()).isCloseTo(1 / there.interaction().interval().orElseThrow().high(), within(1e-12));
    }

    @Test
    void withoutKnownNoiseThereIsNoInterval() {
        TwoFactors t = TwoFactors.of(A1B1, A2B1, A1B2, new TwoFactors.Cell(5.6, Optional.empty()));
        assertThat(t.first().interval()).isEmpty();
        assertThat(t.interaction().interval()).isEmpty();
        assertThat(t.interaction().ratio()).isPositive();
    }
}
