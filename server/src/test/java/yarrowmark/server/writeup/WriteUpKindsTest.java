package yarrowmark.server.writeup;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Collections;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.ServerTest;

@ServerTest
class WriteUpKindsTest extends Writing {
    private static final String KINDS = "/api/write-up-kinds";

    private static Map<String, Object> kind(String name, int revision, Object... pieces) {
        return Map.of("name", name, "begins", "COMPARISON", "pieces", List.of(pieces), "revision", revision);
    }

    private List<String> names() {
        return owner.get(KINDS)
                .body()
                .valueStream()
                .map(k -> k.path("name").asString())
                .toList();
    }

    @Test
    void aLabChangesItsKindsAndLosesNone() {
        assertThat(owner.get(KINDS).body().valueStream().map(k -> k.path("begins")
                        .asString()))
                .as("an empty place has a kind for every beginning")
                .contains("MODEL", "COMPARISON", "STANDING", "TREND");
        JsonNode made = owner.post(
                        KINDS,
                        kind(
                                "Short test",
                                0,
                                Map.of("kind", "HEADING", "text", "What we think"),
                                Map.of("kind", "FIGURE", "figure", "ratios")))
                .body();
        long id = made.path("id").asLong();
        assertThat(made.path("pieces").get(0).path("text").asString()).isEqualTo("What we think");
        int revision = made.path("revision").asInt();
        assertThat(owner.put(KINDS + "/" + id, kind("Shorter", revision, Map.of("kind", "VERDICT")))
                        .body()
                        .path("pieces")
                        .size())
                .isEqualTo(1);
        Client.Answer late = Client.owner(port).put(KINDS + "/" + id, kind("Longer", revision, Map.of("kind", "TEXT")));
        assertThat(late.status()).isEqualTo(409);
        assertThat(late.code()).isEqualTo("kind-changed");
        assertThat(names()).contains("Shorter").doesNotContain("Longer");

        assertThat(owner.delete(KINDS + "/" + id).status()).isEqualTo(200);
        assertThat(names()).doesNotContain("Shorter");
        assertThat(owner.put(KINDS + "/" + id, kind("Shorter", revision + 1, Map.of("kind", "TEXT")))
                        .status())
                .isEqualTo(404);
        owner.post(KINDS + "/" + id + "/restore", Map.of());
        assertThat(names()).contains("Shorter");
    }

    @Test
    void whatIsNoKindIsRefused() {
        assertThat(owner.post(KINDS, kind("", 0, Map.of("kind", "TEXT"))).status())
                .isEqualTo(400);
        assertThat(owner.post(KINDS, kind("Nothing in it", 0)).status()).isEqualTo(400);
        assertThat(owner.post(KINDS, kind("Odd", 0, Map.of("kind", "FIGURE", "figure", "pie")))
                        .status())
                .isEqualTo(400);
        assertThat(owner.post(KINDS, kind("Odd", 0, Map.of("kind", "SONG"))).status())
                .isEqualTo(400);
        assertThat(owner.post(
                                KINDS,
                                kind(
                                        "Long",
                                        0,
                                        Collections.nCopies(41, Map.of("kind", "TEXT"))
                                                .toArray()))
                        .status())
                .isEqualTo(400);
        assertThat(owner.delete(KINDS + "/987654").status()).isEqualTo(404);
    }
}
