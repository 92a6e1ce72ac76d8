package yarrowmark.core.standing;

/**
 * The cells that take part in a fit, row after row in flat arrays: what a fit goes through again and again.
 *
 * <p>Row r of the linked ones has the cells from start[r] to start[r + 1]; a cell has its metric's position among the
 * linked ones, the metric's weight and its merit.
 */
final class FlatCells {
    final int metrics;
    final int[] start;
    final int[] position;
    final double[] weight;
    final double[] merit;
    /** Σ w of a row. */
    final double[] total;

    FlatCells(MeritGrid grid, double[] weights, ConnectedComponent linked) {
        metrics = linked.columns();
        start = new int[linked.rows() + 1];
        position = new int[linked.cells()];
        weight = new double[linked.cells()];
        merit = new double[linked.cells()];
        total = new double[linked.rows()];
        int row = 0;
        int cell = 0;
        for (int r = 0; r < grid.rows(); r++) {
            if (!linked.hasRow(r)) {
                continue;
            }
            for (int c = grid.start(r); c < grid.end(r); c++) {
                double w = weights[grid.column(c)];
                if (w > 0) {
                    position[cell] = linked.columnPosition(grid.column(c));
                    weight[cell] = w;
                    merit[cell++] = grid.merit(c);
                    total[row] += w;
                }
            }
            start[++row] = cell;
        }
    }

    private FlatCells(FlatCells of, double[] weightOfMetric) {
        metrics = of.metrics;
        start = of.start;
        position = of.position;
        merit = of.merit;
        weight = new double[of.weight.length];
        total = new double[of.total.length];
        for (int r = 0; r < total.length; r++) {
            for (int c = start[r]; c < start[r + 1]; c++) {
                weight[c] = weightOfMetric[position[c]];
                total[r] += weight[c];
            }
        }
    }

    /** The same cells under other weights, none of which is 0. */
    FlatCells weighed(double[] weightOfMetric) {
        return new FlatCells(this, weightOfMetric);
    }

    int rows() {
        return total.length;
    }

    /** Weighted mean of a row, of whatever each of its cells has. */
    double mean(int row, double[] ofCell) {
        double sum = 0;
        for (int c = start[row]; c < start[row + 1]; c++) {
            sum += weight[c] * ofCell[c];
        }
        return sum / total[row];
    }
}
