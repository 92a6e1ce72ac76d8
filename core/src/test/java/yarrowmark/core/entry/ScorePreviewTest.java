package yarrowmark.core.entry;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import org.junit.jupiter.api.Test;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Merit;
import yarrowmark.core.measure.Scale;

class ScorePreviewTest {
    private static double[] merits(Direction direction, double... values) {
        return Arrays.stream(values).map(v -> Merit.of(v, direction)).toArray();
    }

    private static ScorePreview time(double seconds, double[] others, double... models) {
        return ScorePreview.of(
                seconds, "s", Direction.LESS_IS_BETTER, Scale.RATIO, others, merits(Direction.LESS_IS_BETTER, models));
    }

    @Test
    void aValueIsHeldAgainstTheOtherRunsAndOtherConfigurations() {
        ScorePreview look = time(50, new double[] {40, 60, 50}, 30, 45, 70);
        assertThat(look.perOthers().getAsDouble()).isCloseTo(1, within(1e-12));
        assertThat(look.place()).as("two are faster").hasValue(3);
        assertThat(look.of()).isEqualTo(4);
        assertThat(look.doubts()).isEmpty();
    }

    @Test
    void moreIsBetterTurnsThePlaceRound() {
        assertThat(ScorePreview.of(
                                50,
                                "MB/s",
                                Direction.MORE_IS_BETTER,
                                Scale.RATIO,
                                new double[0],
                                merits(Direction.MORE_IS_BETTER, 30, 45, 70))
                        .place())
                .hasValue(2);
        assertThat(ScorePreview.of(
                        21, "°C", Direction.LESS_IS_BETTER, Scale.DIFFERENCE, new double[] {20}, new double[] {-18, -25
                        }))
                .isEqualTo(new ScorePreview(
                        java.util.OptionalDouble.empty(), java.util.OptionalInt.of(2), 3, java.util.List.of()));
    }

    @Test
    void withoutRunsOfItsOwnOnlyWhatLiesBeyondAllOthersIsDoubted() {
        assertThat(time(62, new double[0], 30, 45, 70).doubts()).isEmpty();
        assertThat(time(139, new double[0], 30, 45, 70).doubts())
                .as("not twice the slowest")
                .isEmpty();
        assertThat(time(450, new double[0], 30, 45, 70).doubts())
                .extracting(LikelySlip::kind)
                .contains(LikelySlip.Kind.DECIMAL_POINT);
        assertThat(time(450, new double[0], 30, 45).doubts())
                .as("two models say too little")
                .isEmpty();
        assertThat(time(450, new double[] {45}, 30, 45).doubts()).isNotEmpty();
    }

    @Test
    void nothingIsSaidWithoutAnythingToHoldItAgainst() {
        ScorePreview alone = time(50, new double[0]);
        assertThat(alone.place()).isEmpty();
        assertThat(alone.of()).isZero();
        assertThat(alone.perOthers()).isEmpty();
        assertThat(time(0, new double[] {5}, 5, 6, 7).place()).as("no score").isEmpty();
    }

    @Test
    void theUnitOfTheValuesDoesNotMatter() {
        ScorePreview seconds = time(50, new double[] {40}, 30, 45, 70);
        ScorePreview scaled = time(50_000, new double[] {40_000}, 30_000, 45_000, 70_000);
        assertThat(scaled.place()).isEqualTo(seconds.place());
        assertThat(scaled.perOthers().getAsDouble())
                .isCloseTo(seconds.perOthers().getAsDouble(), within(1e-12));
    }
}
