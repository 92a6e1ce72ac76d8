package yarrowmark.core.coverage;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

/** A small part of the table that bin/bench coverage prints, with bounds that leave room for the few worlds simulated here. */
class CoverageTest {
    private static final int WORLDS = 20;

    private static World.Setting setting(int runs, int sessions, int twice, double day, boolean alike) {
        return new World.Setting(20, 8, runs, sessions, twice, 0.01, day, alike, 0, World.Shape.NORMAL);
    }

    @Test
    void withinOneSessionIntervalsHoldForThatSession() {
        Coverage c = Coverage.of(setting(3, 1, 0, 0, false), WORLDS, 1);
        assertThat(c.pairs()).isBetween(0.92, 0.985);
        assertThat(c.falseClear()).isLessThan(0.07);
        assertThat(c.places()).isGreaterThan(0.94);
    }

    @Test
    void fourDevicesMeasuredTwiceTellTheDayForAll() {
        // A day that moves all tests alike makes the pairs of one world depend on each other, so few worlds vary
        // widely.
        Coverage c = Coverage.of(setting(3, 1, 4, 1, true), 3 * WORLDS, 2);
        assertThat(c.pairs()).isGreaterThan(0.92);
        assertThat(c.falseClear()).isLessThan(0.08);
        assertThat(c.overall()).isGreaterThan(0.87);
        assertThat(c.places()).isGreaterThan(0.93);
    }

    @Test
    void tenRunsOfADayAreNotSurerThanTheDay() {
        Coverage c = Coverage.of(setting(10, 2, 0, 1, false), WORLDS, 3);
        assertThat(c.pairs()).isBetween(0.92, 0.985);
        assertThat(c.falseClear()).isLessThan(0.07);
    }
}
