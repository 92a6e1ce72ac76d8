package yarrowmark.core.standing;

import java.util.Arrays;
import org.ejml.data.DMatrixRMaj;
import org.ejml.dense.row.factory.LinearSolverFactory_DDRM;
import org.ejml.interfaces.linsol.LinearSolverDense;

/**
 * Fits y = a + t + e by least squares weighted with the purpose's weights, on a grid with gaps.
 *
 * <p>The configurations' levels a are eliminated first, which leaves a symmetric positive definite system in the
 * metrics' levels t alone (small: as many rows as metrics); it is solved by Cholesky after fixing one t at 0, which
 * changes no difference between configurations. On a full grid a − a of the reference is exactly the weighted mean of
 * log ratios.
 *
 * <p>Variance of a: with w* the weights scaled to sum 1 over what a configuration has,
 * Σ w*² v + τ² · max(0, Σ w*² − Σ w²), where τ² = max(0, (Σ w e² / Σ w) · N / (N − p) − mean v), over N cells with
 * p = configurations + metrics − 1, and 0 where N ≤ p. A configuration one of whose v is unknown has no standard error.
 *
 * <p>Edge cases: one configuration, or one metric, is fitted exactly. Accuracy: nine digits against R 4.2.2's lm.
 * Source: section 5 of the method; weighted two-way least squares as in any textbook of linear models.
 */
final class StandingFit {
    private final MeritGrid grid;
    private final double[] weight;
    private final LinkedPart linked;
    private final double[] metricLevel;
    private final double[] level;
    private final double tauSquared;

    /**
     * @param weight    one a column, 0 or more, summing to 1
     * @param reference a row with at least one result that has weight
     */
    StandingFit(MeritGrid grid, double[] weight, int reference) {
        this.grid = grid;
        this.weight = weight;
        this.linked = new LinkedPart(grid, weight, reference);
        this.metricLevel = solveMetricLevels();
        this.level = configurationLevels();
        this.tauSquared = disagreement();
        double zero = level[reference];
        for (int r = 0; r < level.length; r++) {
            level[r] -= zero;
        }
    }

    LinkedPart linked() {
        return linked;
    }

    double tauSquared() {
        return tauSquared;
    }

    /** a − a of the reference; NaN where not linked. */
    double level(int row) {
        return level[row];
    }

    /** NaN where a run noise is not known. */
    double variance(int row) {
        double has = coverage(row);
        double noise = 0;
        double squares = 0;
        for (int c = grid.start(row); c < grid.end(row); c++) {
            double w = weight[grid.column(c)];
            if (w > 0) {
                double scaled = w / has;
                noise += scaled * scaled * grid.variance(c);
                squares += scaled * scaled;
            }
        }
        double full = 0;
        for (double w : weight) {
            full += w * w;
        }
        return noise + tauSquared * Math.max(0, squares - full);
    }

    double coverage(int row) {
        double has = 0;
        for (int c = grid.start(row); c < grid.end(row); c++) {
            has += weight[grid.column(c)];
        }
        return has;
    }

    private double[] solveMetricLevels() {
        int m = linked.columns();
        double[] levels = new double[m];
        if (m < 2) {
            return levels;
        }
        double[] system = new double[m * m];
        double[] right = new double[m];
        int[] position = new int[grid.columns()];
        for (int r = 0; r < grid.rows(); r++) {
            if (!linked.hasRow(r)) {
                continue;
            }
            double total = 0;
            double mean = 0;
            int count = 0;
            for (int c = grid.start(r); c < grid.end(r); c++) {
                double w = weight[grid.column(c)];
                if (w > 0) {
                    total += w;
                    mean += w * grid.merit(c);
                    position[count++] = c;
                }
            }
            mean /= total;
            for (int p = 0; p < count; p++) {
                int cell = position[p];
                double w = weight[grid.column(cell)];
                int j = linked.columnPosition(grid.column(cell));
                system[j * m + j] += w;
                right[j] += w * (grid.merit(cell) - mean);
                double share = w / total;
                for (int q = 0; q < count; q++) {
                    int other = grid.column(position[q]);
                    system[j * m + linked.columnPosition(other)] -= share * weight[other];
                }
            }
        }
        // The first metric's level is fixed at 0: without it the system has one direction it cannot tell.
        int size = m - 1;
        DMatrixRMaj a = new DMatrixRMaj(size, size);
        DMatrixRMaj b = new DMatrixRMaj(size, 1);
        for (int i = 0; i < size; i++) {
            b.set(i, 0, right[i + 1]);
            for (int j = 0; j < size; j++) {
                a.set(i, j, system[(i + 1) * m + j + 1]);
            }
        }
        LinearSolverDense<DMatrixRMaj> solver = LinearSolverFactory_DDRM.symmPosDef(size);
        if (!solver.setA(a)) {
            throw new IllegalStateException("the standing's equations cannot be solved: " + m + " linked metrics, "
                + linked.cells() + " results; a weight may be too small beside the others");
        }
        DMatrixRMaj x = new DMatrixRMaj(size, 1);
        solver.solve(b, x);
        for (int i = 0; i < size; i++) {
            levels[i + 1] = x.get(i, 0);
        }
        return levels;
    }

    private double[] configurationLevels() {
        double[] levels = new double[grid.rows()];
        Arrays.fill(levels, Double.NaN);
        for (int r = 0; r < levels.length; r++) {
            if (!linked.hasRow(r)) {
                continue;
            }
            double total = 0;
            double sum = 0;
            for (int c = grid.start(r); c < grid.end(r); c++) {
                double w = weight[grid.column(c)];
                if (w > 0) {
                    total += w;
                    sum += w * (grid.merit(c) - metricLevel[linked.columnPosition(grid.column(c))]);
                }
            }
            levels[r] = sum / total;
        }
        return levels;
    }

    private double disagreement() {
        int cells = linked.cells();
        int parameters = linked.rows() + linked.columns() - 1;
        if (cells <= parameters) {
            return 0;
        }
        double weighted = 0;
        double total = 0;
        double noise = 0;
        int known = 0;
        for (int r = 0; r < grid.rows(); r++) {
            if (!linked.hasRow(r)) {
                continue;
            }
            for (int c = grid.start(r); c < grid.end(r); c++) {
                double w = weight[grid.column(c)];
                if (w > 0) {
                    double e = grid.merit(c) - level[r] - metricLevel[linked.columnPosition(grid.column(c))];
                    weighted += w * e * e;
                    total += w;
                    if (!Double.isNaN(grid.variance(c))) {
                        noise += grid.variance(c);
                        known++;
                    }
                }
            }
        }
        double meanNoise = known == 0 ? 0 : noise / known;
        return Math.max(0, weighted / total * cells / (cells - parameters) - meanNoise);
    }
}
