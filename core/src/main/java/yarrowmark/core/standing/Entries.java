package yarrowmark.core.standing;

import java.util.Optional;
import java.util.OptionalDouble;
import yarrowmark.core.compare.PairComparison;

/** Makes the entries of a standing from its fit: what is known of each, besides its place. */
final class Entries {
    private static final double MOST_OF_THE_WEIGHT = 0.5;
    private static final double EQUALLY_NEAR = 1e-12;

    private final MeritGrid grid;
    private final double[] weight;
    private final StandingFit fit;
    /** −1 where the typical one is the reference. */
    private final int referenceRow;

    private final LevelNoise ofReference;
    private final LevelNoise.Degrees degrees;
    /** Of each row that is linked. */
    private final LevelNoise[] noise;

    Entries(MeritGrid grid, double[] weight, StandingFit fit, Reference reference) {
        this.grid = grid;
        this.weight = weight;
        this.fit = fit;
        this.referenceRow = reference instanceof Reference.Row r ? r.row() : -1;
        this.noise = new LevelNoise[grid.rows()];
        for (int r = 0; r < noise.length; r++) {
            noise[r] = fit.linked().hasRow(r) ? fit.noise(r) : LevelNoise.NONE;
        }
        this.degrees = fit.degrees();
        this.ofReference = referenceRow >= 0 ? noise[referenceRow] : ofTypical();
    }

    /**
     * Of the one nearest to the reference, which is at 0; of both where two are equally near, as with an even number. Of those
     * placed, or of all that are linked where none is.
     */
    private LevelNoise ofTypical() {
        int nearest = -1;
        int asNear = -1;
        boolean placed = false;
        for (int r = 0; r < grid.rows(); r++) {
            if (fit.linked().hasRow(r)) {
                boolean own = Ranking.isPlaced(fit, r);
                double nearer =
                        nearest < 0 ? Double.POSITIVE_INFINITY : Math.abs(fit.level(nearest)) - Math.abs(fit.level(r));
                if (own && !placed || own == placed && nearer > EQUALLY_NEAR) {
                    nearest = r;
                    asNear = -1;
                    placed = own;
                } else if (own == placed && nearer >= -EQUALLY_NEAR) {
                    asNear = r;
                }
            }
        }
        return asNear < 0 ? noise[nearest] : LevelNoise.mean(noise[nearest], noise[asNear]);
    }

    LevelNoise noise(int row) {
        return noise[row];
    }

    /** One that has no place. */
    Standing.Entry without(int row, Standing.Status status) {
        return of(row, status, Optional.empty(), OptionalDouble.empty(), Optional.empty());
    }

    Standing.Entry of(
            int row,
            Standing.Status status,
            Optional<Place> place,
            OptionalDouble percentile,
            Optional<Standing.Third> third) {
        boolean linked = status != Standing.Status.NOT_LINKED;
        return new Standing.Entry(
                row,
                status,
                linked ? OptionalDouble.of(fit.level(row)) : OptionalDouble.empty(),
                noise[row],
                linked ? Optional.of(interval(row)) : Optional.empty(),
                fit.coverage(row),
                Ranking.metrics(grid, weight, row),
                place,
                percentile,
                third,
                unmeasured(row));
    }

    private PairComparison.Interval interval(int row) {
        return row == referenceRow
                ? new PairComparison.Interval(1, 1, 0, Double.POSITIVE_INFINITY)
                : PairComparison.Interval.around(
                        fit.level(row),
                        LevelNoise.variance(noise[row], ofReference),
                        LevelNoise.degrees(noise[row], ofReference, degrees));
    }

    private Standing.Unmeasured unmeasured(int row) {
        int count = 0;
        double share = 0;
        for (int c = grid.start(row); c < grid.end(row); c++) {
            double w = weight[grid.column(c)];
            if (w > 0 && grid.isUnmeasured(c)) {
                count++;
                share += w;
            }
        }
        return new Standing.Unmeasured(count, share > MOST_OF_THE_WEIGHT * fit.coverage(row) + 1e-12);
    }
}
