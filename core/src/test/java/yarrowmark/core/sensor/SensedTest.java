package yarrowmark.core.sensor;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class SensedTest {
    private static final double NEAR = 1e-9;

    private static SensorTrack track(String kind, double... values) {
        return new SensorTrack(kind, 500, values);
    }

    @Test
    void nothingIsMadeOfNoSensors() {
        Sensed none = Sensed.of(List.of());
        assertThat(none.highestTemperature()).isEmpty();
        assertThat(none.meanClock()).isEmpty();
        assertThat(none.energy()).isEmpty();
        assertThat(none.heldBack()).isZero();
        assertThat(none.clockKept()).isEmpty();
    }

    @Test
    void theHottestSensorSpeaksAtEachMoment() {
        Sensed s = Sensed.of(
                List.of(track(SensorTrack.TEMPERATURE, 50, 60, 70), track(SensorTrack.TEMPERATURE, 55, 58, 71)));
        assertThat(s.highestTemperature()).hasValue(71);
        assertThat(s.meanTemperature()).hasValue((55 + 60 + 71) / 3.0);
    }

    @Test
    void energyIsPowerOverTime() {
        // Two packages with 10 and 5 W for 2 s.
        Sensed s = Sensed.of(List.of(
                track(SensorTrack.POWER, 8, 12, 10, 10),
                track(SensorTrack.POWER, 5, 5, 5, 5),
                track(SensorTrack.DISCHARGE, 30, 30, 30, 30)));
        assertThat(s.meanPower()).hasValue(15);
        assertThat(s.energy().orElseThrow()).isCloseTo(30, within(NEAR));
    }

    @Test
    void aBatterySpeaksOnlyWhereTheProcessorDoesNot() {
        Sensed s = Sensed.of(List.of(track(SensorTrack.DISCHARGE, 30, 20)));
        assertThat(s.meanPower()).hasValue(25);
        assertThat(s.energy()).hasValue(25);
    }

    @Test
    void theClockIsTheMeanOfAllCores() {
        Sensed s = Sensed.of(List.of(track(SensorTrack.CLOCK, 3e9, 2e9), track(SensorTrack.CLOCK, 1e9, 2e9)));
        assertThat(s.meanClock()).hasValue(2e9);
    }

    @Test
    void aSensorThatFallsSilentEndsTheOthers() {
        Sensed s = Sensed.of(List.of(track(SensorTrack.POWER, 10, 10, 10, 10), track(SensorTrack.POWER, 5, 5)));
        assertThat(s.meanPower()).hasValue(15);
        assertThat(s.energy()).hasValue(15);
    }

    @Test
    void aClockThatFallsForGoodIsSaid() {
        double[] falling = IntStream.range(0, 48)
                .mapToDouble(i -> 3e9 - i * 2e7 + (i % 2) * 1e6)
                .toArray();
        // Parts of four: the first has the mean of i = 0 to 3, the last quarter that of i = 36 to 47.
        double best = 3e9 - 1.5 * 2e7 + 0.5e6;
        double last = 3e9 - 41.5 * 2e7 + 0.5e6;
        assertThat(Sensed.of(List.of(track(SensorTrack.CLOCK, falling)))
                        .clockKept()
                        .orElseThrow())
                .isCloseTo(last / best, within(NEAR));
    }

    @Test
    void aClockThatOnlyJumpsOrIsShortIsNot() {
        double[] jumping =
                IntStream.range(0, 48).mapToDouble(i -> i % 3 == 0 ? 1e9 : 3e9).toArray();
        assertThat(Sensed.of(List.of(track(SensorTrack.CLOCK, jumping))).clockKept())
                .isEmpty();
        assertThat(Sensed.of(List.of(track(SensorTrack.CLOCK, 3e9, 2e9, 1e9))).clockKept())
                .isEmpty();
        double[] slightly =
                IntStream.range(0, 48).mapToDouble(i -> 3e9 - i * 1e6).toArray();
        assertThat(Sensed.of(List.of(track(SensorTrack.CLOCK, slightly))).clockKept())
                .isEmpty();
    }

    @Test
    void timesHeldBackAreCounted() {
        assertThat(Sensed.of(List.of(track(SensorTrack.THROTTLE, 0, 3, 2), track(SensorTrack.THROTTLE, 1, 0, 0)))
                        .heldBack())
                .isEqualTo(6);
    }

    @Test
    void whatIsNoTrackIsRefused() {
        assertThatThrownBy(() -> track(SensorTrack.CLOCK)).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> track(SensorTrack.CLOCK, Double.NaN)).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> new SensorTrack(SensorTrack.CLOCK, 0, new double[] {1}))
                .isInstanceOf(IllegalArgumentException.class);
    }
}
