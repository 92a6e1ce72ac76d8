package yarrowmark.core.stats;

import java.util.List;
import java.util.OptionalDouble;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Measured;
import yarrowmark.core.measure.Scale;

/**
 * A sample as it is shown to a person.
 *
 * <p>Centre: geometric mean for ratio metrics, because it is the only mean that gives the same ratio for times and
 * for rates; arithmetic mean for difference metrics. Spread: 100 (e^s − 1) with s the standard deviation of ln x
 * (n − 1, resolution floor applied); empty for one reading and for difference metrics.
 *
 * @param n             counted readings
 * @param centre        in the metric's unit
 * @param spreadPercent in per cent of the centre
 * @param median        of the readings, mean of the middle two where n is even
 */
public record SampleSummary(
        int n, double centre, OptionalDouble spreadPercent, double median, double smallest, double largest) {

    public static SampleSummary of(List<Measured> readings, Scale scale) {
        // The direction only flips signs; any will do for a summary in the metric's own unit.
        SampleMoments moments = SampleMoments.of(readings, Direction.MORE_IS_BETTER, scale);
        double[] sorted =
                readings.stream().mapToDouble(Measured::value).sorted().toArray();
        int n = sorted.length;
        double median = n % 2 == 1 ? sorted[n / 2] : (sorted[n / 2 - 1] + sorted[n / 2]) / 2;
        if (scale == Scale.DIFFERENCE) {
            return new SampleSummary(n, moments.mean(), OptionalDouble.empty(), median, sorted[0], sorted[n - 1]);
        }
        return new SampleSummary(
                n, Math.exp(moments.mean()), moments.spreadPercent(), median, sorted[0], sorted[n - 1]);
    }
}
