package yarrowmark.server.writeup;

import jakarta.validation.constraints.DecimalMax;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.jspecify.annotations.Nullable;
import yarrowmark.server.catalog.TestGroup;

/**
 * What Trends was asked beside whose and along what; what is left out means any, or the usual. The names are those of its
 * address in the API.
 *
 * @param from    key of the step that everything is counted from
 * @param matters in per cent
 * @param without parts that somebody leaves out: "group:" and its name, "suite:" or "test:" and its number
 */
record TrendBy(
        @Nullable @Size(max = 40) String from,
        @Nullable @Min(1) Long purpose,
        @Nullable TestGroup group,
        @Nullable @Min(1) Long suite,
        @Nullable @DecimalMin("0.1") @DecimalMax("1000") Double matters,
        @Nullable @Size(max = 60) List<@Size(max = 80) String> without) {}
