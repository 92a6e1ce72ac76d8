package yarrowmark.server.catalog;

import static yarrowmark.server.platform.Require.require;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.curve.SeriesNumber;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Kind;
import yarrowmark.core.measure.Scale;

/** The metrics of a test whose runs have many points: one for each number of its curve or frame times. */
final class SeriesMetrics {
    private SeriesMetrics() {}

    /** A curve whose peak says nothing: the metric that holds its points, and none of its numbers. */
    static Catalog.NewMetric bare(String name, String unit, @Nullable String xUnit, Kind kind) {
        SeriesNumber first = SeriesNumber.of(kind).get(0);
        return new Catalog.NewMetric(
                key(first),
                name,
                unit,
                Direction.MORE_IS_BETTER,
                Scale.RATIO,
                false,
                new Catalog.More(kind, List.of(), xUnit, false, first, null, Map.of()));
    }

    private static String key(SeriesNumber number) {
        return number.name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    /** @param direction of the number that stands for the series. @param xUnit of a curve */
    static List<Catalog.NewMetric> of(
            String name,
            String unit,
            @Nullable String xUnit,
            Kind kind,
            Direction direction,
            boolean main,
            boolean capped) {
        List<Catalog.NewMetric> metrics = new ArrayList<>();
        for (SeriesNumber number : SeriesNumber.of(kind)) {
            boolean first = metrics.isEmpty();
            String own = number == SeriesNumber.NEAR_PEAK_FROM ? require(xUnit) : number.counts() ? "1" : unit;
            metrics.add(new Catalog.NewMetric(
                    key(number),
                    name + ", " + number.words(),
                    own,
                    first ? direction : number.direction(),
                    number.counts() ? Scale.DIFFERENCE : Scale.RATIO,
                    first && main,
                    new Catalog.More(
                            first ? kind : Kind.NUMBER,
                            List.of(),
                            xUnit,
                            capped && !number.counts(),
                            number,
                            null,
                            Map.of())));
        }
        return metrics;
    }
}
