package yarrowmark.core.factor;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;
import static yarrowmark.core.ExampleSamples.more;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import yarrowmark.core.stats.SampleMoments;
import yarrowmark.core.stats.WorkingVariance;

class TwoFactorsTest {
    private static final TwoFactors.Cell A1B1 = cell(201, 204, 199);
    private static final TwoFactors.Cell A2B1 = cell(246, 250, 244);
    private static final TwoFactors.Cell A1B2 = cell(205, 203, 207);
    private static final TwoFactors.Cell A2B2 = cell(281, 278, 284);

    private static TwoFactors.Cell cell(double... readings) {
        SampleMoments m = more(readings);
        return new TwoFactors.Cell(
                m.mean(), Optional.of(new TwoFactors.Noise(m.variance().orElseThrow() / m.n(), m.n() - 1)));
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
        assertThat(turned.interaction().difference())
                .isCloseTo(there.interaction().difference(), within(1e-15));
    }

    @Test
    void exchangingTheLevelsOfOneFactorTurnsItsEffectAndTheInteraction() {
        TwoFactors there = TwoFactors.of(A1B1, A2B1, A1B2, A2B2);
        TwoFactors turned = TwoFactors.of(A2B1, A1B1, A2B2, A1B2);
        assertThat(turned.first().difference()).isCloseTo(-there.first().difference(), within(1e-15));
        assertThat(turned.second().difference()).isCloseTo(there.second().difference(), within(1e-15));
        assertThat(turned.interaction().difference())
                .isCloseTo(-there.interaction().difference(), within(1e-15));
        assertThat(turned.interaction().interval().orElseThrow().low())
                .isCloseTo(1 / there.interaction().interval().orElseThrow().high(), within(1e-12));
    }

    @Test
    void withoutKnownNoiseThereIsNoInterval() {
        TwoFactors t = TwoFactors.of(A1B1, A2B1, A1B2, new TwoFactors.Cell(5.6, Optional.empty()));
        assertThat(t.first().interval()).isEmpty();
        assertThat(t.interaction().interval()).isEmpty();
        assertThat(t.interaction().ratio()).isPositive();
    }

    @Test
    void saidInWords() {
        TwoFactors t = TwoFactors.of(A1B1, A2B1, A1B2, A2B2);
        assertThat(FactorWords.interaction(t.interaction(), "Tern 8", "Tern 9", "Folio", "Drift"))
                .startsWith(
                        "The gain from Tern 8 to Tern 9 is 11.9 % larger on Folio than on Drift: 1.119 times, 95 % between 1.0");
        assertThat(FactorWords.effect(t.first(), "Drift", "Folio")).startsWith("Folio is 29.6 % better than Drift: ");
        assertThat(FactorWords.effect(TwoFactors.of(A2B1, A1B1, A2B2, A1B2).first(), "Folio", "Drift"))
                .startsWith("Drift is 22.8 % worse than Folio: ");
        TwoFactors open = TwoFactors.of(A1B1, A2B1, A1B1, A2B1);
        assertThat(FactorWords.interaction(open.interaction(), "Tern 8", "Tern 9", "Folio", "Drift"))
                .startsWith(
                        "Whether the gain from Tern 8 to Tern 9 differs between Folio and Drift cannot be told: 1.000 times");
        assertThat(FactorWords.effect(new TwoFactors.Effect(0.1, Optional.empty()), "a", "b"))
                .isEqualTo("Whether b is better than a cannot be told: a noise is not known.");
    }

    @Test
    void aCellOfSeveralMetricsIsTheirWeighedMean() {
        SampleMoments one = more(100, 102, 98);
        SampleMoments two = more(50, 50.5, 49.5);
        Optional<WorkingVariance> noise = Optional.of(new WorkingVariance(0.0004, 10, 8));
        TwoFactors.Cell alone = TwoFactors.Cell.of(List.of(new TwoFactors.Part(5, one, noise)));
        assertThat(alone.mean()).isEqualTo(one.mean());
        assertThat(alone.noise().orElseThrow().variance()).isCloseTo(0.0004 / 3, within(1e-15));
        assertThat(alone.noise().orElseThrow().degreesOfFreedom()).isCloseTo(10, within(1e-9));
        TwoFactors.Cell both =
                TwoFactors.Cell.of(List.of(new TwoFactors.Part(3, one, noise), new TwoFactors.Part(1, two, noise)));
        assertThat(both.mean()).isCloseTo(0.75 * one.mean() + 0.25 * two.mean(), within(1e-12));
        assertThat(both.noise().orElseThrow().variance()).isCloseTo((0.5625 + 0.0625) * 0.0004 / 3, within(1e-15));
        assertThat(TwoFactors.Cell.of(List.of(
                                new TwoFactors.Part(1, one, noise), new TwoFactors.Part(1, two, Optional.empty())))
                        .noise())
                .isEmpty();
        assertThatThrownBy(() -> TwoFactors.Cell.of(List.of())).hasMessageContaining("more than 0");
    }
}
