package yarrowmark.server.platform.http;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.springframework.boot.test.web.server.LocalServerPort;
import yarrowmark.server.support.Bench;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.ServerTest;

/** Senders who promise a body and do not send it. 220 of them stopped every other request. */
@ServerTest
@Timeout(600)
class SlowBodiesTest {
    @LocalServerPort
    private int port;

    private final List<Socket> senders = new ArrayList<>();

    @AfterEach
    void hangUp() throws IOException {
        for (Socket sender : senders) {
            sender.close();
        }
    }

    private void begin(String path) throws IOException {
        Socket sender = new Socket("127.0.0.1", port);
        senders.add(sender);
        sender.getOutputStream()
                .write(("POST " + path
                                + " HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/json\r\nContent-Length: 5000\r\n\r\n{")
                        .getBytes(StandardCharsets.US_ASCII));
        sender.getOutputStream().flush();
    }

    private static String statusOf(Socket sender) throws IOException {
        return new BufferedReader(new InputStreamReader(sender.getInputStream(), StandardCharsets.US_ASCII)).readLine();
    }

    @Test
    void manySlowBodiesAtOneDoorLeaveTheOthersOpen() throws IOException {
        Bench bench = new Bench(port);
        Client device = bench.started("Slow door", 1, List.of());
        for (int i = 0; i < 220; i++) {
            begin("/api/device/join");
        }
        // Those past the limit are told at once, and in words.
        String told = statusOf(senders.get(219));
        assertThat(told).contains(" 503");
        assertThat(bench.owner().get("/api/models").status()).isEqualTo(200);
        assertThat(bench.deliver(device, Bench.ok(Bench.testId(device, "weir-hash-one"), 1, 400))
                        .status())
                .isEqualTo(200);
        assertThat(bench.owner()
                        .post("/api/models", Map.of("maker", "Pellow", "name", "Slow door 2", "deviceClass", "BOARD"))
                        .status())
                .isEqualTo(200);
    }

    @Test
    void aSenderWhoStopsIsGivenUpAndItsPlaceIsFreeAgain() throws IOException {
        begin("/api/device/join");
        // The connector gives a silent one ten seconds.
        String answer = statusOf(senders.get(0));
        assertThat(answer == null || answer.contains(" 4")).as(answer).isTrue();
    }
}
