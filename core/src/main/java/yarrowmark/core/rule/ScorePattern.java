package yarrowmark.core.rule;

import com.google.re2j.Pattern;
import com.google.re2j.PatternSyntaxException;
import java.util.regex.Matcher;

/**
 * One named place in a tool's output.
 *
 * @param expression what finds it, see {@link Kind}
 * @param unit       of the number that stands there, unless the text itself tells it
 * @param occurrence {@link #EACH}: the n-th one found is that of run n; {@link #LAST}; or a number from 1
 */
public record ScorePattern(String name, Kind kind, String expression, String unit, int occurrence) {
    /** How a pattern finds its number. */
    public enum Kind {
        /** A regular expression on each line; its first group is the number, a group named "unit" its unit. */
        LINE,
        /** What stands before a colon or an equals sign on its line. */
        KEY,
        /** The name of a column in a table with a heading. */
        COLUMN,
        /** A JSON Pointer (RFC 6901). */
        POINTER
    }

    public static final int EACH = 0;
    public static final int LAST = -1;
    private static final int LONGEST = 500;
    /** Counted repeats are written out before they run; beyond this they need more memory than a rule is worth. */
    private static final int MOST_REPEATS = 1000;

    private static final java.util.regex.Pattern REPEAT = java.util.regex.Pattern.compile("\\{(\\d+)(?:,(\\d*))?}");

    /** @throws IllegalArgumentException with words for the person who wrote it */
    public ScorePattern {
        if (name.isBlank() || name.length() > 120) {
            throw new IllegalArgumentException("A pattern has a name of 1 to 120 characters.");
        }
        if (expression.isBlank() || expression.length() > LONGEST) {
            throw new IllegalArgumentException(name + ": what finds the number has 1 to " + LONGEST + " characters.");
        }
        if (occurrence < LAST || occurrence > 1000) {
            throw new IllegalArgumentException(
                    name + ": the occurrence is a number from 1 to 1000, each, or the last.");
        }
        if (kind == Kind.LINE) {
            compile(name, expression);
        } else if (kind == Kind.POINTER && !expression.startsWith("/")) {
            throw new IllegalArgumentException(
                    name + ": a JSON Pointer begins with a slash, such as /results/0/seconds.");
        }
    }

    /** RE2 expressions take time in proportion to the text, whatever they are: there is nothing in them that could run for ever. */
    static Pattern compile(String name, String expression) {
        long repeats = 1;
        Matcher m = REPEAT.matcher(expression);
        while (m.find()) {
            String most = m.group(2) == null || m.group(2).isEmpty() ? m.group(1) : m.group(2);
            repeats *= most.length() > 4 ? MOST_REPEATS + 1L : Math.max(1, Long.parseLong(most));
            if (repeats > MOST_REPEATS) {
                throw new IllegalArgumentException(
                        name + ": the counted repeats multiply to more than " + MOST_REPEATS + ". Use * or + instead.");
            }
        }
        Pattern compiled;
        try {
            compiled = Pattern.compile(expression);
        } catch (PatternSyntaxException e) {
            throw new IllegalArgumentException(name + ": the expression cannot be read: " + e.getDescription()
                    + (e.getPattern() == null ? "" : " at \"" + e.getPattern() + "\"")
                    + ". Looking ahead and referring back are not supported, because they could run for ever.");
        }
        if (compiled.groupCount() < 1) {
            throw new IllegalArgumentException(
                    name + ": put the number in brackets, so that it is known which part of the line it is.");
        }
        return compiled;
    }
}
