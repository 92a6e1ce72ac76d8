package yarrowmark.core.standing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.junit.jupiter.api.Test;
import yarrowmark.core.measure.Direction;

class RatingTest {
    @Test
    void limitsAreIncludedOnBothSides() {
        RatingLimits noise = new RatingLimits(Direction.LESS_IS_BETTER, 30, 40);
        assertThat(List.of(noise.of(29), noise.of(30), noise.of(30.1), noise.of(39.9), noise.of(40), noise.of(60)))
                .containsExactly(Rating.GOOD, Rating.GOOD, Rating.AVERAGE, Rating.AVERAGE, Rating.POOR, Rating.POOR);
        RatingLimits rate = new RatingLimits(Direction.MORE_IS_BETTER, 60, 30);
        assertThat(List.of(rate.of(60), rate.of(59), rate.of(31), rate.of(30)))
                .containsExactly(Rating.GOOD, Rating.AVERAGE, Rating.AVERAGE, Rating.POOR);
    }

    @Test
    void turningADirectionRoundTurnsTheRatingRound() {
        for (double value = -10; value <= 10; value += 0.5) {
            Rating more = new RatingLimits(Direction.MORE_IS_BETTER, 4, -3).of(value);
            Rating less = new RatingLimits(Direction.LESS_IS_BETTER, -4, 3).of(-value);
            assertThat(less).as("%s", value).isEqualTo(more);
        }
    }

    @Test
    void limitsThatLeaveNothingBetweenThemOrAreNoNumbersAreRefused() {
        assertThatThrownBy(() -> new RatingLimits(Direction.MORE_IS_BETTER, 30, 30))
                .hasMessageContaining("good begins above poor");
        assertThatThrownBy(() -> new RatingLimits(Direction.LESS_IS_BETTER, 40, 30))
                .hasMessageContaining("good begins below poor");
        assertThatThrownBy(() -> new RatingLimits(Direction.MORE_IS_BETTER, Double.NaN, 30))
                .hasMessageContaining("number");
        assertThatThrownBy(() -> new RatingLimits(Direction.MORE_IS_BETTER, 3, Double.NEGATIVE_INFINITY))
                .hasMessageContaining("number");
    }

    @Test
    void noTestIsAmongTheBestAndTheWorst() {
        Extremes found = Extremes.of(new double[] {0.2, Double.NaN, 0.9, 0.5, 1, 0, 0.9}, 2);
        assertThat(found.best()).as("equal ones keep their order").containsExactly(4, 2);
        assertThat(found.worst()).containsExactly(5, 0);
        assertThat(Extremes.of(new double[] {0.5, 0.5}, 5)).isEqualTo(new Extremes(List.of(), List.of()));
        assertThat(Extremes.of(new double[0], 5)).isEqualTo(new Extremes(List.of(), List.of()));
    }
}
