package yarrowmark.server.shelf;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import org.junit.jupiter.api.Test;

/** Records may come from elsewhere; no chain of merges in them is followed for ever. */
class MergedChainsTest {
    @Test
    void aChainIsFollowedToItsEnd() {
        Map<Long, Long> next = Map.of(1L, 2L, 2L, 5L, 3L, 5L);
        assertThat(Shelf.endOf(next, 2)).isEqualTo(5);
        assertThat(Shelf.endOf(next, 5)).isEqualTo(5);
    }

    @Test
    void oneThatLeadsInACircleEndsToo() {
        Map<Long, Long> circle = Map.of(1L, 2L, 2L, 3L, 3L, 1L, 9L, 1L, 7L, 7L);
        assertThat(Shelf.endOf(circle, 1)).isIn(1L, 2L, 3L);
        assertThat(Shelf.endOf(circle, 9)).isIn(1L, 2L, 3L);
        assertThat(Shelf.endOf(circle, 7)).isEqualTo(7);
    }
}
