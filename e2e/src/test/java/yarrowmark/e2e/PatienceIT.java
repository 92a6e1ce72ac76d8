package yarrowmark.e2e;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.Test;

/** That tests wait while something moves, and no longer. */
class PatienceIT {
    private static final long MS = 1_000_000;

    @Test
    void whatComesAboutIsGivenBackAndFalseAndNullAreNoAnswers() {
        AtomicInteger looks = new AtomicInteger();
        assertThat(Patience.until(() -> "it", () -> switch (looks.incrementAndGet()) {
                    case 1 -> null;
                    case 2 -> Boolean.FALSE;
                    default -> "here";
                }))
                .isEqualTo((Object) "here");
    }

    @Test
    void asLongAsSomethingMovesItIsWaitedForAndThenNotAnyMore() {
        AtomicLong moved = new AtomicLong();
        AtomicInteger looks = new AtomicInteger();
        assertThatThrownBy(() -> Patience.until(
                        () -> "the end did not come about",
                        () -> {
                            looks.incrementAndGet();
                            return null;
                        },
                        // Busy for its first five times of being asked, and still afterwards.
                        () -> looks.get() < 40 ? moved.addAndGet(1_000 * MS) : moved.get(),
                        50 * MS))
                .isInstanceOf(AssertionError.class)
                .hasMessageContaining("the end did not come about")
                .hasMessageContaining("Nothing moved");
        assertThat(looks.get()).as("it went on while something moved").isGreaterThanOrEqualTo(40);
    }
}
