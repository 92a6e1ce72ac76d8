package yarrowmark.core.standing;

/**
 * A position in a standing, as an interval where noise does not allow one number.
 *
 * @param best  1 + the number clearly above
 * @param worst the number placed − the number clearly below
 */
public record Place(int best, int worst) {
    public Place {
        if (best < 1 || worst < best) {
            throw new IllegalArgumentException("a place runs from 1 or more upwards, not " + best + " to " + worst);
        }
    }

    /** "4" or "2–3". */
    public String words() {
        return best == worst ? Integer.toString(best) : best + "–" + worst;
    }
}
