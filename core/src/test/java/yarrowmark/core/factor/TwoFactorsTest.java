package yarrowmark.core.factor;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;
import static yarrowmark.core.ExampleSamples.more;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import yarrowmark.core.ExampleSamples;
import yarrowmark.core.stats.Centre;
import yarrowmark.core.stats.DayBasis;
import yarrowmark.core.stats.Noise;
import yarrowmark.core.stats.NoisePrior;
import yarrowmark.core.stats.SampleMoments;
import yarrowmark.core.stats.SharedDay;

class TwoFactorsTest {
    private static final TwoFactors.Cell A1B1 = cell(201, 204, 199);
    private static final TwoFactors.Cell A2B1 = cell(246, 250, 244);
    private static final TwoFactors.Cell A1B2 = cell(205, 203, 207);
    private static final TwoFactors.Cell A2B2 = cell(281, 278, 284);

    private static TwoFactors.Cell cell(double... readings) {
        SampleMoments m = more(readings);
        return new TwoFactors.Cell(m.mean(), noise(m.variance().orElseThrow() / m.n(), m.n() - 1, 0));
    }

    private static TwoFactors.Noise noise(double variance, double degreesOfFreedom, double sessions) {
        return new TwoFactors.Noise(
                variance, variance * variance / degreesOfFreedom, sessions, 5, DayBasis.NONE, false);
    }

    /** Expected values: the method's example of section 8, R 4.2.2. */
    @Test
    void exampleOfTheMethod() {
        TwoFactors t = TwoFactors.of(A1B1, A2B1, A1B2, A2B2);
        assertThat(t.first().ratio()).isCloseTo(1.295902941, within(5e-10));
        assertThat(t.second().ratio()).isCloseTo(1.077021177, within(5e-10));
        assertThat(t.interaction().ratio()).isCloseTo(1.118805322, within(5e-10));
        assertThat(t.interaction().interval().low()).isGreaterThan(1);
    }

    @Test
    void aGainThatBecomesALossIsSaidAsSuchAndOneThatOnlyShrinksIsNot() {
        TwoFactors turns = TwoFactors.of(cell(100, 101, 99), cell(106, 107, 105), cell(100, 101, 99), cell(97, 98, 96));
        assertThat(turns.firstTurns()).isTrue();
        assertThat(FactorWords.turned(turns.firstAlone(), "6.1", "6.9", "balanced", "fast"))
                .isEqualTo("From 6.1 to 6.9, a gain of 6.0 % on balanced becomes a loss of 3.0 % on fast.");
        TwoFactors grows = TwoFactors.of(A1B1, A2B1, A1B2, A2B2);
        assertThat(grows.firstTurns()).isFalse();
        assertThat(grows.secondTurns()).isFalse();
        assertThat(grows.firstAlone().onFirst().difference()
                        + grows.firstAlone().onSecond().difference())
                .as("the effect is the mean of both")
                .isCloseTo(2 * grows.first().difference(), within(1e-15));
        assertThat(grows.firstAlone().onSecond().difference()
                        - grows.firstAlone().onFirst().difference())
                .as("and the interaction what they differ by")
                .isCloseTo(grows.interaction().difference(), within(1e-15));
        TwoFactors noisy = TwoFactors.of(cell(100, 120, 80), cell(106, 130, 85), cell(100, 125, 79), cell(97, 120, 78));
        assertThat(noisy.firstTurns()).as("nobody knows whether it turns").isFalse();
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
        assertThat(turned.interaction().interval().low())
                .isCloseTo(1 / there.interaction().interval().high(), within(1e-12));
    }

    /** What sessions add is one estimate for all four cells, so its degrees of freedom are those of one. */
    @Test
    void sessionsWidenAnEffect() {
        TwoFactors.Cell[] cells = new TwoFactors.Cell[4];
        for (int i = 0; i < 4; i++) {
            cells[i] = new TwoFactors.Cell(5 + 0.1 * i, noise(1e-4, 4, 9e-4));
        }
        TwoFactors t = TwoFactors.of(cells[0], cells[1], cells[2], cells[3]);
        double runs = 4 * 0.25 * 1e-4;
        double sessions = 4 * 0.25 * 9e-4;
        double terms = 4 * Math.pow(0.25 * 1e-4, 2) / 4 + sessions * sessions / 5;
        assertThat(t.first().interval().standardError()).isCloseTo(Math.sqrt(runs + sessions), within(1e-12));
        assertThat(t.first().interval().degreesOfFreedom())
                .isCloseTo(Math.pow(runs + sessions, 2) / terms, within(1e-9));
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
                        "Whether the gain from Tern 8 to Tern 9 differs between Folio and Drift is too close to call: 1.000 times");
    }

    @Test
    void aCellOfSeveralMetricsIsTheirWeighedMean() {
        SampleMoments one = more(100, 102, 98);
        SampleMoments two = more(50, 50.5, 49.5);
        Noise noise = Noise.ofRuns(Optional.of(new NoisePrior(8, 0.0004)));
        Centre first = Centre.of(ExampleSamples.one(one), noise);
        Centre second = Centre.of(ExampleSamples.one(two), noise);
        TwoFactors.Cell alone = TwoFactors.Cell.of(List.of(new TwoFactors.Part(5, first, SharedDay.UNKNOWN)));
        assertThat(alone.mean()).isEqualTo(one.mean());
        assertThat(alone.noise().runs()).isCloseTo(first.variance(), within(1e-15));
        assertThat(alone.noise().runsByDegree()).isCloseTo(Math.pow(first.variance(), 2) / 10, within(1e-15));
        TwoFactors.Cell both = TwoFactors.Cell.of(List.of(
                new TwoFactors.Part(3, first, SharedDay.UNKNOWN), new TwoFactors.Part(1, second, SharedDay.UNKNOWN)));
        assertThat(both.mean()).isCloseTo(0.75 * one.mean() + 0.25 * two.mean(), within(1e-12));
        assertThat(both.noise().runs())
                .isCloseTo(0.5625 * first.variance() + 0.0625 * second.variance(), within(1e-15));
        assertThat(both.noise().days()).isEqualTo(DayBasis.NONE);
        Centre guessed = Centre.of(ExampleSamples.one(more(7)), Noise.UNKNOWN);
        TwoFactors.Cell partly = TwoFactors.Cell.of(List.of(
                new TwoFactors.Part(1, first, SharedDay.UNKNOWN), new TwoFactors.Part(1, guessed, SharedDay.UNKNOWN)));
        assertThat(partly.noise().unmeasured()).isTrue();
        assertThatThrownBy(() -> TwoFactors.Cell.of(List.of())).hasMessageContaining("more than 0");
    }
}
