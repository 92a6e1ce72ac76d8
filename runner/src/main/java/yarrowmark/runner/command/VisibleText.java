package yarrowmark.runner.command;

/**
 * Text from elsewhere as a terminal may show it: whatever a terminal would obey, hide, turn round or draw as nothing is written
 * out as its number. Everything that the runner prints goes through here.
 */
public final class VisibleText {
    /** Drawn as nothing, or as a space, though Unicode calls them letters or marks. */
    private static final String BLANK = "\u034f\u115f\u1160\u17b4\u17b5\u180b\u180c\u180d\u180f\u2800\u3164\uffa0";

    private VisibleText() {}

    public static String of(String text) {
        StringBuilder out = new StringBuilder(text.length());
        text.codePoints().forEach(c -> append(out, c));
        return out.toString();
    }

    /** @return whether it was written out as its number */
    static boolean append(StringBuilder out, int c) {
        if (isPlain(c)) {
            out.appendCodePoint(c);
            return false;
        }
        out.append(String.format("\\u{%x}", c));
        return true;
    }

    private static boolean isPlain(int c) {
        if (c == ' ') {
            return true;
        }
        boolean variation = c >= 0xfe00 && c <= 0xfe0f || c >= 0xe0100 && c <= 0xe01ef;
        return !variation
                && BLANK.indexOf(c) < 0
                && switch (Character.getType(c)) {
                    case Character.CONTROL,
                            Character.FORMAT,
                            Character.SURROGATE,
                            Character.PRIVATE_USE,
                            Character.UNASSIGNED,
                            Character.LINE_SEPARATOR,
                            Character.PARAGRAPH_SEPARATOR,
                            Character.SPACE_SEPARATOR -> false;
                    default -> true;
                };
    }
}
