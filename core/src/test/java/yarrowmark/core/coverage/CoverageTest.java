package yarrowmark.core.coverage;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import yarrowmark.core.compare.Materiality;

/** A small part of the table that bin/bench coverage prints, with bounds that leave room for the few worlds simulated here. */
class CoverageTest {
    private static final int WORLDS = 20;
    private static final double TEN_PERCENT = Math.log(1.1);

    private static World.Setting setting(int runs, int sessions, int twice, double day, boolean alike) {
        return new World.Setting(20, 8, runs, sessions, twice, 0.01, day, alike, 0, 0, 0, World.Shape.NORMAL);
    }

    @Test
    void nobodyMeasuredTwiceAndStillTenPercentIsFoundAndDaysAreCovered() {
        Coverage equal = Coverage.of(setting(3, 1, 0, 1, false), WORLDS, 1);
        assertThat(equal.pairs().share()).isGreaterThan(0.93);
        assertThat(equal.told().share()).isLessThan(0.07);
        assertThat(equal.places().share()).isGreaterThan(0.94);
        Coverage ten = Coverage.of(setting(3, 1, 0, 1, false).withEffect(TEN_PERCENT), WORLDS, 2);
        assertThat(ten.told().share()).isGreaterThan(0.9);
        assertThat(ten.better().share()).isGreaterThan(0.95);
    }

    @Test
    void fourDevicesMeasuredTwiceTellTheDayForAll() {
        // A day that moves all tests alike makes the pairs of one world depend on each other, so few worlds vary
        // widely.
        Coverage c = Coverage.of(setting(3, 1, 4, 1, true), 3 * WORLDS, 2);
        assertThat(c.pairs().share()).isGreaterThan(0.9);
        assertThat(c.told().share()).isLessThan(0.1);
        assertThat(c.overall().share()).isGreaterThan(0.87);
        assertThat(c.places().share()).isGreaterThan(0.93);
    }

    @Test
    void tenRunsOfADayAreNotSurerThanTheDay() {
        Coverage c = Coverage.of(setting(10, 2, 0, 1, false), WORLDS, 3);
        assertThat(c.pairs().share()).isBetween(0.92, 0.985);
        assertThat(c.told().share()).isLessThan(0.07);
    }

    /** One session that went wrong by a fifth must not take the answer from everybody else. */
    @Test
    void oneOddSessionLeavesTenPercentToBeFoundElsewhere() {
        World.Setting odd = new World.Setting(20, 8, 3, 1, 4, 0.01, 1, false, 0, TEN_PERCENT, 0.2, World.Shape.NORMAL);
        Coverage c = Coverage.of(odd, WORLDS, 4);
        assertThat(c.pairs().share()).isGreaterThan(0.93);
        assertThat(c.told().share()).isGreaterThan(0.6);
        assertThat(c.better().share()).isGreaterThan(0.9);
    }

    /** A usual spread that is only roughly that of the test, one run each: "probably" is seldom said of equal ones. */
    @Test
    void singleRunsOnAUsualSpreadFindTenPercentAndSeldomMore() {
        World.Setting single = new World.Setting(20, 5, 1, 1, 0, 0.01, 1, false, 0, 0, 0, World.Shape.SCATTERED);
        assertThat(Coverage.of(single, WORLDS, 5).told().share()).isLessThan(0.07);
        assertThat(Coverage.of(single.withEffect(TEN_PERCENT), WORLDS, 6).told().share())
                .isGreaterThan(0.85);
    }

    @Test
    void trendsAlongWhichNothingChangesAreSeldomMarked() {
        World.Setting flat = new World.Setting(20, 8, 3, 1, 0, 0.01, 1, false, 0, 0, 0, World.Shape.NORMAL);
        FlatTrends found = FlatTrends.of(flat, 10, new Materiality(0.03), 60, 7);
        assertThat(found.any()).isLessThanOrEqualTo(9);
    }
}
