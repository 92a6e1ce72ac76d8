package yarrowmark.core.trend;

import java.util.List;
import org.apache.commons.statistics.descriptive.Median;

/**
 * What the steps of a plot tell about how far days move here: a series with one session a step compares days, and where most
 * steps change nothing, their scatter is that of days.
 *
 * <p>With z = δ / (its standard error) of all steps of all lines that are shown: λ̂ = median |z| / 0.6744897502,
 * D = 0.37 (m − 1) min(J, 4) for m configurations and J lines, λ² = (4 + D λ̂²) / (4 + D). Each variance is multiplied by λ²
 * and its degrees of freedom raised by D. Below six configurations nothing is lent. Source: section 7 of the method.
 *
 * @param factor  λ²
 * @param degrees D
 */
public record SeriesLending(double factor, double degrees) {
    static final SeriesLending NONE = new SeriesLending(1, 0);

    private static final int FEWEST = 6;
    private static final double NORMAL_QUARTILE = 0.6744897502;
    private static final double DEGREES_A_STEP = 0.37;
    private static final int MOST_LINES = 4;
    private static final double BELIEF = 4;

    /** @param lines the steps of each line. @param configurations in order, with or without gaps */
    static SeriesLending of(List<List<TrendStep>> lines, int configurations) {
        double[] z = lines.stream()
                .flatMap(List::stream)
                .filter(s -> s.interval().standardError() > 0)
                .mapToDouble(s -> Math.abs(s.delta()) / s.interval().standardError())
                .toArray();
        long drawn = lines.stream().filter(l -> !l.isEmpty()).count();
        if (configurations < FEWEST || z.length == 0) {
            return NONE;
        }
        double ratio = Median.withDefaults().evaluate(z) / NORMAL_QUARTILE;
        double degrees = DEGREES_A_STEP * (configurations - 1) * Math.min(drawn, MOST_LINES);
        return new SeriesLending((BELIEF + degrees * ratio * ratio) / (BELIEF + degrees), degrees);
    }
}
