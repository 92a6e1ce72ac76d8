package yarrowmark.core.setup;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Reads what people type for a fact: "3,4 GHz", "512 GiB", "21.5 °C", "1920 × 1200", "DDR5-5600". The value comes back
 * in the base unit, or with the reason why it was not understood. Nothing is guessed: where a text may mean two things
 * it is refused, and the message says how to write either.
 */
public final class FactReader {
    /** What a text was understood as, or why it was not. */
    public sealed interface Reading {}

    /**
     * @param value in the base unit, as it is kept
     * @param shown as people write it
     * @param note  what a reader might be surprised by; empty where nothing is surprising
     * @param also  other facts that the same text tells, by key: "DDR5-5600" is a kind and a rate
     */
    public record Understood(String value, String shown, String note, Map<String, String> also) implements Reading {}

    public record NotUnderstood(String reason) implements Reading {}

    static final int LONGEST = 500;
    private static final Pattern QUANTITY = Pattern.compile("([+\\-−]?)(\\d[\\d\\s'’.,]*|[.,]\\d+)\\s*(\\D.*)?");
    private static final Pattern PIXELS =
            Pattern.compile("(\\d{1,5})\\s*(?:x|X|×|\\*|by)\\s*(\\d{1,5})(?:\\s*(?:px|pixels?))?");
    private static final Pattern VERSION = Pattern.compile("[\\p{L}\\p{N}][\\p{L}\\p{N}.\\-+_~:()/ ]{0,119}");
    private static final Pattern KIND_AND_RATE =
            Pattern.compile("(?i)((?:LP)?DDR\\dX?L?)\\s*[- ]\\s*(\\d{3,5})(?:\\s*MT/s)?");
    private static final List<String> MONTHS =
            List.of("jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec");

    private FactReader() {}

    public static Reading read(FactKey key, String typed) {
        String text = typed.strip().replaceAll("\\s+", " ");
        if (text.isEmpty()) {
            return new NotUnderstood("Nothing is written here.");
        }
        if (text.length() > LONGEST) {
            return new NotUnderstood(
                    "This is " + text.length() + " characters long; a fact has " + LONGEST + " at most.");
        }
        if (text.codePoints().anyMatch(Character::isISOControl)) {
            return new NotUnderstood("There are control characters in this text.");
        }
        Matcher kindAndRate = KIND_AND_RATE.matcher(text);
        if (kindAndRate.matches()
                && (key.key().equals("memory.speed") || key.key().equals("memory.kind"))) {
            return kindAndRate(key, kindAndRate);
        }
        return switch (key.type()) {
            case INTEGER, DECIMAL -> quantity(key, text);
            case PIXELS -> pixels(text);
            case YES_NO -> yesNo(key, text);
            case CHOICE -> choice(key, text);
            case DATE -> date(text);
            case VERSION -> version(text);
            case TEXT -> understood(key, text, "");
        };
    }

    /**
     * Why a value in the base unit cannot be kept, whichever way it came: detected, imported or read from a tool's output.
     * A number of hundreds of digits is nobody's memory size, and what searches and compares later trusts these bounds.
     */
    public static Optional<String> unfit(FactKey key, String value) {
        if (value.length() > LONGEST) {
            return Optional.of(
                    key.label() + " has " + value.length() + " characters; a fact has " + LONGEST + " at most.");
        }
        if (!key.isQuantity()) {
            return Optional.empty();
        }
        double size;
        try {
            size = Double.parseDouble(value);
        } catch (NumberFormatException e) {
            return Optional.of(key.label() + " is a number, not \"" + value + "\".");
        }
        return size >= key.least() && size <= key.most()
                ? Optional.empty()
                : Optional.of(key.label() + " lies between " + FactText.of(key, plain(BigDecimal.valueOf(key.least())))
                        + " and " + FactText.of(key, plain(BigDecimal.valueOf(key.most()))) + ", which this is not.");
    }

    private static Reading kindAndRate(FactKey key, Matcher m) {
        String kind = m.group(1).toUpperCase(Locale.ROOT);
        String rate = new BigDecimal(m.group(2))
                .multiply(BigDecimal.valueOf(1_000_000))
                .toPlainString();
        boolean asksKind = key.key().equals("memory.kind");
        String value = asksKind ? kind : rate;
        Map<String, String> also = asksKind ? Map.of("memory.speed", rate) : Map.of("memory.kind", kind);
        return new Understood(value, FactText.of(key, value), "", also);
    }

    private static Reading quantity(FactKey key, String text) {
        Matcher m = QUANTITY.matcher(text);
        if (!m.matches()) {
            return new NotUnderstood(
                    "\"" + text + "\" does not begin with a number. Write it like \"" + example(key) + "\".");
        }
        String digits = m.group(2).replaceAll("[\\s'’]", "");
        String unit = m.group(3) == null ? "" : m.group(3).strip();
        Optional<String> doubt = doubtful(digits, unit);
        if (doubt.isPresent()) {
            return new NotUnderstood(doubt.get());
        }
        BigDecimal number = new BigDecimal(digits.replace(',', '.'));
        if (!m.group(1).isEmpty() && !m.group(1).equals("+")) {
            number = number.negate();
        }
        Dimension dimension = key.dimension();
        if (unit.isEmpty() && key.bareUnit().isEmpty()) {
            return new NotUnderstood("Say the unit of " + text + ": " + dimension.words() + " such as \"" + text + " "
                    + dimension.exampleUnit() + "\".");
        }
        String used = unit.isEmpty() ? key.bareUnit().orElseThrow() : unit;
        BigDecimal value;
        if (dimension == Dimension.TEMPERATURE) {
            Optional<BigDecimal> celsius = dimension.factor(used).map(f -> celsius(used, m, digits));
            if (celsius.isEmpty()) {
                return wrongUnit(key, used);
            }
            value = celsius.get();
        } else {
            Optional<BigDecimal> factor = dimension.factor(used);
            if (factor.isEmpty()) {
                return wrongUnit(key, used);
            }
            value = number.multiply(factor.get());
        }
        if (key.type() == FactKey.Type.INTEGER && value.stripTrailingZeros().scale() > 0) {
            // 1.5 GiB is whole bytes, 15.6 GB of 1024 is not: half a byte is nobody's meaning.
            if (dimension == Dimension.COUNT) {
                return new NotUnderstood(key.label() + " is a whole number, not " + text + ".");
            }
            value = value.setScale(0, RoundingMode.HALF_UP);
        }
        double size = value.doubleValue();
        if (!(size >= key.least() && size <= key.most())) {
            return new NotUnderstood(
                    key.label() + " lies between " + FactText.of(key, plain(BigDecimal.valueOf(key.least()))) + " and "
                            + FactText.of(key, plain(BigDecimal.valueOf(key.most()))) + ", not at " + text + ".");
        }
        return understood(key, plain(value), note(key, used, value));
    }

    /** A comma before three digits may be a decimal comma or a separator of thousands. */
    private static Optional<String> doubtful(String digits, String unit) {
        long separators = digits.chars().filter(c -> c == ',' || c == '.').count();
        String tail = unit.isEmpty() ? "" : " " + unit;
        if (separators > 1) {
            return Optional.of(
                    "\"" + digits + "\" has more than one comma or point. Write thousands with a space, as in \"1 234.5"
                            + tail + "\".");
        }
        if (digits.matches("[1-9]\\d{0,2},\\d{3}")) {
            return Optional.of("\"" + digits + "\" may mean " + digits.replace(",", "") + tail + " or "
                    + digits.replace(',', '.') + tail + ". Write one of these.");
        }
        if (digits.endsWith(",") || digits.endsWith(".")) {
            return Optional.of("\"" + digits + "\" ends in the middle of a number.");
        }
        return Optional.empty();
    }

    private static BigDecimal celsius(String unit, Matcher m, String digits) {
        BigDecimal number = new BigDecimal(digits.replace(',', '.'));
        if (!m.group(1).isEmpty() && !m.group(1).equals("+")) {
            number = number.negate();
        }
        return switch (unit) {
            case "K" -> number.subtract(new BigDecimal("273.15"));
            case "°F", "F" ->
                number.subtract(BigDecimal.valueOf(32))
                        .multiply(BigDecimal.valueOf(5))
                        .divide(BigDecimal.valueOf(9), 4, RoundingMode.HALF_UP);
            default -> number;
        };
    }

    private static Reading wrongUnit(FactKey key, String unit) {
        String expected = key.label() + " is " + key.dimension().words() + ": write it like \"" + example(key) + "\".";
        if ((key.dimension() == Dimension.BYTES || key.dimension() == Dimension.MEMORY)
                && unit.matches("[kMGT]i?(b|bit)")) {
            return new NotUnderstood("\"" + unit + "\" counts bits. " + expected);
        }
        return Dimension.ofUnit(unit)
                .<Reading>map(d -> new NotUnderstood(
                        "\"" + unit + "\" is a unit of " + d.words().replaceFirst("^an? ", "") + ". " + expected))
                .orElseGet(() -> new NotUnderstood("\"" + unit + "\" is not a unit known here. " + expected));
    }

    private static String note(FactKey key, String unit, BigDecimal value) {
        boolean decimalName = unit.matches("[kKMGTP]B");
        if (key.dimension() == Dimension.MEMORY && decimalName) {
            return "memory is counted in powers of two: 1 " + unit + " is 1 " + unit.charAt(0) + "iB";
        }
        if (key.dimension() == Dimension.BYTES && unit.matches("[kKMGTP]iB")) {
            return "powers of two: that is " + FactText.decimalBytes(value.doubleValue());
        }
        return "";
    }

    private static Reading pixels(String text) {
        Matcher m = PIXELS.matcher(text);
        if (!m.matches() || m.group(1).startsWith("0") || m.group(2).startsWith("0")) {
            return new NotUnderstood(
                    "\"" + text + "\" is no resolution. Write width and height in pixels, like \"1920x1200\".");
        }
        String value = m.group(1) + "x" + m.group(2);
        return new Understood(value, m.group(1) + " × " + m.group(2), "", Map.of());
    }

    private static Reading yesNo(FactKey key, String text) {
        return switch (text.toLowerCase(Locale.ROOT)) {
            case "yes", "y", "true", "on", "enabled", "1" -> understood(key, "true", "");
            case "no", "n", "false", "off", "disabled", "0" -> understood(key, "false", "");
            default -> new NotUnderstood("\"" + text + "\" is neither yes nor no.");
        };
    }

    private static Reading choice(FactKey key, String text) {
        for (FactChoice c : key.choices()) {
            if (c.isCalled(text)) {
                return understood(key, c.name(), "");
            }
        }
        return new NotUnderstood(key.label() + " is one of "
                + String.join(", ", key.choices().stream().map(FactChoice::name).toList()) + ", not \"" + text + "\".");
    }

    private static Reading version(String text) {
        String value = text.replaceFirst("^[vV](?=\\d)", "");
        return VERSION.matcher(value).matches()
                ? new Understood(value, value, "", Map.of())
                : new NotUnderstood("\"" + text
                        + "\" is no version. Letters, digits, points and dashes make one, up to 120 of them.");
    }

    private static Reading date(String text) {
        Matcher iso = Pattern.compile("(\\d{4})-(\\d{1,2})-(\\d{1,2})").matcher(text);
        if (iso.matches()) {
            return date(text, iso.group(1), iso.group(2), iso.group(3));
        }
        Matcher points =
                Pattern.compile("(\\d{1,2})\\. ?(\\d{1,2})\\. ?(\\d{4})").matcher(text);
        if (points.matches()) {
            return date(text, points.group(3), points.group(2), points.group(1));
        }
        Matcher named =
                Pattern.compile("(\\d{1,2}) (\\p{L}{3})\\p{L}*\\.? (\\d{4})").matcher(text);
        if (named.matches()) {
            int month = MONTHS.indexOf(named.group(2).toLowerCase(Locale.ROOT)) + 1;
            return date(text, named.group(3), Integer.toString(month), named.group(1));
        }
        Matcher slashes = Pattern.compile("(\\d{1,2})/(\\d{1,2})/(\\d{4})").matcher(text);
        if (slashes.matches()) {
            int first = Integer.parseInt(slashes.group(1));
            int second = Integer.parseInt(slashes.group(2));
            if (first <= 12 && second <= 12 && first != second) {
                return new NotUnderstood("\"" + text + "\" may be a day in month " + first + " or in month " + second
                        + ". Write it like \"2026-03-01\".");
            }
            return first > 12
                    ? date(text, slashes.group(3), slashes.group(2), slashes.group(1))
                    : date(text, slashes.group(3), slashes.group(1), slashes.group(2));
        }
        return new NotUnderstood("\"" + text + "\" is no date. Write it like \"2026-03-01\".");
    }

    private static Reading date(String text, String year, String month, String day) {
        try {
            LocalDate date = LocalDate.of(Integer.parseInt(year), Integer.parseInt(month), Integer.parseInt(day));
            if (date.getYear() < 1970 || date.getYear() > 2100) {
                return new NotUnderstood("The year " + date.getYear() + " is out of range: facts are of 1970 to 2100.");
            }
            return new Understood(date.toString(), date.toString(), "", Map.of());
        } catch (DateTimeException e) {
            return new NotUnderstood("\"" + text + "\" is not in the calendar.");
        }
    }

    private static Reading understood(FactKey key, String value, String note) {
        return new Understood(value, FactText.of(key, value), note, Map.of());
    }

    private static String plain(BigDecimal number) {
        BigDecimal stripped = number.stripTrailingZeros();
        return (stripped.signum() == 0 ? BigDecimal.ZERO : stripped).toPlainString();
    }

    /** A text that is read as exactly this kept value: the way it is shown where that loses nothing, else all its digits. */
    public static String exactText(FactKey key, String value) {
        String shown = FactText.of(key, value);
        boolean same = read(key, shown) instanceof Understood u && u.value().equals(value);
        return same || !key.isQuantity()
                ? shown
                : (value + " " + key.dimension().baseWord()).strip();
    }

    /** A way to write this fact, for messages and empty fields. */
    public static String example(FactKey key) {
        return switch (key.type()) {
            case PIXELS -> "1920x1200";
            case YES_NO -> "yes";
            case DATE -> "2026-03-01";
            case VERSION -> "1.11";
            case CHOICE -> key.choices().get(0).name();
            case TEXT -> "";
            case INTEGER, DECIMAL ->
                switch (key.dimension()) {
                    case COUNT -> "8";
                    case BYTES -> key.bareUnit().isPresent() ? "1500 B" : "512 GB";
                    case MEMORY -> key.key().startsWith("processor.") ? "8 MiB" : "16 GB";
                    case FREQUENCY -> key.bareUnit().isPresent() ? "60 Hz" : "3.4 GHz";
                    case TRANSFERS -> "5600 MT/s";
                    case POWER -> "28 W";
                    case TEMPERATURE -> "21.5 °C";
                    case TIME -> "5 ms";
                    case LENGTH -> key.key().equals("display.diagonal") ? "14 in" : "312 mm";
                    case MASS -> "1.24 kg";
                    case ENERGY -> "57 Wh";
                    case BIT_RATE -> "1 Gbit/s";
                    case ROTATION -> "2400 rpm";
                    case SOUND -> "28 dB";
                    case LUMINANCE -> "200 cd/m²";
                    case SHARE -> "50 %";
                    case BITS -> "8 bit";
                    case NONE -> "";
                };
        };
    }
}
