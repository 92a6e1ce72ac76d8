package yarrowmark.server.analysis;

import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.compare.DifferenceComparison;
import yarrowmark.core.compare.Verdict;
import yarrowmark.core.setup.SessionConditions;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.TestGroup;
import yarrowmark.server.shelf.ConfigurationRow;
import yarrowmark.server.shelf.DifferencePage;

/**
 * One to seven configurations held against a base, as it is shown.
 *
 * @param sides       the others, in the order they were asked for
 * @param purpose     whose weights the overall has
 * @param materiality the smallest difference that matters, in per cent
 * @param per         what everything is divided by; absent: nothing
 * @param rows        tests that the base and at least one other have, by group
 * @param leftOut     tests that take no part in an overall, and why
 */
record Comparison(
        ConfigurationRow base,
        List<Side> sides,
        String purpose,
        double materiality,
        @Nullable PerQuantity per,
        List<ComparedRow> rows,
        List<NotCounted> leftOut) {
    /** @param unit of the quantity, such as GHz */
    record PerQuantity(String key, String label, String unit) {}

    /**
     * @param overall    absent where base and this one have nothing in common that counts
     * @param noOverall  why there is none
     * @param clean      whether exactly the change under test differs
     * @param unlikeUnits tests on which two units with the same facts differ clearly; empty where it is another configuration
     * @param quantity   what its values were divided by, in the unit shown
     */
    record Side(
            ConfigurationRow configuration,
            @Nullable Overall overall,
            @Nullable String noOverall,
            DifferencePage changed,
            List<SessionConditions.Difference> conditions,
            boolean clean,
            @Nullable Double quantity,
            List<String> unlikeUnits) {}

    /**
     * @param ratio    better above 1
     * @param low      lower end of its 95 % interval, run-to-run noise only; absent where a noise is not known
     * @param shared   tests that count
     * @param counts   of them by verdict
     * @param smallest test with the smallest ratio
     * @param groups   what each group adds, in per cent; they add up to 100 (ratio − 1)
     * @param sentence to quote
     */
    record Overall(
            double ratio,
            @Nullable Double low,
            @Nullable Double high,
            Verdict verdict,
            int shared,
            Map<Verdict, Integer> counts,
            Extreme smallest,
            Extreme largest,
            List<GroupShare> groups,
            String sentence) {}

    record Extreme(long metricId, String test, double ratio) {}

    record GroupShare(TestGroup group, double weight, double percent) {}

    /**
     * @param value centre of the base's readings, in the metric's unit
     * @param cells one for each side, in their order
     */
    record ComparedRow(MetricRow metric, double value, int runs, List<ComparedCell> cells) {}

    /**
     * One test of one side against the base.
     *
     * @param value        centre of its readings; absent where it has none
     * @param ratio        better above 1; absent for differences
     * @param difference   of a difference metric, in its unit; above 0 is more, not better
     * @param low          lower end of the 95 % interval of the ratio or the difference
     * @param verdict      of a ratio
     * @param reading      of a difference
     * @param runsEach     how many runs a side would settle what cannot be told
     * @param moreRuns     how many more that is for the side that has fewer
     * @param moreThanMost whether not even 40 would
     * @param percent      what it adds to the overall; absent where it does not count
     * @param outReason    why it does not count in the overall
     * @param sentence     to quote
     */
    record ComparedCell(
            @Nullable Double value,
            @Nullable Integer runs,
            @Nullable Double ratio,
            @Nullable Double difference,
            @Nullable Double low,
            @Nullable Double high,
            @Nullable Verdict verdict,
            DifferenceComparison.@Nullable Reading reading,
            @Nullable Integer runsEach,
            @Nullable Integer moreRuns,
            boolean moreThanMost,
            @Nullable Double percent,
            @Nullable String outReason,
            @Nullable String sentence) {
        static ComparedCell none(String reason) {
            return new ComparedCell(
                    null, null, null, null, null, null, null, null, null, null, false, null, reason, null);
        }
    }

    /** @param tests some of them by name. @param count of all that are left out for this reason */
    record NotCounted(String reason, List<String> tests, int count) {}
}
