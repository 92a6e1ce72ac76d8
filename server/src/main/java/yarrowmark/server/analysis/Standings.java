package yarrowmark.server.analysis;

import java.time.LocalDate;
import java.util.List;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.standing.Standing;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.TestGroup;
import yarrowmark.server.shelf.ConfigurationRow;
import yarrowmark.server.shelf.DeviceClass;

/**
 * A standing as it is shown.
 *
 * @param base       the configuration that has index 100
 * @param baseNote   why it is not the one that was asked for, where it is not
 * @param metric     present where one metric alone is ranked
 * @param metrics    metrics that take part, with their weight
 * @param leftOut    metrics that do not, and why
 * @param published  where one metric alone is ranked: what others published for it, beside the ranking
 * @param tauSquared how much models differ from test to test, beyond run noise
 */
record Standings(List<DeviceClass> classes, String purpose, @Nullable MetricRow metric, ConfigurationRow base, @Nullable String baseNote,
                 List<GroupPart> groups, List<WeightedMetric> metrics, List<LeftOut> leftOut, double tauSquared, List<Row> rows, List<Published> published) {

    /** @param weight share of the whole, 0 to 1 */
    record GroupPart(TestGroup group, double weight, int metrics) { }

    record WeightedMetric(long id, String test, TestGroup group, String suite, double weight) { }

    /** @param index held against the base's own readings; absent where the base has none */
    record Published(long modelId, String maker, String model, double value, double resolution, String source, @Nullable LocalDate publishedOn, @Nullable Integer results, @Nullable Double index) { }

    record LeftOut(String test, String suite, String reason) { }

    /**
     * @param placeBest  1 + the number clearly above; absent unless placed
     * @param merit      natural logarithm of index/100; absent where not linked
     * @param low        lower end of the index's 95 % interval; absent where a noise is not known
     * @param coverage   share of the weight it has results for, 0 to 1
     * @param tests      metrics with weight that it has
     * @param percentile share of the other placed ones that it beats, 0 to 1
     * @param value      centre of its readings in the metric's unit, where one metric alone is ranked
     * @param runs       counted readings behind the value
     */
    record Row(ConfigurationRow configuration, Standing.Status status, @Nullable Integer placeBest, @Nullable Integer placeWorst,
               @Nullable Double merit, @Nullable Double index, @Nullable Double low, @Nullable Double high, double coverage, int tests,
               @Nullable Double percentile, Standing.@Nullable Third third, List<Mark> groups, @Nullable Double value, @Nullable Integer runs) { }

    /**
     * Where a configuration stands in one group, for a rail.
     *
     * @param merit relative to the group's own reference, more is better
     * @param low   lower end of the 95 % interval, as a merit; absent where a noise is not known
     */
    record Mark(TestGroup group, double merit, @Nullable Double low, @Nullable Double high) { }
}
