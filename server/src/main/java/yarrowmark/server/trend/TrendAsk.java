package yarrowmark.server.trend;

import jakarta.validation.constraints.DecimalMax;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.Size;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.TestGroup;

/**
 * What a trend is asked for.
 *
 * @param model   whose configurations
 * @param unit    only this one of its units
 * @param between configurations from which it was opened: their unit is taken where they have one, and a fact in which they
 *     differ where one is not asked for
 * @param along   key of a fact, or "date"; absent: the fact that varies most
 * @param from    key of the step that everything is counted from; those before it are left out
 * @param purpose absent for all-round use
 * @param matters smallest difference that matters, in per cent
 * @param without parts that are left out: "group:", "suite:" or "test:" with its name or number
 */
record TrendAsk(
        long model,
        @Nullable Long unit,
        @Nullable @Size(max = 8) Set<Long> between,
        @Nullable @Size(max = 80) String along,
        @Nullable @Size(max = 40) String from,
        @Nullable Long purpose,
        @Nullable TestGroup group,
        @Nullable Long suite,
        @Nullable @DecimalMin("0.1") @DecimalMax("1000") Double matters,
        @Nullable @Size(max = 60) Set<@Size(max = 80) String> without) {

    static final String DATE = "date";

    boolean takes(MetricRow m) {
        return (group == null || m.group() == group)
                && (suite == null || m.suiteVersionId() == suite)
                && (without == null || m.partKeys().stream().noneMatch(without::contains));
    }
}
