package yarrowmark.core.standing;

/**
 * A position in a standing: the order by merit, and what it could be where noise does not allow one number.
 *
 * @param order 1 + the number with more merit; equal ones share it
 * @param best  1 + the number clearly above
 * @param worst the number placed − the number clearly below
 */
public record Place(int order, int best, int worst) {
    public Place {
        if (best < 1 || worst < best || order < best || order > worst) {
            throw new IllegalArgumentException("a place runs from 1 or more upwards and holds the order, not " + order
                    + " in " + best + " to " + worst);
        }
    }

    /** "4" or "4 (2 to 7)". */
    public String words() {
        return best == worst ? Integer.toString(order) : order + " (" + best + " to " + worst + ")";
    }
}
