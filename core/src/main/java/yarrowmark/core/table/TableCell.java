package yarrowmark.core.table;

/**
 * A cell as a file has it.
 *
 * @param text as it is read: numbers with a point, dates as 2026-03-12, words as they stand; empty where nothing stands
 */
public record TableCell(String text, Form form) {
    /** What a file says that a cell is; text may still read as a number. */
    public enum Form {
        EMPTY,
        TEXT,
        NUMBER,
        DATE,
        /** A formula that came to nothing, such as a division by zero. */
        ERROR
    }

    /** More than any score, name or reason has; what is longer is cut off. */
    private static final int LONGEST = 600;

    public static final TableCell EMPTY = new TableCell("", Form.EMPTY);

    public static TableCell of(String text) {
        String plain = text.strip();
        return plain.isEmpty()
                ? EMPTY
                : new TableCell(plain.length() > LONGEST ? plain.substring(0, LONGEST) : plain, Form.TEXT);
    }

    public boolean isEmpty() {
        return text.isEmpty();
    }
}
