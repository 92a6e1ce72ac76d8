package yarrowmark.core.rule;

import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * The unit that a tool printed beside a number. It is believed before the one that somebody wrote into a rule: MiB/s read
 * as MB/s would be wrong by five per cent in every score, and look right.
 */
final class PrintedUnit {
    record Part(String number, String unit) {}

    private static final String UNIT = "([A-Za-zµ]{1,8}(?:/[A-Za-z]{1,4})?)";
    private static final Pattern BEHIND = Pattern.compile("^[ \\t\u00a0\u202f]*[\\[(]?" + UNIT + "(?=[\\s,;)\\]]|$)");
    private static final Pattern WITH = Pattern.compile("([-+−]?[\\d.,'’ \u00a0\u202f]*\\d)[ \u00a0\u202f]*" + UNIT);
    private static final Pattern BRACKETS = Pattern.compile("[\\[(]\\s*" + UNIT + "\\s*[\\])]\\s*$");

    private PrintedUnit() {}

    /** The unit with which the rest of a line begins. */
    static @Nullable String behind(String rest) {
        return known(BEHIND.matcher(rest), 1);
    }

    /** Of a heading or a key, such as "Write (MiB/s)". */
    static @Nullable String inBrackets(String heading) {
        return known(BRACKETS.matcher(heading), 1);
    }

    /** A number with its unit; empty where a text is anything else, such as a time in minutes and seconds. */
    static Optional<Part> in(String text) {
        Matcher m = WITH.matcher(text.strip());
        return m.matches() && told(m.group(2))
                ? Optional.of(new Part(m.group(1).strip(), m.group(2)))
                : Optional.empty();
    }

    private static @Nullable String known(Matcher m, int group) {
        return m.find() && told(m.group(group)) ? m.group(group) : null;
    }

    /** A letter alone may be anything, but for seconds. */
    static boolean told(String unit) {
        return (unit.length() > 1 || unit.equals("s")) && UnitStep.known(unit);
    }
}
