package yarrowmark.core.standing;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class CommonUseTest {
    private static final CommonUse.Weighing ALIKE = columns -> {
        double[] weights = new double[columns.length];
        Arrays.fill(weights, 1);
        return weights;
    };

    /** @param has one text a row, "x" where it has the test */
    private static MeritGrid grid(String... has) {
        MeritGrid.Builder builder = MeritGrid.builder(has.length, has[0].length());
        for (int r = 0; r < has.length; r++) {
            for (int j = 0; j < has[r].length(); j++) {
                if (has[r].charAt(j) == 'x') {
                    builder.cell(r, j, r + j, 1e-4);
                }
            }
        }
        return builder.build();
    }

    @Test
    void whereEveryTestIsCommonNothingIsLeftOut() {
        assertThat(CommonUse.of(grid("xxx", "xxx", "xx."), ALIKE)).containsExactly(0, 1, 2);
    }

    /** Six devices with two tests in common and one each of their own eight: over everything, nobody has half. */
    @Test
    void aMixedShelfIsPlacedOverWhatMostHave() {
        String[] rows = new String[6];
        for (int r = 0; r < rows.length; r++) {
            char[] own = "xx........".toCharArray();
            own[2 + r] = 'x';
            rows[r] = new String(own);
        }
        MeritGrid grid = grid(rows);
        assertThat(CommonUse.placed(grid, IntStream.range(0, 10).toArray(), ALIKE))
                .isZero();
        assertThat(CommonUse.of(grid, ALIKE)).containsExactly(0, 1);
        assertThat(CommonUse.placed(grid, new int[] {0, 1}, ALIKE)).isEqualTo(6);
    }

    @Test
    void ofTwoSetsThatPlaceAsManyTheLargerIsTaken() {
        // The third test is run by two of six only, exactly a third, and nobody loses a place by it.
        assertThat(CommonUse.of(grid("xxx", "xxx", "xx.", "xx.", "xx.", "xx."), ALIKE))
                .containsExactly(0, 1, 2);
    }

    @Test
    void aTestThatFewerThanAThirdHaveIsNotCommon() {
        assertThat(CommonUse.of(grid("xxx", "xx.", "xx.", "xx."), ALIKE)).containsExactly(0, 1);
    }

    @Test
    void whereNothingIsCommonEverythingStays() {
        assertThat(CommonUse.of(grid("x...", ".x..", "..x.", "...x"), ALIKE)).containsExactly(0, 1, 2, 3);
        assertThat(CommonUse.placed(grid("x...", ".x.."), new int[] {2, 3}, ALIKE))
                .isZero();
        assertThat(CommonUse.placed(grid("xx"), new int[] {0, 1}, columns -> new double[0]))
                .isZero();
    }
}
