package yarrowmark.core.speed;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Locale;
import java.util.Random;
import yarrowmark.core.standing.MeritGrid;
import yarrowmark.core.standing.RGrid;
import yarrowmark.core.standing.RankFirmness;
import yarrowmark.core.standing.Ranking;
import yarrowmark.core.standing.Reference;
import yarrowmark.core.standing.Standing;

/** Time of a standing in core, fit and places, on made-up grids; and against R's weighted least squares where R is installed. Run by bin/bench. */
public final class RankingSpeed {
    /** Whether only to see that it works: the smallest size that goes through everything. */
    private static final boolean SMALLEST = Boolean.getBoolean("yarrowmark.smallest");

    private static final int TRIES = SMALLEST ? 2 : 15;

    private RankingSpeed() {}

    public static void main(String[] arguments) throws IOException, InterruptedException {
        System.out.println("Standings in core, a fifth of the cells missing");
        for (int rows : SMALLEST ? new int[] {50} : new int[] {200, 2_000, 4_000}) {
            timed(grid(rows, 60, 0.8), TRIES);
        }
        System.out.println("The same, a third missing, to see how it grows");
        for (int rows : SMALLEST ? new int[] {50} : new int[] {2_000, 5_000, 10_000, 20_000}) {
            timed(grid(rows, 100, 2 / 3.0), 5);
        }
        Runtime.getRuntime().gc();
        MeritGrid grid = grid(SMALLEST ? 50 : 2_000, 60, 0.8);
        double[] weights = alike(60);
        int[] part = java.util.stream.IntStream.range(0, 60).map(j -> j % 7).toArray();
        long start = System.nanoTime();
        RankFirmness.of(grid, weights, part, Reference.row(0));
        System.out.printf(
                Locale.ROOT,
                "A thousand weightings of %d x 60: %.0f ms%n",
                grid.rows(),
                (System.nanoTime() - start) / 1e6);
        againstR();
    }

    private static void timed(MeritGrid grid, int tries) {
        double[] weights = alike(grid.columns());
        double[] ms = new double[tries];
        Standing standing = null;
        for (int i = 0; i < tries; i++) {
            long start = System.nanoTime();
            standing = Ranking.of(grid, weights, 0);
            ms[i] = (System.nanoTime() - start) / 1e6;
        }
        double first = ms[0];
        Arrays.sort(ms);
        long used = (Runtime.getRuntime().totalMemory() - Runtime.getRuntime().freeMemory()) >> 20;
        System.out.printf(
                Locale.ROOT,
                "  %5d x %3d  %8d cells  first %7.1f ms  median of %d %7.1f ms  %6.0f ns a cell  heap in use %d MiB  (%d entries)%n",
                grid.rows(),
                grid.columns(),
                grid.cells(),
                first,
                tries,
                ms[tries / 2],
                1e6 * ms[tries / 2] / grid.cells(),
                used,
                standing.entries().size());
    }

    private static void againstR() throws IOException, InterruptedException {
        if (!Path.of("/usr/bin/Rscript").toFile().canExecute()) {
            System.out.println("R is not installed, so nothing is held against it");
            return;
        }
        RGrid r = new RGrid();
        double[] ms = new double[TRIES];
        for (int i = 0; i < TRIES; i++) {
            long start = System.nanoTime();
            Ranking.levels(r.grid(), r.weights(), Reference.row(0));
            ms[i] = (System.nanoTime() - start) / 1e6;
        }
        Arrays.sort(ms);
        Process process = new ProcessBuilder(
                        "Rscript", Path.of("src", "test", "r", "standing.R").toString())
                .redirectErrorStream(true)
                .start();
        String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8).strip();
        process.waitFor();
        double took = Double.parseDouble(said.substring(said.lastIndexOf('\n') + 1));
        System.out.printf(
                Locale.ROOT,
                "400 x 40 by R's lm: %.0f ms; here, median of %d: %.2f ms; ratio %.4f%n",
                took,
                TRIES,
                ms[TRIES / 2],
                ms[TRIES / 2] / took);
    }

    private static double[] alike(int columns) {
        double[] weights = new double[columns];
        Arrays.fill(weights, 1);
        return weights;
    }

    private static MeritGrid grid(int rows, int columns, double share) {
        Random random = new Random(5);
        MeritGrid.Builder builder = MeritGrid.builder(rows, columns);
        for (int i = 0; i < rows; i++) {
            double speed = random.nextGaussian();
            for (int j = 0; j < columns; j++) {
                if (random.nextDouble() < share) {
                    builder.cell(i, j, speed + j + 0.1 * random.nextGaussian(), 1e-5);
                }
            }
        }
        return builder.build();
    }
}
