package yarrowmark.server.bench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.io.InputStream;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.WebSocket;
import java.net.http.WebSocketHandshakeException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.CompletionStage;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.support.Bench;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.MovableClock;
import yarrowmark.server.support.ServerTest;

/** The server's side of the network suite, with real sockets. */
@ServerTest
class NetworkTest {
    private static final String TURN = "/api/device/network/turn";

    @LocalServerPort
    private int port;

    @Autowired
    private MovableClock clock;

    @Autowired
    private NetworkTurns turns;

    private Bench bench;
    private final List<Client> devices = new ArrayList<>();

    @BeforeEach
    void nobodyMeasures() {
        clock.letPass(Duration.ofMinutes(2));
        bench = new Bench(port);
    }

    @AfterEach
    void turnsAreGivenBack() {
        devices.forEach(d -> d.delete(TURN));
    }

    private Client device() {
        Client device = bench.joined(1);
        devices.add(device);
        return device;
    }

    private static @Nullable String ticket(Client device) {
        Client.Answer answer = device.post(TURN, Map.of());
        assertThat(answer.status()).as(answer.detail()).isEqualTo(200);
        return answer.body().path("ticket").asString(null);
    }

    @Test
    void oneDeviceMeasuresAndTheOthersFollowInTheOrderOfAsking() {
        List<Client> all = new ArrayList<>();
        for (int i = 0; i < 20; i++) {
            all.add(device());
        }
        assertThat(ticket(all.get(0))).isNotNull();
        for (int i = 1; i < 20; i++) {
            JsonNode waits = all.get(i).post(TURN, Map.of()).body();
            assertThat(waits.has("ticket")).isFalse();
            assertThat(waits.path("before").asInt()).isEqualTo(i);
        }
        assertThat(ticket(all.get(0))).as("asked again, it is still its turn").isNotNull();
        all.get(0).delete(TURN);
        assertThat(ticket(all.get(2))).as("the second is before").isNull();
        assertThat(ticket(all.get(1))).isNotNull();
        assertThat(turns.measuring()).hasSize(1);
    }

    @Test
    void whoGoesAwayWithoutAWordLosesTheTurnAndThePlace() {
        Client first = device();
        Client second = device();
        Client third = device();
        assertThat(ticket(first)).isNotNull();
        assertThat(ticket(second)).isNull();
        assertThat(ticket(third)).isNull();
        // Neither the first nor the second is heard of again.
        clock.letPass(Duration.ofSeconds(16));
        assertThat(ticket(third)).isNotNull();
    }

    @Test
    void theServerSaysWhatItCanGiveAndThatTheDeviceIsItself() {
        JsonNode turn = device().post(TURN, Map.of()).body();
        assertThat(turn.path("here").asBoolean()).isTrue();
        // However slow this machine is, it sends itself more than a wire of long ago.
        assertThat(turn.path("limitMbit").asDouble()).isBetween(100.0, 1e6);
        assertThat(turn.path("limitBy").asString()).isNotBlank();
    }

    @Test
    void bytesComeInFullAndCannotBeMadeSmaller() throws Exception {
        Client device = device();
        assertThat(device.get("/api/device/network/down?bytes=1000").code()).isEqualTo("not-your-turn");
        assertThat(ticket(device)).isNotNull();
        HttpResponse<byte[]> answer = HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(URI.create(
                                        "http://127.0.0.1:" + port + "/api/device/network/down?bytes=3000001"))
                                .header("Authorization", device.authorization())
                                .header("Accept-Encoding", "gzip")
                                .build(),
                        HttpResponse.BodyHandlers.ofByteArray());
        assertThat(answer.body()).hasSize(3_000_001);
        assertThat(answer.headers().firstValue("Content-Encoding")).isEmpty();
        assertThat(answer.headers().firstValue("Cache-Control").orElse("")).contains("no-store");
        int[] seen = new int[256];
        for (byte b : answer.body()) {
            seen[b & 0xff]++;
        }
        assertThat(Arrays.stream(seen).min().orElseThrow())
                .as("every byte is about as frequent as any other")
                .isGreaterThan(3_000_001 / 256 / 2);
        for (String odd : List.of("0", "-1", "67108865", "much", "")) {
            assertThat(device.get("/api/device/network/down?bytes=" + odd).status())
                    .as(odd)
                    .isEqualTo(400);
        }
    }

    @Test
    void whatADeviceSendsIsCountedByTheServersClock() {
        Client device = device();
        assertThat(device.postBytes("/api/device/network/up", new byte[10]).code())
                .isEqualTo("not-your-turn");
        assertThat(ticket(device)).isNotNull();
        JsonNode counted =
                device.postBytes("/api/device/network/up", new byte[5_000_000]).body();
        assertThat(counted.path("bytes").asLong()).isEqualTo(5_000_000);
        assertThat(counted.path("counts")
                        .valueStream()
                        .mapToLong(JsonNode::asLong)
                        .sum())
                .isEqualTo(5_000_000);
        assertThat(counted.path("firstMs").asDouble()).isCloseTo(System.nanoTime() / 1e6, within(60_000.0));
        assertThat(device.postBytes("/api/device/network/up", new byte[(64 << 20) + 1])
                        .status())
                .isEqualTo(413);
        assertThat(device.postBytes("/api/device/network/up", new byte[0])
                        .body()
                        .path("bytes")
                        .asLong(-1))
                .as("nothing is nothing")
                .isZero();
    }

    /** It stops reading in the middle, and then its connection is gone. */
    @Test
    void aDeviceThatLeavesInMidDownloadHoldsNobodyUp() throws Exception {
        Client device = device();
        assertThat(ticket(device)).isNotNull();
        try (Socket socket = new Socket("127.0.0.1", port)) {
            socket.getOutputStream()
                    .write(("GET /api/device/network/down?bytes=67108864 HTTP/1.1\r\nHost: 127.0.0.1\r\nAuthorization: "
                                    + device.authorization() + "\r\n\r\n")
                            .getBytes(StandardCharsets.US_ASCII));
            InputStream in = socket.getInputStream();
            assertThat(in.readNBytes(100_000)).hasSize(100_000);
        }
        Client next = device();
        long until = System.nanoTime() + Duration.ofSeconds(20).toNanos();
        String got = null;
        while (got == null && System.nanoTime() < until) {
            clock.letPass(Duration.ofSeconds(4));
            got = ticket(next);
        }
        assertThat(got).as("the turn went on").isNotNull();
    }

    @Test
    void streamsOfOneDeviceAreBounded() {
        Client device = device();
        assertThat(ticket(device)).isNotNull();
        long seat = turns.measuring().get(0);
        List<NetworkTurns.Stream> open = new ArrayList<>();
        for (int i = 0; i < NetworkTurns.MOST_STREAMS; i++) {
            open.add(turns.open(seat));
        }
        assertThat(device.get("/api/device/network/down?bytes=10").code()).isEqualTo("too-many-streams");
        // A stream that is open keeps the turn, however long it takes.
        clock.letPass(Duration.ofMinutes(1));
        assertThat(ticket(device())).isNull();
        open.forEach(NetworkTurns.Stream::close);
        assertThat(device.get("/api/device/network/down?bytes=10").status()).isEqualTo(200);
    }

    private CompletableFuture<WebSocket> echo(@Nullable String ticket, String origin, Listener listener) {
        return HttpClient.newHttpClient()
                .newWebSocketBuilder()
                .header("Origin", origin)
                .buildAsync(
                        URI.create("ws://127.0.0.1:" + port + "/api/device/network/echo"
                                + (ticket == null ? "" : "?ticket=" + ticket)),
                        listener);
    }

    private static final class Listener implements WebSocket.Listener {
        private final CompletableFuture<ByteBuffer> answer = new CompletableFuture<>();
        private final CompletableFuture<Integer> closed = new CompletableFuture<>();

        @Override
        public @Nullable CompletionStage<?> onBinary(WebSocket socket, ByteBuffer data, boolean last) {
            answer.complete(data);
            socket.request(1);
            return null;
        }

        @Override
        public @Nullable CompletionStage<?> onClose(WebSocket socket, int code, String reason) {
            closed.complete(code);
            return null;
        }

        @Override
        public void onError(WebSocket socket, Throwable error) {
            closed.complete(-1);
        }
    }

    private String own() {
        return "http://127.0.0.1:" + port;
    }

    @Test
    void whatIsSentToTheEchoComesBackWhileItIsTheTurn() throws Exception {
        Client device = device();
        Listener listener = new Listener();
        WebSocket socket = echo(ticket(device), own(), listener).get(5, TimeUnit.MINUTES);
        socket.sendBinary(ByteBuffer.wrap(new byte[] {1, 2, 3, 4, 5, 6, 7, 8}), true);
        assertThat(listener.answer.get(5, TimeUnit.MINUTES))
                .isEqualTo(ByteBuffer.wrap(new byte[] {1, 2, 3, 4, 5, 6, 7, 8}));
        device.delete(TURN);
        socket.sendBinary(ByteBuffer.wrap(new byte[] {9}), true);
        assertThat(listener.closed.get(5, TimeUnit.MINUTES)).isEqualTo(1008);
    }

    @Test
    void nothingLargeIsSentBack() throws Exception {
        Listener listener = new Listener();
        WebSocket socket = echo(ticket(device()), own(), listener).get(5, TimeUnit.MINUTES);
        socket.sendBinary(ByteBuffer.wrap(new byte[65]), true);
        assertThat(listener.closed.get(5, TimeUnit.MINUTES)).isEqualTo(1009);
    }

    @Test
    void otherSitesAndOtherTicketsAreRefused() throws IOException {
        String good = ticket(device());
        for (CompletableFuture<WebSocket> refused : List.of(
                echo(good, "http://elsewhere.example", new Listener()),
                echo("guessed", own(), new Listener()),
                echo(null, own(), new Listener()))) {
            assertThatThrownBy(refused::join)
                    .isInstanceOf(CompletionException.class)
                    .cause()
                    .isInstanceOf(WebSocketHandshakeException.class)
                    .matches(
                            e -> ((WebSocketHandshakeException) e).getResponse().statusCode() == 403);
        }
    }
}
