package yarrowmark.server.bench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.awaitility.Awaitility.await;
import static org.mockito.ArgumentMatchers.anySet;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.doNothing;
import static org.mockito.Mockito.doThrow;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.mockingDetails;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.timeout;
import static org.mockito.Mockito.verify;

import java.io.IOException;
import java.time.Duration;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Set;
import java.util.concurrent.CountDownLatch;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.springframework.web.servlet.mvc.method.annotation.ResponseBodyEmitter;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;
import tools.jackson.databind.json.JsonMapper;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.http.AccessEnded;
import yarrowmark.server.support.MovableClock;

class LiveFeedTest {
    private static final int A_MINUTE = 60_000;
    private static final JsonMapper JSON = new JsonMapper();

    private final Deque<SseEmitter> connections = new ArrayDeque<>();
    private final MovableClock clock = new MovableClock();
    private final LiveFeed feed = new LiveFeed(JSON, clock, connections::removeFirst);
    private final CountDownLatch asleep = new CountDownLatch(1);

    @AfterEach
    void wake() {
        asleep.countDown();
        feed.destroy();
    }

    private SseEmitter connected() {
        SseEmitter emitter = mock(SseEmitter.class);
        connections.add(emitter);
        feed.read(null, null);
        return emitter;
    }

    /** A connection whose other end reads nothing: the write neither succeeds nor fails. */
    private SseEmitter sleeping() throws IOException {
        SseEmitter emitter = mock(SseEmitter.class);
        doAnswer(call -> {
                    asleep.await();
                    return null;
                })
                .when(emitter)
                .send(anySet());
        connections.add(emitter);
        feed.read(null, null);
        return emitter;
    }

    private List<String> missed(String after) {
        return feed.missed(after).stream().map(e -> e.name() + " " + e.data()).toList();
    }

    @Test
    void aReaderThatReconnectsGetsExactlyWhatItMissed() {
        feed.publish("lane", "a", "a");
        String seen = feed.cursor();
        feed.publish("lane", "b", "b");
        feed.publish("lane", "c", "c");
        assertThat(missed(seen)).containsExactly("lane \"b\"", "lane \"c\"");
        assertThat(missed(feed.cursor())).isEmpty();
        assertThat(missed(null)).isEmpty();
    }

    @Test
    void whatIsTooLongAgoOrFromAnotherStartIsAReset() {
        String first = feed.cursor();
        List<String> cursors = new ArrayList<>();
        for (int i = 0; i < 600; i++) {
            feed.publish("lane", i, i);
            cursors.add(feed.cursor());
        }
        assertThat(missed(first)).containsExactly("reset \"\"");
        assertThat(missed(cursors.get(150))).hasSize(449);
        assertThat(missed(new LiveFeed(JSON, clock).cursor())).containsExactly("reset \"\"");
        assertThat(missed("nonsense")).containsExactly("reset \"\"");
        assertThat(missed(first.replaceAll("\\d+$", "999999"))).containsExactly("reset \"\"");
    }

    @Test
    @Timeout(600)
    void tenThatStandStillHoldUpNobodyAndAreDropped() throws IOException {
        for (int i = 0; i < 10; i++) {
            sleeping();
        }
        SseEmitter awake = connected();
        verify(awake, timeout(A_MINUTE)).send(anySet());
        for (int i = 1; i <= 150; i++) {
            feed.publish("lane", i, i);
        }
        await().until(() -> linesTo(awake) == 150);
        assertThat(feed.readers()).as("so many may wait").isEqualTo(11);
        for (int i = 151; i <= 300; i++) {
            feed.publish("lane", i, i);
        }
        await().until(() -> linesTo(awake) == 300);
        assertThat(feed.readers())
                .as("who awoke would get 300 at once, and is better told anew")
                .isEqualTo(1);
    }

    private static long linesTo(SseEmitter emitter) {
        return mockingDetails(emitter).getInvocations().stream()
                .filter(i -> i.getMethod().getName().equals("send"))
                .flatMap(i -> ((Set<?>) i.getArgument(0)).stream())
                .flatMap(d -> ((ResponseBodyEmitter.DataWithMediaType) d)
                        .getData()
                        .toString()
                        .lines())
                .filter(line -> line.startsWith("data:"))
                .count();
    }

    @Test
    void whatChangesOftenIsToldInItsNewestStateAndInOneGo() throws IOException {
        SseEmitter awake = connected();
        verify(awake, timeout(A_MINUTE)).send(anySet());
        for (int i = 1; i <= 1_000; i++) {
            feed.publish("lane", i % 3, i);
        }
        await().until(() -> sent(awake).contains("data:1000"));
        assertThat(sent(awake)).contains("data:999", "data:998", "id:" + feed.cursor() + "\nevent:lane\ndata:1000\n\n");
        assertThat(linesTo(awake)).isLessThan(100);
    }

    private static String sent(SseEmitter emitter) {
        StringBuilder all = new StringBuilder();
        mockingDetails(emitter).getInvocations().stream()
                .filter(i -> i.getMethod().getName().equals("send"))
                .flatMap(i -> ((Set<?>) i.getArgument(0)).stream())
                .forEach(d -> all.append(((ResponseBodyEmitter.DataWithMediaType) d).getData()));
        return all.toString();
    }

    @Test
    void aDroppedConnectionIsEndedAndAReaderThatWentAwayIsForgotten() throws IOException {
        SseEmitter gone = mock(SseEmitter.class);
        doThrow(new IOException("broken pipe")).when(gone).send(anySet());
        connections.add(gone);
        feed.read(null, null);
        verify(gone, timeout(A_MINUTE)).complete();
        assertThat(feed.readers()).isZero();
        feed.publish("lane", "for nobody", "for nobody");
    }

    @Test
    void whatCannotBeWrittenEndsTheConnectionInsteadOfItsQueue() throws IOException {
        SseEmitter emitter = connection();
        // Before anybody writes to it: stubbing a mock that another thread calls breaks both.
        doNothing()
                .doThrow(new UnsupportedOperationException("makes no JSON"))
                .when(emitter)
                .send(anySet());
        feed.read(null, null);
        verify(emitter, timeout(A_MINUTE)).send(anySet());
        feed.publish("lane", "a", "a");
        verify(emitter, timeout(A_MINUTE)).complete();
        assertThat(feed.readers()).isZero();
    }

    /** A key that was taken back had kept its open feed, and read the next joining code from it. */
    @Test
    void aFeedEndsWithWhateverOpenedItAndAtItsLastMoment() {
        AccessEnded.Opener key =
                new AccessEnded.Opener(AccessEnded.key(7), clock.instant().plus(Duration.ofDays(1)));
        SseEmitter taken = connection();
        feed.read(null, key);
        SseEmitter stays = connection();
        feed.read(
                null,
                new AccessEnded.Opener(AccessEnded.place(7), clock.instant().plus(Duration.ofDays(2))));
        feed.ended(new AccessEnded(AccessEnded.key(7)));
        verify(taken, timeout(A_MINUTE)).complete();
        verify(stays, never()).complete();
        clock.letPass(Duration.ofDays(2).plusSeconds(1));
        feed.breathe();
        verify(stays, timeout(A_MINUTE)).complete();
    }

    private SseEmitter connection() {
        SseEmitter emitter = mock(SseEmitter.class);
        connections.add(emitter);
        return emitter;
    }

    @Test
    void tooManyReadersAreRefusedInWords() {
        for (int i = 0; i < 1_000; i++) {
            connected();
        }
        assertThatThrownBy(() -> feed.read(null, null))
                .isInstanceOf(Problem.class)
                .hasMessageContaining("from 1000 places already");
    }

    @Test
    void aSilentReaderIsGivenABreath() throws IOException {
        SseEmitter awake = connected();
        verify(awake, timeout(A_MINUTE)).send(anySet());
        feed.breathe();
        verify(awake, timeout(A_MINUTE).times(2)).send(anySet());
    }
}
