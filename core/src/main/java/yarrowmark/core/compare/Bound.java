package yarrowmark.core.compare;

/** Where a display holds a value, it is the least there may be: which way a ratio of two is open then. */
public enum Bound {
    /** Neither is held: the ratio is what it is. */
    NONE(""),
    AT_LEAST("at least"),
    AT_MOST("at most"),
    /** Both are held, so each may be the better one. */
    OPEN("");

    private final String words;

    Bound(String words) {
        this.words = words;
    }

    public static Bound of(boolean held, boolean baseHeld) {
        return held && baseHeld ? OPEN : held ? AT_LEAST : baseHeld ? AT_MOST : NONE;
    }

    public String words() {
        return words;
    }
}
