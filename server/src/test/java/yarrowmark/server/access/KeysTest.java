package yarrowmark.server.access;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assertions.assertTimeoutPreemptively;

import java.io.InputStream;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.jdbc.core.JdbcTemplate;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.Lab;
import yarrowmark.server.support.MovableClock;
import yarrowmark.server.support.ServerTest;

/** Programs that come with a key: what each scope may do, and when it ends. */
@ServerTest
class KeysTest {
    @LocalServerPort
    private int port;

    @Autowired
    private JdbcTemplate jdbc;

    @Autowired
    private MovableClock clock;

    private Lab lab;

    @BeforeEach
    void lab() {
        clock.letPass(Duration.ofMinutes(2));
        lab = new Lab(port).suite("Export, s, less");
    }

    private JsonNode made(String scope, int days) {
        Client.Answer made =
                lab.owner().post("/api/people/me/keys", Map.of("name", "Night run", "scope", scope, "days", days));
        assertThat(made.status()).as(made.detail()).isEqualTo(200);
        return made.body();
    }

    private Client with(String key) {
        return new Client(port).header("Authorization", "Bearer " + key);
    }

    private Client key(String scope) {
        return with(made(scope, 30).path("key").asString());
    }

    @Test
    void aKeyIsShownOnceAndOnlyItsHashIsKept() {
        JsonNode made = made("READ", 30);
        String key = made.path("key").asString();
        JsonNode mine = lab.owner().get("/api/people/me").body().path("keys");
        assertThat(mine.toString()).contains("Night run").doesNotContain(key);
        assertThat(jdbc.queryForList("select key_hash from api_key", String.class))
                .noneMatch(key::contains)
                .noneMatch(h -> h.contains(key.substring(3)));
        assertThat(with(key).get("/api/models").status()).isEqualTo(200);
        assertThat(lab.owner()
                        .get("/api/people/me")
                        .body()
                        .path("keys")
                        .get(0)
                        .path("lastAt")
                        .asString())
                .as("when it was used last")
                .isNotEmpty();
    }

    @Test
    void eachScopeDoesWhatItSaysAndNoMore() {
        Map<String, Object> session = Map.of(
                "configurationId", lab.configuration(), "name", "By key", "testIds", List.of(lab.test(0)), "runs", 1);
        Map<String, Object> model = Map.of("maker", "Pellow", "name", "Key " + lab.number(), "deviceClass", "LAPTOP");
        Client reads = key("READ");
        assertThat(reads.get("/api/standings").status()).isNotEqualTo(403);
        assertThat(reads.post("/api/sessions", session).status()).isEqualTo(403);

        Client delivers = key("DELIVER");
        Client.Answer begun = delivers.post("/api/sessions", session);
        assertThat(begun.status()).as(begun.detail()).isEqualTo(200);
        assertThat(delivers.post(
                                "/api/sessions/"
                                        + begun.body()
                                                .path("session")
                                                .path("id")
                                                .asLong() + "/scores",
                                Map.of("testId", lab.test(0), "run", 1, "text", "12.5", "byStopwatch", false))
                        .status())
                .isEqualTo(200);
        assertThat(delivers.post("/api/models", model).status()).isEqualTo(403);
        assertThat(delivers.get("/api/people/keys").status()).isEqualTo(403);

        Client everything = key("EVERYTHING");
        assertThat(everything.post("/api/models", model).status()).isEqualTo(200);
        assertThat(everything
                        .post("/api/people/me/keys", Map.of("name", "Another", "scope", "READ", "days", 700))
                        .status())
                .as("a key that is found makes no other that outlives it")
                .isEqualTo(403);
        assertThat(jdbc.queryForObject(
                        "select count(*) from change_entry where person = ? and subject = 'model' and new_value like ?",
                        Integer.class,
                        Client.NAME,
                        "%Key " + lab.number() + "%"))
                .as("what a key does is its person's")
                .isPositive();
    }

    @Test
    void aKeyEndsWithItsDateWhenItIsTakenBackAndWithItsPersonsRole() {
        Client old = with(made("READ", 1).path("key").asString());
        clock.letPass(Duration.ofHours(25));
        Client.Answer late = old.get("/api/models");
        assertThat(late.status()).isEqualTo(401);
        assertThat(late.code()).isEqualTo("no-such-key");

        lab = new Lab(port);
        JsonNode made = made("EVERYTHING", 30);
        Client key = with(made.path("key").asString());
        assertThat(key.get("/api/models").status()).isEqualTo(200);
        assertThat(lab.owner()
                        .delete("/api/people/me/keys/" + made.path("id").asLong())
                        .status())
                .isEqualTo(200);
        assertThat(key.get("/api/models").status()).isEqualTo(401);
        assertThat(with("ym_nothing").get("/api/models").status()).isEqualTo(401);
        assertThat(new Client(port)
                        .header("Authorization", "Bearer something else")
                        .get("/api/models")
                        .code())
                .as("no key of ours")
                .isEqualTo("signed-out");
    }

    @Test
    void anOpenFeedEndsWithItsKey() throws Exception {
        JsonNode made = made("READ", 30);
        try (InputStream feed = with(made.path("key").asString()).open("/api/bench/events")) {
            assertThat(feed.read()).as("it is open").isNotNegative();
            assertThat(lab.owner()
                            .delete("/api/people/keys/" + made.path("id").asLong())
                            .status())
                    .isEqualTo(200);
            // Reads to the end; one that stayed open would be read for ever.
            assertTimeoutPreemptively(Duration.ofMinutes(5), () -> feed.readAllBytes());
        }
    }

    @Test
    void theDocumentOfTheInterfaceNeedsASignInOrAKey() {
        assertThat(new Client(port).get("/v3/api-docs").status()).isEqualTo(401);
        assertThat(lab.owner().get("/v3/api-docs").status()).isEqualTo(200);
        assertThat(key("READ").get("/v3/api-docs").status()).isEqualTo(200);
    }

    @Test
    void badKeysAreRefusedInWords() {
        assertThat(lab.owner()
                        .post("/api/people/me/keys", Map.of("name", "x", "scope", "READ", "days", 0))
                        .status())
                .isEqualTo(400);
        assertThat(lab.owner()
                        .post("/api/people/me/keys", Map.of("name", "x", "scope", "ALL", "days", 3))
                        .status())
                .isEqualTo(400);
        assertThat(lab.owner().delete("/api/people/me/keys/987654").status()).isEqualTo(404);
        assertThat(lab.owner().delete("/api/people/keys/987654").status()).isEqualTo(404);
    }
}
