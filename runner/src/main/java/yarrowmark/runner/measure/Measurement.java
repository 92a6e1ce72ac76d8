package yarrowmark.runner.measure;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What a run came to, in the test's unit.
 *
 * @param value      of the main metric
 * @param resolution step of the clock, as it shows in the value
 * @param samples    what the value is the median of; for a curve x and y in turn
 * @param more       of the test's other metrics
 * @param note       what whoever reads the value should know
 * @param output     the end of what was printed, as its proof
 */
public record Measurement(
        double value,
        double resolution,
        List<Double> samples,
        double timedMs,
        List<More> more,
        @Nullable String note,
        @Nullable String output) {
    /** @param metric its key */
    public record More(String metric, double value, double resolution) {}

    public Measurement(
            double value,
            double resolution,
            List<Double> samples,
            double timedMs,
            List<More> more,
            @Nullable String note) {
        this(value, resolution, samples, timedMs, more, note, null);
    }

    public Measurement withOutput(String printed) {
        return new Measurement(value, resolution, samples, timedMs, more, note, printed);
    }

    public Measurement with(List<More> others, @Nullable String words) {
        return new Measurement(value, resolution, samples, timedMs, others, words, output);
    }

    /** A curve: the value is the largest y; the server finds the other numbers itself. */
    public static Measurement ofCurve(List<Point> points, double timedMs, List<More> more, @Nullable String note) {
        if (points.size() < 2) {
            throw new IllegalStateException("A curve needs at least two points, and only one could be measured here.");
        }
        return new Measurement(
                points.stream().mapToDouble(Point::y).max().orElseThrow(),
                0,
                points.stream().flatMap(p -> List.of(p.x(), p.y()).stream()).toList(),
                timedMs,
                more,
                note);
    }

    public record Point(double x, double y) {}
}
