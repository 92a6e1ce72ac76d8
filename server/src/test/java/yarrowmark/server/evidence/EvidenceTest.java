package yarrowmark.server.evidence;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.boot.test.web.server.LocalServerPort;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.Lab;
import yarrowmark.server.support.ServerTest;

@ServerTest
class EvidenceTest {
    /** One grey pixel. */
    private static final byte[] PNG = Base64.getDecoder()
            .decode("iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAAAAAA6fptVAAAACklEQVR4nGNgAAAAAgABSK+kcQAAAABJRU5ErkJggg==");

    @LocalServerPort
    private int port;

    private Lab lab;

    @BeforeEach
    void session() {
        lab = new Lab(port).suite("Read, MB/s, more").session(1);
    }

    private Client.Answer keep(String name, byte[] bytes) {
        return lab.owner()
                .postBytes(
                        "/api/sessions/" + lab.session() + "/evidence?name="
                                + URLEncoder.encode(name, StandardCharsets.UTF_8),
                        bytes);
    }

    @Test
    void aPhotoAndALogStayWithTheirSession() {
        assertThat(keep("meter.png", PNG).status()).isEqualTo(200);
        JsonNode all = keep("run.log", "real 0m1.2s\n".getBytes(StandardCharsets.UTF_8))
                .body();
        assertThat(all.valueStream()
                        .map(e -> e.path("name").asString() + " "
                                + e.path("contentType").asString()))
                .containsExactly("meter.png image/png", "run.log text/plain;charset=utf-8");
        Client.Answer photo =
                lab.owner().get("/api/evidence/" + all.get(0).path("id").asLong());
        assertThat(photo.raw().headers().firstValue("Content-Type")).contains("image/png");
        assertThat(photo.raw().headers().firstValue("Content-Security-Policy").orElseThrow())
                .contains("sandbox");
        assertThat(photo.raw().headers().firstValue("X-Content-Type-Options")).contains("nosniff");
    }

    @Test
    void aPageOrDrawingIsKeptAsItsSourceAndNeverRuns() {
        JsonNode all = keep("evil.html", "<html><script>alert(1)</script></html>".getBytes(StandardCharsets.UTF_8))
                .body();
        JsonNode drawing = keep("evil.svg", "<svg onload='alert(1)'/>".getBytes(StandardCharsets.UTF_8))
                .body();
        for (long id : new long[] {
            all.get(0).path("id").asLong(), drawing.get(1).path("id").asLong()
        }) {
            Client.Answer served = lab.owner().get("/api/evidence/" + id);
            assertThat(served.raw().headers().firstValue("Content-Type").orElseThrow())
                    .startsWith("text/plain");
            assertThat(served.raw()
                            .headers()
                            .firstValue("Content-Security-Policy")
                            .orElseThrow())
                    .contains("sandbox")
                    .contains("default-src 'none'");
        }
    }

    @ParameterizedTest
    @CsvSource({
        "../../x, x",
        "'C:\\temp\\shot.txt', shot.txt",
        "/etc/passwd, passwd",
        ".., file",
        "'a\"b\r\nc', abc",
        "'  ', file"
    })
    void aPathIsNoName(String given, String kept) {
        assertThat(EvidenceShelf.plainName(given)).isEqualTo(kept);
        if (!given.isBlank()) {
            assertThat(keep(given, "x".getBytes(StandardCharsets.UTF_8))
                            .body()
                            .get(0)
                            .path("name")
                            .asString())
                    .isEqualTo(kept);
        }
    }

    @Test
    void whatIsNoPhotoTextOrArchiveIsRefused() {
        assertThat(keep("a.exe", new byte[] {'M', 'Z', 0, 1, 2}).code()).isEqualTo("file-type");
        assertThat(keep("empty", new byte[0]).status()).isGreaterThanOrEqualTo(400);
        assertThat(keep("latin1.txt", new byte[] {'a', (byte) 0xe9, 'b'}).code())
                .isEqualTo("file-type");
        assertThat(keep("big", new byte[17 * 1024 * 1024]).status()).isEqualTo(413);
        assertThat(lab.owner()
                        .get("/api/sessions/" + lab.session() + "/evidence")
                        .body())
                .isEmpty();
    }

    @Test
    void whatIsRemovedCanBePutBack() {
        long id = keep("note.txt", "x".getBytes(StandardCharsets.UTF_8))
                .body()
                .get(0)
                .path("id")
                .asLong();
        lab.owner().delete("/api/evidence/" + id);
        assertThat(lab.owner()
                        .get("/api/sessions/" + lab.session() + "/evidence")
                        .body())
                .isEmpty();
        lab.owner().post("/api/evidence/" + id + "/restore", java.util.Map.of());
        assertThat(lab.owner()
                        .get("/api/sessions/" + lab.session() + "/evidence")
                        .body())
                .hasSize(1);
        assertThat(lab.owner().get("/api/evidence/999999999").status()).isEqualTo(404);
    }

    @Test
    void itBelongsToASessionThatIsThereAndToARunOfIt() {
        assertThat(lab.owner()
                        .postBytes("/api/sessions/999999999/evidence?name=x", new byte[] {'x'})
                        .status())
                .isEqualTo(404);
        assertThat(lab.owner()
                        .postBytes(
                                "/api/sessions/" + lab.session() + "/evidence?name=x&run=999999999", new byte[] {'x'})
                        .code())
                .isEqualTo("run-of-another-session");
        assertThat(new Client(port)
                        .get("/api/sessions/" + lab.session() + "/evidence")
                        .status())
                .as("without signing in")
                .isEqualTo(401);
    }
}
