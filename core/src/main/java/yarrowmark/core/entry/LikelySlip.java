package yarrowmark.core.entry;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Set;

/**
 * Whether a typed value looks like a slip. Doubts are told and stop nobody.
 *
 * @param kind what it looks like
 * @param would what the value would be without the slip, in the metric's unit; for FAR the median of the others
 */
public record LikelySlip(Kind kind, double would) {
    /** What a typed value looks like. */
    public enum Kind {
        /** More than three times as large or small as the other runs, and no simple slip explains it. */
        FAR,
        /** Ten, a hundred or a thousand times too large or too small. */
        DECIMAL_POINT,
        /** Seconds where minutes are meant, or the other way round. */
        SIXTY,
        /** Time for rate: one thousandth of the inverse fits, as with ms a frame for frames a second. */
        INVERSE
    }

    /** A value this many times away from the others is doubted. */
    public static final double FAR_FACTOR = 3;
    /** How near the others a corrected value must come for a slip to be named. */
    private static final double NEAR = 1.35;

    private static final Set<String> TIMES = Set.of("s", "min", "h", "ms");

    /**
     * Formula: with m the median of the others, a value within a factor of 3 of m is not doubted; else each slip is
     * undone in turn and named where the result is within a factor of 1.35 of m.
     *
     * @param others values of the same metric, of the runs before or, where there are none, of the same model; empty
     *               gives no doubt
     */
    public static List<LikelySlip> of(double value, String unit, double[] others) {
        double[] sorted = Arrays.stream(others).filter(o -> o > 0).sorted().toArray();
        if (sorted.length == 0 || !(value > 0)) {
            return List.of();
        }
        double median = sorted.length % 2 == 1
                ? sorted[sorted.length / 2]
                : (sorted[sorted.length / 2 - 1] + sorted[sorted.length / 2]) / 2;
        if (within(value, median, FAR_FACTOR)) {
            return List.of();
        }
        List<LikelySlip> doubts = new ArrayList<>();
        for (double factor : new double[] {10, 100, 1000, 0.1, 0.01, 0.001}) {
            if (within(value * factor, median, NEAR)) {
                doubts.add(new LikelySlip(Kind.DECIMAL_POINT, value * factor));
            }
        }
        if (TIMES.contains(unit)) {
            for (double factor : new double[] {60, 1.0 / 60}) {
                if (within(value * factor, median, NEAR)) {
                    doubts.add(new LikelySlip(Kind.SIXTY, value * factor));
                }
            }
        }
        if (within(1000 / value, median, NEAR)) {
            doubts.add(new LikelySlip(Kind.INVERSE, 1000 / value));
        }
        return doubts.isEmpty() ? List.of(new LikelySlip(Kind.FAR, median)) : doubts;
    }

    private static boolean within(double a, double b, double factor) {
        return a / b <= factor && b / a <= factor;
    }
}
