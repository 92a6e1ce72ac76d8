package yarrowmark.core.setup;

/**
 * How far two values of a fact may lie apart and still count as the same circumstances.
 *
 * @param absolute in the base unit
 * @param relative as a share of the larger magnitude
 */
public record Tolerance(double absolute, double relative) {
    public static final Tolerance NONE = new Tolerance(0, 0);

    public Tolerance {
        if (!(absolute >= 0) || !(relative >= 0 && relative < 1)) {
            throw new IllegalArgumentException(
                    "a tolerance is not below 0, and a relative one below 1, not " + absolute + " and " + relative);
        }
    }

    public static Tolerance of(double absolute) {
        return new Tolerance(absolute, 0);
    }

    public static Tolerance share(double relative) {
        return new Tolerance(0, relative);
    }

    public boolean covers(double a, double b) {
        // A hair of room, because 21.5 − 20 is a little more than 1.5 in binary.
        return Math.abs(a - b) <= (absolute + relative * Math.max(Math.abs(a), Math.abs(b))) * (1 + 1e-9);
    }
}
