package yarrowmark.server.writeup;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.springframework.boot.test.web.server.LocalServerPort;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.Lab;

/** A lab whose owner writes, and readers who have nothing but an address. */
public abstract class Writing {
    protected static final String DRAWING =
            "<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 10 10\"><rect x=\"0\" y=\"0\" width=\"4\" height=\"4\" fill=\"var(--leaf)\"/></svg>";

    @LocalServerPort
    protected int port;

    protected Lab lab;
    protected Client owner;

    @BeforeEach
    void lab() {
        lab = new Lab(port);
        owner = lab.owner();
    }

    protected JsonNode made(Object... pieces) {
        Client.Answer answer = owner.post(
                "/api/write-ups",
                Map.of(
                        "title",
                        "Two summers " + lab.number(),
                        "models",
                        List.of(lab.model()),
                        "pieces",
                        List.of(pieces)));
        assertThat(answer.status()).as(answer.detail()).isEqualTo(200);
        return answer.body();
    }

    protected static Map<String, Object> piece(String kind, Object body) {
        return Map.of("kind", kind, "body", body);
    }

    protected static long id(JsonNode page) {
        return page.path("writeUp").path("id").asLong();
    }

    protected static long pieceId(JsonNode page, int at) {
        return page.path("pieces").get(at).path("id").asLong();
    }

    protected Client.Answer publish(JsonNode page, Map<String, Object> shown, String changes) {
        long id = id(page);
        Map<String, Object> body = new HashMap<>(Map.of(
                "revision",
                owner.get("/api/write-ups/" + id).body().path("revision").asInt(),
                "listed",
                true,
                "shown",
                shown));
        if (changes != null) {
            body.put("changes", changes);
        }
        return owner.post("/api/write-ups/" + id + "/editions", body);
    }

    /** A reader without anything: not even a cookie. */
    protected HttpResponse<byte[]> read(String path) throws Exception {
        return HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + path))
                                .build(),
                        HttpResponse.BodyHandlers.ofByteArray());
    }

    protected String text(String path) throws Exception {
        return new String(read(path).body(), java.nio.charset.StandardCharsets.UTF_8);
    }
}
