package yarrowmark.core.standing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import yarrowmark.core.compare.Materiality;
import yarrowmark.core.compare.Verdict;

/** What is made of a grid before it is ranked, and a step from one generation to the next. */
class GridPartsTest {
    private static final double[][] MERITS = {{1, 2, 3}, {4, Double.NaN, 6}, {Double.NaN, 8, 9}};

    private static MeritGrid grid() {
        MeritGrid.Builder builder = MeritGrid.builder(3, 3);
        for (int row = 0; row < 3; row++) {
            for (int column = 0; column < 3; column++) {
                if (!Double.isNaN(MERITS[row][column])) {
                    builder.cell(row, column, MERITS[row][column], 0.01 * (row + 1));
                }
            }
        }
        return builder.build();
    }

    private static double[][] table(MeritGrid grid) {
        double[][] table = new double[grid.rows()][grid.columns()];
        for (int row = 0; row < grid.rows(); row++) {
            java.util.Arrays.fill(table[row], Double.NaN);
            for (int cell = grid.start(row); cell < grid.end(row); cell++) {
                table[row][grid.column(cell)] = grid.merit(cell);
                assertThat(grid.variance(cell)).isEqualTo(0.01 * (row + 1));
            }
        }
        return table;
    }

    @Test
    void someColumnsInAnotherOrderKeepTheirCells() {
        MeritGrid some = grid().columns(2, 0);
        assertThat(some.columns()).isEqualTo(2);
        assertThat(some.cells()).isEqualTo(5);
        assertThat(java.util.Arrays.deepToString(table(some))).isEqualTo("[[3.0, 1.0], [6.0, 4.0], [9.0, NaN]]");
        assertThat(grid().cells()).isEqualTo(7);
        assertThat(grid().columns(1).cells()).isEqualTo(2);
    }

    @Test
    void perAQuantityItsLogarithmIsTakenOffAndWhatIsUnknownIsGone() {
        double two = Math.log(2);
        MeritGrid per = grid().per(new double[] {2, Double.NaN, 1});
        assertThat(per.cells()).isEqualTo(5);
        double[][] table = table(per);
        assertThat(table[0]).containsExactly(new double[] {1 - two, 2 - two, 3 - two}, within(1e-15));
        assertThat(table[1]).containsOnly(Double.NaN);
        assertThat(table[2][1]).isEqualTo(8);
        assertThatThrownBy(() -> grid().per(new double[] {1, 2})).hasMessageContaining("2 for 3");
    }

    /** The levels for a rail are those of the whole standing. */
    @Test
    void levelsAreThoseOfTheStanding() {
        double[] weights = {1, 2, 3};
        double[][] levels = Ranking.levels(grid(), weights, Reference.row(0));
        Standing standing = Ranking.of(grid(), weights, 0);
        for (Standing.Entry entry : standing.entries()) {
            assertThat(levels[0][entry.row()]).isCloseTo(entry.merit().orElseThrow(), within(1e-12));
            assertThat(levels[1][entry.row()]).isCloseTo(entry.standardError().orElseThrow(), within(1e-12));
        }
        MeritGrid islands =
                MeritGrid.builder(2, 2).cell(0, 0, 1, 0.01).cell(1, 1, 1, 0.01).build();
        assertThat(Ranking.levels(islands, new double[] {1, 1}, Reference.row(0))[1][1])
                .as("no chain of tests leads there")
                .isNaN();
    }

    private static Standing two(double first, double firstVariance, double second, double secondVariance) {
        return Ranking.of(
                MeritGrid.builder(2, 1)
                        .cell(0, 0, first, firstVariance)
                        .cell(1, 0, second, secondVariance)
                        .build(),
                new double[] {1},
                0);
    }

    private static GenerationStep step(Standing standing, int from, int to) {
        return GenerationStep.between(
                standing,
                standing.entries().stream()
                        .filter(e -> e.row() == from)
                        .findFirst()
                        .orElseThrow(),
                standing.entries().stream()
                        .filter(e -> e.row() == to)
                        .findFirst()
                        .orElseThrow(),
                Materiality.USUAL);
    }

    @Test
    void aGenerationIsAStepWithItsInterval() {
        Standing standing = two(0.1, 0.0009, 0.4, 0.0016);
        GenerationStep step = step(standing, 0, 1);
        assertThat(step.ratio()).isCloseTo(Math.exp(0.3), within(1e-12));
        // √(0.03² + 0.04²) is 0.05, known for certain.
        assertThat(step.interval().low()).isCloseTo(Math.exp(0.3 - 1.959964 * 0.05), within(1e-6));
        assertThat(step.interval().high()).isCloseTo(Math.exp(0.3 + 1.959964 * 0.05), within(1e-6));
        assertThat(step.verdict()).isEqualTo(Verdict.CLEAR_GAIN);
        assertThat(step(standing, 1, 0).verdict()).isEqualTo(Verdict.CLEAR_LOSS);
    }

    @Test
    void withoutALinkThereIsNoStep() {
        Standing apart = Ranking.of(
                MeritGrid.builder(2, 2).cell(0, 0, 1, 0.01).cell(1, 1, 1, 0.01).build(), new double[] {1, 1}, 0);
        assertThatThrownBy(() -> step(apart, 0, 1)).hasMessageContaining("linked to the reference");
        assertThatThrownBy(() -> step(apart, 1, 0)).hasMessageContaining("linked to the reference");
    }
}
