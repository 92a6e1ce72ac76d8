package yarrowmark.runner.bench;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;
import yarrowmark.runner.protocol.Api;

/** The same cases as the device page's. */
class EnoughTest {
    /** As the core computes them for three to five runs within 1 % and nothing lent. */
    private static final List<Api.Limit> LIMITS =
            List.of(new Api.Limit(3, 0.002778, 0.001604), new Api.Limit(4, 0.004757, 0.002379));

    private static boolean isEnough(double resolution, double... values) {
        return Enough.is(
                LIMITS,
                Arrays.stream(values)
                        .mapToObj(v -> new Enough.Value(v, resolution))
                        .toList());
    }

    @Test
    void aQuietTestIsKnownAfterThreeRunsAndOneThatIsNotGoesOn() {
        assertThat(isEnough(0, 100, 100.1, 99.9)).isTrue();
        assertThat(isEnough(0, 100, 101, 99)).isFalse();
        assertThat(isEnough(0, 100, 100.4, 99.6, 100.1)).isTrue();
    }

    @Test
    void whereNobodySaidWhenItIsEnoughItNeverIs() {
        assertThat(isEnough(0, 100, 100)).isFalse();
        assertThat(isEnough(0, 100, 100, 100, 100, 100)).isFalse();
        assertThat(Enough.is(List.of(), List.of(new Enough.Value(100, 0)))).isFalse();
    }

    @Test
    void equalReadingsAreNotSurerThanTheirRounding() {
        assertThat(isEnough(1, 100, 100, 100)).isFalse();
        assertThat(isEnough(0.1, 100, 100, 100)).isTrue();
    }

    @Test
    void whatIsNoRateSaysNothing() {
        assertThat(isEnough(0, 100, 0, 100)).isFalse();
    }
}
