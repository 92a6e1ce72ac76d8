package yarrowmark.server.catalog;

import java.util.ArrayList;
import java.util.List;
import yarrowmark.core.entry.TestLines;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.sensor.Sensed;

/** What the sensors of a run come to: metrics of every test that the runner carries out. None is part of a ranking. */
final class SensorMetrics {
    private static final String A_SECOND = "/s";

    private SensorMetrics() {}

    /** @param unit of the test's own score: of a rate, what is done for a joule can be told */
    static List<Catalog.NewMetric> of(String test, String unit) {
        List<Catalog.NewMetric> metrics = new ArrayList<>(List.of(
                metric(Sensed.HIGHEST_TEMPERATURE, test + ", highest temperature", "°C", Direction.LESS_IS_BETTER),
                metric(Sensed.MEAN_TEMPERATURE, test + ", mean temperature", "°C", Direction.LESS_IS_BETTER),
                metric(Sensed.MEAN_CLOCK, test + ", mean clock", "GHz", Direction.MORE_IS_BETTER),
                metric(Sensed.ENERGY, test + ", energy", "J", Direction.LESS_IS_BETTER)));
        if (unit.endsWith(A_SECOND)) {
            metrics.add(metric(
                    Sensed.PER_JOULE,
                    test + ", work per joule",
                    unit.substring(0, unit.length() - A_SECOND.length()) + "/J",
                    Direction.MORE_IS_BETTER));
        }
        return metrics;
    }

    private static Catalog.NewMetric metric(String key, String name, String unit, Direction direction) {
        return new Catalog.NewMetric(key, name, unit, direction, TestLines.scale(unit), false);
    }
}
