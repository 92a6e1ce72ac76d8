package yarrowmark.server.platform.records;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** Records may come from elsewhere; no chain of merges in them is followed for ever. */
class ChainTest {
    @Test
    void aChainIsFollowedToItsEnd() {
        Map<Long, Long> next = Map.of(1L, 2L, 2L, 5L, 3L, 5L);
        assertThat(Chain.endOf(next, 2L)).isEqualTo(5);
        assertThat(Chain.endOf(next, 5L)).isEqualTo(5);
    }

    @Test
    void oneThatLeadsInACircleEndsToo() {
        Map<Long, Long> circle = Map.of(1L, 2L, 2L, 3L, 3L, 1L, 9L, 1L, 7L, 7L);
        assertThat(Chain.endOf(circle, 1L)).isIn(1L, 2L, 3L);
        assertThat(Chain.endOf(circle, 9L)).isIn(1L, 2L, 3L);
        assertThat(Chain.endOf(circle, 7L)).isEqualTo(7);
    }

    @Test
    void whereEachEndsIsFoundByFollowingEachLinkOnce() {
        Map<Long, Long> next = new HashMap<>();
        for (long i = 1; i < 200_000; i++) {
            next.put(i, i + 1);
        }
        assertThat(Chain.ends(next).values()).containsOnly(200_000L);
        assertThat(Chain.circle(next)).isEmpty();
        next.put(200_000L, 77L);
        assertThat(Chain.circle(next)).isPresent();
    }
}
