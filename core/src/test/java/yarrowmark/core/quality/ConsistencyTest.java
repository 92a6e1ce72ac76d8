package yarrowmark.core.quality;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.OptionalInt;
import java.util.OptionalLong;
import org.junit.jupiter.api.Test;

class ConsistencyTest {
    private static final double[] SAMPLES = {2980, 3000, 3021};

    private static List<String> of(double value, double[] samples, int durationMs, int timedMs) {
        return Consistency.contradictions(value, samples, durationMs, OptionalInt.of(timedMs), OptionalLong.empty());
    }

    @Test
    void whatHoldsTogetherIsNotDoubted() {
        assertThat(of(3000, SAMPLES, 4100, 3000)).isEmpty();
        assertThat(of(3021.4, SAMPLES, 3000, 3010))
                .as("rounding, and a clock's step")
                .isEmpty();
        assertThat(of(7, new double[0], 10, 5)).isEmpty();
        assertThat(of(7, new double[] {3}, 10, 5)).as("one sample is no range").isEmpty();
        assertThat(of(0.4, new double[] {0, 0, 0, 5}, 10, 5))
                .as("a drive so slow that most of its time shows nothing")
                .isEmpty();
    }

    @Test
    void aScoreOutsideOfItsSamplesIsDoubted() {
        assertThat(of(9e9, SAMPLES, 4100, 3000)).singleElement().asString().contains("9.000e+09", "2980", "3021");
        assertThat(of(1, SAMPLES, 4100, 3000)).hasSize(1);
    }

    @Test
    void moreTimeTimedThanThereWasIsDoubted() {
        assertThat(of(3000, SAMPLES, 1, 3000)).singleElement().asString().contains("3000 ms", "1 ms");
    }

    @Test
    void aClockThatIsFarSlowerThanTheServersIsDoubted() {
        assertThat(Consistency.contradictions(3000, SAMPLES, 3100, OptionalInt.empty(), OptionalLong.of(31_000)))
                .singleElement()
                .asString()
                .contains("3.1 s", "31.0 s");
        assertThat(Consistency.contradictions(3000, SAMPLES, 3100, OptionalInt.empty(), OptionalLong.of(9_000)))
                .as("a delivery that waited a little")
                .isEmpty();
        assertThat(Consistency.contradictions(3000, SAMPLES, 60_000, OptionalInt.empty(), OptionalLong.of(61_000)))
                .isEmpty();
    }
}
