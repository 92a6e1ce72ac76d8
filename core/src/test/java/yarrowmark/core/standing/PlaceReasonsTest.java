package yarrowmark.core.standing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.OptionalDouble;
import java.util.Random;
import org.junit.jupiter.api.Test;

class PlaceReasonsTest {
    private static final double TINY = 1e-12;

    private static MeritGrid random(int rows, int columns, double share) {
        Random random = new Random(7);
        MeritGrid.Builder builder = MeritGrid.builder(rows, columns);
        for (int i = 0; i < rows; i++) {
            for (int j = 0; j < columns; j++) {
                if (random.nextDouble() < share || j == 0) {
                    builder.cell(i, j, random.nextGaussian() + j, 1e-6);
                }
            }
        }
        return builder.build();
    }

    private static double sum(List<PlaceReasons.Reason> reasons) {
        return reasons.stream()
                .map(PlaceReasons.Reason::contribution)
                .filter(OptionalDouble::isPresent)
                .mapToDouble(OptionalDouble::getAsDouble)
                .sum();
    }

    @Test
    void contributionsAddUpToTheMerit() {
        MeritGrid grid = random(15, 9, 0.6);
        double[] weights = {1, 2, 1, 3, 1, 1, 2, 1, 1};
        for (Reference reference : List.of(Reference.row(4), Reference.typical())) {
            for (Standing.Entry e : Ranking.of(grid, weights, reference).entries()) {
                assertThat(sum(PlaceReasons.of(grid, weights, reference, e.row())))
                        .as("%s, row %d", reference, e.row())
                        .isCloseTo(e.merit().orElseThrow(), within(TINY));
            }
        }
    }

    @Test
    void onAFullGridEachIsItsWeightTimesTheLogRatio() {
        MeritGrid grid = MeritGrid.builder(2, 2)
                .cell(0, 0, 1.0, 1e-6)
                .cell(0, 1, 2.0, 1e-6)
                .cell(1, 0, 1.4, 1e-6)
                .cell(1, 1, 1.9, 1e-6)
                .build();
        List<PlaceReasons.Reason> reasons = PlaceReasons.of(grid, new double[] {3, 1}, Reference.row(0), 1);
        assertThat(reasons.get(0).contribution().orElseThrow()).isCloseTo(0.75 * 0.4, within(TINY));
        assertThat(reasons.get(1).contribution().orElseThrow()).isCloseTo(-0.25 * 0.1, within(TINY));
        assertThat(reasons).extracting(PlaceReasons.Reason::weight).containsExactly(0.75, 0.25);
    }

    @Test
    void thirdsAreSaidOnlyWhereTheyAreSure() {
        MeritGrid.Builder builder = MeritGrid.builder(9, 2);
        for (int i = 0; i < 9; i++) {
            builder.cell(i, 0, i, 1e-6).cell(i, 1, i, 100);
        }
        MeritGrid grid = builder.build();
        double[] weights = {1, 1};
        assertThat(PlaceReasons.of(grid, weights, Reference.row(0), 8).get(0).third())
                .contains(Standing.Third.UPPER);
        assertThat(PlaceReasons.of(grid, weights, Reference.row(0), 6).get(0).third())
                .contains(Standing.Third.UPPER);
        assertThat(PlaceReasons.of(grid, weights, Reference.row(0), 5).get(0).third())
                .isEmpty();
        assertThat(PlaceReasons.of(grid, weights, Reference.row(0), 2).get(0).third())
                .contains(Standing.Third.LOWER);
        assertThat(PlaceReasons.of(grid, weights, Reference.row(0), 8).get(1).third())
                .as("noise hides it")
                .isEmpty();
    }

    @Test
    void fewHaveNoThirdsAndWhatIsNotLinkedHasNoReasons() {
        MeritGrid grid = MeritGrid.builder(3, 2)
                .cell(0, 0, 1, 1e-6)
                .cell(1, 0, 2, 1e-6)
                .cell(2, 1, 3, 1e-6)
                .build();
        assertThat(PlaceReasons.of(grid, new double[] {1, 1}, Reference.row(0), 2))
                .isEmpty();
        assertThat(PlaceReasons.of(grid, new double[] {1, 1}, Reference.row(0), 1)
                        .get(0)
                        .third())
                .isEmpty();
        assertThat(PlaceReasons.of(grid, new double[] {1, 1}, Reference.row(0), 1)
                        .get(1)
                        .contribution())
                .isEmpty();
    }
}
