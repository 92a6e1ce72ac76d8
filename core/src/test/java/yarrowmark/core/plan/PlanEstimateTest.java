package yarrowmark.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;

import java.util.List;
import org.junit.jupiter.api.Test;

class PlanEstimateTest {
    private static final PlanEstimate.Item SHORT = new PlanEstimate.Item(3, 10_000, 5_000, true, false);
    private static final PlanEstimate.Item LONG = new PlanEstimate.Item(1, 600_000, 60_000, false, true);

    @Test
    void everyRunHasItsPauseButTheFirst() {
        assertThat(PlanEstimate.of(List.of(SHORT)).wholeMs()).isEqualTo(3 * 10_000 + 2 * 5_000);
        assertThat(PlanEstimate.of(List.of(SHORT, LONG))).isEqualTo(new PlanEstimate(40_000 + 660_000, 40_000, 1));
        assertThat(PlanEstimate.of(List.of(LONG, SHORT)).wholeMs())
                .as("the first pause falls away, whichever it is")
                .isEqualTo(600_000 + 45_000);
        assertThat(PlanEstimate.of(List.of())).isEqualTo(new PlanEstimate(0, 0, 0));
    }

    @Test
    void timesAreNeverNegative() {
        assertThatIllegalArgumentException().isThrownBy(() -> new PlanEstimate.Item(-1, 1, 1, true, false));
        assertThatIllegalArgumentException().isThrownBy(() -> new PlanEstimate.Item(1, Double.NaN, 1, true, false));
        assertThatIllegalArgumentException().isThrownBy(() -> new PlanEstimate.Item(1, 1, -1, true, false));
    }
}
