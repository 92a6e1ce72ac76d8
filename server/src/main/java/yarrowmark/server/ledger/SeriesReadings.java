package yarrowmark.server.ledger;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import yarrowmark.core.curve.Curve;
import yarrowmark.core.curve.FrameTimes;
import yarrowmark.core.curve.SeriesNumber;
import yarrowmark.core.curve.SeriesText;
import yarrowmark.core.measure.Kind;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.TestRow;
import yarrowmark.server.platform.Problem;

/** Turns pasted points into the readings of a test that has them. */
final class SeriesReadings {
    private SeriesReadings() {
    }

    /** The points stay with the reading of the metric that stands for them: x and y in turn, or the frame times. */
    static List<Ledger.NewReading> of(TestRow test, String text, boolean timestamps) {
        MetricRow whole = test.metrics().stream().filter(m -> m.kind().isSeries()).findFirst()
            .orElseThrow(() -> Problem.invalid("no-points", test.name() + " gives one value a run. Type it."));
        try {
            List<Double> points;
            Map<SeriesNumber, Double> numbers;
            if (whole.kind() == Kind.CURVE) {
                Curve curve = new Curve(SeriesText.points(text));
                points = curve.points().stream().flatMap(p -> Stream.of(p.x(), p.y())).toList();
                numbers = SeriesNumber.ofCurve(curve);
            } else {
                double[] frames = SeriesText.frames(text, timestamps);
                points = Arrays.stream(frames).boxed().toList();
                numbers = SeriesNumber.ofFrames(FrameTimes.of(frames));
            }
            List<Ledger.NewReading> readings = new ArrayList<>();
            for (MetricRow m : test.metrics()) {
                if (m.series() != null) {
                    readings.add(new Ledger.NewReading(m.key(), numbers.get(m.series()), m.series().counts() ? 1 : 0, m.id() == whole.id() ? points : List.of()));
                }
            }
            return readings;
        } catch (SeriesText.NotReadable e) {
            throw Problem.invalid("not-points", e.getMessage());
        }
    }
}
