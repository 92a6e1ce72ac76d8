package yarrowmark.core.setup;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.Locale;

/**
 * How a fact's kept value is shown: base units become what people write ("34359738368" By → "32 GB", where memory is
 * counted in powers of two, "3400000000" Hz → "3.4 GHz").
 */
public final class FactText {
    private FactText() {
    }

    public static String of(FactKey key, String value) {
        if (key.type() != FactKey.Type.DECIMAL && key.type() != FactKey.Type.INTEGER) {
            return key.type() == FactKey.Type.YES_NO ? (value.equals("true") ? "yes" : "no") : value;
        }
        double number;
        try {
            number = Double.parseDouble(value);
        } catch (NumberFormatException e) {
            return value;
        }
        return switch (key.unit()) {
            case "By" -> bytes(number, key.group() == FactGroup.MEMORY);
            case "Hz" -> number >= 1e9 ? plain(number / 1e9) + " GHz" : number >= 1e6 ? plain(number / 1e6) + " MHz" : plain(number) + " Hz";
            case "T/s" -> plain(number / 1e6) + " MT/s";
            case "s" -> number < 1e-3 ? plain(number * 1e6) + " µs" : number < 1 ? plain(number * 1e3) + " ms" : plain(number) + " s";
            case "Cel" -> plain(number) + " °C";
            case "1" -> plain(number);
            default -> plain(number) + " " + key.unit();
        };
    }

    /** Memory is sold in powers of two under decimal names; drives are sold in powers of ten. */
    private static String bytes(double number, boolean binary) {
        double step = binary ? 1024 : 1000;
        String[] names = {"B", "kB", "MB", "GB", "TB"};
        int i = 0;
        double left = number;
        while (left >= step && i < names.length - 1) {
            left /= step;
            i++;
        }
        return plain(left) + " " + names[i];
    }

    private static String plain(double number) {
        return String.format(Locale.ROOT, "%s",
            new BigDecimal(number).round(new MathContext(4)).stripTrailingZeros().toPlainString());
    }
}
