package yarrowmark.core.entry;

import java.util.Arrays;
import java.util.List;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Merit;
import yarrowmark.core.measure.Scale;

/**
 * How a typed value lies to what is known already, before it is stored.
 *
 * @param perOthers value over the arithmetic mean of the other runs; empty without them, and for difference metrics
 * @param place     where it would stand alone among other configurations: 1 + the number that are better; empty without them
 * @param of        how many would then stand there
 * @param doubts    what it looks like, see {@link LikelySlip}; none for difference metrics
 */
public record ScorePreview(OptionalDouble perOthers, OptionalInt place, int of, List<LikelySlip> doubts) {
    /** Below this many other models, without runs of this one, nothing is doubted. */
    private static final int FEWEST_MODELS = 3;
    /** Other models may be far away for good reasons: only what lies this far beyond all of them is doubted. */
    private static final double BEYOND_ALL = 2;

    public ScorePreview {
        doubts = List.copyOf(doubts);
    }

    /**
     * @param value  of a ratio metric above 0, else nothing is said of it
     * @param others values of the other runs, in the unit
     * @param merits mean merits of other configurations on the metric
     */
    public static ScorePreview of(
            double value, String unit, Direction direction, Scale scale, double[] others, double[] merits) {
        if (scale == Scale.RATIO && !(value > 0)) {
            return new ScorePreview(OptionalDouble.empty(), OptionalInt.empty(), 0, List.of());
        }
        double merit = Merit.of(value, direction, scale);
        OptionalInt place = merits.length == 0
                ? OptionalInt.empty()
                : OptionalInt.of(
                        1 + (int) Arrays.stream(merits).filter(m -> m > merit).count());
        int of = merits.length == 0 ? 0 : merits.length + 1;
        if (scale != Scale.RATIO) {
            return new ScorePreview(OptionalDouble.empty(), place, of, List.of());
        }
        double mean = Arrays.stream(others).average().orElse(0);
        return new ScorePreview(
                mean > 0 ? OptionalDouble.of(value / mean) : OptionalDouble.empty(),
                place,
                of,
                doubts(value, unit, direction, others, merits));
    }

    private static List<LikelySlip> doubts(
            double value, String unit, Direction direction, double[] others, double[] merits) {
        if (others.length > 0) {
            return LikelySlip.of(value, unit, others);
        }
        double[] models = Arrays.stream(merits)
                .map(m -> Merit.toValue(m, direction))
                .sorted()
                .toArray();
        boolean beyond = models.length >= FEWEST_MODELS
                && (value < models[0] / BEYOND_ALL || value > models[models.length - 1] * BEYOND_ALL);
        return beyond ? LikelySlip.of(value, unit, models) : List.of();
    }
}
