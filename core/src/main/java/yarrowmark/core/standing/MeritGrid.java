package yarrowmark.core.standing;

import java.util.Arrays;
import java.util.function.IntBinaryOperator;
import java.util.function.IntToDoubleFunction;
import yarrowmark.core.measure.Merit;

/**
 * Merits of configurations (rows) on metrics (columns), with gaps. Immutable; kept by rows in flat arrays, because a
 * large shelf has millions of cells.
 */
public final class MeritGrid {
    private final int columns;
    private final int[] rowStart;
    private final int[] column;
    private final double[] merit;
    /** Variance of each cell's mean; NaN where it is unknown (one run, nothing lent). */
    private final double[] variance;

    private MeritGrid(int columns, int[] rowStart, int[] column, double[] merit, double[] variance) {
        this.columns = columns;
        this.rowStart = rowStart;
        this.column = column;
        this.merit = merit;
        this.variance = variance;
    }

    public int rows() {
        return rowStart.length - 1;
    }

    public int columns() {
        return columns;
    }

    public int cells() {
        return column.length;
    }

    int start(int row) {
        return rowStart[row];
    }

    int end(int row) {
        return rowStart[row + 1];
    }

    int column(int cell) {
        return column[cell];
    }

    double merit(int cell) {
        return merit[cell];
    }

    /** NaN where unknown. */
    double variance(int cell) {
        return variance[cell];
    }

    /** Some of the columns, in the given order; rows stay what they are, also those that then have nothing. */
    public MeritGrid columns(int... wanted) {
        int[] to = new int[columns];
        Arrays.fill(to, -1);
        for (int i = 0; i < wanted.length; i++) {
            to[wanted[i]] = i;
        }
        return kept(wanted.length, (row, cell) -> to[column[cell]], row -> 0);
    }

    /**
     * Every merit of a row less ln of its quantity: scores for each unit of a price, a power or a weight.
     *
     * @param quantity of each row, above 0; a row whose quantity is NaN has no results then
     */
    public MeritGrid per(double[] quantity) {
        if (quantity.length != rows()) {
            throw new IllegalArgumentException("one quantity a row is needed: " + quantity.length + " for " + rows());
        }
        return kept(
                columns,
                (row, cell) -> Double.isNaN(quantity[row]) ? -1 : column[cell],
                row -> Double.isNaN(quantity[row]) ? 0 : -Merit.per(0, quantity[row]));
    }

    private MeritGrid kept(int columnsOut, IntBinaryOperator columnOf, IntToDoubleFunction less) {
        int[] start = new int[rows() + 1];
        int[] columnOut = new int[cells()];
        double[] meritOut = new double[cells()];
        double[] varianceOut = new double[cells()];
        int count = 0;
        for (int r = 0; r < rows(); r++) {
            double off = less.applyAsDouble(r);
            for (int c = rowStart[r]; c < rowStart[r + 1]; c++) {
                int to = columnOf.applyAsInt(r, c);
                if (to >= 0) {
                    columnOut[count] = to;
                    meritOut[count] = merit[c] - off;
                    varianceOut[count++] = variance[c];
                }
            }
            start[r + 1] = count;
        }
        return new MeritGrid(
                columnsOut,
                start,
                Arrays.copyOf(columnOut, count),
                Arrays.copyOf(meritOut, count),
                Arrays.copyOf(varianceOut, count));
    }

    public static Builder builder(int rows, int columns) {
        return new Builder(rows, columns);
    }

    /** Collects cells in any order. Not thread-safe; use once. */
    public static final class Builder {
        private final int rows;
        private final int columns;
        private int count;
        private int[] row = new int[64];
        private int[] column = new int[64];
        private double[] merit = new double[64];
        private double[] variance = new double[64];

        private Builder(int rows, int columns) {
            if (rows < 1 || columns < 1) {
                throw new IllegalArgumentException(
                        "a grid needs at least one row and one column, not " + rows + " × " + columns);
            }
            this.rows = rows;
            this.columns = columns;
        }

        /**
         * @param meanMerit    mean merit of the sample, finite
         * @param meanVariance run-noise variance of that mean, 0 or more and finite
         */
        public Builder cell(int row, int column, double meanMerit, double meanVariance) {
            if (!(meanVariance >= 0 && meanVariance < Double.POSITIVE_INFINITY)) {
                throw new IllegalArgumentException("variance must be 0 or more and finite, not " + meanVariance);
            }
            return add(row, column, meanMerit, meanVariance);
        }

        /** A cell whose run noise is not known: one run, and nothing lent. */
        public Builder cellOfUnknownNoise(int row, int column, double meanMerit) {
            return add(row, column, meanMerit, Double.NaN);
        }

        private Builder add(int r, int c, double m, double v) {
            if (r < 0 || r >= rows || c < 0 || c >= columns) {
                throw new IllegalArgumentException("cell (" + r + ", " + c + ") is outside " + rows + " × " + columns);
            }
            if (!Double.isFinite(m)) {
                throw new IllegalArgumentException("merit must be finite, not " + m);
            }
            if (count == row.length) {
                int more = count * 2;
                row = Arrays.copyOf(row, more);
                column = Arrays.copyOf(column, more);
                merit = Arrays.copyOf(merit, more);
                variance = Arrays.copyOf(variance, more);
            }
            row[count] = r;
            column[count] = c;
            merit[count] = m;
            variance[count++] = v;
            return this;
        }

        /** @throws IllegalArgumentException when a cell was given twice */
        public MeritGrid build() {
            int[] start = new int[rows + 1];
            for (int i = 0; i < count; i++) {
                start[row[i] + 1]++;
            }
            for (int r = 0; r < rows; r++) {
                start[r + 1] += start[r];
            }
            int[] next = Arrays.copyOf(start, rows);
            int[] columnOut = new int[count];
            double[] meritOut = new double[count];
            double[] varianceOut = new double[count];
            for (int i = 0; i < count; i++) {
                int at = next[row[i]]++;
                columnOut[at] = column[i];
                meritOut[at] = merit[i];
                varianceOut[at] = variance[i];
            }
            int[] seenInRow = new int[columns];
            for (int r = 0; r < rows; r++) {
                for (int i = start[r]; i < start[r + 1]; i++) {
                    if (seenInRow[columnOut[i]] == r + 1) {
                        throw new IllegalArgumentException("cell (" + r + ", " + columnOut[i] + ") was given twice");
                    }
                    seenInRow[columnOut[i]] = r + 1;
                }
            }
            return new MeritGrid(columns, start, columnOut, meritOut, varianceOut);
        }
    }
}
