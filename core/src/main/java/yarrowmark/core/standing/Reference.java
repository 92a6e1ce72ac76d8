package yarrowmark.core.standing;

/** What has the index 100: a configuration, or the typical one of those that are placed (the median of their merits). */
public sealed interface Reference {
    /** @param row in the grid; needs at least one result that has weight */
    record Row(int row) implements Reference {}

    /**
     * The median of those placed. Where a grid falls into islands, those of the one with most results are placed.
     */
    record Typical() implements Reference {}

    static Reference row(int row) {
        return new Row(row);
    }

    static Reference typical() {
        return new Typical();
    }
}
