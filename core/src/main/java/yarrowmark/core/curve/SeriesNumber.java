package yarrowmark.core.curve;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Kind;

/** The numbers of a curve or of frame times that are metrics of their own. The first of each kind stands for the series. */
public enum SeriesNumber {
    PEAK(Kind.CURVE, "peak", Direction.MORE_IS_BETTER),
    NEAR_PEAK_FROM(Kind.CURVE, "90 % of the peak from", Direction.LESS_IS_BETTER),
    DENTS(Kind.CURVE, "dents", Direction.LESS_IS_BETTER),
    MEAN_RATE(Kind.FRAME_TIMES, "mean rate", Direction.MORE_IS_BETTER),
    LOW_MEAN(Kind.FRAME_TIMES, "1 % low, mean", Direction.MORE_IS_BETTER),
    LOW_PERCENTILE(Kind.FRAME_TIMES, "1 % low, percentile", Direction.MORE_IS_BETTER),
    STUTTERS(Kind.FRAME_TIMES, "stutters", Direction.LESS_IS_BETTER);

    private final Kind kind;
    private final String words;
    private final Direction direction;

    SeriesNumber(Kind kind, String words, Direction direction) {
        this.kind = kind;
        this.words = words;
        this.direction = direction;
    }

    /** Those of a kind, the one that stands for the series first. */
    public static List<SeriesNumber> of(Kind kind) {
        List<SeriesNumber> all = new ArrayList<>();
        for (SeriesNumber n : values()) {
            if (n.kind == kind) {
                all.add(n);
            }
        }
        return all;
    }

    public String words() {
        return words;
    }

    public Direction direction() {
        return direction;
    }

    /** Whether it counts things, which may be 0, so that values are held against each other by their difference. */
    public boolean counts() {
        return this == DENTS || this == STUTTERS;
    }

    public static Map<SeriesNumber, Double> ofCurve(Curve curve) {
        Map<SeriesNumber, Double> numbers = new LinkedHashMap<>();
        numbers.put(PEAK, curve.peak().y());
        numbers.put(NEAR_PEAK_FROM, curve.nearPeakFrom());
        numbers.put(DENTS, (double) curve.dents().size());
        return numbers;
    }

    public static Map<SeriesNumber, Double> ofFrames(FrameTimes frames) {
        Map<SeriesNumber, Double> numbers = new LinkedHashMap<>();
        numbers.put(MEAN_RATE, frames.meanRate());
        numbers.put(LOW_MEAN, frames.lowMean());
        numbers.put(LOW_PERCENTILE, frames.lowPercentile());
        numbers.put(STUTTERS, (double) frames.stutters());
        return numbers;
    }
}
