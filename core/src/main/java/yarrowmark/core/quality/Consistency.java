package yarrowmark.core.quality;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.OptionalInt;
import java.util.OptionalLong;
import org.apache.commons.statistics.descriptive.Median;

/**
 * Whether what a device delivered of a run can be true, by itself and by the server's clock. A device that is broken, or lies
 * clumsily, contradicts itself; one that lies well does not, and nothing here finds it.
 */
public final class Consistency {
    /** Of a value beside its samples: what rounding may do. */
    private static final double ROUNDING = 0.01;

    private static final int FEWEST_SAMPLES = 2;
    private static final double TIMED_SHARE = 1.05;
    private static final int TIMED_MS = 100;
    /** A device's clock may lose this share, and a delivery wait this long, before its clock is doubted. */
    private static final double SLOWEST_CLOCK = 0.5;

    private static final long WAITING_MS = 5_000;

    private Consistency() {}

    /**
     * What is wrong with a score beside its samples and times; nothing where it holds together.
     *
     * @param value      of the main metric
     * @param samples    of the same quantity and unit, of which the value is some mean; may be empty
     * @param durationMs of the whole run
     * @param timedMs    of which so much was timed, where that is known
     * @param watchedMs  between the word that the run began and its delivery, by the server's clock, where it heard both
     */
    public static List<String> contradictions(
            double value, double[] samples, int durationMs, OptionalInt timedMs, OptionalLong watchedMs) {
        List<String> wrong = new ArrayList<>();
        if (samples.length >= FEWEST_SAMPLES
                && Median.withDefaults().withCopy(true).evaluate(samples) > 0) {
            double least = Arrays.stream(samples).min().orElseThrow();
            double most = Arrays.stream(samples).max().orElseThrow();
            if (value < least * (1 - ROUNDING) || value > most * (1 + ROUNDING)) {
                wrong.add("Its score, " + number(value) + ", lies outside of its own samples, " + number(least) + " to "
                        + number(most) + ".");
            }
        }
        if (timedMs.isPresent() && timedMs.getAsInt() > TIMED_SHARE * durationMs + TIMED_MS) {
            wrong.add(timedMs.getAsInt() + " ms are said to be timed in a run of " + durationMs + " ms.");
        }
        if (watchedMs.isPresent() && durationMs < SLOWEST_CLOCK * (watchedMs.getAsLong() - WAITING_MS)) {
            wrong.add(String.format(
                    Locale.ROOT,
                    "By the device's clock it took %.1f s, by the server's %.1f s.",
                    durationMs / 1e3,
                    watchedMs.getAsLong() / 1e3));
        }
        return wrong;
    }

    private static String number(double value) {
        return String.format(Locale.ROOT, "%.4g", value);
    }
}
