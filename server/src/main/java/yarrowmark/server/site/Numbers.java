package yarrowmark.server.site;

import java.math.BigDecimal;
import java.math.MathContext;

/** Values as words on pages that are made without a browser. */
final class Numbers {
    private static final int DIGITS = 4;
    private static final String GROUP = "\u202f";

    private Numbers() {}

    /** Four significant digits, thousands in groups: 388.1, 1 540, 0.0123. */
    static String plain(double value) {
        BigDecimal rounded = new BigDecimal(value).round(new MathContext(DIGITS));
        return grouped(
                rounded.signum() == 0 ? "0" : rounded.stripTrailingZeros().toPlainString());
    }

    static String fixed(double value, int decimals) {
        return grouped(new BigDecimal(value)
                .setScale(decimals, java.math.RoundingMode.HALF_UP)
                .toPlainString());
    }

    static String quantity(double value, String unit) {
        return unit.isEmpty() || unit.equals("1") ? plain(value) : plain(value) + " " + unit;
    }

    private static String grouped(String digits) {
        int point = digits.indexOf('.');
        String whole = point < 0 ? digits : digits.substring(0, point);
        String said = whole.replaceAll("\\B(?=(\\d{3})+$)", GROUP) + (point < 0 ? "" : digits.substring(point));
        return said.startsWith("-") ? "−" + said.substring(1) : said;
    }
}
