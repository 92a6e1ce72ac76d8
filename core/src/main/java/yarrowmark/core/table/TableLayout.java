package yarrowmark.core.table;

import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * How a table is read. Rows and columns count from 0, of the table turned so that devices stand below each other.
 *
 * @param across      whether devices stand beside each other in the file, a test a row
 * @param headerFrom  first of the rows that name the columns
 * @param headerTo    last of them
 * @param lastRow     last row with a device
 * @param skipped     rows between that are none: totals, headings, notes
 * @param suite       that the tests are of
 * @param deviceClass of models that are new and have none in a column; null until somebody says it
 * @param date        on which was measured where no column says it, as 2026-03-12
 * @param currency    of prices without one
 * @param dayFirst    whether 03/04/2026 is in April
 * @param names       who is meant, by the name in the table: a maker and a model, parted by a tab
 */
public record TableLayout(
        boolean across,
        int headerFrom,
        int headerTo,
        int lastRow,
        List<Integer> skipped,
        List<ColumnPlan> columns,
        String suite,
        String version,
        @Nullable String deviceClass,
        String date,
        String currency,
        boolean dayFirst,
        Map<String, String> names) {
    public TableLayout {
        Objects.requireNonNull(suite, "suite");
        Objects.requireNonNull(version, "version");
        Objects.requireNonNull(date, "date");
        Objects.requireNonNull(currency, "currency");
        skipped = List.copyOf(skipped);
        columns = List.copyOf(columns);
        names = Map.copyOf(names);
    }

    public int firstRow() {
        return headerTo + 1;
    }

    /** The table as this layout reads it: a device a row. */
    public Table turned(Table table) {
        return across ? table.transposed() : table;
    }
}
