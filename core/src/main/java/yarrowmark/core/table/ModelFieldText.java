package yarrowmark.core.table;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import yarrowmark.core.setup.FactKey;
import yarrowmark.core.setup.FactReader;
import yarrowmark.core.setup.ModelKeys;

/** What a cell says of a model, as the form of a model takes it: "1299.00 USD", "2.98 lb", "2026-01-01". */
final class ModelFieldText {
    /** @param typed empty where the cell cannot be read, for the reason */
    record Read(Optional<String> typed, String reason) {
        static Read as(String typed) {
            return new Read(Optional.of(typed), "");
        }

        static Read not(String reason) {
            return new Read(Optional.empty(), reason);
        }
    }

    private static final Map<String, FactKey> SIZES = Map.of(
            "width", ModelKeys.WIDTH,
            "depth", ModelKeys.DEPTH,
            "height", ModelKeys.HEIGHT,
            "weight", ModelKeys.WEIGHT,
            "battery", ModelKeys.BATTERY);
    private static final Pattern AMOUNT =
            Pattern.compile("(?:[€$£]|[A-Z]{3})?\\s?(\\d[\\d\\s'’]{0,14}(?:\\.\\d{1,2})?)\\s*(?:[€$£]|[A-Z]{3})?");
    private static final Pattern YEAR = Pattern.compile("((?:19|20)\\d\\d)(?:\\.0)?");
    private static final Pattern BARE = Pattern.compile("\\d{1,9}(?:\\.\\d{1,9})?");
    /** No device of so few grams is tested, and hardly one of so many kilograms. */
    private static final double HEAVIEST_IN_KG = 50;

    private ModelFieldText() {}

    /** @param unit of the column, where its heading names one */
    static Read read(String field, String text, String unit, TableLayout layout) {
        FactKey size = SIZES.get(field);
        if (size != null) {
            return size(size, text, unit);
        }
        return switch (field) {
            case "price" -> price(text, unit, layout.currency());
            case "released" -> released(text, layout.dayFirst());
            default -> Read.as(text);
        };
    }

    private static Read price(String text, String unit, String usual) {
        Matcher amount = AMOUNT.matcher(text);
        if (!amount.matches()) {
            return Read.not("\"" + text + "\" is no price.");
        }
        BigDecimal number = new BigDecimal(amount.group(1).replaceAll("[\\s'’]", ""));
        return number.signum() > 0
                ? Read.as(number.toPlainString() + " " + currency(text + " " + unit, usual))
                : Read.not("A price is above 0.");
    }

    private static String currency(String said, String usual) {
        if (said.contains("€")) {
            return "EUR";
        }
        if (said.contains("$")) {
            return "USD";
        }
        Matcher code = Pattern.compile("\\b([A-Z]{3})\\b").matcher(said);
        return said.contains("£") ? "GBP" : code.find() ? code.group(1) : usual;
    }

    private static Read released(String text, boolean dayFirst) {
        Matcher year = YEAR.matcher(text);
        return year.matches()
                ? Read.as(year.group(1) + "-01-01")
                : TableDates.read(text, dayFirst)
                        .map(LocalDate::toString)
                        .map(Read::as)
                        .orElseGet(() -> Read.not("\"" + text + "\" is neither a year nor a date."));
    }

    private static Read size(FactKey key, String text, String unit) {
        String typed = text;
        if (BARE.matcher(text).matches()) {
            String usual = key != ModelKeys.WEIGHT
                    ? key.bareUnit().orElse("")
                    : Double.parseDouble(text) < HEAVIEST_IN_KG ? "kg" : "g";
            typed = text + " " + (unit.isEmpty() ? usual : unit);
        }
        return FactReader.read(key, typed) instanceof FactReader.NotUnderstood not
                ? Read.not(not.reason())
                : Read.as(typed);
    }
}
