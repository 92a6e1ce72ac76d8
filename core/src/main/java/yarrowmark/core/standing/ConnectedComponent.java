package yarrowmark.core.standing;

/**
 * The configurations and metrics that a chain of shared tests links to the reference. Outside it, nothing can be said
 * about who is ahead.
 */
final class ConnectedComponent {
    private final boolean[] row;
    /** Position of each linked column, −1 for the others: an index into the solver's arrays. */
    private final int[] columnPosition;

    private int rowCount;
    private int columnCount;
    private int cellCount;

    ConnectedComponent(MeritGrid grid, double[] weight, int reference) {
        int rows = grid.rows();
        int[] parent = links(grid, weight);
        int home = root(parent, reference);
        row = new boolean[rows];
        columnPosition = new int[grid.columns()];
        for (int j = 0; j < grid.columns(); j++) {
            columnPosition[j] = root(parent, rows + j) == home ? columnCount++ : -1;
        }
        for (int r = 0; r < rows; r++) {
            row[r] = root(parent, r) == home;
            if (row[r]) {
                rowCount++;
                for (int c = grid.start(r); c < grid.end(r); c++) {
                    cellCount += weight[grid.column(c)] > 0 ? 1 : 0;
                }
            }
        }
    }

    /** Rows and, after them, columns; those that are linked have the same root. */
    private static int[] links(MeritGrid grid, double[] weight) {
        int[] parent = new int[grid.rows() + grid.columns()];
        for (int i = 0; i < parent.length; i++) {
            parent[i] = i;
        }
        for (int r = 0; r < grid.rows(); r++) {
            for (int c = grid.start(r); c < grid.end(r); c++) {
                if (weight[grid.column(c)] > 0) {
                    parent[root(parent, r)] = root(parent, grid.rows() + grid.column(c));
                }
            }
        }
        return parent;
    }

    /** A row of the part that has the most results with weight. */
    static int homeOfLargest(MeritGrid grid, double[] weight) {
        int[] parent = links(grid, weight);
        int[] results = new int[parent.length];
        int best = -1;
        for (int r = 0; r < grid.rows(); r++) {
            int root = root(parent, r);
            for (int c = grid.start(r); c < grid.end(r); c++) {
                results[root] += weight[grid.column(c)] > 0 ? 1 : 0;
            }
        }
        for (int r = 0; r < grid.rows(); r++) {
            int root = root(parent, r);
            if (results[root] > 0 && (best < 0 || results[root] > results[root(parent, best)])) {
                best = r;
            }
        }
        if (best < 0) {
            throw new IllegalArgumentException("no configuration has a result in any metric that has weight");
        }
        return best;
    }

    private static int root(int[] parent, int i) {
        int at = i;
        while (parent[at] != at) {
            parent[at] = parent[parent[at]];
            at = parent[at];
        }
        return at;
    }

    boolean hasRow(int r) {
        return row[r];
    }

    int columnPosition(int j) {
        return columnPosition[j];
    }

    int rows() {
        return rowCount;
    }

    int columns() {
        return columnCount;
    }

    int cells() {
        return cellCount;
    }
}
