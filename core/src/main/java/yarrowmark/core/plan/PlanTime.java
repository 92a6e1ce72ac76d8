package yarrowmark.core.plan;

import java.time.Duration;
import java.util.List;

/**
 * How long a round of self-running tests takes on one device.
 *
 * <p>Before a test has run here, a run is taken to need its timed part, as much again for warming up (at most
 * {@value #LONGEST_WARM_UP_MS} ms) and calibration. Runs that are over replace the guess by their own mean.
 */
public record PlanTime(int tests, int runsEach, Duration timedPart, Duration pause) {
    /** A run by hand that nobody has timed yet. */
    public static final double GUESSED_BY_HAND_MS = 120_000;

    /** A battery that runs down, or charges: between a phone at full work and one that only reads. */
    public static final double GUESSED_BATTERY_MS = 4 * 3_600_000;

    /** Eight steps of half a minute, and the way between them. */
    public static final double GUESSED_WALK_MS = 480_000;

    private static final long LONGEST_WARM_UP_MS = 5_000;
    private static final long CALIBRATION_MS = 700;

    public PlanTime {
        if (tests < 0 || runsEach < 1 || timedPart.isNegative() || pause.isNegative()) {
            throw new IllegalArgumentException("a plan has 0 or more tests, 1 or more runs, and no negative times");
        }
    }

    /** All tests, all runs, and the pauses between runs. */
    public Duration whole() {
        return left(tests * runsEach, List.of());
    }

    /**
     * @param runsLeft runs that are still to come
     * @param finished how long the runs so far took, in ms; may be empty
     */
    public Duration left(int runsLeft, List<Long> finished) {
        double run = finished.isEmpty()
                ? guessedRunMs(timedPart)
                : finished.stream().mapToLong(Long::longValue).average().orElseThrow();
        int pauses = finished.isEmpty() ? Math.max(0, runsLeft - 1) : runsLeft;
        return Duration.ofMillis(Math.round(runsLeft * run + pauses * (double) pause.toMillis()));
    }

    /** One run of a test of which nothing is known. @param byItself whether it is one that runs by itself */
    public static double guessedRunMs(boolean byItself, Duration timedPart) {
        return byItself ? guessedRunMs(timedPart) : GUESSED_BY_HAND_MS;
    }

    /** One run of a self-running test, before anything is known of it. */
    public static double guessedRunMs(Duration timedPart) {
        return timedPart.toMillis() + Math.min(LONGEST_WARM_UP_MS, timedPart.toMillis()) + CALIBRATION_MS;
    }
}
