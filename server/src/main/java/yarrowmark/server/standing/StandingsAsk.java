package yarrowmark.server.standing;

import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.TestGroup;
import yarrowmark.server.ledger.sample.SessionSelection;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.shelf.model.DeviceClass;
import yarrowmark.server.shelf.model.ReviewState;
import yarrowmark.server.shelf.search.ShelfIndex.FactCondition;
import yarrowmark.server.shelf.search.ShelfIndex.Relation;

/**
 * What a standing is asked for; what is left out means any, or the usual.
 *
 * @param only           these configurations alone
 * @param maker          by name, in any case
 * @param priceFrom      in the currency that most of the shelf's prices are in
 * @param yearFrom       first year of release
 * @param fact           conditions, each "key~relation~value" with a relation of the shelf's search and the value as people write it
 * @param newestFirmware only configurations with the newest firmware that is known of their model
 * @param power          how their sessions were powered
 * @param review         of the model
 * @param perModel       which of a model's configurations
 * @param fresh          without what is stale
 * @param group          only its tests
 * @param suite          only tests of this suite version
 * @param test           only this test
 * @param metric         this one alone
 * @param base           configuration with the index 100
 * @param typical        whether the typical one has the index 100 instead
 * @param everyTest      also tests that few of those ranked have run; without it, where nothing narrower is asked for, those in common use
 * @param take           which sessions; the usual ones unless others are asked for
 * @param without        parts that somebody leaves out: "group:" and its name, "suite:" or "test:" and its number
 * @param onlyTests      these alone, such as those of a plan
 * @param per            every score divided by a quantity: price, weight, or the key of a fact
 */
public record StandingsAsk(
        @Nullable Set<DeviceClass> deviceClass,
        @Nullable @Size(max = 500) Set<Long> only,
        @Nullable @Size(max = 50) Set<@Size(max = 120) String> maker,
        @Nullable @Min(0) Double priceFrom,
        @Nullable @Min(0) Double priceTo,
        @Nullable @Min(1950) @Max(2200) Integer yearFrom,
        @Nullable @Min(1950) @Max(2200) Integer yearTo,
        @Nullable @Size(max = 8) List<@Size(max = 300) String> fact,
        @Nullable Boolean newestFirmware,
        @Nullable Power power,
        @Nullable ReviewState review,
        @Nullable PerModel perModel,
        @Nullable Boolean fresh,
        @Nullable Long purpose,
        @Nullable TestGroup group,
        @Nullable Long suite,
        @Nullable Long test,
        @Nullable Long metric,
        @Nullable Long base,
        @Nullable Boolean typical,
        @Nullable @Size(max = 80) String per,
        @Nullable SessionSelection take,
        @Nullable Boolean everyTest,
        @Nullable @Size(max = 60) Set<@Size(max = 80) String> without,
        @Nullable @Size(max = 200) Set<Long> onlyTests) {

    public enum Power {
        MAINS,
        BATTERY
    }

    /** The configuration made last, the one that stands best, or the one made from no other. */
    public enum PerModel {
        NEWEST,
        BEST,
        FACTORY
    }

    static StandingsAsk ofMetric(long metric) {
        return new StandingsAsk(
                null, null, null, null, null, null, null, null, null, null, null, null, null, null, null, null, null,
                metric, null, null, null, null, null, null, null);
    }

    static StandingsAsk ofClass(DeviceClass of) {
        return new StandingsAsk(
                Set.of(of),
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null);
    }

    /** The same over a part. @param key "group:" and its name, or "suite:" and its number */
    StandingsAsk over(String key) {
        String[] parts = key.split(":", 2);
        return parts[0].equals("group")
                ? scoped(TestGroup.valueOf(parts[1]), null, everyTest)
                : scoped(null, Long.valueOf(parts[1]), everyTest);
    }

    StandingsAsk overEveryTest() {
        return scoped(null, null, true);
    }

    private StandingsAsk scoped(@Nullable TestGroup ofGroup, @Nullable Long ofSuite, @Nullable Boolean every) {
        return new StandingsAsk(
                deviceClass,
                only,
                maker,
                priceFrom,
                priceTo,
                yearFrom,
                yearTo,
                fact,
                newestFirmware,
                power,
                review,
                perModel,
                fresh,
                purpose,
                ofGroup,
                ofSuite,
                null,
                null,
                base,
                typical,
                per,
                take,
                every,
                without,
                onlyTests);
    }

    /** Whether a metric is of what is asked for, be it ranked or not. */
    public boolean asksFor(MetricRow m) {
        return metric != null
                ? m.id() == metric
                : m.listed()
                        && (group == null || m.group() == group)
                        && (suite == null || m.suiteVersionId() == suite)
                        && (test == null || m.testId() == test)
                        && isAmong(m)
                        && !leavesOut(m);
    }

    /** Whether a metric is of the tests that somebody listed, where somebody did. */
    boolean isAmong(MetricRow m) {
        return onlyTests == null || onlyTests.contains(m.testId());
    }

    /** Whether the tests in common use among those ranked are meant. */
    boolean overCommonUse() {
        return group == null
                && suite == null
                && test == null
                && metric == null
                && onlyTests == null
                && !Boolean.TRUE.equals(everyTest);
    }

    /** Which sessions are ranked. */
    public SessionSelection taken() {
        return take == null ? SessionSelection.USUAL : take;
    }

    /** Whether somebody leaves this metric out. */
    boolean leavesOut(MetricRow m) {
        return without != null && m.partKeys().stream().anyMatch(without::contains);
    }

    /** One test alone: its values are shown, and nothing is weighed. */
    public boolean oneMetric() {
        return metric != null;
    }

    boolean isTypical() {
        return Boolean.TRUE.equals(typical);
    }

    List<FactCondition> conditions() {
        return fact == null
                ? List.of()
                : fact.stream().map(StandingsAsk::condition).toList();
    }

    private static FactCondition condition(String text) {
        String[] parts = text.split("~", 3);
        try {
            return FactCondition.read(
                    parts[0],
                    parts.length < 2 ? Relation.KNOWN : Relation.valueOf(parts[1]),
                    parts.length < 3 ? "" : parts[2]);
        } catch (IllegalArgumentException e) {
            throw Problem.invalid(
                    "not-a-condition",
                    "\"" + text
                            + "\" is no condition on a fact. Write its key, one of KNOWN, IS, AT_LEAST and AT_MOST, and the value, with ~ between them.");
        }
    }
}
