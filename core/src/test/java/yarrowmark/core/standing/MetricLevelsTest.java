package yarrowmark.core.standing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.junit.jupiter.api.Test;

/** The direct and the iterative way give the same numbers to nine digits. */
class MetricLevelsTest {
    private static final double NINE_DIGITS = 1e-9;

    private static MeritGrid grid(long seed, int rows, int columns, double share) {
        Random random = new Random(seed);
        MeritGrid.Builder builder = MeritGrid.builder(rows, columns);
        for (int i = 0; i < rows; i++) {
            double speed = random.nextGaussian();
            for (int j = 0; j < columns; j++) {
                if (random.nextDouble() < share || j == i % columns) {
                    builder.cell(i, j, speed + 5 + j % 7 + 0.2 * random.nextGaussian(), 1e-5);
                }
            }
        }
        return builder.build();
    }

    private static double[] weights(long seed, int columns) {
        Random random = new Random(seed);
        double[] weights = new double[columns];
        for (int j = 0; j < columns; j++) {
            weights[j] = random.nextInt(6) == 0 ? 0 : Math.exp(2 * random.nextGaussian());
        }
        weights[0] = 1;
        return Ranking.scaled(weights, columns);
    }

    @Test
    void directAndIterativeAgree() {
        for (int seed = 1; seed <= 12; seed++) {
            int columns = 3 + seed * 4;
            MeritGrid grid = grid(seed, 20 * seed, columns, seed % 3 == 0 ? 0.15 : 0.7);
            double[] weights = weights(seed, columns);
            MetricLevels levels = new MetricLevels(new FlatCells(
                    grid,
                    weights,
                    new ConnectedComponent(grid, weights, ConnectedComponent.homeOfLargest(grid, weights))));
            assertThat(levels.iterated(new double[levels.direct().length]))
                    .as("seed %d", seed)
                    .containsExactly(levels.direct(), within(NINE_DIGITS));
        }
    }

    /** A chain in which each configuration shares one test with the next is as badly linked as a grid can be. */
    @Test
    void aLongChainIsSolvedByBothWays() {
        int n = 120;
        MeritGrid.Builder builder = MeritGrid.builder(n, n);
        for (int i = 0; i < n; i++) {
            builder.cell(i, i, 3 + i % 5, 1e-4);
            if (i + 1 < n) {
                builder.cell(i, i + 1, 4 - i % 3, 1e-4);
            }
        }
        MeritGrid grid = builder.build();
        double[] weights = Ranking.scaled(
                java.util.stream.DoubleStream.generate(() -> 1).limit(n).toArray(), n);
        MetricLevels levels = new MetricLevels(new FlatCells(grid, weights, new ConnectedComponent(grid, weights, 0)));
        assertThat(levels.iterated(new double[n])).containsExactly(levels.direct(), within(1e-8));
    }

    @Test
    void beginningFromANearAnswerEndsAtTheSame() {
        MeritGrid grid = grid(99, 200, 30, 0.6);
        double[] weights = weights(4, 30);
        MetricLevels levels = new MetricLevels(new FlatCells(grid, weights, new ConnectedComponent(grid, weights, 0)));
        double[] near = levels.direct();
        near[3] += 0.4;
        assertThat(levels.iterated(near)).containsExactly(levels.direct(), within(NINE_DIGITS));
        assertThat(levels.iterated(levels.direct())).containsExactly(levels.direct(), within(NINE_DIGITS));
    }
}
