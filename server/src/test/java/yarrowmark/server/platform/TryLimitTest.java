package yarrowmark.server.platform;

import static org.assertj.core.api.Assertions.assertThat;
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
            limit.begin("a");
            clock.letPass(Duration.ofSeconds(10));
        }
        assertThatThrownBy(() -> limit.begin("a"))
                .isInstanceOf(TooManyTries.class)
                .hasMessageContaining("codes");
        assertThatCode(() -> limit.begin("b")).doesNotThrowAnyException();
        clock.letPass(Duration.ofSeconds(31));
        assertThatCode(() -> limit.begin("a")).doesNotThrowAnyException();
    }

    @Test
    void aTryThatWasRightTakesNothing() {
        for (int i = 0; i < 10; i++) {
            limit.begin("a").wasRight();
        }
        limit.begin("a");
        limit.begin("a");
        limit.begin("a").wasRight();
        limit.begin("a");
        assertThatThrownBy(() -> limit.begin("a")).isInstanceOf(TooManyTries.class);
    }

    @Test
    void aFloodOfAddressesDoesNotStayInMemory() {
        for (int i = 0; i < 110_000; i++) {
            limit.begin("address " + i);
        }
        assertThat(limit.addresses()).as("bounded while it lasts").isLessThanOrEqualTo(100_000);
        clock.letPass(Duration.ofMinutes(2));
        limit.begin("one more");
        assertThat(limit.addresses()).as("and over a minute later").isEqualTo(1);
    }
}
