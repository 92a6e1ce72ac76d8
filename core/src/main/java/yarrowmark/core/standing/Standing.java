package yarrowmark.core.standing;

import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;

/**
 * The result of ranking: every configuration of the grid, in order, with what is known about its position.
 *
 * @param entries    placed ones by merit, then provisional ones by merit, then those not linked, in grid order
 * @param tauSquared how much models differ from test to test, beyond run noise
 * @param metrics    metrics with weight
 * @param cells      cells that took part
 */
public record Standing(List<Entry> entries, double tauSquared, int metrics, int cells) {

    public Standing {
        entries = List.copyOf(entries);
    }

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
     * @param standardError of a; empty where not linked, or where a run noise is not known
     * @param coverage      share of the weight it has results for, 0 to 1
     * @param metrics       metrics with weight that it has results for
     * @param place         only where placed
     * @param percentile    share of the other placed ones that it beats, ties half, 0 to 1; from five others on
     * @param third         from six placed on
     */
    public record Entry(
            int row,
            Status status,
            OptionalDouble merit,
            OptionalDouble standardError,
            double coverage,
            int metrics,
            Optional<Place> place,
            OptionalDouble percentile,
            Optional<Third> third) {

        /** 100 · e^merit: the reference has 100. */
        public OptionalDouble index() {
            return merit.isPresent() ? OptionalDouble.of(100 * Math.exp(merit.getAsDouble())) : OptionalDouble.empty();
        }
    }
}
