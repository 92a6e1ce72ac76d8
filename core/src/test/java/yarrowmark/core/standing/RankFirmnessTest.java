package yarrowmark.core.standing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import org.junit.jupiter.api.Test;

class RankFirmnessTest {
    private static MeritGrid grid(double[][] merits) {
        MeritGrid.Builder builder = MeritGrid.builder(merits.length, merits[0].length);
        for (int i = 0; i < merits.length; i++) {
            for (int j = 0; j < merits[i].length; j++) {
                if (!Double.isNaN(merits[i][j])) {
                    builder.cell(i, j, merits[i][j], 1e-6);
                }
            }
        }
        return builder.build();
    }

    @Test
    void whoIsBestInEveryPartComesFirstWhateverTheWeights() {
        RankFirmness firmness = RankFirmness.of(
                grid(new double[][] {{1, 1, 1}, {2, 2, 2}, {0, 1, 0}}),
                new double[] {1, 1, 1},
                new int[] {0, 1, 2},
                Reference.row(0));
        assertThat(firmness.shares()).containsExactly(new double[] {0, 1, 0}, within(1e-12));
        assertThat(firmness.weightings()).isEqualTo(1_000);
    }

    /** Each of two is better by as much in one of two parts of the same weight: the Dirichlet distribution is symmetric. */
    @Test
    void twoThatAreEachBetterInOneOfTwoPartsShareTheTop() {
        RankFirmness firmness = RankFirmness.of(
                grid(new double[][] {{1, 0}, {0, 1}}), new double[] {1, 1}, new int[] {0, 1}, Reference.row(0));
        // 1,000 draws have a standard error of 1.6 %.
        assertThat(firmness.shares()[0]).isCloseTo(0.5, within(0.06));
        assertThat(Arrays.stream(firmness.shares()).sum()).isCloseTo(1, within(1e-9));
    }

    /**
     * The first is better by 1 in a part of weight 0.25, worse by 0.5 in the other: it is first where its share is over 1/3.
     * 1 - pbeta(1/3, 5, 15) = 0.1879366 (R 4.2.2); three standard errors of 1,000 draws are 0.037.
     */
    @Test
    void sharesAreThoseOfTheBetaDistribution() {
        RankFirmness firmness = RankFirmness.of(
                grid(new double[][] {{1, 0}, {0, 0.5}}), new double[] {0.25, 0.75}, new int[] {0, 1}, Reference.row(0));
        assertThat(firmness.shares()[0]).isCloseTo(0.1879366, within(0.037));
    }

    @Test
    void provisionalOnesCannotComeFirstAndOnePartLeavesNothingToDraw() {
        MeritGrid grid = grid(new double[][] {{1, 1, 1}, {9, Double.NaN, Double.NaN}, {0, 0, 0}});
        assertThat(RankFirmness.of(grid, new double[] {1, 1, 1}, new int[] {0, 1, 2}, Reference.row(0))
                        .shares()[1])
                .isZero();
        assertThat(RankFirmness.of(grid, new double[] {1, 1, 1}, new int[] {0, 0, 0}, Reference.row(0))
                        .weightings())
                .isEqualTo(1);
    }

    @Test
    void theSameQuestionHasTheSameAnswer() {
        MeritGrid grid = grid(new double[][] {{1, 0.2, 0.4}, {0.3, 0.9, 0.1}, {0.2, 0.5, 0.8}});
        double[] first = RankFirmness.of(grid, new double[] {1, 1, 1}, new int[] {0, 1, 2}, Reference.typical())
                .shares();
        assertThat(RankFirmness.of(grid, new double[] {1, 1, 1}, new int[] {0, 1, 2}, Reference.row(2))
                        .shares())
                .containsExactly(first);
    }
}
