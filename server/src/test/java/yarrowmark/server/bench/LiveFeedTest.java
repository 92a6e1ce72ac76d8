package yarrowmark.server.bench;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

class LiveFeedTest {
    private final LiveFeed feed = new LiveFeed();

    private List<String> missed(String after) {
        return feed.missed(after).stream().map(e -> e.name() + " " + e.data()).toList();
    }

    @Test
    void aReaderThatReconnectsGetsExactlyWhatItMissed() {
        feed.publish("lane", "a");
        String seen = feed.cursor();
        feed.publish("lane", "b");
        feed.publish("lane", "c");
        assertThat(missed(seen)).containsExactly("lane b", "lane c");
        assertThat(missed(feed.cursor())).isEmpty();
        assertThat(missed(null)).isEmpty();
    }

    @Test
    void whatIsTooLongAgoOrFromAnotherStartIsAReset() {
        String first = feed.cursor();
        List<String> cursors = new ArrayList<>();
        for (int i = 0; i < 600; i++) {
            feed.publish("lane", i);
            cursors.add(feed.cursor());
        }
        assertThat(missed(first)).containsExactly("reset ");
        assertThat(missed(cursors.get(150))).hasSize(449);
        assertThat(missed(new LiveFeed().cursor())).containsExactly("reset ");
        assertThat(missed("nonsense")).containsExactly("reset ");
        assertThat(missed(first.replaceAll("\\d+$", "999999"))).containsExactly("reset ");
    }
}
