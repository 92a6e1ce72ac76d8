package yarrowmark.core.standing;

import java.util.Arrays;
import yarrowmark.core.stats.SharedDay;

/**
 * Fits y = a + t + e by least squares weighted with the purpose's weights, on a grid with gaps.
 *
 * <p>The configurations' levels a are eliminated first, which leaves a system in the metrics' levels t alone
 * ({@link MetricLevels}). On a full grid a − a of the reference is exactly the weighted mean of log ratios.
 *
 * <p>Variance of a: with w* the weights scaled to sum 1 over what a configuration has,
 * Σ w*² v of the runs, what sessions add to all tests together ({@link yarrowmark.core.stats.SharedDay}), and
 * τ² · max(0, Σ w*² − Σ w²), where τ² = max(0, (Σ w e² / Σ w) · N / (N − p) − mean v), over N cells with
 * p = configurations + metrics − 1, and 0 where N ≤ p.
 *
 * <p>Edge cases: one configuration, or one metric, is fitted exactly. Accuracy: nine digits against R 4.2.2's lm.
 * Source: sections 5 and 11 of the method; weighted two-way least squares as in any textbook of linear models.
 */
final class StandingFit {
    private final MeritGrid grid;
    private final double[] weight;
    private final ConnectedComponent linked;
    private final FlatCells cells;
    private final double[] coverage;
    /** Σ w² of one that has everything. */
    private final double fullSquares;

    private final double[] metricLevel;
    private final double[] level;
    private final double tauSquared;
    private double shifted;

    /**
     * @param weight one a column, 0 or more, summing to 1
     * @param home   a row with at least one result that has weight: what is linked to it is fitted
     */
    StandingFit(MeritGrid grid, double[] weight, int home) {
        this(grid, weight, new ConnectedComponent(grid, weight, home));
    }

    private StandingFit(MeritGrid grid, double[] weight, ConnectedComponent linked) {
        this.grid = grid;
        this.weight = weight;
        this.linked = linked;
        this.fullSquares = Arrays.stream(weight).map(w -> w * w).sum();
        this.coverage = coverages(grid, weight);
        this.cells = new FlatCells(grid, weight, linked);
        this.metricLevel = new MetricLevels(cells).solved();
        this.level = configurationLevels();
        this.tauSquared = disagreement();
    }

    /** The same with this much less on every configuration, so that the reference is at 0. */
    void shift(double zero) {
        for (int r = 0; r < level.length; r++) {
            level[r] -= zero;
        }
        shifted += zero;
    }

    /** What a result says beyond the configuration's level and the metric's; merits are as given, whatever was shifted. */
    double residual(int row, int cell) {
        return grid.merit(cell) - level[row] - shifted - metricLevel[linked.columnPosition(grid.column(cell))];
    }

    /** y − t: how good a result is beside what is typical of its metric, on the scale of the levels. */
    double beyondMetric(int cell) {
        return grid.merit(cell) - shifted - metricLevel[linked.columnPosition(grid.column(cell))];
    }

    FlatCells cells() {
        return cells;
    }

    double[] metricLevels() {
        return metricLevel;
    }

    ConnectedComponent linked() {
        return linked;
    }

    double tauSquared() {
        return tauSquared;
    }

    /** Less what was shifted; NaN where not linked. */
    double level(int row) {
        return level[row];
    }

    /** Of a row's level. */
    LevelNoise noise(int row) {
        return noise(row, weight, coverage(row));
    }

    /**
     * Of the level that some of the metrics alone would give a row: what of τ² it would have then is that of a row that has
     * nothing else.
     *
     * @param among the weights, 0 for each metric that is left out
     */
    LevelNoise noise(int row, double[] among) {
        double has = 0;
        for (int c = grid.start(row); c < grid.end(row); c++) {
            has += among[grid.column(c)];
        }
        return has > 0 ? noise(row, among, has) : LevelNoise.NONE;
    }

    private LevelNoise noise(int row, double[] among, double has) {
        double runs = 0;
        double terms = 0;
        double q = 0;
        double qq = 0;
        double squares = 0;
        double together = 0;
        for (int c = grid.start(row); c < grid.end(row); c++) {
            double w = among[grid.column(c)];
            if (w > 0) {
                double scaled = w / has;
                together += scaled * grid.day(grid.column(c)).together();
                double square = scaled * scaled;
                double v = square * grid.runVariance(c);
                runs += v;
                terms += v * v / grid.runDegrees(c);
                double session = grid.sessionVariance(c);
                if (session > 0) {
                    q += scaled * Math.sqrt(session);
                    qq += square * session;
                }
                squares += square;
            }
        }
        double days = SharedDay.variance(Math.min(1, together), q, qq);
        return new LevelNoise(runs, terms, days, tauSquared * Math.max(0, squares - fullSquares));
    }

    /** Of the parts of every level that rest on shared estimates. */
    LevelNoise.Degrees degrees() {
        return new LevelNoise.Degrees(grid.day(weight).degreesOfFreedom(), Math.max(1, linked.cells() - parameters()));
    }

    double coverage(int row) {
        return coverage[row];
    }

    private static double[] coverages(MeritGrid grid, double[] weight) {
        double[] coverage = new double[grid.rows()];
        for (int r = 0; r < coverage.length; r++) {
            for (int c = grid.start(r); c < grid.end(r); c++) {
                coverage[r] += weight[grid.column(c)];
            }
        }
        return coverage;
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

    private int parameters() {
        return linked.rows() + linked.columns() - 1;
    }

    private double disagreement() {
        int cells = linked.cells();
        int parameters = parameters();
        if (cells <= parameters) {
            return 0;
        }
        double weighted = 0;
        double total = 0;
        double noise = 0;
        for (int r = 0; r < grid.rows(); r++) {
            if (!linked.hasRow(r)) {
                continue;
            }
            for (int c = grid.start(r); c < grid.end(r); c++) {
                double w = weight[grid.column(c)];
                if (w > 0) {
                    double e = residual(r, c);
                    weighted += w * e * e;
                    total += w;
                    noise += grid.variance(c);
                }
            }
        }
        return Math.max(0, weighted / total * cells / (cells - parameters) - noise / cells);
    }
}
