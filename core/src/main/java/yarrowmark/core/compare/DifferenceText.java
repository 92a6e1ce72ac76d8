package yarrowmark.core.compare;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.Locale;
import java.util.Optional;
import yarrowmark.core.measure.Direction;

/**
 * A difference as a sentence that names its base and its direction. Where more is better: "x % higher than B",
 * x = 100 (A/B − 1). Where less is better: "takes x % less time than B", x = 100 (1 − A/B), with the ratio.
 * A time is never "x % faster": readers take that two ways.
 */
public final class DifferenceText {
    private static final double MANY_TENTHS = 1e9;
    private static final double NEAR_HALF = 1e-4;

    private DifferenceText() {}

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

    /**
     * The size alone, beside a ratio: "3.1 % higher", "4.0 % less time".
     *
     * @param quantity what is less where less is better; empty where the unit does not say, then "lower"
     */
    public static String brief(double ratio, Direction direction, Optional<String> quantity) {
        boolean times = direction == Direction.LESS_IS_BETTER;
        double size = size(ratio, times);
        if (times && quantity.isPresent()) {
            return percent(size) + (size >= 0 ? " less " : " more ") + quantity.get();
        }
        return percent(size) + (size >= 0 ^ times ? " higher" : " lower");
    }

    /**
     * A whole sentence to quote: which test, who, how much, how sure, how many runs. The interval is in the same terms as
     * the size, its smaller end first.
     *
     * @param quantity what is less where less is better: "time"; empty where the unit does not say, then "lower"
     */
    public static String sentence(
            String test, String a, String base, PairComparison c, Direction direction, Optional<String> quantity) {
        boolean times = direction == Direction.LESS_IS_BETTER;
        double size = size(c.ratio(), times);
        boolean up = size >= 0;
        StringBuilder words = new StringBuilder(test).append(": ").append(a);
        if (c.verdict() == Verdict.LEVEL) {
            words.append(" and ")
                    .append(base)
                    .append(" are level, the 95 % interval of the difference is within ")
                    .append(percent(larger(c.interval(), times)));
        } else {
            if (times && quantity.isPresent()) {
                words.append(" takes ")
                        .append(percent(size))
                        .append(up ? " less " : " more ")
                        .append(quantity.get())
                        .append(" than ")
                        .append(base);
            } else {
                words.append(" is ")
                        .append(percent(size))
                        .append(up ^ times ? " higher than " : " lower than ")
                        .append(base);
            }
            PairComparison.Interval i = c.interval();
            double low = size(i.low(), times);
            double high = size(i.high(), times);
            words.append(", 95 % interval ")
                    .append(oneDecimal(up ? low : -high))
                    .append(" to ")
                    .append(oneDecimal(up ? high : -low))
                    .append(" %");
        }
        if (c.withinOneSession()) {
            words.append(" within one session");
        }
        if (c.assumed()) {
            words.append(", assuming a spread of 10 %, which nobody measured");
        }
        if (c.verdict() == Verdict.CANNOT_TELL) {
            words.append(", which may be noise");
        }
        return words.append(", ")
                .append(
                        c.runs() == c.baseRuns()
                                ? runs(c.runs()) + (c.runs() == 1 ? "" : " each")
                                : runs(c.runs()) + " against " + c.baseRuns())
                .append('.')
                .toString();
    }

    /** Where a display holds one of the values, or both. @param ratio better above 1 */
    public static String bounded(String test, String a, String base, double ratio, Bound bound) {
        return test + ": "
                + switch (bound) {
                    case AT_LEAST ->
                        String.format(
                                Locale.ROOT,
                                "%s has at least %.2f times what %s has, held by its display.",
                                a,
                                ratio,
                                base);
                    case AT_MOST ->
                        String.format(
                                Locale.ROOT,
                                "%s has at most %.2f times what %s has, which is held by its display.",
                                a,
                                ratio,
                                base);
                    default -> a + " and " + base + " are both held by their displays, so which is better is open.";
                };
    }

    /** The same for all tests together. */
    public static String overall(String a, String base, OverallComparison c, int tests) {
        double size = 100 * (c.ratio() - 1);
        String apart = percent(size) + (size >= 0 ? " better" : " worse");
        String over = " over " + (tests == 1 ? "the one test" : "the " + tests + " tests") + " that both ran";
        String interval = String.format(
                Locale.ROOT,
                ", 95 %% interval %.3f to %.3f times (%s)%s",
                c.interval().low(),
                c.interval().high(),
                c.covers().words(),
                c.assumed() > 0 ? ", assuming a spread of 10 % in part, which nobody measured" : "");
        return switch (c.verdict()) {
            case LEVEL -> a + " and " + base + " are level" + over + interval + ".";
            case CANNOT_TELL -> a + " is " + apart + " than " + base + over + interval + ", which may be noise.";
            default -> a + " is " + apart + " than " + base + over + interval + ".";
        };
    }

    private static double size(double ratio, boolean times) {
        return times ? 100 * (1 - 1 / ratio) : 100 * (ratio - 1);
    }

    private static double larger(PairComparison.Interval i, boolean times) {
        return Math.max(Math.abs(size(i.low(), times)), Math.abs(size(i.high(), times)));
    }

    private static String runs(int n) {
        return n + (n == 1 ? " run" : " runs");
    }

    private static String percent(double value) {
        return oneDecimal(Math.abs(value)) + " %";
    }

    /** A comparison has a thousand sentences, and a format string is read anew for each. */
    private static String oneDecimal(double value) {
        double tenths = Math.abs(value) * 10;
        long whole = (long) tenths;
        double rest = tenths - whole;
        // Away from the halves, rounding a decimal and rounding the number come to the same.
        if (tenths < MANY_TENTHS && Math.abs(rest - 0.5) > NEAR_HALF) {
            long rounded = rest > 0.5 ? whole + 1 : whole;
            return (value < 0 && rounded > 0 ? "-" : "") + rounded / 10 + '.' + rounded % 10;
        }
        return BigDecimal.valueOf(value).setScale(1, RoundingMode.HALF_UP).toPlainString();
    }
}
