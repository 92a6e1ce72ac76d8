package yarrowmark.core.rule;

import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Makes a pattern out of a number that somebody marked in a sample: the line is kept as it is, its other numbers may be
 * any, and its blanks any width. So the same line of the next output is found, and no other.
 */
public final class MarkedNumber {
    private static final int LONGEST_AFTER = 24;
    private static final Pattern NUMBER = Pattern.compile("\\d[\\d.,]*");
    private static final Pattern UNIT = Pattern.compile("^\\s*([A-Za-zµ°%][A-Za-zµ°%/]{0,11})(?=\\s|$|[,;)\\]])");

    private MarkedNumber() {}

    /**
     * @param start of the mark in the text, and its end behind the last character
     * @throws IllegalArgumentException where no number is marked, or more than one line
     */
    public static ScorePattern pattern(String text, int start, int end) {
        if (start < 0 || end > text.length() || start >= end) {
            throw new IllegalArgumentException("Mark a number in the sample first.");
        }
        String marked = text.substring(start, end).strip();
        int from = text.indexOf(marked, start);
        if (marked.contains("\n") || marked.contains("\r") || !marked.matches(".*\\d.*") || marked.length() > 60) {
            throw new IllegalArgumentException("Mark one number inside a line; \""
                    + (marked.length() > 30 ? marked.substring(0, 29) + "…" : marked.replaceAll("\\R", " "))
                    + "\" is none.");
        }
        int lineStart = Math.max(text.lastIndexOf('\n', from), text.lastIndexOf('\r', from)) + 1;
        String before = text.substring(lineStart, from);
        String rest = text.substring(from + marked.length()).split("[\\r\\n]", 2)[0];
        boolean clockTime = marked.matches("(?i).*\\d\\s*(s|sec)|\\d+:\\d\\d.*");
        Optional<String> unit = clockTime
                ? Optional.empty()
                : Optional.of(UNIT.matcher(rest)).filter(Matcher::find).map(m -> m.group(1));
        String value = marked.matches("[-+−]?[\\d.,]+") ? "([-+]?\\d[\\d.,]*)" : "(\\S+)";
        String after = unit.map(u -> rest.matches("^\\s.*") ? "\\s*" + literal(u) : literal(u))
                .orElseGet(
                        () -> general(rest.length() > LONGEST_AFTER ? rest.substring(0, LONGEST_AFTER) : rest, false));
        return new ScorePattern(
                name(before, rest),
                ScorePattern.Kind.LINE,
                "^" + general(before, true) + value + after,
                unit.orElse(clockTime ? "s" : "1"),
                ScorePattern.EACH);
    }

    /** Literal, but for blanks and numbers. */
    private static String general(String text, boolean withDigits) {
        StringBuilder out = new StringBuilder();
        int i = 0;
        Matcher numbers = NUMBER.matcher(text);
        while (i < text.length()) {
            if (Character.isWhitespace(text.charAt(i))) {
                int j = i;
                while (j < text.length() && Character.isWhitespace(text.charAt(j))) {
                    j++;
                }
                out.append(withDigits || j < text.length() ? "\\s+" : "");
                i = j;
            } else if (Character.isDigit(text.charAt(i))
                    && !(i > 0 && Character.isLetter(text.charAt(i - 1)))
                    && numbers.find(i)) {
                out.append("\\d[\\d.,]*");
                i = numbers.end();
            } else {
                out.append(literal(text.substring(i, i + 1)));
                i++;
            }
        }
        return out.toString();
    }

    private static String literal(String text) {
        return text.replaceAll("([\\\\.^$|?*+()\\[\\]{}])", "\\\\$1");
    }

    private static String name(String before, String after) {
        String words = before.replaceAll("\\d[\\d.,]*", " ")
                .replaceAll("[^\\p{L} /_-]+", " ")
                .replaceAll("\\s+", " ")
                .strip();
        if (words.isEmpty()) {
            words = after.replaceAll("[^\\p{L} ]+", " ").replaceAll("\\s+", " ").strip();
        }
        String shorter =
                words.length() > 40 ? words.substring(words.length() - 40).replaceFirst("^\\S*\\s", "") : words;
        return shorter.isEmpty() ? "Value" : Character.toUpperCase(shorter.charAt(0)) + shorter.substring(1);
    }
}
