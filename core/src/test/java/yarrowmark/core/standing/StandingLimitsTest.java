package yarrowmark.core.standing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import yarrowmark.core.stats.Centre;
import yarrowmark.core.stats.StudentT;

/** Where a standing's limits lie, each tried on both of its sides. */
class StandingLimitsTest {
    private static final double QUIET = 1e-8;

    /** One test, rows a whole e-fold apart. */
    private static MeritGrid ladder(int rows) {
        MeritGrid.Builder builder = MeritGrid.builder(rows, 1);
        for (int i = 0; i < rows; i++) {
            builder.cell(i, 0, -i, QUIET);
        }
        return builder.build();
    }

    /** Of seven, the third beats exactly two thirds of the others, and the fifth exactly one third. */
    @Test
    void whoBeatsExactlyTwoThirdsIsInTheUpperThird() {
        Standing seven = Ranking.of(ladder(7), new double[] {1}, 0);
        assertThat(seven.entries())
                .extracting(e -> e.third().orElseThrow())
                .containsExactly(
                        Standing.Third.UPPER,
                        Standing.Third.UPPER,
                        Standing.Third.UPPER,
                        Standing.Third.MIDDLE,
                        Standing.Third.LOWER,
                        Standing.Third.LOWER,
                        Standing.Third.LOWER);
        assertThat(Ranking.of(ladder(6), new double[] {1}, 0).entries())
                .allMatch(e -> e.third().isPresent() && e.percentile().isPresent());
        assertThat(Ranking.of(ladder(5), new double[] {1}, 0).entries())
                .allMatch(e -> e.third().isEmpty() && e.percentile().isEmpty());
    }

    @Test
    void provisionalOnesStandInTheOrderOfTheirMerit() {
        MeritGrid.Builder builder = MeritGrid.builder(5, 3);
        for (int j = 0; j < 3; j++) {
            builder.cell(0, j, 1, QUIET).cell(1, j, 2, QUIET);
        }
        builder.cell(2, 0, 0.1, QUIET).cell(3, 0, 0.9, QUIET).cell(4, 0, 0.5, QUIET);
        Standing standing = Ranking.of(builder.build(), new double[] {1, 1, 1}, 0);
        assertThat(standing.entries()).extracting(Standing.Entry::row).containsExactly(1, 0, 3, 4, 2);
        assertThat(standing.entries().subList(2, 5)).allMatch(e -> e.status() == Standing.Status.PROVISIONAL);
    }

    @Test
    void metricsWithoutWeightAreNotCounted() {
        MeritGrid grid = MeritGrid.builder(2, 3)
                .cell(0, 0, 1, QUIET)
                .cell(1, 0, 2, QUIET)
                .cell(0, 1, 1, QUIET)
                .cell(1, 1, 2, QUIET)
                .cell(0, 2, 1, QUIET)
                .build();
        assertThat(Ranking.of(grid, new double[] {1, 3, 0}, 0).metrics()).isEqualTo(2);
        assertThat(Ranking.of(grid, new double[] {0, 3, 0}, 0).metrics()).isEqualTo(1);
    }

    @Test
    void whatIsNoWeightRowOrCellIsRefused() {
        MeritGrid grid = ladder(3);
        for (double wrong : new double[] {Double.POSITIVE_INFINITY, Double.NaN, -1, 0}) {
            assertThatIllegalArgumentException().isThrownBy(() -> Ranking.of(grid, new double[] {wrong}, 0));
        }
        assertThatIllegalArgumentException()
                .isThrownBy(() -> Ranking.of(grid, new double[] {1}, 3))
                .withMessageContaining("row 3");
        MeritGrid.Builder builder = MeritGrid.builder(2, 3);
        for (int[] place : new int[][] {{-1, 0}, {2, 0}, {0, -1}, {0, 3}}) {
            assertThatIllegalArgumentException()
                    .isThrownBy(() -> builder.cell(place[0], place[1], 1, 1))
                    .withMessageContaining("outside");
        }
        for (double wrong : new double[] {Double.POSITIVE_INFINITY, Double.NaN, -1}) {
            assertThatIllegalArgumentException().isThrownBy(() -> builder.cell(0, 0, 1, wrong));
            assertThatIllegalArgumentException()
                    .isThrownBy(() -> builder.cell(0, 0, wrong < 0 ? Double.NaN : wrong, 1));
            assertThatIllegalArgumentException()
                    .isThrownBy(() -> PurposeWeights.Weights.ofGroups(java.util.Map.of("a", wrong)));
        }
    }

    /** The reference's own island is ranked, also where another one is larger. */
    @Test
    void theReferenceSaysWhichPartIsRanked() {
        MeritGrid grid = MeritGrid.builder(6, 3)
                .cell(0, 0, 1, QUIET)
                .cell(1, 1, 1, QUIET)
                .cell(2, 1, 2, QUIET)
                .cell(3, 1, 3, QUIET)
                .cell(4, 2, 1, QUIET)
                .cell(5, 2, 2, QUIET)
                .build();
        double[] weights = {1, 1, 1};
        assertThat(ConnectedComponent.homeOfLargest(grid, weights)).isEqualTo(1);
        assertThat(ConnectedComponent.homeOfLargest(grid, new double[] {1, 0, 1}))
                .isEqualTo(4);
        assertThatIllegalArgumentException().isThrownBy(() -> ConnectedComponent.homeOfLargest(grid, new double[3]));
        assertThat(rowsThatAreLinked(Ranking.of(grid, weights, 5))).containsExactly(5, 4);
        assertThat(rowsThatAreLinked(Ranking.of(grid, weights, Reference.typical())))
                .containsExactly(3, 2, 1);
    }

    private static List<Integer> rowsThatAreLinked(Standing standing) {
        return standing.entries().stream()
                .filter(e -> e.status() != Standing.Status.NOT_LINKED)
                .map(Standing.Entry::row)
                .toList();
    }

    /** Satterthwaite over the terms of both, by hand. */
    @Test
    void theDegreesOfFreedomOfTwoLevelsAreThoseOfAllTheirTerms() {
        LevelNoise a = new LevelNoise(2e-4, 1e-9, 3e-4, 5e-4);
        LevelNoise b = new LevelNoise(1e-4, 2e-9, 1e-4, 2e-4);
        LevelNoise.Degrees degrees = new LevelNoise.Degrees(4, 9);
        double variance = 3e-4 + 4e-4 + 7e-4;
        double terms = 3e-9 + 16e-8 / 4 + 49e-8 / 9;
        assertThat(LevelNoise.variance(a, b)).isCloseTo(variance, within(1e-18));
        assertThat(LevelNoise.degrees(a, b, degrees)).isCloseTo(variance * variance / terms, within(1e-9));
        assertThat(LevelNoise.degrees(LevelNoise.NONE, LevelNoise.NONE, degrees))
                .isInfinite();
        double edge = StudentT.upper(variance * variance / terms) * Math.sqrt(variance);
        assertThat(LevelNoise.isClear(edge * 1.001, a, b, degrees)).isTrue();
        assertThat(LevelNoise.isClear(edge * 0.999, a, b, degrees)).isFalse();
    }

    @Test
    void aCellsNoiseIsThatOfItsRunsAndItsSessions() {
        MeritGrid grid = MeritGrid.builder(1, 1)
                .cell(0, 0, new Centre(1, 2e-4, 5, 1, 3e-4, 6, 0, false, false))
                .build();
        assertThat(grid.variance(0)).isCloseTo(5e-4, within(1e-18));
        assertThat(grid.runVariance(0)).isEqualTo(2e-4);
        assertThat(grid.sessionVariance(0)).isEqualTo(3e-4);
        assertThat(grid.runDegrees(0)).isEqualTo(5);
    }

    /** Columns in use by more rows are taken only where more rows get a place by it. */
    @Test
    void theLeastWideSetThatPlacesMostIsInCommonUse() {
        MeritGrid.Builder builder = MeritGrid.builder(6, 4);
        for (int i = 0; i < 6; i++) {
            builder.cell(i, 0, i, QUIET);
        }
        for (int i = 0; i < 3; i++) {
            builder.cell(i, 1, i, QUIET).cell(i, 2, i, QUIET).cell(i, 3, i, QUIET);
        }
        MeritGrid grid = builder.build();
        CommonUse.Weighing alike = columns -> {
            double[] weights = new double[columns.length];
            Arrays.fill(weights, 1);
            return weights;
        };
        assertThat(CommonUse.placed(grid, new int[] {0, 1, 2, 3}, alike)).isEqualTo(3);
        assertThat(CommonUse.placed(grid, new int[] {0}, alike)).isEqualTo(6);
        assertThat(CommonUse.of(grid, alike)).containsExactly(0);
        assertThat(CommonUse.placed(grid, new int[0], alike)).isZero();
        assertThat(CommonUse.placed(grid, new int[] {0}, columns -> new double[columns.length]))
                .isZero();
        // Half of the weight is enough for a place.
        assertThat(CommonUse.placed(grid, new int[] {0, 1}, alike)).isEqualTo(6);
    }

    /** Were it not to end by itself, the direct way would be taken in its place, and the digits would be the same. */
    @Test
    void iteratingEndsByItselfWhereItIsNearEnough() {
        for (int seed = 1; seed <= 10; seed++) {
            Random random = new Random(seed);
            MeritGrid.Builder builder = MeritGrid.builder(60, 20);
            double[] weights = new double[20];
            for (int j = 0; j < 20; j++) {
                weights[j] = Math.exp(2 * random.nextGaussian());
            }
            for (int i = 0; i < 60; i++) {
                for (int j = 0; j < 20; j++) {
                    if (random.nextDouble() < 0.5 || j == i % 20) {
                        builder.cell(i, j, random.nextGaussian() + j, 1e-5);
                    }
                }
            }
            MeritGrid grid = builder.build();
            double[] scaled = Ranking.scaled(weights, 20);
            MetricLevels levels =
                    new MetricLevels(new FlatCells(grid, scaled, new ConnectedComponent(grid, scaled, 0)));
            double[] direct = levels.direct();
            double[] roughly = levels.iterated(new double[20], 1e-4);
            assertThat(roughly).containsExactly(direct, within(0.05));
            assertThat(Arrays.equals(roughly, direct)).as("seed %d", seed).isFalse();
            double[] nearly = levels.iterated(new double[20]);
            assertThat(Arrays.equals(nearly, direct)).as("seed %d", seed).isFalse();
        }
    }

    /** A row that is only provisional does not count among those that a third is taken of, except for itself. */
    @Test
    void thirdsAreTakenOfThoseThatArePlaced() {
        MeritGrid.Builder builder = MeritGrid.builder(9, 3);
        for (int i = 0; i < 5; i++) {
            builder.cell(i, 0, i, QUIET).cell(i, 1, i, QUIET).cell(i, 2, i, QUIET);
        }
        for (int i = 5; i < 9; i++) {
            builder.cell(i, 0, i, QUIET);
        }
        MeritGrid grid = builder.build();
        double[] weights = {1, 1, 1};
        assertThat(PlaceReasons.of(grid, weights, Reference.row(0), 0).get(0).third())
                .as("five are too few for thirds")
                .isEmpty();
        assertThat(PlaceReasons.of(grid, weights, Reference.row(0), 8).get(0).third())
                .as("with itself there are six")
                .contains(Standing.Third.UPPER);
    }
}
