package yarrowmark.core.compare;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yarrowmark.core.ExampleSamples;
import yarrowmark.core.stats.SampleMoments;

/** The table of the method's section 3 at its very edges. All numbers are powers of two, so that sums are exact. */
class VerdictTest {
    @ParameterizedTest
    @CsvSource({
        // The interval excludes 0 and δ is at L.
        "0.5, 0.25, 0.5, CLEAR_GAIN",
        "-0.5, 0.25, 0.5, CLEAR_LOSS",
        "0.375, 0.25, 0.5, SMALL_GAIN",
        "-0.375, 0.25, 0.5, SMALL_LOSS",
        // The interval ends at 0: it does not exclude it.
        "0.5, 0.5, 0.5, CANNOT_TELL",
        "-0.5, 0.5, 0.5, CANNOT_TELL",
        // The interval ends at L or −L: it does not lie inside.
        "0.25, 0.25, 0.5, CANNOT_TELL",
        "-0.25, 0.25, 0.5, CANNOT_TELL",
        "0.125, 0.25, 0.5, LEVEL",
        "-0.125, 0.25, 0.5, LEVEL",
        "0, 0.25, 0.5, LEVEL",
        "0, 0.5, 0.5, CANNOT_TELL",
        // Small and surely so, and inside (−L, L): level comes before small.
        "0.125, 0.0625, 0.5, LEVEL",
        "0.25, 0.125, 0.25, CLEAR_GAIN"
    })
    void everyEdgeOfTheTable(double delta, double half, double limit, Verdict expected) {
        assertThat(Verdict.of(delta, half, limit)).isEqualTo(expected);
        assertThat(Verdict.of(-delta, half, limit)).isEqualTo(expected.swapped());
    }

    @Test
    void onASpreadThatNobodyMeasuredNothingIsClear() {
        assertThat(Arrays.stream(Verdict.values())
                        .map(v -> v.ifUnmeasured(true))
                        .distinct())
                .containsExactlyInAnyOrder(
                        Verdict.PROBABLY_GAIN, Verdict.PROBABLY_LOSS, Verdict.PROBABLY_LEVEL, Verdict.CANNOT_TELL);
        for (Verdict v : Verdict.values()) {
            assertThat(v.ifUnmeasured(false)).isEqualTo(v);
            assertThat(v.swapped().swapped()).isEqualTo(v);
            assertThat(v.ifUnmeasured(true).swapped()).isEqualTo(v.swapped().ifUnmeasured(true));
        }
    }

    @Test
    void eachHasWordsOfItsOwn() {
        assertThat(Arrays.stream(Verdict.values()).map(Verdict::words).distinct())
                .hasSize(Verdict.values().length)
                .contains("clear gain", "too close to call", "probably a gain")
                .noneMatch(String::isBlank);
    }

    @Test
    void aDifferenceKnowsItsNoiseFromBothSides() {
        SampleMoments quiet = ExampleSamples.degrees(40, 40.1, 39.9, 40);
        SampleMoments noisy = ExampleSamples.degrees(44, 46, 42);
        DifferenceComparison there = ExampleSamples.apart(noisy, quiet);
        DifferenceComparison back = ExampleSamples.apart(quiet, noisy);
        // By hand: −4 less 4.29238 (t at 2.005001 degrees of freedom) times √(4/3 + 0.02/12).
        assertThat(there.interval().orElseThrow().low())
                .isCloseTo(-8.9595157, org.assertj.core.api.Assertions.within(1e-6));
        assertThat(back.interval().orElseThrow().high())
                .isCloseTo(-there.interval().orElseThrow().low(), org.assertj.core.api.Assertions.within(1e-12));
        assertThat(there.reading()).isEqualTo(DifferenceComparison.Reading.CANNOT_TELL);
        assertThat(ExampleSamples.apart(ExampleSamples.degrees(50, 50), ExampleSamples.degrees(40, 40))
                        .interval()
                        .orElseThrow()
                        .low())
                .as("no noise at all")
                .isEqualTo(-10);
        assertThat(ExampleSamples.apart(ExampleSamples.degrees(40, 40), ExampleSamples.degrees(40, 40))
                        .reading())
                .isEqualTo(DifferenceComparison.Reading.CANNOT_TELL);
    }
}
