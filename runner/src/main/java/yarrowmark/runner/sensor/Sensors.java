package yarrowmark.runner.sensor;

import java.util.Comparator;
import java.util.List;
import java.util.OptionalDouble;
import java.util.stream.IntStream;
import yarrowmark.runner.protocol.Api;

/** The sensors of this computer, and why others cannot be read. */
public final class Sensors {
    /** The bench shows so many of a device. */
    private static final int SHOWN = 12;

    private static final List<String> FIRST = List.of(
            Sensor.TEMPERATURE,
            Sensor.POWER,
            Sensor.DISCHARGE,
            Sensor.CLOCK,
            Sensor.FAN,
            Sensor.OTHERS,
            Sensor.OTHER_TEMPERATURE);

    private final List<Sensor> all;
    private final List<String> unreadable;

    Sensors(List<Sensor> all, List<String> unreadable) {
        this.all = List.copyOf(all);
        this.unreadable = List.copyOf(unreadable);
    }

    public static Sensors none() {
        return new Sensors(List.of(), List.of());
    }

    /** What is there, and in words what would make it readable. */
    public List<String> unreadable() {
        return unreadable;
    }

    public boolean any() {
        return !all.isEmpty();
    }

    List<Sensor> all() {
        return all;
    }

    /** The hottest place of the processor, in °C; absent where nothing tells. */
    public OptionalDouble temperature() {
        return all.stream()
                .filter(s -> s.kind().equals(Sensor.TEMPERATURE))
                .mapToDouble(s -> s.read().getAsDouble())
                .filter(Double::isFinite)
                .max();
    }

    /** A few of them for the bench, the most telling first. */
    static List<Api.Sensor> shown(List<Sensor> sensors, List<Double> values) {
        return IntStream.range(0, sensors.size())
                .boxed()
                .filter(i -> FIRST.contains(sensors.get(i).kind()))
                .filter(i -> Double.isFinite(values.get(i)))
                .sorted(Comparator.comparingInt(
                        i -> FIRST.indexOf(sensors.get(i).kind())))
                .limit(SHOWN)
                .map(i -> new Api.Sensor(sensors.get(i).name(), sensors.get(i).unit(), values.get(i)))
                .toList();
    }
}
