package yarrowmark.server.shelf.model;

import java.math.BigDecimal;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import yarrowmark.server.platform.Problem;

/** A price with its currency as one text: "1299 EUR". */
final class Prices {
    private static final Pattern AMOUNT_FIRST =
            Pattern.compile("([\\d\\s'’\u202f\u00a0]+(?:[.,]\\d{1,2})?)\\s*([A-Za-z]{3})");
    private static final Pattern CURRENCY_FIRST =
            Pattern.compile("([A-Za-z]{3})\\s*([\\d\\s'’\u202f\u00a0]+(?:[.,]\\d{1,2})?)");
    private static final BigDecimal MOST = new BigDecimal("9999999999");

    private Prices() {}

    static String read(String typed) {
        Matcher m = AMOUNT_FIRST.matcher(typed);
        Matcher n = CURRENCY_FIRST.matcher(typed);
        boolean first = m.matches();
        if (!first && !n.matches()) {
            throw Problem.invalid(
                    "not-a-price",
                    "\"" + typed
                            + "\" is no price. Write the amount and the three-letter currency, such as \"1 299.50 EUR\".");
        }
        BigDecimal amount = new BigDecimal((first ? m.group(1) : n.group(2))
                .replaceAll("[\\s'’\u202f\u00a0]", "")
                .replace(',', '.'));
        if (amount.signum() <= 0 || amount.compareTo(MOST) > 0) {
            throw Problem.invalid("not-a-price", "A price is above 0 and below ten thousand million.");
        }
        return amount.stripTrailingZeros().toPlainString() + " "
                + (first ? m.group(2) : n.group(1)).toUpperCase(Locale.ROOT);
    }

    static BigDecimal amount(String kept) {
        return new BigDecimal(kept.substring(0, kept.length() - 4));
    }

    static String currency(String kept) {
        return kept.substring(kept.length() - 3);
    }

    static String kept(BigDecimal amount, @Nullable String currency) {
        return amount.stripTrailingZeros().toPlainString() + " " + currency;
    }
}
