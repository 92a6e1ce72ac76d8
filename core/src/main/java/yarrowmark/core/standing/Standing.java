package yarrowmark.core.standing;

import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import yarrowmark.core.compare.PairComparison;
import yarrowmark.core.compare.PairComparison.Interval;
import yarrowmark.core.stats.DayBasis;

/**
 * The result of ranking: every configuration of the grid, in order, with what is known about its position.
 *
 * @param entries    placed ones by merit, then provisional ones by merit, then those not linked, in grid order
 * @param tauSquared how much models differ from test to test, beyond run noise
 * @param metrics    metrics with weight
 * @param cells      cells that took part
 * @param sessionDegrees of freedom of what sessions add to a level
 * @param testDegrees    of freedom of τ²
 * @param days           how many configurations tell how days differ
 */
public record Standing(
        List<Entry> entries,
        double tauSquared,
        int metrics,
        int cells,
        double sessionDegrees,
        double testDegrees,
        DayBasis days) {

    public Standing {
        entries = List.copyOf(entries);
    }

    /** How far two of its levels are apart, with the noise of both. */
    public PairComparison.Interval between(Entry earlier, Entry later) {
        double apart = later.merit().getAsDouble() - earlier.merit().getAsDouble();
        return PairComparison.Interval.around(
                apart,
                LevelNoise.variance(earlier.noise(), later.noise()),
                LevelNoise.degrees(earlier.noise(), later.noise(), degrees()));
    }

    LevelNoise.Degrees degrees() {
        return new LevelNoise.Degrees(sessionDegrees, testDegrees);
    }

    /**
     * @param metrics with weight, how many
     * @param most    whether they carry more than half of the weight it has: all that is said of it is then "probably"
     */
    public record Unmeasured(int metrics, boolean most) {}

    /** What kind of position a configuration has. */
    public enum Status {
        PLACED,
        /** Linked, but with results for less than half of the weight: listed after the placed ones, without a place. */
        PROVISIONAL,
        /** No chain of shared tests leads to the reference. */
        NOT_LINKED
    }

    /** Third of the placed configurations, from six placed on. */
    public enum Third {
        UPPER,
        MIDDLE,
        LOWER
    }

    /**
     * @param row           in the grid
     * @param merit         a − a of the reference; empty where not linked
     * @param noise         of a; nothing where not linked
     * @param interval      ratio to the reference with its 95 % interval, which knows the noise of both; the reference
     *                      itself is exactly 1; empty where not linked
     * @param coverage      share of the weight it has results for, 0 to 1
     * @param metrics       metrics with weight that it has results for
     * @param place         only where placed
     * @param percentile    share of the other placed ones that it beats, ties half, 0 to 1; from five others on
     * @param third         from six placed on
     * @param unmeasured    what of it rests on a spread that nobody measured here
     */
    public record Entry(
            int row,
            Status status,
            OptionalDouble merit,
            LevelNoise noise,
            Optional<Interval> interval,
            double coverage,
            int metrics,
            Optional<Place> place,
            OptionalDouble percentile,
            Optional<Third> third,
            Unmeasured unmeasured) {

        /** Of a; empty where not linked. */
        public OptionalDouble standardError() {
            return merit.isPresent() ? OptionalDouble.of(Math.sqrt(noise.variance())) : OptionalDouble.empty();
        }

        /** 100 · e^merit: the reference has 100. */
        public OptionalDouble index() {
            return merit.isPresent() ? OptionalDouble.of(100 * Math.exp(merit.getAsDouble())) : OptionalDouble.empty();
        }
    }
}
