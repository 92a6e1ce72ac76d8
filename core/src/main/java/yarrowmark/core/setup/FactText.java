package yarrowmark.core.setup;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.Locale;

/**
 * How a fact's kept value is shown: base units become what people write ("17179869184" By → "16 GiB", "3400000000" Hz →
 * "3.4 GHz"). A prefix with an i is always a power of two and one without never is.
 */
public final class FactText {
    private static final String[] DECIMAL = {"B", "kB", "MB", "GB", "TB", "PB"};
    private static final String[] BINARY = {"B", "KiB", "MiB", "GiB", "TiB", "PiB"};

    private FactText() {}

    /** A value that is not of its key's type is shown as it is: nothing that was stored is hidden. */
    public static String of(FactKey key, String value) {
        if (key.type() == FactKey.Type.YES_NO) {
            return value.equals("true") ? "yes" : value.equals("false") ? "no" : value;
        }
        if (key.type() == FactKey.Type.PIXELS) {
            return value.replaceFirst("^(\\d+)x(\\d+)$", "$1 × $2");
        }
        if (!key.isQuantity()) {
            return value;
        }
        double number;
        try {
            number = Double.parseDouble(value);
        } catch (NumberFormatException e) {
            return value;
        }
        return switch (key.dimension()) {
            case BYTES -> isRoundInBinary(number) ? scaled(number, 1024, BINARY) : decimalBytes(number);
            case MEMORY -> scaled(number, 1024, BINARY);
            case FREQUENCY -> scaled(number, 1000, "Hz", "kHz", "MHz", "GHz");
            case TRANSFERS -> plain(number / 1e6) + " MT/s";
            case TIME ->
                number != 0 && Math.abs(number) < 1e-3
                        ? plain(number * 1e6) + " µs"
                        : Math.abs(number) < 1 ? plain(number * 1e3) + " ms" : plain(number) + " s";
            case TEMPERATURE -> plain(number) + " °C";
            case LENGTH ->
                key.key().equals("display.diagonal") ? plain(number / 0.0254) + " in" : plain(number * 1000) + " mm";
            case MASS -> number >= 1000 ? plain(number / 1000) + " kg" : plain(number) + " g";
            case ENERGY -> plain(number) + " Wh";
            case BIT_RATE -> scaled(number, 1000, "bit/s", "kbit/s", "Mbit/s", "Gbit/s", "Tbit/s");
            case ROTATION -> plain(number) + " rpm";
            case LUMINANCE -> plain(number) + " cd/m²";
            case COUNT, NONE -> plain(number);
            case POWER, SOUND, SHARE, BITS ->
                plain(number) + " " + key.dimension().base();
        };
    }

    static String decimalBytes(double number) {
        return scaled(number, 1000, DECIMAL);
    }

    /** Such as 512 GiB, which would be 549.8 GB: whole in powers of two, and not in powers of ten. */
    private static boolean isRoundInBinary(double number) {
        return number >= 1 << 20
                && number % (1 << 20) == 0
                && number % 1e6 != 0
                && number / Math.pow(1024, power(number, 1024)) % 0.25 == 0;
    }

    private static int power(double number, double step) {
        int i = 0;
        for (double left = number; left >= step; left /= step) {
            i++;
        }
        return i;
    }

    private static String scaled(double number, double step, String... names) {
        int i = Math.min(power(Math.abs(number), step), names.length - 1);
        return plain(number / Math.pow(step, i)) + " " + names[i];
    }

    private static String plain(double number) {
        return String.format(
                Locale.ROOT,
                "%s",
                new BigDecimal(number)
                        .round(new MathContext(4))
                        .stripTrailingZeros()
                        .toPlainString());
    }
}
