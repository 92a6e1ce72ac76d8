package yarrowmark.server.standing;

import java.time.LocalDate;
import java.util.List;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.standing.Standing;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.ledger.sample.SessionSelection;
import yarrowmark.server.shelf.configuration.ConfigurationRow;
import yarrowmark.server.shelf.model.DeviceClass;

/**
 * A standing as it is shown.
 *
 * @param purpose    by its name
 * @param scope      what is ranked, in words
 * @param metric     present where one metric alone is ranked
 * @param base       the configuration that has index 100; absent where the typical one has
 * @param baseNote   why it is not the one that was asked for, where it is not
 * @param per        present where every score is divided: by what
 * @param parts      what the standing is made of, each with a rail of its own
 * @param metrics    metrics that take part, with their weight
 * @param leftOut    metrics that do not, and why
 * @param unknown    configurations that are not in because of what is not known of them
 * @param common     whether only the tests in common use are ranked, and there are others
 * @param offers     groups and suites over which more would have a place
 * @param apart      classes of device that share no test with those ranked, and so are not among them
 * @param take       which sessions are ranked; absent in standings frozen before this was told
 * @param notCounted sessions of those ranked that do not count by default
 * @param placed     how many have a place
 * @param published  where one metric alone is ranked: what others published for it, beside the ranking
 * @param tauSquared how much models differ from test to test, beyond run noise
 * @param days       what intervals rest on about other days, in words; absent in standings frozen before 2026-12
 */
public record Standings(
        List<DeviceClass> classes,
        String purpose,
        String scope,
        @Nullable MetricRow metric,
        @Nullable ConfigurationRow base,
        @Nullable String baseNote,
        @Nullable String per,
        List<StandingPart> parts,
        List<WeightedMetric> metrics,
        List<LeftOut> leftOut,
        List<UnknownCount> unknown,
        int placed,
        @Nullable Boolean common,
        @Nullable List<Offer> offers,
        @Nullable List<ApartClass> apart,
        @Nullable SessionSelection take,
        @Nullable Integer notCounted,
        double tauSquared,
        @Nullable String days,
        List<Row> rows,
        List<Published> published) {

    /** @param weight share of the whole, 0 to 1 */
    public record StandingPart(PartOf.Kind kind, String key, String name, double weight, int metrics) {}

    public record WeightedMetric(long id, String test, String suite, double weight) {}

    /** @param index held against the base's own readings; absent where the base has none */
    public record Published(
            long modelId,
            String maker,
            String model,
            double value,
            double resolution,
            String source,
            @Nullable LocalDate publishedOn,
            @Nullable Integer results,
            @Nullable Double index) {}

    public record LeftOut(String test, String suite, String reason) {}

    /** @param key "group:" and its name, or "suite:" and its number. @param placed how many would have a place */
    public record Offer(String key, String name, int placed) {}

    public record ApartClass(DeviceClass deviceClass, int configurations) {}

    public record UnknownCount(String what, int configurations) {}

    /**
     * @param order         1 + the number with a better index; absent unless placed, and in standings frozen before 2026-12
     * @param placeBest     1 + the number clearly above; absent unless placed
     * @param merit         natural logarithm of index/100; absent where not linked
     * @param low           lower end of the index's 95 % interval; absent where a noise is not known
     * @param coverage      share of the weight it has results for, 0 to 1
     * @param tests         metrics with weight that it has
     * @param percentile    share of the other placed ones that it beats, 0 to 1
     * @param value         centre of its readings in the metric's unit, where one metric alone is ranked
     * @param runs          counted readings behind the value
     * @param staleTests    results of a suite version that a newer one took the place of
     * @param covers        of standings frozen before 2026-12: which noise its interval knows
     * @param assumed       how many of its tests rest on a stated or usual spread, which nobody measured here
     * @param probably      whether these carry most of its weight, so that its place is only probable
     * @param atLeast       whether a display holds the value, so that it is only the least
     * @param difference    instead of an index, where one metric alone is ranked that is compared by differences
     * @param newerFirmware the newest firmware known of its model, where this is an older one
     */
    public record Row(
            ConfigurationRow configuration,
            Standing.Status status,
            @Nullable Integer order,
            @Nullable Integer placeBest,
            @Nullable Integer placeWorst,
            @Nullable Double merit,
            @Nullable Double index,
            @Nullable Double low,
            @Nullable Double high,
            double coverage,
            int tests,
            @Nullable Double percentile,
            Standing.@Nullable Third third,
            List<Mark> parts,
            @Nullable Double value,
            @Nullable Integer runs,
            @Nullable Integer staleTests,
            @Nullable String newerFirmware,
            @Nullable String covers,
            @Nullable Integer assumed,
            @Nullable Boolean probably,
            @Nullable Boolean atLeast,
            @Nullable ValueDifference difference) {}

    /**
     * Of a metric that is compared by differences, where it is ranked alone: there is no index.
     *
     * @param value less that of the base, in the metric's unit
     * @param low   lower end of its 95 % interval; absent where a spread is not known
     */
    public record ValueDifference(double value, @Nullable Double low, @Nullable Double high) {}

    /**
     * Where a configuration stands in one part, for a rail; in steps of a millionth.
     *
     * @param part  position in {@link #parts}
     * @param merit relative to the part's own reference, more is better
     * @param half  half-width of the 95 % interval; absent where a noise is not known
     */
    public record Mark(int part, double merit, @Nullable Double half) {}
}
