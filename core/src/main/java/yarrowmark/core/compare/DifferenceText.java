package yarrowmark.core.compare;

import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.util.Locale;
import java.util.Optional;
import yarrowmark.core.measure.Direction;

/**
 * A difference in words that name its base and its direction. Where more is better: "x % higher than B",
 * x = 100 (A/B − 1). Where less is better: "takes x % less time than B", x = 100 (1 − A/B).
 * A time is never "x % faster": readers take that two ways. Of ten times and more the times are said, not the per cent.
 */
public final class DifferenceText {
    private static final double MANY_TENTHS = 1e9;
    private static final double NEAR_HALF = 1e-4;
    /** From ten times on, per cent are hard to read. */
    private static final double MANY_TIMES = 10;
    /** Below it, one decimal shows nothing. */
    private static final double LEAST_PERCENT = 0.05;

    private static final String SAME = "the same";

    private DifferenceText() {}

    /** How a difference of one test is put. @param less whether less is better. @param quantity "time", "power" */
    private record Wording(boolean less, Optional<String> quantity) {
        /** In per cent of the base, above 0 where better. */
        double size(double ratio) {
            return less ? 100 * (1 - 1 / ratio) : 100 * (ratio - 1);
        }

        String way(boolean better) {
            return quantity.isPresent() && less
                    ? (better ? "less " : "more ") + quantity.get()
                    : better ^ less ? "higher" : "lower";
        }

        /** "3.1 % higher", "4.0 % less time", "12 times as high". @param ratio better above 1 */
        String words(double ratio) {
            double measured = less ? 1 / ratio : ratio;
            if (measured >= MANY_TIMES) {
                return new BigDecimal(measured, new MathContext(3)).toPlainString()
                        + (less && quantity.isPresent() ? " times the " + quantity.get() : " times as high");
            }
            double size = Math.abs(size(ratio));
            if (size == 0) {
                return SAME;
            }
            return (size >= LEAST_PERCENT ? percent(size) : "under 0.1 %") + " " + way(ratio >= 1);
        }

        /** "10.1 to 13.9 % less time", "3.8 % lower to 12.4 % higher". */
        String range(PairComparison.Interval i) {
            boolean both = i.low() >= 1 || i.high() <= 1;
            if (!both) {
                return words(i.low()) + " to " + words(i.high());
            }
            boolean better = i.low() >= 1;
            double near = better ? i.low() : i.high();
            double far = better ? i.high() : i.low();
            return !less && far >= MANY_TIMES || less && 1 / far >= MANY_TIMES
                    ? words(near) + " to " + words(far)
                    : oneDecimal(Math.abs(size(near))) + " to " + percent(size(far)) + " " + way(better);
        }
    }

    private static Wording wording(Direction direction, Optional<String> quantity) {
        return new Wording(direction == Direction.LESS_IS_BETTER, quantity);
    }

    /**
     * The size alone, beside a ratio: "3.1 % higher", "4.0 % less time".
     *
     * @param quantity what is less where less is better; empty where the unit does not say, then "lower"
     */
    public static String brief(double ratio, Direction direction, Optional<String> quantity) {
        if (!(ratio > 0 && ratio < Double.POSITIVE_INFINITY)) {
            throw new IllegalArgumentException("ratio must be above 0 and finite, not " + ratio);
        }
        return wording(direction, quantity).words(ratio);
    }

    /** The interval in the same words as the size: "10.1 to 13.9 % less time". */
    public static String range(PairComparison.Interval interval, Direction direction, Optional<String> quantity) {
        return wording(direction, quantity).range(interval);
    }

    /**
     * A whole sentence to quote: which test, who, how much, how sure, how many runs. The interval is in the same terms as
     * the size, its smaller end first.
     *
     * @param quantity what is less where less is better: "time"; empty where the unit does not say, then "lower"
     */
    public static String sentence(
            String test, String a, String base, PairComparison c, Direction direction, Optional<String> quantity) {
        Wording words = wording(direction, quantity);
        String size = words.words(c.ratio());
        String verb = words.less() && quantity.isPresent() ? "takes" : "is";
        String probably = c.unmeasured() ? "probably " : "";
        String range = "95 % interval " + words.range(c.interval());
        String said =
                switch (c.verdict()) {
                    case LEVEL, PROBABLY_LEVEL ->
                        "%s and %s are %slevel, the difference is within %s"
                                .formatted(
                                        a,
                                        base,
                                        probably,
                                        percent(Math.max(
                                                Math.abs(words.size(c.interval().low())),
                                                Math.abs(words.size(c.interval().high())))));
                    case CANNOT_TELL ->
                        "%s and %s are too close to call, %s %s %s, but anything from %s is possible"
                                .formatted(a, base, a, verb, size, words.range(c.interval()));
                    default -> "%s %s %s%s than %s, %s".formatted(a, verb, probably, size, base, range);
                };
        return test
                + ": "
                + said.replace("times as high than", "times as high as")
                + ", "
                + (c.runs() == c.baseRuns() ? runs(c.runs()) + " each" : runs(c.runs()) + " against " + c.baseRuns())
                + (c.unmeasured() ? "; how repeatable the test is was not measured here." : ".");
    }

    /** Where a display holds one of the values, or both. @param ratio better above 1 */
    public static String bounded(String test, String a, String base, double ratio, Bound bound) {
        if (bound == Bound.AT_LEAST && ratio < 1 || bound == Bound.AT_MOST && ratio > 1) {
            // "At least 0.08 times" is no answer.
            return test + ": " + (bound == Bound.AT_LEAST ? a : base)
                    + " is held by its display below the other, so which is better is open.";
        }
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

    /** How much better the whole is, alone: "12.4 % better", "12 times as good". */
    public static String overallSize(double ratio) {
        double size = 100 * Math.abs(ratio - 1);
        if (ratio >= MANY_TIMES) {
            return new BigDecimal(ratio, new MathContext(3)).toPlainString() + " times as good";
        }
        if (size == 0) {
            return SAME;
        }
        return (size >= LEAST_PERCENT ? percent(size) : "under 0.1 %") + (ratio >= 1 ? " better" : " worse");
    }

    /** The interval of the whole in the same words: "6.1 to 22.0 % better", "8.0 % worse to 7.1 % better". */
    public static String overallRange(PairComparison.Interval i) {
        boolean both = i.low() >= 1 || i.high() <= 1;
        if (!both || i.high() >= MANY_TIMES) {
            return overallSize(i.low()) + " to " + overallSize(i.high());
        }
        boolean better = i.low() >= 1;
        return oneDecimal(100 * Math.abs((better ? i.low() : i.high()) - 1)) + " to "
                + overallSize(better ? i.high() : i.low());
    }

    /** The same for all tests together. */
    public static String overall(String a, String base, OverallComparison c, int tests) {
        String over = " over " + (tests == 1 ? "the one test" : "the " + tests + " tests") + " that both ran";
        String interval = ", 95 % interval " + overallRange(c.interval()) + ", "
                + c.days().words();
        String size = overallSize(c.ratio());
        String than = size.endsWith("good") ? " as " : " than ";
        return switch (c.verdict()) {
            case LEVEL -> a + " and " + base + " are level" + over + interval + ".";
            case PROBABLY_LEVEL -> a + " and " + base + " are probably level" + over + interval + ".";
            case CANNOT_TELL ->
                a + " and " + base + " are too close to call" + over + ": " + a + " is " + size + interval + ".";
            case PROBABLY_GAIN, PROBABLY_LOSS -> a + " is probably " + size + than + base + over + interval + ".";
            default -> a + " is " + size + than + base + over + interval + ".";
        };
    }

    private static String runs(int n) {
        return n + (n == 1 ? " run" : " runs");
    }

    private static String percent(double value) {
        return oneDecimal(Math.abs(value)) + " %";
    }

    /** A comparison has a thousand sentences, and a format string is read again for each. */
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
