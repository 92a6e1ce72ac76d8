package yarrowmark.core.quality;

/**
 * A timing too short for its clock: the timed part is under 100 steps of the clock. For a rate, too, value over
 * resolution is the number of steps that were timed.
 */
public final class TooShort {
    /** Below this many steps rounding alone moves a value by half a per cent and more. */
    public static final double FEWEST_STEPS = 100;

    private TooShort() {}

    /** @param resolution of the clock in the value's unit; 0 where it does not matter */
    public static boolean of(double value, double resolution) {
        return resolution > 0 && Math.abs(value) / resolution < FEWEST_STEPS;
    }
}
