package yarrowmark.server.analysis;

import java.util.List;
import org.jspecify.annotations.Nullable;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.shelf.configuration.ConfigurationRow;

/**
 * Configurations as a grid of two factors, and what these do by themselves and together.
 *
 * @param choices what differs between them and can be a factor
 * @param metric  what the cells hold; absent: the overall
 * @param metrics tests that every cell has; the overall is made of those that count
 * @param dropped tests that some cells have and others do not, those that failed somewhere first
 * @param rows    one for each level of the first factor, cells in the order of the second one's levels
 * @param days    what the intervals rest on about other days, in words; absent where there is nothing to compare
 * @param blocks  every two levels of each for which all four cells are there
 */
record FactorGrid(
        List<FactorChoice> choices,
        @Nullable FactorChoice first,
        @Nullable FactorChoice second,
        @Nullable MetricRow metric,
        List<MetricRow> metrics,
        List<Dropped> dropped,
        List<FactorRow> rows,
        @Nullable String days,
        List<FactorBlock> blocks) {
    /** @param levels as people write them */
    record FactorChoice(String key, String label, List<String> levels) {}

    /** @param failed whether it was tried and gave no score somewhere. @param why a sentence for each cell without it, for the first few */
    record Dropped(String test, String suite, boolean failed, List<String> why) {}

    record FactorRow(String level, List<FactorCell> cells) {}

    /**
     * @param configuration absent where none has these levels
     * @param others        how many more have them; the latest one is taken
     * @param value         of the metric; absent for the overall
     * @param ratio         to the first cell that is there, better above 1; absent where there is nothing to hold against
     * @param from          a configuration that a missing one could be made from
     */
    record FactorCell(
            @Nullable ConfigurationRow configuration,
            int others,
            @Nullable Double value,
            @Nullable Double ratio,
            @Nullable Long from) {}

    record FactorEffect(double ratio, double low, double high, String words) {}

    /** @param turns whether a gain of one factor is a loss on the other level of the other one */
    record FactorBlock(
            String firstFrom,
            String firstTo,
            String secondFrom,
            String secondTo,
            FactorEffect first,
            FactorEffect second,
            boolean turns,
            FactorEffect interaction) {}
}
