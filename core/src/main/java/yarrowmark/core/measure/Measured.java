package yarrowmark.core.measure;

/**
 * One value with the step it was read in.
 *
 * @param value      in the metric's unit, finite
 * @param resolution the smallest step the instrument or the typing could show, in the same unit; 0 where it is
 *                   so fine that it does not matter. A time typed as 234 s has 1 s.
 */
public record Measured(double value, double resolution) {
    /** No instrument shows less or more, and what is squared or divided later stays finite within these bounds. */
    public static final double SMALLEST = 1e-30;

    public static final double LARGEST = 1e30;

    public Measured {
        if (!Double.isFinite(value)) {
            throw new InvalidReadingException("A reading must be a finite number, not " + value + ".");
        }
        if (!(resolution >= 0 && resolution < Double.POSITIVE_INFINITY)) {
            throw new InvalidReadingException("A resolution must be 0 or more and finite, not " + resolution + ".");
        }
    }

    /** A value whose resolution does not matter. */
    public static Measured exact(double value) {
        return new Measured(value, 0);
    }

    /**
     * Refuses what may not come in, whichever way it comes: what a metric of this scale cannot have, and sizes that no
     * instrument shows. What was stored before there were bounds is still read.
     *
     * @throws InvalidReadingException with words for whoever sent it
     */
    public Measured admittedFor(Scale scale) {
        if (Math.abs(value) > LARGEST || value != 0 && Math.abs(value) < SMALLEST) {
            throw new InvalidReadingException(
                    "A reading lies between " + SMALLEST + " and " + LARGEST + " in size, and " + value + " does not.");
        }
        if (resolution > LARGEST) {
            throw new InvalidReadingException(
                    "A resolution is at most " + LARGEST + ", and " + resolution + " is more.");
        }
        return checkedFor(scale);
    }

    /**
     * Refuses what a metric of this scale cannot have, at the door, so that nothing later needs to guard against it.
     *
     * @throws InvalidReadingException when a ratio metric's value is not above 0
     */
    public Measured checkedFor(Scale scale) {
        if (scale == Scale.RATIO && !(value > 0)) {
            throw new InvalidReadingException("A reading of this metric must be above 0, not " + value
                    + ". A test that did not complete is a failed run with a reason, not a 0.");
        }
        return this;
    }
}
