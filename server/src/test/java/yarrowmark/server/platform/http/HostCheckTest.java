package yarrowmark.server.platform.http;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.boot.test.web.server.LocalServerPort;
import yarrowmark.server.support.ServerTest;

/** Names that lead here without being this machine's. */
@ServerTest
class HostCheckTest {
    @LocalServerPort
    private int port;

    private String asked(String host) throws IOException {
        try (Socket socket = new Socket("127.0.0.1", port)) {
            socket.getOutputStream()
                    .write(("GET /api/access HTTP/1.1\r\nHost: " + host + "\r\nConnection: close\r\n\r\n")
                            .getBytes(StandardCharsets.US_ASCII));
            return new String(socket.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    @Test
    void aNameFromElsewhereGetsNothing() throws IOException {
        String refused = asked("rebound.example");
        assertThat(refused)
                .startsWith("HTTP/1.1 421")
                .contains("not-this-machine")
                .doesNotContain("NEEDS_OWNER");
        assertThat(refused.toLowerCase(java.util.Locale.ROOT)).doesNotContain("set-cookie");
        assertThat(asked("127.0.0.1:" + port)).startsWith("HTTP/1.1 200");
        assertThat(asked("localhost:" + port)).startsWith("HTTP/1.1 200");
    }

    @ParameterizedTest
    @CsvSource({
        "localhost,true",
        "LOCALHOST.,true",
        "192.168.4.20,true",
        "[fe80::1],true",
        "::1,true",
        "bench,true",
        "bench.local,true",
        "bench.lab.example,true",
        "lab.example,false",
        "bench.elsewhere.example,false",
        "127.0.0.1.rebound.example,false",
        "localhost.rebound.example,false",
        "1.2.3.4.5,false"
    })
    void namesThatAreSetAndAddressesInNumbersAreOwn(String host, boolean own) {
        assertThat(new HostCheck("bench.lab.example, other").isOwn(host)).isEqualTo(own);
    }
}
