package yarrowmark.core.measure;

/** Which way a metric gets better. Always stated, never guessed from a unit. */
public enum Direction {
    MORE_IS_BETTER(1),
    LESS_IS_BETTER(-1);

    private final int sign;

    Direction(int sign) {
        this.sign = sign;
    }

    /** Plus one where more is better, minus one where less is better. */
    public int sign() {
        return sign;
    }
}
