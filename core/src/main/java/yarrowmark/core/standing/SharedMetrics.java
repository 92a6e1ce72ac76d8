package yarrowmark.core.standing;

import java.util.stream.IntStream;

/**
 * Which metrics a standing's weights are spread over: those that at least two of the configurations linked to the reference
 * have. What one of them has alone can say nothing of the others, and must not thin out the weight of its group for them.
 *
 * <p>Where nothing is shared, as with one configuration alone, all of its metrics are taken. Source: section 5 of the method.
 */
public final class SharedMetrics {
    private static final int FEWEST = 2;

    private SharedMetrics() {}

    /**
     * @param weights of every column, as if each counted
     * @return columns with weight, in order
     */
    public static int[] of(MeritGrid grid, double[] weights, Reference reference) {
        int home = reference instanceof Reference.Row row ? row.row() : ConnectedComponent.homeOfLargest(grid, weights);
        ConnectedComponent linked = new ConnectedComponent(grid, weights, home);
        int[] have = new int[grid.columns()];
        for (int r = 0; r < grid.rows(); r++) {
            for (int c = grid.start(r); linked.hasRow(r) && c < grid.end(r); c++) {
                have[grid.column(c)] += weights[grid.column(c)] > 0 ? 1 : 0;
            }
        }
        int[] shared =
                IntStream.range(0, have.length).filter(j -> have[j] >= FEWEST).toArray();
        return shared.length > 0
                ? shared
                : IntStream.range(0, have.length).filter(j -> have[j] > 0).toArray();
    }
}
