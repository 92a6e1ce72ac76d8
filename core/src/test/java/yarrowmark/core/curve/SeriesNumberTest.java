package yarrowmark.core.curve;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Kind;

class SeriesNumberTest {
    @Test
    void aSeriesHasTheNumbersOfItsKindAndTheFirstStandsForIt() {
        assertThat(SeriesNumber.of(Kind.CURVE))
                .containsExactly(SeriesNumber.PEAK, SeriesNumber.NEAR_PEAK_FROM, SeriesNumber.DENTS);
        assertThat(SeriesNumber.of(Kind.FRAME_TIMES)).hasSize(4).startsWith(SeriesNumber.MEAN_RATE);
        assertThat(SeriesNumber.of(Kind.NUMBER)).isEmpty();
    }

    @Test
    void whatCountsThingsMayBeNoneAndEachHasWordsAndADirection() {
        assertThat(Arrays.stream(SeriesNumber.values()).filter(SeriesNumber::counts))
                .containsExactly(SeriesNumber.DENTS, SeriesNumber.STUTTERS);
        assertThat(Arrays.stream(SeriesNumber.values()).map(SeriesNumber::words).distinct())
                .hasSize(7)
                .noneMatch(String::isBlank);
        assertThat(SeriesNumber.STUTTERS.direction()).isEqualTo(Direction.LESS_IS_BETTER);
        assertThat(SeriesNumber.PEAK.direction()).isEqualTo(Direction.MORE_IS_BETTER);
    }

    @Test
    void theNumbersAreThoseOfTheSeries() {
        Curve curve = new Curve(List.of(new Curve.Point(1, 10), new Curve.Point(2, 19), new Curve.Point(4, 20)));
        assertThat(SeriesNumber.ofCurve(curve))
                .containsEntry(SeriesNumber.PEAK, 20.0)
                .containsEntry(SeriesNumber.NEAR_PEAK_FROM, 2.0)
                .containsKey(SeriesNumber.DENTS);
        assertThat(SeriesNumber.ofFrames(FrameTimes.of(new double[] {10, 10, 10, 10})))
                .containsEntry(SeriesNumber.MEAN_RATE, 100.0)
                .containsEntry(SeriesNumber.STUTTERS, 0.0)
                .hasSize(4);
    }

    /** The longest frames are found wherever they are, and the limit of a stutter is outside of it. */
    @Test
    void theOrderOfFramesChangesNoNumber() {
        double[] rising = new double[200];
        Arrays.fill(rising, 10);
        rising[198] = 25;
        rising[199] = 50;
        double[] falling = rising.clone();
        falling[0] = 50;
        falling[1] = 25;
        falling[198] = 10;
        falling[199] = 10;
        FrameTimes expected = FrameTimes.of(rising);
        assertThat(expected.stutters())
                .as("25 ms is 2.5 times the median and not more")
                .isEqualTo(1);
        assertThat(expected.lowMean()).isCloseTo(1000 / 37.5, within(1e-12));
        assertThat(FrameTimes.of(falling)).isEqualTo(expected);
        assertThatThrownBy(() -> FrameTimes.between(new double[] {1, 2, 2})).hasMessageContaining("timestamp 3");
        assertThatThrownBy(() -> FrameTimes.of(new double[] {1, 0})).isInstanceOf(IllegalArgumentException.class);
    }
}
