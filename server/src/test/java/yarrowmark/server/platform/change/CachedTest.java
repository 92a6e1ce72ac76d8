package yarrowmark.server.platform.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;

class CachedTest {
    private final Cached<Integer> cached = new Cached<>();
    private final AtomicInteger reads = new AtomicInteger();

    @Test
    void isReadOnceUntilItIsForgotten() {
        assertThat(cached.now()).isEmpty();
        assertThat(cached.get(reads::incrementAndGet)).isEqualTo(1);
        assertThat(cached.get(reads::incrementAndGet)).isEqualTo(1);
        assertThat(cached.now()).contains(1);
        cached.forget();
        assertThat(cached.now()).isEmpty();
        assertThat(cached.get(reads::incrementAndGet)).isEqualTo(2);
    }

    @Test
    void whatWasBegunBeforeItWasForgottenIsNotKeptForAfter() {
        int old = cached.get(() -> {
            cached.forget();
            return reads.incrementAndGet();
        });
        assertThat(old).isEqualTo(1);
        assertThat(cached.now()).isEmpty();
        assertThat(cached.get(reads::incrementAndGet)).isEqualTo(2);
    }

    @Test
    void whatMayNotBeKeptIsReadAgain() {
        assertThat(cached.get(reads::incrementAndGet, () -> false)).isEqualTo(1);
        assertThat(cached.get(reads::incrementAndGet)).isEqualTo(2);
    }
}
