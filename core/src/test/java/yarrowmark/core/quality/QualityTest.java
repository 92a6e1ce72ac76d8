package yarrowmark.core.quality;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;
import static yarrowmark.core.ExampleSamples.more;
import static yarrowmark.core.ExampleSamples.one;

import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import org.junit.jupiter.api.Test;
import yarrowmark.core.compare.Materiality;
import yarrowmark.core.stats.Noise;
import yarrowmark.core.stats.NoisePrior;
import yarrowmark.core.stats.Sample;

class QualityTest {
    private static double[] logs(double... values) {
        return Arrays.stream(values).map(Math::log).toArray();
    }

    @Test
    void oneOfFiveFarFromTheOthersIsStray() {
        assertThat(Stray.of(logs(400, 402, 398, 401, 340), Optional.empty(), 0))
                .containsExactly(false, false, false, false, true);
        assertThat(Stray.of(logs(400, 402, 398, 401, 404), Optional.empty(), 0)).containsOnly(false);
    }

    @Test
    void scaleAndOrderChangeNothing() {
        double[] values = {400, 402, 340, 398, 401};
        boolean[] marks = Stray.of(logs(values), Optional.empty(), 0);
        assertThat(marks).containsExactly(false, false, true, false, false);
        assertThat(Stray.of(logs(Arrays.stream(values).map(v -> v * 1000).toArray()), Optional.empty(), 0))
                .isEqualTo(marks);
        assertThat(Stray.of(Arrays.stream(logs(values)).map(m -> -m).toArray(), Optional.empty(), 0))
                .isEqualTo(marks);
    }

    @Test
    void ofThreeTheLentNoiseDecides() {
        double[] three = logs(100, 101, 110);
        assertThat(Stray.of(three, Optional.empty(), 0)).containsOnly(false);
        assertThat(Stray.of(three, Optional.of(new NoisePrior(10, 0.01 * 0.01)), 0))
                .containsExactly(false, false, true);
        assertThat(Stray.of(three, Optional.of(new NoisePrior(10, 0.03 * 0.03)), 0))
                .containsOnly(false);
        assertThat(Stray.of(logs(100, 200), Optional.of(new NoisePrior(10, 0.0001)), 0))
                .containsOnly(false);
    }

    @Test
    void roundingAloneMakesNothingStray() {
        double[] wholeSeconds = logs(12, 12, 12, 12, 13);
        assertThat(Stray.of(wholeSeconds, Optional.empty(), 0))
                .as("nothing is known of the step")
                .containsOnly(false);
        assertThat(Stray.of(wholeSeconds, Optional.empty(), 1.0 / 12 / 12 / 12))
                .as("one step of rounding")
                .containsExactly(false, false, false, false, false);
        assertThat(Stray.of(logs(12, 12, 12, 12, 19), Optional.empty(), 1.0 / 12 / 12 / 12))
                .containsExactly(false, false, false, false, true);
    }

    @Test
    void strayLeavesItsInputAsItWas() {
        double[] merits = logs(5, 3, 4, 9, 1);
        double[] before = merits.clone();
        Stray.of(merits, Optional.empty(), 0);
        assertThat(merits).isEqualTo(before);
    }

    @Test
    void aRateAtTheDisplaysIsHeld() {
        assertThat(HeldRate.of(59.94, OptionalDouble.of(0.2), OptionalDouble.of(60), List.of()))
                .contains(new HeldRate(60, 1));
        assertThat(HeldRate.of(72.3, OptionalDouble.of(0.2), OptionalDouble.of(144), List.of()))
                .contains(new HeldRate(72, 2));
        assertThat(HeldRate.of(40.1, OptionalDouble.empty(), OptionalDouble.of(120), List.of()))
                .contains(new HeldRate(40, 3));
        assertThat(HeldRate.of(59.94, OptionalDouble.of(1.4), OptionalDouble.of(60), List.of()))
                .as("it wanders")
                .isEmpty();
        assertThat(HeldRate.of(57, OptionalDouble.of(0.2), OptionalDouble.of(60), List.of()))
                .isEmpty();
        assertThat(HeldRate.of(60, OptionalDouble.of(0.2), OptionalDouble.of(90), List.of(60.0)))
                .as("the display could show more")
                .isEmpty();
        assertThat(HeldRate.of(Double.NaN, OptionalDouble.empty(), OptionalDouble.of(60), List.of()))
                .isEmpty();
    }

    @Test
    void withoutAKnownDisplayASecondConfigurationIsNeeded() {
        assertThat(HeldRate.of(59.9, OptionalDouble.of(0.2), OptionalDouble.empty(), List.of(60.0)))
                .contains(new HeldRate(60, 1));
        assertThat(HeldRate.of(59.9, OptionalDouble.of(0.2), OptionalDouble.empty(), List.of(58.0)))
                .isEmpty();
        assertThat(HeldRate.of(59.9, OptionalDouble.of(0.2), OptionalDouble.empty(), List.of()))
                .isEmpty();
        assertThat(HeldRate.of(52.0, OptionalDouble.of(0.2), OptionalDouble.empty(), List.of(52.0)))
                .as("no display's rate")
                .isEmpty();
    }

    @Test
    void amongManyRatesTheSortedSearchFindsWhatEachPairWouldFind() {
        java.util.Random random = new java.util.Random(7);
        double[] rates = random.doubles(400, 40, 130).toArray();
        rates[5] = rates[6];
        HeldRate.Rates all = new HeldRate.Rates(rates);
        for (int i = 0; i < rates.length; i++) {
            boolean byPairs = false;
            for (int j = 0; j < rates.length; j++) {
                byPairs |= i != j && Math.abs(rates[j] / rates[i] - 1) <= 0.002;
            }
            assertThat(all.shared(rates[i])).isEqualTo(byPairs);
        }
        assertThat(new HeldRate.Rates(new double[] {60}).shared(60)).isFalse();
    }

    @Test
    void firstRunsThatAreMostlyWorstAreWarmUps() {
        List<Double> rising = List.of(1.0, 1.2, 1.3);
        List<Double> level = List.of(1.3, 1.2, 1.3);
        assertThat(WarmUp.of(Collections.nCopies(6, rising)).applies()).isTrue();
        assertThat(WarmUp.of(Collections.nCopies(5, rising)).applies())
                .as("too few sessions")
                .isFalse();
        assertThat(WarmUp.of(List.of(rising, rising, rising, rising, rising, level)))
                .extracting(WarmUp::sessions, WarmUp::firstWorst, WarmUp::applies)
                .containsExactly(6, 5, true);
        assertThat(WarmUp.of(List.of(rising, rising, rising, rising, level, level))
                        .applies())
                .isFalse();
        assertThat(WarmUp.of(Collections.nCopies(9, List.of(1.0, 2.0))).applies())
                .as("two runs say nothing")
                .isFalse();
        assertThat(WarmUp.of(Collections.nCopies(6, List.of(1.0, 1.0, 1.0))).applies())
                .as("a tie is not worse")
                .isFalse();
    }

    @Test
    void lessThanAHundredStepsIsTooShort() {
        assertThat(TooShort.of(99, 1)).isTrue();
        assertThat(TooShort.of(100, 1)).isFalse();
        assertThat(TooShort.of(0.5, 0)).isFalse();
        assertThat(TooShort.of(1.5, 0.2)).isTrue();
    }

    @Test
    void unitsThatDifferClearlyAreUnlike() {
        List<Sample> units = List.of(one(more(100, 101, 99)), one(more(100.5, 99.5, 100)), one(more(88, 88.5, 87.8)));
        List<UnlikeUnits> found = UnlikeUnits.among(units, Noise.UNKNOWN, Materiality.USUAL);
        assertThat(found).extracting(UnlikeUnits::one, UnlikeUnits::other).containsExactly(tuple(0, 2), tuple(1, 2));
        assertThat(found.get(0).difference().ratio()).isLessThan(0.9);
        assertThat(UnlikeUnits.among(units.subList(0, 2), Noise.UNKNOWN, Materiality.USUAL))
                .isEmpty();
        assertThat(UnlikeUnits.among(List.of(), Noise.UNKNOWN, Materiality.USUAL))
                .isEmpty();
    }
}
