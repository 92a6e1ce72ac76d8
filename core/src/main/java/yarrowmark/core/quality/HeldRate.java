package yarrowmark.core.quality;

import java.util.Arrays;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.DoublePredicate;

/**
 * A frame rate that the display holds, so that it says nothing about the device.
 *
 * <p>Condition: the mean rate is within 1.5 % of the display's refresh rate, or of a half or a third of it, and its
 * spread is under 1 %. Where the refresh rate is unknown, the usual rates are tried: it has to be measured twice at least
 * with a spread under 0.3 %, and a second configuration as steady has to sit within 0.2 % of the same value. (With 0.5 % and
 * any spread, 9 % of free results on a shelf of 200 were called held.)
 *
 * @param rate  that is held, in 1/s
 * @param parts 1 for the whole rate, 2 for a half, 3 for a third of the display's
 */
public record HeldRate(double rate, int parts) {
    static final List<Integer> USUAL = List.of(30, 48, 60, 72, 75, 90, 120, 144, 165, 240);
    private static final double NEAR_REFRESH = 0.015;
    private static final double NEAR_OTHER = 0.002;
    private static final double STEADY_PERCENT = 0.3;
    private static final double MOST_SPREAD_PERCENT = 1;

    /**
     * @param meanRate      in frames a second
     * @param spreadPercent of the sample; empty for one reading, which then has to do without
     * @param refreshRate   of the display, in Hz, where known
     * @param others        mean rates of other configurations on the same metric that are {@link #isSteady} themselves
     */
    public static Optional<HeldRate> of(
            double meanRate, OptionalDouble spreadPercent, OptionalDouble refreshRate, Collection<Double> others) {
        return of(
                meanRate, spreadPercent, refreshRate, rate -> others.stream().anyMatch(o -> near(o, rate, NEAR_OTHER)));
    }

    /** @param shared whether another steady configuration's mean rate is within 0.2 % of it; see {@link Rates} */
    public static Optional<HeldRate> of(
            double meanRate, OptionalDouble spreadPercent, OptionalDouble refreshRate, DoublePredicate shared) {
        if (!(meanRate > 0) || spreadPercent.isPresent() && !(spreadPercent.getAsDouble() < MOST_SPREAD_PERCENT)) {
            return Optional.empty();
        }
        if (refreshRate.isPresent()) {
            for (int parts = 1; parts <= 3; parts++) {
                double step = refreshRate.getAsDouble() / parts;
                if (near(meanRate, step, NEAR_REFRESH)) {
                    return Optional.of(new HeldRate(step, parts));
                }
            }
            return Optional.empty();
        }
        if (!isSteady(spreadPercent)) {
            return Optional.empty();
        }
        return USUAL.stream()
                .filter(u -> near(meanRate, u, NEAR_REFRESH))
                .findFirst()
                .filter(u -> shared.test(meanRate))
                .map(u -> new HeldRate(u, 1));
    }

    /**
     * Where the display holds only some of the runs: the largest sits at its rate, and the others lie below. The mean is then
     * the least as well.
     *
     * @param largest     of the runs, in frames a second
     * @param refreshRate of the display, in Hz
     */
    public static Optional<HeldRate> partly(double largest, double meanRate, double refreshRate) {
        for (int parts = 1; parts <= 3; parts++) {
            double step = refreshRate / parts;
            if (near(largest, step, NEAR_REFRESH) && meanRate < largest) {
                return Optional.of(new HeldRate(step, parts));
            }
        }
        return Optional.empty();
    }

    /**
     * Whether {@link #partly} may find anything, before the single runs are looked at.
     *
     * @param most the largest that any of the runs can have, by their mean and spread
     */
    public static boolean couldBePartly(double meanRate, double most, double refreshRate) {
        for (int parts = 1; parts <= 3; parts++) {
            double step = refreshRate / parts;
            if (meanRate < step * (1 + NEAR_REFRESH) && most >= step * (1 - NEAR_REFRESH)) {
                return true;
            }
        }
        return false;
    }

    /** Whether a sample was measured twice at least, with so little spread that an unknown display may hold it. */
    public static boolean isSteady(OptionalDouble spreadPercent) {
        return spreadPercent.isPresent() && spreadPercent.getAsDouble() < STEADY_PERCENT;
    }

    /** Mean rates of all steady configurations on a metric, sorted once: among them the nearest other one stands beside. */
    public static final class Rates {
        private final double[] sorted;

        public Rates(double[] all) {
            this.sorted = all.clone();
            Arrays.sort(sorted);
        }

        /** @param rate one of them. @return whether another one is within 0.2 % of it */
        public boolean shared(double rate) {
            int at = Arrays.binarySearch(sorted, rate);
            if (at < 0) {
                throw new IllegalArgumentException(rate + " is none of these rates");
            }
            return at > 0 && near(sorted[at - 1], rate, NEAR_OTHER)
                    || at + 1 < sorted.length && near(sorted[at + 1], rate, NEAR_OTHER);
        }
    }

    private static boolean near(double value, double to, double within) {
        return Math.abs(value / to - 1) <= within;
    }
}
