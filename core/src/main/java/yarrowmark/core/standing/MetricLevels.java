package yarrowmark.core.standing;

import java.util.Arrays;
import org.ejml.data.DMatrixRMaj;
import org.ejml.dense.row.factory.LinearSolverFactory_DDRM;
import org.ejml.interfaces.linsol.LinearSolverDense;

/**
 * Solves for the metrics' levels t of a standing, the configurations' levels being eliminated:
 * (diag(Σ w) − Σ over configurations of w wᵀ / Σ w) t = Σ w (y − ȳ), symmetric and positive semidefinite; adding a number
 * to every t changes nothing, so the first one is 0.
 *
 * <p>Two ways with the same answer to nine digits: Cholesky, whose work grows with the square of what each configuration
 * has and the cube of the metrics; and conjugate gradients (Hestenes and Stiefel 1952, doi:10.6028/jres.049.044) with the
 * diagonal as preconditioner, whose work grows with the cells alone and which may begin from a near answer.
 */
final class MetricLevels {
    /** Residual, relative to the right side, at which the levels hold nine digits on grids that are well linked. */
    private static final double SMALL_ENOUGH = 1e-14;

    private static final int MOST_STEPS = 2_000;
    /** Multiplications from which iterating is quicker here; both ways were measured on 2,000 × 60 and 20,000 × 100. */
    private static final double TOO_MUCH_FOR_DIRECT = 1e6;

    private final FlatCells cells;

    MetricLevels(FlatCells cells) {
        this.cells = cells;
    }

    double[] solved() {
        return work() > TOO_MUCH_FOR_DIRECT ? iterated(new double[cells.metrics], SMALL_ENOUGH) : direct();
    }

    private double work() {
        double m = cells.metrics;
        double work = m * m * m / 3;
        for (int r = 0; r < cells.rows(); r++) {
            double has = cells.start[r + 1] - cells.start[r];
            work += has * has;
        }
        return work;
    }

    double[] direct() {
        int m = cells.metrics;
        double[] levels = new double[m];
        if (m < 2) {
            return levels;
        }
        double[] system = new double[m * m];
        double[] right = new double[m];
        for (int r = 0; r < cells.rows(); r++) {
            double mean = cells.mean(r, cells.merit);
            for (int p = cells.start[r]; p < cells.start[r + 1]; p++) {
                double w = cells.weight[p];
                int j = cells.position[p] * m;
                system[j + cells.position[p]] += w;
                right[cells.position[p]] += w * (cells.merit[p] - mean);
                double share = w / cells.total[r];
                for (int q = cells.start[r]; q < cells.start[r + 1]; q++) {
                    system[j + cells.position[q]] -= share * cells.weight[q];
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
                    + cells.position.length + " results; a weight may be too small beside the others");
        }
        DMatrixRMaj x = new DMatrixRMaj(size, 1);
        solver.solve(b, x);
        for (int i = 0; i < size; i++) {
            levels[i + 1] = x.get(i, 0);
        }
        return levels;
    }

    double[] iterated(double[] near) {
        return iterated(near, SMALL_ENOUGH);
    }

    /**
     * @param near  where to begin; one value a linked metric
     * @param small residual at which to end, relative to the right side
     */
    double[] iterated(double[] near, double small) {
        int m = cells.metrics;
        if (m < 2) {
            return new double[m];
        }
        double[] t = near.clone();
        double[] right = new double[m];
        double[] diagonal = new double[m];
        prepare(right, diagonal);
        double[] residual = new double[m];
        double[] product = new double[m];
        multiply(t, product);
        for (int j = 0; j < m; j++) {
            residual[j] = right[j] - product[j];
        }
        double limit = small * small * scaled(right, right, diagonal);
        double[] direction = new double[m];
        double before = 1;
        for (int step = 0; step < MOST_STEPS; step++) {
            double now = scaled(residual, residual, diagonal);
            if (now <= limit) {
                return fromFirst(t);
            }
            double turn = step == 0 ? 0 : now / before;
            double curve = 0;
            for (int j = 0; j < m; j++) {
                direction[j] = residual[j] / diagonal[j] + turn * direction[j];
            }
            multiply(direction, product);
            for (int j = 0; j < m; j++) {
                curve += direction[j] * product[j];
            }
            if (!(curve > 0)) {
                return fromFirst(t); // Nothing is left but rounding.
            }
            double length = now / curve;
            for (int j = 0; j < m; j++) {
                t[j] += length * direction[j];
                residual[j] -= length * product[j];
            }
            before = now;
        }
        return direct();
    }

    private void prepare(double[] right, double[] diagonal) {
        for (int r = 0; r < cells.rows(); r++) {
            double mean = cells.mean(r, cells.merit);
            for (int c = cells.start[r]; c < cells.start[r + 1]; c++) {
                double w = cells.weight[c];
                right[cells.position[c]] += w * (cells.merit[c] - mean);
                diagonal[cells.position[c]] += w - w * w / cells.total[r];
            }
        }
        for (int j = 0; j < diagonal.length; j++) {
            // A metric that only configurations without any other result have says nothing, and may stay where it is.
            diagonal[j] = diagonal[j] > 0 ? diagonal[j] : 1;
        }
    }

    private void multiply(double[] x, double[] product) {
        Arrays.fill(product, 0);
        for (int r = 0; r < cells.rows(); r++) {
            int from = cells.start[r];
            int to = cells.start[r + 1];
            double mean = 0;
            for (int c = from; c < to; c++) {
                mean += cells.weight[c] * x[cells.position[c]];
            }
            mean /= cells.total[r];
            for (int c = from; c < to; c++) {
                int j = cells.position[c];
                product[j] += cells.weight[c] * (x[j] - mean);
            }
        }
    }

    private static double scaled(double[] a, double[] b, double[] diagonal) {
        double sum = 0;
        for (int j = 0; j < a.length; j++) {
            sum += a[j] * b[j] / diagonal[j];
        }
        return sum;
    }

    private static double[] fromFirst(double[] t) {
        double first = t[0];
        for (int j = 0; j < t.length; j++) {
            t[j] -= first;
        }
        return t;
    }
}
