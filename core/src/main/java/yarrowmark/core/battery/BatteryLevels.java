package yarrowmark.core.battery;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.OptionalDouble;
import org.apache.commons.statistics.descriptive.Median;

/**
 * A battery's level over time, while it runs down or charges. Section 13 of the method.
 *
 * <p>Levels come in whole steps, mostly of 1 %, and somewhere within a step nothing is known. So a rate is taken between
 * two steps: from the first time that the level changed to the last one.
 *
 * @param perHour     per cent an hour, above 0
 * @param resolution  of that, from how far apart levels were looked at, or from their step where it changed only once
 * @param odd         what does not fit a battery that is left alone, each in words; empty for a clean one
 */
public record BatteryLevels(List<Point> points, boolean falling, double perHour, double resolution, List<String> odd) {
    /** Keys of the metrics that tests of batteries have beside their levels. */
    public static final String PER_HOUR = "per-hour";

    public static final String HOURS_TO_20 = "hours-20";
    public static final String HOURS_TO_END = "hours-end";
    public static final String MINUTES_TO_80 = "minutes-80";
    public static final String MINUTES_TO_FULL = "minutes-full";

    private static final double FULL = 99;
    private static final double ALL_BUT_FULL = 99.5;
    /** Devices switch off somewhere below. */
    private static final double EMPTY = 5;

    private static final double LOW = 20;
    private static final double HIGH = 80;
    /** A level that goes the other way by no more is a sensor's unrest. */
    private static final double UNREST = 1;
    /** A change of so much between two looks that are this near is none of the battery's own. */
    private static final double JUMP = 5;

    private static final double JUMP_WITHIN_MINUTES = 3;
    private static final double GAP_MINUTES = 5;
    private static final double GAP_TIMES = 5;
    private static final double MINUTES_IN_HOUR = 60;

    /** @param minutes since it began. @param level in per cent */
    public record Point(double minutes, double level) {}

    public BatteryLevels {
        points = List.copyOf(points);
        odd = List.copyOf(odd);
    }

    /**
     * @param points two or more, in the order of time, levels above 0 to 100
     * @throws IllegalArgumentException where it did not run down at all, or the points are none
     */
    public static BatteryLevels runningDown(List<Point> points) {
        return of(points, true);
    }

    /** @throws IllegalArgumentException where it did not charge at all, or the points are none */
    public static BatteryLevels charging(List<Point> points) {
        return of(points, false);
    }

    private static BatteryLevels of(List<Point> points, boolean falling) {
        if (points.size() < 2) {
            throw new IllegalArgumentException("Levels at two times or more say how fast a battery runs down.");
        }
        for (int i = 0; i < points.size(); i++) {
            Point p = points.get(i);
            if (!(p.level() > 0 && p.level() <= 100) || !(p.minutes() >= 0 && p.minutes() < Double.POSITIVE_INFINITY)) {
                throw new IllegalArgumentException(
                        "A level lies above 0 and up to 100 %, at a time of 0 min or later, not " + p + ".");
            }
            if (i > 0 && p.minutes() <= points.get(i - 1).minutes()) {
                throw new IllegalArgumentException("Levels follow each other in time, and " + p + " does not.");
            }
        }
        int sign = falling ? -1 : 1;
        List<Point> steps = new ArrayList<>();
        double farthest = points.get(0).level();
        for (Point p : points) {
            if (sign * (p.level() - farthest) > 0) {
                steps.add(p);
                farthest = p.level();
            }
        }
        if (steps.isEmpty()) {
            throw new IllegalArgumentException(
                    falling
                            ? "The level did not fall in this time. Let it run for longer."
                            : "The level did not rise in this time. Is it on its charger?");
        }
        boolean once = steps.size() < 2;
        Point from = once ? points.get(0) : steps.get(0);
        Point to = steps.get(steps.size() - 1);
        double change = Math.abs(to.level() - from.level());
        double minutes = to.minutes() - from.minutes();
        double perHour = change / minutes * MINUTES_IN_HOUR;
        double apart = apart(points);
        return new BatteryLevels(
                points,
                falling,
                perHour,
                once ? perHour / change : perHour * Math.min(1, apart / minutes),
                odd(points, sign, apart));
    }

    private static double apart(List<Point> points) {
        double[] apart = new double[points.size() - 1];
        Arrays.setAll(apart, i -> points.get(i + 1).minutes() - points.get(i).minutes());
        return Median.withDefaults().evaluate(apart);
    }

    private static List<String> odd(List<Point> points, int sign, double apart) {
        List<String> odd = new ArrayList<>();
        double farthest = points.get(0).level();
        boolean back = false;
        for (int i = 1; i < points.size(); i++) {
            Point before = points.get(i - 1);
            Point p = points.get(i);
            double minutes = p.minutes() - before.minutes();
            if (!back && sign * (p.level() - farthest) < -UNREST) {
                // Said once: it says so at every point until it is where it was.
                back = true;
                odd.add(words(
                        "The level %s from %.0f to %.0f %% after %.0f min.",
                        sign < 0 ? "rose" : "fell", farthest, p.level(), p.minutes()));
            }
            if (sign * (p.level() - farthest) >= 0) {
                back = false;
                farthest = p.level();
            }
            if (minutes <= JUMP_WITHIN_MINUTES && sign * (p.level() - before.level()) >= JUMP) {
                odd.add(words(
                        "The level jumped from %.0f to %.0f %% after %.0f min.",
                        before.level(), p.level(), p.minutes()));
            }
            if (minutes > GAP_MINUTES && minutes > GAP_TIMES * apart) {
                odd.add(words("Nothing is known of %.0f min from %.0f min on.", minutes, before.minutes()));
            }
        }
        return odd;
    }

    private static String words(String format, Object... values) {
        return String.format(Locale.ROOT, format, values);
    }

    /** From full until 20 % are left, in hours; empty where it did not begin full or did not come so far. */
    public OptionalDouble hoursTo20() {
        return falling && points.get(0).level() >= FULL ? hours(minutesAt(LOW)) : OptionalDouble.empty();
    }

    /** From full until it was empty, in hours: to the last level that was seen. */
    public OptionalDouble hoursToEnd() {
        Point last = points.get(points.size() - 1);
        return falling && points.get(0).level() >= FULL && last.level() <= EMPTY
                ? hours(OptionalDouble.of(last.minutes()))
                : OptionalDouble.empty();
    }

    public OptionalDouble minutesFrom20To80() {
        return between(HIGH);
    }

    public OptionalDouble minutesFrom20ToFull() {
        return between(ALL_BUT_FULL);
    }

    private OptionalDouble between(double to) {
        if (falling || points.get(0).level() > LOW) {
            return OptionalDouble.empty();
        }
        OptionalDouble low = minutesAt(LOW);
        OptionalDouble high = minutesAt(to);
        return low.isPresent() && high.isPresent() && high.getAsDouble() > low.getAsDouble()
                ? OptionalDouble.of(high.getAsDouble() - low.getAsDouble())
                : OptionalDouble.empty();
    }

    private OptionalDouble hours(OptionalDouble minutes) {
        double begin = points.get(0).minutes();
        return minutes.isPresent()
                ? OptionalDouble.of((minutes.getAsDouble() - begin) / MINUTES_IN_HOUR)
                : OptionalDouble.empty();
    }

    /** When a level was reached first, on a straight line between the looks before and after. */
    private OptionalDouble minutesAt(double wanted) {
        int sign = falling ? -1 : 1;
        for (int i = 0; i < points.size(); i++) {
            Point p = points.get(i);
            if (sign * (p.level() - wanted) >= 0) {
                if (i == 0) {
                    return OptionalDouble.of(p.minutes());
                }
                Point before = points.get(i - 1);
                double share = (wanted - before.level()) / (p.level() - before.level());
                return OptionalDouble.of(before.minutes() + share * (p.minutes() - before.minutes()));
            }
        }
        return OptionalDouble.empty();
    }
}
