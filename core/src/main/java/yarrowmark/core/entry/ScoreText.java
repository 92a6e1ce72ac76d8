package yarrowmark.core.entry;

import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * Reads what a person types for one run: "1 234,5", "12.5k", "45 %", "4m07", "1:53.6", "1h 12", or "n/a crashed on
 * start". The value comes back in the metric's unit, with the smallest step that was written.
 */
public final class ScoreText {
    /** What a text says of a run. */
    public sealed interface Said {}

    /**
     * @param value      in the metric's unit
     * @param resolution the last digit that was written, in the metric's unit
     */
    public record Value(double value, double resolution) implements Said {}

    /** The run gave no value. @param ran whether it began and failed, rather than not being possible at all */
    public record NoValue(boolean ran, String words) implements Said {}

    public record NotUnderstood(String reason) implements Said {}

    /** Units of time in seconds, under the names people write. */
    private static final Map<String, BigDecimal> TIMES = Map.ofEntries(
            Map.entry("ns", new BigDecimal("1e-9")),
            Map.entry("µs", new BigDecimal("1e-6")),
            Map.entry("us", new BigDecimal("1e-6")),
            Map.entry("ms", new BigDecimal("1e-3")),
            Map.entry("s", BigDecimal.ONE),
            Map.entry("sec", BigDecimal.ONE),
            Map.entry("m", BigDecimal.valueOf(60)),
            Map.entry("min", BigDecimal.valueOf(60)),
            Map.entry("h", BigDecimal.valueOf(3600)));

    private static final Map<String, Integer> MULTIPLES = Map.of("k", 3, "K", 3, "M", 6, "G", 9);

    private static final String NUMBER = "\\d[\\d\\s'’\u202f\u00a0]*(?:[.,]\\d+)?";
    private static final Pattern NOTHING = Pattern.compile(
            "(?i)(n/?a|none|failed|fail|crashed|crash|could not run|not possible|not supported|stopped|[–—-])(?:[\\s:,.]+(.*))?");
    private static final Pattern RAN = Pattern.compile(
            "(?i)\\b(crash|fail|froze|frozen|hung|hang|error|stopp|abort|black screen|restart|quit|closed|overheat)");
    private static final Pattern CLOCK = Pattern.compile("(?:(\\d{1,3}):)?(\\d{1,4}):([0-5]\\d(?:[.,]\\d+)?)");
    private static final Pattern HOURS = Pattern.compile(
            "(?i)(\\d{1,4})\\s*h(?:ours?)?\\s*(?:(\\d{1,2})\\s*(?:m(?:in)?)?)?(?:\\s*(\\d{1,2}(?:[.,]\\d+)?)\\s*s?)?");
    private static final Pattern MINUTES =
            Pattern.compile("(?i)(\\d{1,4})\\s*m(?:in)?\\s*(\\d{1,2}(?:[.,]\\d+)?)\\s*s?");
    private static final Pattern PLAIN = Pattern.compile("([-−]?)(" + NUMBER + "|[.,]\\d+)\\s*(\\D*)");

    private static final Pattern THOUSANDS_BY_COMMA =
            Pattern.compile("([-−]?)([1-9]\\d{0,2}(?:,\\d{3})+)(\\.\\d+(?:\\D.*)?|(?<=,\\d{3},\\d{3})(?:[^\\d.,].*)?)");
    private static final Pattern THOUSANDS_BY_POINT = Pattern.compile(
            "([-−]?)([1-9]\\d{0,2}(?:\\.\\d{3})+)(,\\d+(?:\\D.*)?|(?<=\\.\\d{3}\\.\\d{3})(?:[^\\d.,].*)?)");

    /** How far apart a hand starts or stops a watch, in s: about the spread of a person's reaction to something they expect. */
    private static final double HAND_SECONDS = 0.2;

    private ScoreText() {}

    /** @return whether the unit is one of time, which a hand can stop */
    public static boolean isTime(String unit) {
        return TIMES.containsKey(unit);
    }

    /**
     * The step in which a time stopped by hand is known, in this unit of time.
     *
     * @throws IllegalArgumentException where the unit is not one of time
     */
    public static double handStep(String unit) {
        BigDecimal seconds = TIMES.get(unit);
        if (seconds == null) {
            throw new IllegalArgumentException(unit + " is no unit of time, so nothing of it is stopped by hand");
        }
        return HAND_SECONDS / seconds.doubleValue();
    }

    /** @param unit of the metric, as a UCUM code or as people write it: "s", "MB/s", "fps", "%", "1" */
    public static Said read(String typed, String unit) {
        String text = typed.strip().replaceAll("\\s+", " ");
        if (text.isEmpty()) {
            return new NotUnderstood("Nothing is written here.");
        }
        if (text.length() > 200 || text.codePoints().anyMatch(Character::isISOControl)) {
            return new NotUnderstood("A score, or the reason why there is none, has 200 characters at most.");
        }
        Matcher nothing = NOTHING.matcher(text);
        if (nothing.matches()) {
            String words = nothing.group(2) == null ? "" : nothing.group(2).strip();
            boolean named = !nothing.group(1).matches("(?i)n/?a|none|[–—-]|could not run|not possible|not supported");
            return new NoValue(
                    named || RAN.matcher(words).find(),
                    words.isEmpty() ? nothing.group(1).matches("(?i)n/?a|[–—-]") ? "" : nothing.group(1) : words);
        }
        BigDecimal second = TIMES.get(unit);
        if (second != null) {
            Optional<Said> duration = duration(text, second);
            if (duration.isPresent()) {
                return duration.get();
            }
        } else if (CLOCK.matcher(text).matches()) {
            return new NotUnderstood("\"" + text + "\" is a time, and this is measured in " + named(unit) + ".");
        }
        return plain(text, unit, second);
    }

    private static Optional<Said> duration(String text, BigDecimal unitSeconds) {
        Matcher clock = CLOCK.matcher(text);
        if (clock.matches()) {
            BigDecimal hours = clock.group(1) == null ? BigDecimal.ZERO : new BigDecimal(clock.group(1));
            return Optional.of(seconds(hours, new BigDecimal(clock.group(2)), clock.group(3), unitSeconds));
        }
        Matcher minutes = MINUTES.matcher(text);
        if (minutes.matches()) {
            return Optional.of(
                    seconds(BigDecimal.ZERO, new BigDecimal(minutes.group(1)), minutes.group(2), unitSeconds));
        }
        Matcher hours = HOURS.matcher(text);
        if (hours.matches()) {
            BigDecimal minute = hours.group(2) == null ? BigDecimal.ZERO : new BigDecimal(hours.group(2));
            if (hours.group(3) == null) {
                // Written to the minute, or to the hour: that is the step it was read in.
                BigDecimal step = hours.group(2) == null ? BigDecimal.valueOf(3600) : BigDecimal.valueOf(60);
                BigDecimal all = new BigDecimal(hours.group(1))
                        .multiply(BigDecimal.valueOf(3600))
                        .add(minute.multiply(BigDecimal.valueOf(60)));
                return Optional.of(value(all, step, unitSeconds));
            }
            return Optional.of(seconds(new BigDecimal(hours.group(1)), minute, hours.group(3), unitSeconds));
        }
        return Optional.empty();
    }

    private static Said seconds(BigDecimal hours, BigDecimal minutes, String seconds, BigDecimal unitSeconds) {
        BigDecimal s = new BigDecimal(seconds.replace(',', '.'));
        if (s.compareTo(BigDecimal.valueOf(60)) >= 0) {
            return new NotUnderstood("A minute has 60 seconds; \"" + seconds + "\" is more.");
        }
        BigDecimal all = hours.multiply(BigDecimal.valueOf(3600))
                .add(minutes.multiply(BigDecimal.valueOf(60)))
                .add(s);
        return value(all, BigDecimal.ONE.movePointLeft(s.scale()), unitSeconds);
    }

    private static Said plain(String text, String unit, @Nullable BigDecimal unitSeconds) {
        Matcher m = PLAIN.matcher(withoutThousands(text));
        if (!m.matches()) {
            return new NotUnderstood(
                    "\"" + text + "\" is no score. Write a number in " + named(unit) + ", or n/a and the reason.");
        }
        String digits = m.group(2).replaceAll("[\\s'’\u202f\u00a0]", "");
        if (digits.matches("[1-9]\\d{0,2},\\d{3}")) {
            return new NotUnderstood("\"" + digits + "\" may mean " + digits.replace(",", "") + " or "
                    + digits.replace(',', '.') + ". Write one of these.");
        }
        BigDecimal number = new BigDecimal(digits.replace(',', '.'));
        if (!m.group(1).isEmpty()) {
            number = number.negate();
        }
        BigDecimal step = BigDecimal.ONE.movePointLeft(Math.max(0, number.scale()));
        String suffix = m.group(3).strip();
        if (unitSeconds != null && TIMES.containsKey(suffix)) {
            BigDecimal seconds = TIMES.get(suffix);
            return value(number.multiply(seconds), step.multiply(seconds), unitSeconds);
        }
        Integer multiple = suffix.isEmpty() ? null : MULTIPLES.get(suffix.substring(0, 1));
        if (multiple != null
                && !sameUnit(suffix, unit)
                && (suffix.length() == 1 || sameUnit(suffix.substring(1).strip(), unit))) {
            return value(number.movePointRight(multiple), step.movePointRight(multiple), BigDecimal.ONE);
        }
        if (suffix.isEmpty() || sameUnit(suffix, unit)) {
            return value(number, step, BigDecimal.ONE);
        }
        return new NotUnderstood("\"" + suffix + "\" is not the unit here: this is measured in " + named(unit) + ".");
    }

    /** "1,234.5", "1.234,5" and "1,234,567" can mean one thing alone; "1,234" is asked about. */
    private static String withoutThousands(String text) {
        Matcher english = THOUSANDS_BY_COMMA.matcher(text);
        if (english.matches()) {
            return english.group(1) + english.group(2).replace(",", "") + english.group(3);
        }
        Matcher other = THOUSANDS_BY_POINT.matcher(text);
        return other.matches() ? other.group(1) + other.group(2).replace(".", "") + other.group(3) : text;
    }

    private static boolean sameUnit(String typed, String unit) {
        return typed.replace(" ", "").equalsIgnoreCase(unit.replace(" ", ""))
                || unit.equals("1") && typed.toLowerCase(Locale.ROOT).matches("points?|pts?");
    }

    private static String named(String unit) {
        return unit.equals("1") || unit.isEmpty() ? "points" : unit;
    }

    private static Said value(BigDecimal amount, BigDecimal step, BigDecimal unit) {
        BigDecimal value = amount.divide(unit, MathContext.DECIMAL64);
        BigDecimal resolution = step.divide(unit, 15, RoundingMode.HALF_UP);
        return new Value(value.doubleValue(), resolution.doubleValue());
    }
}
