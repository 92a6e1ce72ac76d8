package yarrowmark.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.util.List;
import org.junit.jupiter.api.Test;

class PlanTimeTest {
    private static final PlanTime ROUND = new PlanTime(5, 3, Duration.ofSeconds(3), Duration.ofSeconds(5));

    @Test
    void theWholeIsRunsAndThePausesBetweenThem() {
        assertThat(ROUND.whole()).isEqualTo(Duration.ofMillis(15 * 6_700 + 14 * 5_000));
    }

    @Test
    void finishedRunsReplaceTheGuess() {
        assertThat(ROUND.left(2, List.of(4_000L, 6_000L))).isEqualTo(Duration.ofMillis(2 * 5_000 + 2 * 5_000));
        assertThat(ROUND.left(0, List.of(4_000L))).isZero();
    }

    @Test
    void negativeTimesAreRefused() {
        assertThatThrownBy(() -> new PlanTime(1, 0, Duration.ZERO, Duration.ZERO))
                .hasMessageContaining("runs");
    }
}
