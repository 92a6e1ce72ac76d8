package yarrowmark.core.standing;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;

/**
 * Why a configuration stands where it does: what each metric adds to its merit, where it is surely among the best or the
 * worst third, and what it has no result for.
 *
 * <p>Contribution of a metric: w*(y − t) of the configuration less w*(y − t) of the reference, with w* the weights scaled
 * to sum 1 over what each of the two has and t the metric's level in the fit. The contributions add up to the merit, that
 * is to ln(index / 100); on a full grid each is the weight times the log ratio. Against the typical one, the reference's
 * part is its merit, spread over what the configuration has by weight.
 *
 * <p>Third: among the n configurations that are placed and have a result, from six on, a configuration is surely in the
 * upper third where at most n/3 are not clearly below it, itself counted, and surely in the lower where at least 2n/3 are
 * clearly above it ({@link ClearOrder}).
 *
 * <p>Edge cases: a row that is not linked has no reasons. Source: section 5 of the method.
 */
public final class PlaceReasons {
    private static final int FEWEST_FOR_THIRDS = 6;

    /**
     * @param column       in the grid
     * @param weight       share of the whole
     * @param contribution to ln(index / 100); empty where neither it nor the reference has a result
     * @param merit        y − t, how much better it is than what is typical of the metric; empty without a result
     * @param third        where it surely is in one
     */
    public record Reason(
            int column,
            double weight,
            OptionalDouble contribution,
            OptionalDouble merit,
            Optional<Standing.Third> third) {}

    private PlaceReasons() {}

    /** @return one reason for each column that has weight; empty where the row is not linked to the reference */
    public static List<Reason> of(MeritGrid grid, double[] weights, Reference reference, int row) {
        double[] weight = Ranking.scaled(weights, grid.columns());
        StandingFit fit = Ranking.fitted(grid, weight, reference);
        if (!fit.linked().hasRow(row)) {
            return List.of();
        }
        double[] own = parts(grid, weight, fit, row);
        double[] against =
                reference instanceof Reference.Row r ? parts(grid, weight, fit, r.row()) : new double[grid.columns()];
        List<Reason> reasons = new ArrayList<>();
        for (int j = 0; j < weight.length; j++) {
            if (weight[j] > 0) {
                int cell = cell(grid, row, j);
                boolean either = cell >= 0 || reference instanceof Reference.Row r && cell(grid, r.row(), j) >= 0;
                reasons.add(new Reason(
                        j,
                        weight[j],
                        either ? OptionalDouble.of(own[j] - against[j]) : OptionalDouble.empty(),
                        cell >= 0 ? OptionalDouble.of(fit.beyondMetric(cell)) : OptionalDouble.empty(),
                        cell >= 0 ? third(grid, fit, row, j) : Optional.empty()));
            }
        }
        return reasons;
    }

    /** w*(y − t) for each column; they add up to the row's level. */
    private static double[] parts(MeritGrid grid, double[] weight, StandingFit fit, int row) {
        double[] parts = new double[grid.columns()];
        double has = fit.coverage(row);
        for (int c = grid.start(row); c < grid.end(row); c++) {
            double w = weight[grid.column(c)];
            if (w > 0) {
                parts[grid.column(c)] = w / has * fit.beyondMetric(c);
            }
        }
        return parts;
    }

    private static int cell(MeritGrid grid, int row, int column) {
        for (int c = grid.start(row); c < grid.end(row); c++) {
            if (grid.column(c) == column) {
                return c;
            }
        }
        return -1;
    }

    private static Optional<Standing.Third> third(MeritGrid grid, StandingFit fit, int row, int column) {
        int mine = cell(grid, row, column);
        int n = 0;
        int notBelow = 0;
        int above = 0;
        for (int r = 0; r < grid.rows(); r++) {
            int cell = fit.linked().hasRow(r) && (r == row || Ranking.isPlaced(fit, r)) ? cell(grid, r, column) : -1;
            if (cell >= 0) {
                n++;
                double apart = grid.merit(mine) - grid.merit(cell);
                boolean clear =
                        LevelNoise.isClear(Math.abs(apart), noise(grid, mine), noise(grid, cell), fit.degrees());
                notBelow += clear && apart > 0 ? 0 : 1;
                above += clear && apart < 0 ? 1 : 0;
            }
        }
        if (n < FEWEST_FOR_THIRDS) {
            return Optional.empty();
        }
        return 3 * notBelow <= n
                ? Optional.of(Standing.Third.UPPER)
                : 3 * above >= 2 * n ? Optional.of(Standing.Third.LOWER) : Optional.empty();
    }

    private static LevelNoise noise(MeritGrid grid, int cell) {
        double runs = grid.runVariance(cell);
        return new LevelNoise(runs, runs * runs / grid.runDegrees(cell), grid.sessionVariance(cell), 0);
    }
}
