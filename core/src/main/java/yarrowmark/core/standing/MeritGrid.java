package yarrowmark.core.standing;

import java.util.Arrays;
import java.util.BitSet;
import java.util.function.IntBinaryOperator;
import java.util.function.IntToDoubleFunction;
import yarrowmark.core.measure.Merit;
import yarrowmark.core.stats.Centre;
import yarrowmark.core.stats.SharedDay;

/**
 * Merits of configurations (rows) on metrics (columns), with gaps. Immutable; kept by rows in flat arrays, because a
 * large shelf has millions of cells.
 */
public final class MeritGrid {
    private final int columns;
    private final int[] rowStart;
    private final int[] column;
    private final double[] merit;
    private final CellNoise noise;
    private final SharedDay[] day;

    private MeritGrid(int columns, int[] rowStart, int[] column, double[] merit, CellNoise noise, SharedDay[] day) {
        this.columns = columns;
        this.rowStart = rowStart;
        this.column = column;
        this.merit = merit;
        this.noise = noise;
        this.day = day;
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

    /** Of a cell's mean: of its runs and its sessions. */
    double variance(int cell) {
        return noise.runs[cell] + noise.sessions[cell];
    }

    /** The part of runs. */
    double runVariance(int cell) {
        return noise.runs[cell];
    }

    /** Degrees of freedom of the part of runs. */
    double runDegrees(int cell) {
        return noise.degrees[cell];
    }

    /** The part of sessions. */
    double sessionVariance(int cell) {
        return noise.sessions[cell];
    }

    /** Whether it rests on a spread that nobody measured here. */
    boolean isUnmeasured(int cell) {
        return noise.unmeasured.get(cell);
    }

    /** How far a day moves the tests of a column's suite together. */
    SharedDay day(int column) {
        return day[column];
    }

    /** The same over several columns. @param weights one a column, 0 or more, not all 0 */
    SharedDay day(double[] weights) {
        return SharedDay.weighted(Arrays.asList(day), weights);
    }

    /** Some of the columns, in the given order; rows stay what they are, also those that then have nothing. */
    public MeritGrid columns(int... wanted) {
        int[] to = new int[columns];
        Arrays.fill(to, -1);
        SharedDay[] days = new SharedDay[wanted.length];
        for (int i = 0; i < wanted.length; i++) {
            to[wanted[i]] = i;
            days[i] = day[wanted[i]];
        }
        return kept(days, (row, cell) -> to[column[cell]], row -> 0);
    }

    /** Some of the rows; the others stay, with nothing in them. */
    public MeritGrid rows(BitSet wanted) {
        return kept(day, (row, cell) -> wanted.get(row) ? column[cell] : -1, row -> 0);
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
                day,
                (row, cell) -> Double.isNaN(quantity[row]) ? -1 : column[cell],
                row -> Double.isNaN(quantity[row]) ? 0 : -Merit.per(0, quantity[row]));
    }

    private MeritGrid kept(SharedDay[] days, IntBinaryOperator columnOf, IntToDoubleFunction less) {
        int[] start = new int[rows() + 1];
        int[] columnOut = new int[cells()];
        double[] meritOut = new double[cells()];
        int[] from = new int[cells()];
        int count = 0;
        for (int r = 0; r < rows(); r++) {
            double off = less.applyAsDouble(r);
            for (int c = rowStart[r]; c < rowStart[r + 1]; c++) {
                int to = columnOf.applyAsInt(r, c);
                if (to >= 0) {
                    columnOut[count] = to;
                    meritOut[count] = merit[c] - off;
                    from[count++] = c;
                }
            }
            start[r + 1] = count;
        }
        return new MeritGrid(
                days.length,
                start,
                Arrays.copyOf(columnOut, count),
                Arrays.copyOf(meritOut, count),
                noise.picked(Arrays.copyOf(from, count)),
                days);
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
        private final CellNoise noise = new CellNoise(64);
        private final SharedDay[] day;

        private Builder(int rows, int columns) {
            if (rows < 1 || columns < 1) {
                throw new IllegalArgumentException(
                        "a grid needs at least one row and one column, not " + rows + " × " + columns);
            }
            this.rows = rows;
            this.columns = columns;
            this.day = new SharedDay[columns];
            Arrays.fill(day, SharedDay.UNKNOWN);
        }

        /** All columns are tests of one suite. */
        public Builder day(SharedDay known) {
            Arrays.fill(day, known);
            return this;
        }

        /** How far a day moves the tests of a column's suite together; not known until it is said. */
        public Builder day(int ofColumn, SharedDay known) {
            day[ofColumn] = known;
            return this;
        }

        /**
         * A cell whose noise is given, and known for certain.
         *
         * @param meanMerit    mean merit of the sample, finite
         * @param meanVariance variance of that mean, 0 or more and finite
         */
        public Builder cell(int row, int column, double meanMerit, double meanVariance) {
            return cell(row, column, Centre.certain(meanMerit, meanVariance));
        }

        public Builder cell(int r, int c, Centre centre) {
            if (r < 0 || r >= rows || c < 0 || c >= columns) {
                throw new IllegalArgumentException("cell (" + r + ", " + c + ") is outside " + rows + " × " + columns);
            }
            if (!(centre.variance() >= 0 && centre.variance() < Double.POSITIVE_INFINITY)) {
                throw new IllegalArgumentException("variance must be 0 or more and finite, not " + centre.variance());
            }
            if (!Double.isFinite(centre.merit())) {
                throw new IllegalArgumentException("merit must be finite, not " + centre.merit());
            }
            if (count == row.length) {
                int more = count * 2;
                row = Arrays.copyOf(row, more);
                column = Arrays.copyOf(column, more);
                merit = Arrays.copyOf(merit, more);
                noise.grow(more);
            }
            row[count] = r;
            column[count] = c;
            merit[count] = centre.merit();
            noise.set(count++, centre);
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
            int[] from = new int[count];
            for (int i = 0; i < count; i++) {
                int at = next[row[i]]++;
                columnOut[at] = column[i];
                meritOut[at] = merit[i];
                from[at] = i;
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
            return new MeritGrid(columns, start, columnOut, meritOut, noise.picked(from), day);
        }
    }

    /** What is known of the noise of each cell, in arrays beside the merits. */
    private static final class CellNoise {
        double[] runs;
        double[] degrees;
        double[] sessions;
        final BitSet unmeasured = new BitSet();

        CellNoise(int cells) {
            runs = new double[cells];
            degrees = new double[cells];
            sessions = new double[cells];
        }

        void grow(int cells) {
            runs = Arrays.copyOf(runs, cells);
            degrees = Arrays.copyOf(degrees, cells);
            sessions = Arrays.copyOf(sessions, cells);
        }

        void set(int cell, Centre centre) {
            runs[cell] = centre.runVariance();
            degrees[cell] = centre.runDegrees();
            sessions[cell] = centre.sessionVariance();
            unmeasured.set(cell, centre.unmeasured());
        }

        CellNoise picked(int[] from) {
            CellNoise picked = new CellNoise(from.length);
            for (int i = 0; i < from.length; i++) {
                picked.runs[i] = runs[from[i]];
                picked.degrees[i] = degrees[from[i]];
                picked.sessions[i] = sessions[from[i]];
                picked.unmeasured.set(i, unmeasured.get(from[i]));
            }
            return picked;
        }
    }
}
