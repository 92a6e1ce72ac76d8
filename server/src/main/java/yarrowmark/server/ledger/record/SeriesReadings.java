package yarrowmark.server.ledger.record;

import static yarrowmark.server.platform.Require.require;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.battery.BatteryLevels;
import yarrowmark.core.curve.Curve;
import yarrowmark.core.curve.FrameTimes;
import yarrowmark.core.curve.SeriesNumber;
import yarrowmark.core.curve.SeriesText;
import yarrowmark.core.measure.Kind;
import yarrowmark.core.quality.Throttling;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.TestRow;
import yarrowmark.server.platform.Problem;

/** Turns pasted points into the readings of a test that has them. */
public final class SeriesReadings {
    private SeriesReadings() {}

    /** A device delivers the points alone, with the metric that stands for them; what they come to is found here. */
    static NewRun completed(TestRow test, NewRun run) {
        MetricRow whole = test.metrics().stream()
                .filter(m -> m.kind().isSeries())
                .findFirst()
                .orElse(null);
        NewReading given = whole == null
                ? null
                : run.readings().stream()
                        .filter(r -> r.metric().equals(whole.key()))
                        .findFirst()
                        .orElse(null);
        if (whole == null || given == null || given.samples().isEmpty()) {
            return run;
        }
        List<Double> points = given.samples();
        if (points.size() > 2 * SeriesText.MOST_POINTS
                || points.stream().anyMatch(p -> p == null || !Double.isFinite(p) || p <= 0)) {
            throw Problem.invalid(
                    "invalid-samples",
                    "The points of " + test.name() + " must be finite numbers above 0, at most "
                            + SeriesText.MOST_POINTS + " of them.");
        }
        Set<String> numbers = test.metrics().stream()
                .filter(m -> m.series() != null)
                .map(MetricRow::key)
                .collect(Collectors.toSet());
        List<NewReading> readings = new ArrayList<>(run.readings().stream()
                .filter(r -> !numbers.contains(r.metric()))
                .toList());
        List<String> odd = new ArrayList<>();
        try {
            if (whole.kind() == Kind.CURVE) {
                List<Curve.Point> curve = new ArrayList<>();
                for (int i = 0; i + 1 < points.size(); i += 2) {
                    curve.add(new Curve.Point(points.get(i), points.get(i + 1)));
                }
                readings.addAll(numbered(test, whole, SeriesNumber.ofCurve(new Curve(curve)), points));
                readings.addAll(endured(test, curve));
                BatteryLevels levels = levels(test, curve);
                if (levels != null) {
                    readings.addAll(numbers(levels));
                    odd.addAll(levels.odd());
                }
            } else {
                readings.addAll(numbered(
                        test,
                        whole,
                        SeriesNumber.ofFrames(FrameTimes.of(
                                points.stream().mapToDouble(Double::doubleValue).toArray())),
                        points));
            }
        } catch (IllegalArgumentException e) {
            throw Problem.invalid("invalid-samples", Problem.words(e));
        }
        return run.withReadings(readings).withDisturbance(odd);
    }

    /** What a battery's levels come to, for a test that has metrics for it. */
    private static @Nullable BatteryLevels levels(TestRow test, List<Curve.Point> levels) {
        Set<String> keys = test.metrics().stream().map(MetricRow::key).collect(Collectors.toSet());
        if (!keys.contains(BatteryLevels.PER_HOUR)) {
            return null;
        }
        List<BatteryLevels.Point> points =
                levels.stream().map(p -> new BatteryLevels.Point(p.x(), p.y())).toList();
        return keys.contains(BatteryLevels.HOURS_TO_20)
                ? BatteryLevels.runningDown(points)
                : BatteryLevels.charging(points);
    }

    private static List<NewReading> numbers(BatteryLevels of) {
        List<NewReading> readings = new ArrayList<>();
        readings.add(new NewReading(BatteryLevels.PER_HOUR, of.perHour(), of.resolution(), List.of()));
        Map.of(
                        BatteryLevels.HOURS_TO_20, of.hoursTo20(),
                        BatteryLevels.HOURS_TO_END, of.hoursToEnd(),
                        BatteryLevels.MINUTES_TO_80, of.minutesFrom20To80(),
                        BatteryLevels.MINUTES_TO_FULL, of.minutesFrom20ToFull())
                .forEach((key, value) -> value.ifPresent(v -> readings.add(new NewReading(key, v, 0, List.of()))));
        return readings;
    }

    /** What loops come to, for a test that has metrics for it. */
    private static List<NewReading> endured(TestRow test, List<Curve.Point> loops) {
        if (test.metrics().stream().noneMatch(m -> m.key().equals(Throttling.SUSTAINED))) {
            return List.of();
        }
        Throttling found =
                Throttling.ofMany(loops.stream().mapToDouble(Curve.Point::y).toArray());
        List<NewReading> readings =
                new ArrayList<>(List.of(new NewReading(Throttling.SUSTAINED, 100 * found.sustained(), 0, List.of())));
        found.onset()
                .ifPresent(loop -> readings.add(
                        new NewReading(Throttling.ONSET, loops.get(loop).x(), 0, List.of())));
        return readings;
    }

    private static List<NewReading> numbered(
            TestRow test, MetricRow whole, Map<SeriesNumber, Double> numbers, List<Double> points) {
        List<NewReading> readings = new ArrayList<>();
        for (MetricRow m : test.metrics()) {
            if (m.series() != null) {
                readings.add(new NewReading(
                        m.key(),
                        require(numbers, m.series()),
                        m.series().counts() ? 1 : 0,
                        m.id() == whole.id() ? points : List.of()));
            }
        }
        return readings;
    }

    /** The points stay with the reading of the metric that stands for them: x and y in turn, or the frame times. */
    public static List<NewReading> of(TestRow test, String text, boolean timestamps) {
        MetricRow whole = test.metrics().stream()
                .filter(m -> m.kind().isSeries())
                .findFirst()
                .orElseThrow(() -> Problem.invalid("no-points", test.name() + " gives one value a run. Type it."));
        try {
            List<Double> points;
            Map<SeriesNumber, Double> numbers;
            List<NewReading> more = List.of();
            if (whole.kind() == Kind.CURVE) {
                Curve curve = new Curve(SeriesText.points(text));
                BatteryLevels levels = levels(test, curve.points());
                more = levels == null ? endured(test, curve.points()) : numbers(levels);
                points = curve.points().stream()
                        .flatMap(p -> Stream.of(p.x(), p.y()))
                        .toList();
                numbers = SeriesNumber.ofCurve(curve);
            } else {
                double[] frames = SeriesText.frames(text, timestamps);
                points = Arrays.stream(frames).boxed().toList();
                numbers = SeriesNumber.ofFrames(FrameTimes.of(frames));
            }
            return Stream.concat(numbered(test, whole, numbers, points).stream(), more.stream())
                    .toList();
        } catch (SeriesText.NotReadable | IllegalArgumentException e) {
            throw Problem.invalid("not-points", Problem.words(e));
        }
    }
}
