package yarrowmark.core.standing;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.stream.IntStream;
import org.apache.commons.statistics.descriptive.Median;

/**
 * Ranks the configurations of a grid for given weights, against a reference.
 *
 * <p>Place: i is clearly below k when (a of k − a of i) / √(var i + var k) is above the 97.5 % point of Student's t
 * ({@link ClearOrder}). Index: its interval is that of a − a of the reference, with the noise of both; against the typical
 * one, the noise of the configuration nearest to it stands for that of the median. Ties of merit keep the grid's order.
 *
 * <p>Source: section 5 of the method.
 */
public final class Ranking {
    /** Below this share of the weight a standing is provisional. */
    static final double ENOUGH_COVERAGE = 0.5;

    private static final int OTHERS_FOR_PERCENTILE = 5;
    private static final int PLACED_FOR_THIRDS = 6;

    private Ranking() {}

    /**
     * @param weights   one a column, 0 or more, not all 0; scaled here to sum to 1
     * @param reference row that gets the index 100; needs at least one result that has weight
     */
    public static Standing of(MeritGrid grid, double[] weights, int reference) {
        return of(grid, weights, Reference.row(reference));
    }

    /** @param weights one a column, 0 or more, not all 0; scaled here to sum to 1 */
    public static Standing of(MeritGrid grid, double[] weights, Reference reference) {
        double[] weight = scaled(weights, grid.columns());
        return placed(grid, weight, fitted(grid, weight, reference), reference);
    }

    /**
     * a − a of the reference for each row, NaN where not linked, with its standard error: without places, for a rail.
     *
     * @return levels and standard errors
     */
    public static double[][] levels(MeritGrid grid, double[] weights, Reference reference) {
        double[] weight = scaled(weights, grid.columns());
        StandingFit fit = fitted(grid, weight, reference);
        double[][] levels = new double[2][grid.rows()];
        for (int r = 0; r < grid.rows(); r++) {
            levels[0][r] = fit.level(r);
            levels[1][r] = fit.linked().hasRow(r) ? Math.sqrt(fit.noise(r).variance()) : Double.NaN;
        }
        return levels;
    }

    /** @param weight summing to 1 */
    static StandingFit fitted(MeritGrid grid, double[] weight, Reference reference) {
        if (reference instanceof Reference.Row row) {
            StandingFit fit = new StandingFit(grid, weight, checked(grid, weight, row.row()));
            fit.shift(fit.level(row.row()));
            return fit;
        }
        StandingFit fit = new StandingFit(grid, weight, ConnectedComponent.homeOfLargest(grid, weight));
        fit.shift(typical(grid, fit));
        return fit;
    }

    private static int checked(MeritGrid grid, double[] weight, int row) {
        if (row < 0 || row >= grid.rows() || metrics(grid, weight, row) == 0) {
            throw new IllegalArgumentException(
                    "the reference, row " + row + ", has no result in any metric that has weight");
        }
        return row;
    }

    /** Median level of those placed; of all that are linked where none has enough coverage. */
    private static double typical(MeritGrid grid, StandingFit fit) {
        double[] levels = IntStream.range(0, grid.rows())
                .filter(r -> fit.linked().hasRow(r) && isPlaced(fit, r))
                .mapToDouble(fit::level)
                .toArray();
        return Median.withDefaults()
                .evaluate(
                        levels.length > 0
                                ? levels
                                : IntStream.range(0, grid.rows())
                                        .filter(fit.linked()::hasRow)
                                        .mapToDouble(fit::level)
                                        .toArray());
    }

    static boolean isPlaced(StandingFit fit, int row) {
        return isEnough(fit.coverage(row));
    }

    static boolean isEnough(double coverage) {
        return coverage >= ENOUGH_COVERAGE - 1e-12;
    }

    private static Standing placed(MeritGrid grid, double[] weight, StandingFit fit, Reference reference) {
        Entries entries = new Entries(grid, weight, fit, reference);
        List<Integer> placed = new ArrayList<>();
        List<Integer> provisional = new ArrayList<>();
        List<Integer> apart = new ArrayList<>();
        for (int r = 0; r < grid.rows(); r++) {
            if (!fit.linked().hasRow(r)) {
                apart.add(r);
            } else if (!isPlaced(fit, r)) {
                provisional.add(r);
            } else {
                placed.add(r);
            }
        }
        Comparator<Integer> best =
                Comparator.comparingDouble((Integer r) -> fit.level(r)).reversed();
        placed.sort(best);
        provisional.sort(best);

        List<Standing.Entry> all = placedEntries(entries, fit, placed);
        provisional.forEach(r -> all.add(entries.without(r, Standing.Status.PROVISIONAL)));
        apart.forEach(r -> all.add(entries.without(r, Standing.Status.NOT_LINKED)));
        int weighted = 0;
        for (double w : weight) {
            weighted += w > 0 ? 1 : 0;
        }
        LevelNoise.Degrees degrees = fit.degrees();
        return new Standing(
                all,
                fit.tauSquared(),
                weighted,
                fit.linked().cells(),
                degrees.sessions(),
                degrees.tests(),
                grid.day(weight).devices());
    }

    private static List<Standing.Entry> placedEntries(Entries entries, StandingFit fit, List<Integer> placed) {
        int n = placed.size();
        double[] level = new double[n];
        LevelNoise[] noise = new LevelNoise[n];
        for (int i = 0; i < n; i++) {
            level[i] = fit.level(placed.get(i));
            noise[i] = entries.noise(placed.get(i));
        }
        ClearOrder order = ClearOrder.of(level, noise, fit.degrees());
        List<Standing.Entry> all = new ArrayList<>();
        for (int i = 0; i < n; i++) {
            OptionalDouble percentile =
                    n > OTHERS_FOR_PERCENTILE ? OptionalDouble.of(beaten(level, i)) : OptionalDouble.empty();
            Optional<Standing.Third> third =
                    n >= PLACED_FOR_THIRDS ? Optional.of(third(beaten(level, i))) : Optional.empty();
            all.add(entries.of(placed.get(i), Standing.Status.PLACED, Optional.of(order.place(i)), percentile, third));
        }
        return all;
    }

    /** Share of the others that entry i of a falling order beats, ties half. */
    private static double beaten(double[] level, int i) {
        int first = i;
        while (first > 0 && level[first - 1] == level[i]) {
            first--;
        }
        int last = i;
        while (last < level.length - 1 && level[last + 1] == level[i]) {
            last++;
        }
        return (level.length - 1 - last + (last - first) / 2.0) / (level.length - 1);
    }

    private static Standing.Third third(double beaten) {
        if (beaten >= 2.0 / 3) {
            return Standing.Third.UPPER;
        }
        return beaten <= 1.0 / 3 ? Standing.Third.LOWER : Standing.Third.MIDDLE;
    }

    static int metrics(MeritGrid grid, double[] weight, int row) {
        int count = 0;
        for (int c = grid.start(row); c < grid.end(row); c++) {
            count += weight[grid.column(c)] > 0 ? 1 : 0;
        }
        return count;
    }

    static double[] scaled(double[] weights, int columns) {
        if (weights.length != columns) {
            throw new IllegalArgumentException("one weight a metric is needed: " + weights.length + " for " + columns);
        }
        double sum = 0;
        for (double w : weights) {
            if (!(w >= 0 && w < Double.POSITIVE_INFINITY)) {
                throw new IllegalArgumentException("a weight must be 0 or more and finite, not " + w);
            }
            sum += w;
        }
        if (!(sum > 0)) {
            throw new IllegalArgumentException("at least one weight must be above 0");
        }
        double[] scaled = new double[columns];
        for (int j = 0; j < columns; j++) {
            scaled[j] = weights[j] / sum;
        }
        return scaled;
    }
}
