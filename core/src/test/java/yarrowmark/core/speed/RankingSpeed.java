package yarrowmark.core.speed;

import java.util.Arrays;
import java.util.Locale;
import java.util.Random;
import yarrowmark.core.standing.MeritGrid;
import yarrowmark.core.standing.Ranking;
import yarrowmark.core.standing.Standing;

/** Time of a standing in core, fit and places, on made-up grids with a fifth of the cells missing. Run by bin/bench. */
public final class RankingSpeed {
    private static final int TRIES = 15;

    private RankingSpeed() {
    }

    public static void main(String[] arguments) {
        System.out.println("Standings in core, a fifth of the cells missing");
        for (int[] size : new int[][] {{200, 60}, {2_000, 60}, {4_000, 60}}) {
            MeritGrid grid = grid(size[0], size[1]);
            double[] weights = new double[size[1]];
            Arrays.fill(weights, 1);
            double[] ms = new double[TRIES];
            Standing standing = null;
            for (int i = 0; i < TRIES; i++) {
                long start = System.nanoTime();
                standing = Ranking.of(grid, weights, 0);
                ms[i] = (System.nanoTime() - start) / 1e6;
            }
            double first = ms[0];
            Arrays.sort(ms);
            System.out.printf(Locale.ROOT, "  %5d x %3d  %8d cells  first %7.1f ms  median of %d %7.1f ms  (%d entries)%n",
                size[0], size[1], grid.cells(), first, TRIES, ms[TRIES / 2], standing.entries().size());
        }
    }

    private static MeritGrid grid(int rows, int columns) {
        Random random = new Random(5);
        MeritGrid.Builder builder = MeritGrid.builder(rows, columns);
        for (int i = 0; i < rows; i++) {
            double speed = random.nextGaussian();
            for (int j = 0; j < columns; j++) {
                if (random.nextDouble() < 0.8) {
                    builder.cell(i, j, speed + j + 0.1 * random.nextGaussian(), 1e-5);
                }
            }
        }
        return builder.build();
    }
}
