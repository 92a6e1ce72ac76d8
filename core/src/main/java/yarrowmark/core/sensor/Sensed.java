package yarrowmark.core.sensor;

import java.util.Arrays;
import java.util.List;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.function.DoubleBinaryOperator;
import java.util.stream.IntStream;
import yarrowmark.core.quality.Throttling;

/**
 * What the sensors of a run come to; absent is what none of them told.
 *
 * @param highestTemperature of any processor sensor at any moment, in °C
 * @param meanTemperature    of the hottest sensor at each moment, in °C
 * @param meanClock          of all cores over the run, in Hz
 * @param meanPower          of the processor, in W; where it has no such sensor, what the battery gave
 * @param energy             of the run, in J, from the same
 * @param heldBack           how often the processor held itself back for heat
 * @param clockKept          mean clock of the last quarter over the best twelfth of the run, where the clock fell for good
 */
public record Sensed(
        OptionalDouble highestTemperature,
        OptionalDouble meanTemperature,
        OptionalDouble meanClock,
        OptionalDouble meanPower,
        OptionalDouble energy,
        long heldBack,
        OptionalDouble clockKept) {
    /** Keys of the metrics that say this, where a test has them. */
    public static final String HIGHEST_TEMPERATURE = "highest-temperature";

    public static final String MEAN_TEMPERATURE = "mean-temperature";
    public static final String MEAN_CLOCK = "mean-clock";
    public static final String ENERGY = "energy";
    public static final String PER_JOULE = "per-joule";

    /** All of these keys. */
    public static final Set<String> KEYS = Set.of(HIGHEST_TEMPERATURE, MEAN_TEMPERATURE, MEAN_CLOCK, ENERGY, PER_JOULE);

    /** Those that tell most, where there is no room for all. */
    public static final Set<String> TELLING = Set.of(HIGHEST_TEMPERATURE, ENERGY, PER_JOULE);

    /** The clock is looked at in so many equal parts: single values jump with every task that ends. */
    private static final int PARTS = 12;

    private static final double MS = 1000;

    public static Sensed of(List<SensorTrack> tracks) {
        List<SensorTrack> temperatures = kind(tracks, SensorTrack.TEMPERATURE);
        List<SensorTrack> clocks = kind(tracks, SensorTrack.CLOCK);
        List<SensorTrack> packages = kind(tracks, SensorTrack.POWER);
        List<SensorTrack> powers = packages.isEmpty() ? kind(tracks, SensorTrack.DISCHARGE) : packages;
        double[] hottest = together(temperatures, Math::max);
        double[] clock = together(clocks, Double::sum);
        double[] power = together(powers, Double::sum);
        OptionalDouble meanPower = Arrays.stream(power).average();
        return new Sensed(
                Arrays.stream(hottest).max(),
                Arrays.stream(hottest).average(),
                scaled(Arrays.stream(clock).average(), 1.0 / Math.max(1, clocks.size())),
                meanPower,
                powers.isEmpty()
                        ? OptionalDouble.empty()
                        : scaled(meanPower, power.length * powers.get(0).stepMs() / MS),
                Math.round(kind(tracks, SensorTrack.THROTTLE).stream()
                        .flatMapToDouble(t -> Arrays.stream(t.values()))
                        .sum()),
                kept(clock));
    }

    private static List<SensorTrack> kind(List<SensorTrack> tracks, String kind) {
        return tracks.stream().filter(t -> t.kind().equals(kind)).toList();
    }

    /** Moment by moment; where a sensor fell silent the others end with it, so that sums are of the same sensors. */
    private static double[] together(List<SensorTrack> tracks, DoubleBinaryOperator how) {
        int length = tracks.stream().mapToInt(t -> t.values().length).min().orElse(0);
        List<double[]> values = tracks.stream().map(SensorTrack::values).toList();
        return IntStream.range(0, length)
                .mapToDouble(
                        i -> values.stream().mapToDouble(v -> v[i]).reduce(how).orElseThrow())
                .toArray();
    }

    private static OptionalDouble scaled(OptionalDouble of, double by) {
        return of.isPresent() ? OptionalDouble.of(of.getAsDouble() * by) : of;
    }

    private static OptionalDouble kept(double[] clock) {
        if (clock.length < PARTS || Arrays.stream(clock).anyMatch(c -> c <= 0)) {
            return OptionalDouble.empty();
        }
        double[] parts = IntStream.range(0, PARTS)
                .mapToDouble(p -> Arrays.stream(clock, p * clock.length / PARTS, (p + 1) * clock.length / PARTS)
                        .average()
                        .orElseThrow())
                .toArray();
        Throttling found = Throttling.of(parts);
        return found.throttled() ? OptionalDouble.of(found.sustained()) : OptionalDouble.empty();
    }
}
