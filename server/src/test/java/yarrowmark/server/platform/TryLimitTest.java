package yarrowmark.server.platform;

import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import org.junit.jupiter.api.Test;
import yarrowmark.server.support.MovableClock;

class TryLimitTest {
    private final MovableClock clock = new MovableClock();
    private final TryLimit limit = new TryLimit(3, "codes", clock);

    @Test
    void onlyWrongTriesOfTheLastMinuteCountAndOnlyForTheirAddress() {
        for (int i = 0; i < 3; i++) {
            assertThatCode(() -> limit.check("a")).doesNotThrowAnyException();
            limit.wrong("a");
            clock.letPass(Duration.ofSeconds(10));
        }
        assertThatThrownBy(() -> limit.check("a"))
                .isInstanceOf(TooManyTries.class)
                .hasMessageContaining("codes");
        assertThatCode(() -> limit.check("b")).doesNotThrowAnyException();
        clock.letPass(Duration.ofSeconds(31));
        assertThatCode(() -> limit.check("a")).doesNotThrowAnyException();
    }

    @Test
    void aFloodOfAddressesDoesNotStayInMemory() {
        for (int i = 0; i < 12_000; i++) {
            limit.wrong("address " + i);
        }
        clock.letPass(Duration.ofMinutes(2));
        limit.wrong("one more");
        assertThatCode(() -> limit.check("address 5")).doesNotThrowAnyException();
    }
}
