package yarrowmark.server.analysis;

import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.compare.Bound;
import yarrowmark.core.compare.DifferenceComparison;
import yarrowmark.core.compare.Verdict;
import yarrowmark.core.setup.SessionConditions;
import yarrowmark.core.stats.Sample;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.TestGroup;
import yarrowmark.server.ledger.record.RunsWithoutScore;
import yarrowmark.server.ledger.sample.SessionSelection;
import yarrowmark.server.shelf.configuration.ConfigurationRow;
import yarrowmark.server.shelf.configuration.DifferencePage;

/**
 * One to seven configurations held against a base, as it is shown.
 *
 * @param sides       the others, in the order they were asked for
 * @param purpose     whose weights the overall has
 * @param materiality the smallest difference that matters, in per cent
 * @param per         what everything is divided by; absent: nothing
 * @param rows        tests that the base and at least one other have, by group
 * @param take        which sessions of the others are taken
 * @param baseTake    which sessions of the base
 * @param notCounted  sessions of those compared that do not count by default
 * @param published   what others published for the models compared in these tests: shown, and in no verdict
 * @param leftOut     tests that take no part in an overall, and why
 */
record Comparison(
        ConfigurationRow base,
        List<Side> sides,
        String purpose,
        double materiality,
        @Nullable PerQuantity per,
        List<ComparedRow> rows,
        List<NotCounted> leftOut,
        SessionSelection take,
        SessionSelection baseTake,
        int notCounted,
        List<Values.PublishedValue> published) {
    /** @param unit of the quantity, such as GHz */
    record PerQuantity(String key, String label, String unit) {}

    /**
     * @param overall    absent where base and this one have nothing in common that counts
     * @param noOverall  why there is none
     * @param clean      whether exactly the change under test differs
     * @param unlikeUnits tests on which two units with the same facts differ clearly; empty where it is another configuration
     * @param quantity   what its values were divided by, in the unit shown
     * @param nearZero    a percentage near zero that makes most of the overall; absent where there is none
     * @param swayed      the group of tests without which the overall is another one; absent where there is none
     */
    record Side(
            ConfigurationRow configuration,
            @Nullable Overall overall,
            @Nullable String noOverall,
            DifferencePage changed,
            List<SessionConditions.Difference> conditions,
            boolean clean,
            @Nullable Double quantity,
            @Nullable Swayed swayed,
            @Nullable NearZero nearZero,
            List<String> unlikeUnits) {}

    /**
     * @param ratio    better above 1
     * @param low      lower end of its 95 % interval
     * @param days       what the interval rests on about other days, in words
     * @param unmeasured how many of the tests rest on a stated or usual spread, which nobody measured here
     * @param shared   tests that count
     * @param counts   of them by verdict
     * @param smallest test with the smallest ratio
     * @param groups   each group by itself, and what it adds
     * @param suites   each suite version by itself, and what it adds
     * @param reverses the smallest change of the tests taken that turns it round; absent where there is none
     * @param size     in words, such as "12.4 % better"
     * @param range    its 95 % interval in the same words
     * @param sentence to quote
     */
    record Overall(
            double ratio,
            double low,
            double high,
            Verdict verdict,
            String days,
            int unmeasured,
            int shared,
            Map<Verdict, Integer> counts,
            Extreme smallest,
            Extreme largest,
            List<Area> groups,
            List<Area> suites,
            @Nullable Reverses reverses,
            String size,
            String range,
            String sentence) {}

    /**
     * A group that moves the overall so far that both have to be said.
     *
     * @param key     what leaves it out
     * @param facts   of its kind that differ beside the change under test, by name
     * @param ratio   its own. @param size the same in words. @param without the overall without it
     */
    record Swayed(
            String key,
            String name,
            List<String> facts,
            double ratio,
            String size,
            double without,
            String withoutSize) {}

    /**
     * Of two percentages near zero a small difference is a large ratio: 0.2 % is three times 0.6 %, and may be chance.
     *
     * @param share of the overall that it makes, 0 to 1
     */
    record NearZero(long testId, String test, double base, double value, double share) {}

    record Extreme(long metricId, String test, double ratio) {}

    /**
     * A group or a suite of an overall.
     *
     * @param key     what leaves it out: "group:" and its name, or "suite:" and its number
     * @param weight  share of the whole, 0 to 1
     * @param percent what it adds; those of all groups add up to 100 (ratio − 1), and those of all suites
     * @param ratio   its own, over its tests alone, with its 95 % interval
     * @param without the overall without it; absent where nothing would be left
     */
    record Area(
            String key,
            TestGroup group,
            String name,
            int tests,
            double weight,
            double percent,
            double ratio,
            double low,
            double high,
            Verdict verdict,
            @Nullable Double without) {}

    /** @param key of the group, suite or test that turns it alone; absent where it takes several tests. @param tests by name. @param ratio without them */
    record Reverses(@Nullable String key, List<String> tests, double ratio) {}

    /**
     * @param value    centre of the base's readings, in the metric's unit; absent where the base was not measured
     * @param sessions that they were made in
     * @param atLeast  whether a display holds the base's value, so that it is only the least
     * @param restsOn  what its noise rests on, because nothing measured is lent, in words
     * @param against  where the base was not measured: position of the side that the others are held against
     * @param cells    one for each side, in their order
     */
    record ComparedRow(
            MetricRow metric,
            @Nullable Double value,
            int runs,
            int sessions,
            boolean atLeast,
            @Nullable String restsOn,
            @Nullable Integer against,
            List<ComparedCell> cells) {}

    /**
     * One test of one side against the base.
     *
     * @param value        centre of its readings; absent where it has none
     * @param sessions     that they were made in
     * @param ratio        better above 1; absent for differences
     * @param difference   of a difference metric, in its unit; above 0 is more, not better
     * @param low          lower end of the 95 % interval of the ratio or the difference
     * @param verdict      of a ratio
     * @param bound        where a display holds a value: which way the ratio is open; then it has no verdict
     * @param reading      of a difference
     * @param unmeasured   whether it rests on a stated or usual spread, which nobody measured here
     * @param runsEach     how many runs a side would settle what is too close to call
     * @param moreRuns     how many more that is for the side that has fewer
     * @param sessionsEach where days differ more than runs do: how many sessions a side, of three runs each
     * @param moreSessions how many more that is for the side that has fewer
     * @param threeEach    whether each is to be run three times first, because one run says nothing of its noise
     * @param moreThanMost whether not even 40 runs, or a dozen sessions, would
     * @param percent      what it adds to the overall; absent where it does not count
     * @param outReason    why it does not count in the overall
     * @param size         of a ratio in words, such as "3.1 % higher"
     * @param range        its 95 % interval in the same words
     * @param apart        of a ratio, by how much the value differs from the base's, in the metric's unit; above 0 is more
     * @param ended        where it has no value because its run gave none: how that ended
     */
    record ComparedCell(
            @Nullable Double value,
            @Nullable Integer runs,
            @Nullable Integer sessions,
            @Nullable Double ratio,
            @Nullable Double difference,
            @Nullable Double low,
            @Nullable Double high,
            @Nullable Verdict verdict,
            @Nullable Bound bound,
            DifferenceComparison.@Nullable Reading reading,
            boolean unmeasured,
            @Nullable Integer runsEach,
            @Nullable Integer moreRuns,
            @Nullable Integer sessionsEach,
            @Nullable Integer moreSessions,
            boolean threeEach,
            boolean moreThanMost,
            @Nullable Double percent,
            @Nullable String outReason,
            @Nullable String size,
            @Nullable String range,
            @Nullable Double apart,
            RunsWithoutScore.@Nullable Ended ended) {
        static CellBuilder none(String reason, RunsWithoutScore.@Nullable Ended ended) {
            return new CellBuilder().out(reason).ended(ended);
        }

        /** A side that was measured. */
        static CellBuilder measured(double value, Sample sample) {
            return new CellBuilder().measured(value, sample);
        }
    }

    /** A line in words. @param sentences to quote, one for each side in their order; empty where it has no ratio */
    record ComparedWords(long metricId, List<String> sentences) {}

    /** @param tests some of them by name. @param count of all that are left out for this reason */
    record NotCounted(String reason, List<String> tests, int count) {}
}
