package yarrowmark.core.standing;

import java.util.Arrays;
import java.util.stream.IntStream;

/**
 * The tests in common use: what a mixed shelf is ranked over unless somebody asks for every test. Where each device has
 * run a few of many tests, hardly any has results for half of the weight, and nobody is placed.
 *
 * <p>Only tests that at least a third of the rows have; of the sets of tests that at least so many have, the one with which
 * most rows are linked and have half of the weight, and of equal ones the largest. Where not one test is that common, every
 * test stays.
 *
 * <p>Source: section 5 of the method.
 */
public final class CommonUse {
    private static final int A_THIRD = 3;

    private CommonUse() {}

    /** How the purpose weighs some of the columns: one weight each; empty where none of them has weight. */
    public interface Weighing {
        double[] of(int[] columns);
    }

    /** @return columns in common use, in order */
    public static int[] of(MeritGrid grid, Weighing weighing) {
        int[] all = IntStream.range(0, grid.columns()).toArray();
        int[] usage = new int[grid.columns()];
        for (int c = 0; c < grid.cells(); c++) {
            usage[grid.column(c)]++;
        }
        int least = (grid.rows() + A_THIRD - 1) / A_THIRD;
        int[] best = all;
        int most = -1;
        int[] levels =
                Arrays.stream(usage).filter(u -> u >= least).sorted().distinct().toArray();
        for (int level : levels) {
            int[] columns = Arrays.stream(all).filter(j -> usage[j] >= level).toArray();
            int placed = placed(grid, columns, weighing);
            if (placed > most) {
                most = placed;
                best = columns;
            }
            if (most == grid.rows()) {
                break;
            }
        }
        return best;
    }

    /** How many rows would have a place over these columns. */
    public static int placed(MeritGrid grid, int[] columns, Weighing weighing) {
        double[] weights = columns.length == 0 ? new double[0] : weighing.of(columns);
        if (weights.length == 0 || Arrays.stream(weights).noneMatch(w -> w > 0)) {
            return 0;
        }
        // Columns without weight link nothing, so the grid need not be copied for each question.
        double[] scaled = new double[grid.columns()];
        double sum = Arrays.stream(weights).sum();
        for (int i = 0; i < columns.length; i++) {
            scaled[columns[i]] = weights[i] / sum;
        }
        int home;
        try {
            home = ConnectedComponent.homeOfLargest(grid, scaled);
        } catch (IllegalArgumentException e) {
            return 0;
        }
        ConnectedComponent linked = new ConnectedComponent(grid, scaled, home);
        int placed = 0;
        for (int r = 0; r < grid.rows(); r++) {
            double coverage = 0;
            for (int c = grid.start(r); c < grid.end(r); c++) {
                coverage += scaled[grid.column(c)];
            }
            placed += linked.hasRow(r) && coverage >= Ranking.ENOUGH_COVERAGE - 1e-12 ? 1 : 0;
        }
        return placed;
    }
}
