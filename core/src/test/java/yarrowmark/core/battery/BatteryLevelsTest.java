package yarrowmark.core.battery;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import yarrowmark.core.battery.BatteryLevels.Point;

/** A battery that falls, jumps, charges, lies. */
class BatteryLevelsTest {
    /** Looked at each minute; the level is told in whole per cents, rounded down as systems do. */
    private static List<Point> eachMinute(double from, double perHour, int minutes) {
        List<Point> points = new ArrayList<>();
        for (int m = 0; m <= minutes; m++) {
            double level = Math.min(100, Math.floor(from + perHour * m / 60));
            if (level > 0) {
                points.add(new Point(m, level));
            }
        }
        return points;
    }

    @Test
    void rateIsTakenBetweenTwoStepsSoThatWhereInAStepItBeganDoesNotMatter() {
        for (double from : new double[] {99.01, 99.3, 99.6, 99.99}) {
            BatteryLevels found = BatteryLevels.runningDown(eachMinute(from, -7.3, 120));
            assertThat(found.perHour()).as("from " + from).isCloseTo(7.3, within(found.resolution() + 0.02));
            assertThat(found.resolution()).isLessThan(0.1);
            assertThat(found.odd()).isEmpty();
        }
    }

    @Test
    void expectedValuesOfASmallOne() {
        // 90 to 80 % between the steps at 6 and 66 min.
        BatteryLevels found = BatteryLevels.runningDown(
                List.of(new Point(0, 91), new Point(6, 90), new Point(36, 85), new Point(66, 80), new Point(70, 80)));
        assertThat(found.perHour()).isCloseTo(10, within(1e-12));
        // Looks are 18 min apart in the middle: 10 × 18 / 60.
        assertThat(found.resolution()).isCloseTo(3, within(1e-12));
        assertThat(found.hoursTo20()).isEmpty();
    }

    @Test
    void oneStepAloneIsAsCoarseAsItIs() {
        BatteryLevels found =
                BatteryLevels.runningDown(List.of(new Point(0, 50), new Point(15, 50), new Point(30, 49)));
        assertThat(found.perHour()).isCloseTo(2, within(1e-12));
        assertThat(found.resolution()).isCloseTo(2, within(1e-12));
    }

    @Test
    void hoursAreToldFromFullOnly() {
        BatteryLevels full = BatteryLevels.runningDown(eachMinute(100, -10, 600));
        assertThat(full.hoursTo20().orElseThrow()).isCloseTo(8, within(0.1));
        assertThat(full.hoursToEnd().orElseThrow()).isCloseTo(9.9, within(0.1));
        BatteryLevels part = BatteryLevels.runningDown(eachMinute(98, -10, 580));
        assertThat(part.hoursTo20()).isEmpty();
        assertThat(part.hoursToEnd()).isEmpty();
        BatteryLevels stopped = BatteryLevels.runningDown(eachMinute(100, -10, 120));
        assertThat(stopped.hoursTo20()).isEmpty();
        assertThat(stopped.hoursToEnd()).isEmpty();
        assertThat(stopped.perHour()).isCloseTo(10, within(0.2));
        // It was typed at 25 and at 15 %: on the line between.
        BatteryLevels typed =
                BatteryLevels.runningDown(List.of(new Point(0, 100), new Point(450, 25), new Point(510, 15)));
        assertThat(typed.hoursTo20().orElseThrow()).isCloseTo(8, within(1e-12));
    }

    @Test
    void timesOfChargingNeedBothEnds() {
        BatteryLevels whole = BatteryLevels.charging(eachMinute(10, 60, 95));
        assertThat(whole.perHour()).isCloseTo(60, within(0.01));
        assertThat(whole.minutesFrom20To80().orElseThrow()).isCloseTo(60, within(1e-9));
        assertThat(whole.minutesFrom20ToFull().orElseThrow()).isCloseTo(79.5, within(1e-9));
        assertThat(whole.hoursTo20()).isEmpty();
        assertThat(BatteryLevels.charging(eachMinute(21, 60, 80)).minutesFrom20To80())
                .isEmpty();
        assertThat(BatteryLevels.charging(eachMinute(10, 60, 60)).minutesFrom20To80())
                .isEmpty();
    }

    @Test
    void whatNoBatteryDoesByItselfIsSaid() {
        List<Point> charged = new ArrayList<>(eachMinute(80, -6, 30));
        charged.add(new Point(31, 84));
        charged.add(new Point(32, 84));
        charged.add(new Point(70, 70));
        assertThat(BatteryLevels.runningDown(charged).odd())
                .containsExactly(
                        "The level rose from 77 to 84 % after 31 min.", "Nothing is known of 38 min from 32 min on.");
        assertThat(BatteryLevels.runningDown(
                                List.of(new Point(0, 60), new Point(1, 60), new Point(2, 41), new Point(3, 40)))
                        .odd())
                .containsExactly("The level jumped from 60 to 41 % after 2 min.");
        // A sensor's unrest is none.
        assertThat(BatteryLevels.runningDown(
                                List.of(new Point(0, 60), new Point(1, 59), new Point(2, 60), new Point(3, 58)))
                        .odd())
                .isEmpty();
        assertThat(BatteryLevels.charging(List.of(new Point(0, 50), new Point(1, 52), new Point(2, 48)))
                        .odd())
                .containsExactly("The level fell from 52 to 48 % after 2 min.");
    }

    @Test
    void aStretchedTimeDividesTheRateAndTypedLooksFarApartAreNoGaps() {
        List<Point> points = eachMinute(99, -9, 90);
        List<Point> slow =
                points.stream().map(p -> new Point(2 * p.minutes(), p.level())).toList();
        assertThat(BatteryLevels.runningDown(slow).perHour())
                .isCloseTo(BatteryLevels.runningDown(points).perHour() / 2, within(1e-9));
        assertThat(BatteryLevels.runningDown(
                                List.of(new Point(0, 100), new Point(15, 97), new Point(32, 94), new Point(44, 92)))
                        .odd())
                .isEmpty();
    }

    @Test
    void whatSaysNothingIsRefusedInWords() {
        assertThatThrownBy(() -> BatteryLevels.runningDown(List.of(new Point(0, 80))))
                .hasMessageContaining("two times");
        assertThatThrownBy(() -> BatteryLevels.runningDown(List.of(new Point(0, 80), new Point(60, 80))))
                .hasMessageContaining("did not fall");
        assertThatThrownBy(() -> BatteryLevels.charging(List.of(new Point(0, 80), new Point(60, 79))))
                .hasMessageContaining("charger");
        for (Point odd : List.of(
                new Point(1, 0), new Point(1, 101), new Point(1, Double.NaN), new Point(0, 79), new Point(-1, 79))) {
            assertThatThrownBy(() -> BatteryLevels.runningDown(List.of(new Point(0, 80), odd)))
                    .isInstanceOf(IllegalArgumentException.class);
        }
    }
}
