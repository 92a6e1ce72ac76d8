package yarrowmark.server.analysis;

import java.util.List;
import org.jspecify.annotations.Nullable;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.shelf.ConfigurationRow;

/**
 * Configurations as a grid of two factors, and what these do by themselves and together.
 *
 * @param choices what differs between them and can be a factor
 * @param metric  what the cells hold; absent: the overall
 * @param metrics tests that every cell has; the overall is made of those that count
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
        List<FactorRow> rows,
        @Nullable String days,
        List<FactorBlock> blocks) {
    /** @param levels as people write them */
    record FactorChoice(String key, String label, List<String> levels) {}

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

    record FactorBlock(
            String firstFrom,
            String firstTo,
            String secondFrom,
            String secondTo,
            FactorEffect first,
            FactorEffect second,
            FactorEffect interaction) {}
}
