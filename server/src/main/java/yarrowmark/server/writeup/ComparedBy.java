package yarrowmark.server.writeup;

import jakarta.validation.constraints.DecimalMax;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.jspecify.annotations.Nullable;
import yarrowmark.server.catalog.TestGroup;
import yarrowmark.server.ledger.sample.SessionSelection;

/**
 * What Compare was asked beside who is compared; what is left out means any, or the usual. The names are those of its
 * address in the API.
 *
 * @param materiality in per cent
 * @param without     parts that somebody leaves out: "group:" and its name, "suite:" or "test:" and its number
 */
record ComparedBy(
        @Nullable @Min(1) Long purpose,
        @Nullable TestGroup group,
        @Nullable @Min(1) Long suite,
        @Nullable @DecimalMin("0.1") @DecimalMax("1000") Double materiality,
        @Nullable @Size(max = 80) String per,
        @Nullable @Size(max = 60) List<@Size(max = 80) String> without,
        @Nullable SessionSelection take,
        @Nullable SessionSelection baseTake) {}
