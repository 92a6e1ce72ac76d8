package yarrowmark.core.compare;

import java.util.Locale;
import yarrowmark.core.measure.Direction;

/**
 * A difference as a sentence that names its base and its direction. Where more is better: "x % higher than B",
 * x = 100 (A/B − 1). Where less is better: "takes x % less time than B", x = 100 (1 − A/B), with the ratio.
 * A time is never "x % faster": readers take that two ways.
 */
public final class SizeInWords {
    private SizeInWords() {
    }

    /**
     * @param ratio   better is above 1
     * @param quantity what is less where less is better: "time", "power"
     */
    public static String of(double ratio, Direction direction, String base, String quantity) {
        if (!(ratio > 0 && ratio < Double.POSITIVE_INFINITY)) {
            throw new IllegalArgumentException("ratio must be above 0 and finite, not " + ratio);
        }
        if (direction == Direction.MORE_IS_BETTER) {
            double percent = 100 * (ratio - 1);
            return percent(percent) + (percent >= 0 ? " higher than " : " lower than ") + base;
        }
        double percent = 100 * (1 - 1 / ratio);
        return "takes " + percent(percent) + (percent >= 0 ? " less " : " more ") + quantity + " than " + base
            + (quantity.equals("time") ? String.format(Locale.ROOT, " (%.2f times as fast)", ratio) : "");
    }

    private static String percent(double value) {
        return String.format(Locale.ROOT, "%.1f %%", Math.abs(value));
    }
}
