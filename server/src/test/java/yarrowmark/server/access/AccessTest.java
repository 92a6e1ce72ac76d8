package yarrowmark.server.access;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.time.Duration;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.test.annotation.DirtiesContext;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.MovableClock;
import yarrowmark.server.support.ServerTest;

@ServerTest
@DirtiesContext(classMode = DirtiesContext.ClassMode.BEFORE_CLASS)
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
class AccessTest {
    @LocalServerPort
    private int port;

    @Autowired
    private MovableClock clock;

    @BeforeEach
    void forgiveEarlierTries() {
        clock.letPass(Duration.ofMinutes(2));
    }

    @Test
    @Order(1)
    void theFirstVisitorBecomesTheOwnerAndTheSecondCannot() {
        Client first = new Client(port);
        assertThat(first.get("/api/access").body().path("state").asString()).isEqualTo("NEEDS_OWNER");
        assertThat(first.post("/api/access/owner", Map.of("name", "wren", "password", "short", "lab", "Lab"))
                        .detail())
                .contains("10 to 200");
        assertThat(first.post(
                                "/api/access/owner",
                                Map.of("name", Client.NAME, "password", Client.PASSWORD, "lab", "Lab"))
                        .status())
                .isEqualTo(200);
        Client.Answer me = first.get("/api/access");
        assertThat(me.body().path("state").asString()).isEqualTo("SIGNED_IN");
        assertThat(me.body().path("role").asString()).isEqualTo("OWNER");

        Client second = new Client(port);
        second.get("/api/access");
        Client.Answer refused =
                second.post("/api/access/owner", Map.of("name", "other", "password", "another password", "lab", "X"));
        assertThat(refused.status()).isEqualTo(409);
        assertThat(refused.code()).isEqualTo("owner-exists");
    }

    @Test
    void withoutSigningInThereIsNothingToRead() {
        Client stranger = new Client(port);
        assertThat(stranger.get("/api/ledger").status()).isEqualTo(401);
        assertThat(stranger.get("/api/ledger").code()).isEqualTo("signed-out");
    }

    @Test
    void aChangeWithoutTheTokenIsRefused() {
        Client owner = Client.owner(port);
        Client forged = new Client(port).header("Cookie", owner.cookies());
        assertThat(forged.get("/api/models").status()).isEqualTo(200);
        assertThat(forged.post("/api/models", Map.of("maker", "Pellow", "name", "X", "deviceClass", "LAPTOP"))
                        .status())
                .isEqualTo(403);
    }

    @Test
    void guessingPasswordsIsSlowedDown() {
        Client guesser = new Client(port);
        guesser.get("/api/access");
        for (int i = 0; i < 10; i++) {
            assertThat(guesser.post("/api/access/sign-in", Map.of("name", "wren", "password", "guess " + i))
                            .status())
                    .isEqualTo(401);
        }
        Client.Answer told = guesser.post("/api/access/sign-in", Map.of("name", "wren", "password", Client.PASSWORD));
        assertThat(told.status()).isEqualTo(429);
        assertThat(told.raw().headers().firstValue("Retry-After")).isPresent();
        assertThat(told.detail()).contains("Wait");
        clock.letPass(Duration.ofSeconds(61));
        assertThat(guesser.post("/api/access/sign-in", Map.of("name", "wren", "password", Client.PASSWORD))
                        .status())
                .isEqualTo(200);
    }

    @Test
    void signingOutEndsIt() {
        Client owner = Client.owner(port);
        assertThat(owner.post("/api/access/sign-out", Map.of())
                        .body()
                        .path("state")
                        .asString())
                .isEqualTo("SIGNED_OUT");
        assertThat(owner.get("/api/models").status()).isEqualTo(401);
    }

    @Test
    void aThirtyMegabyteBodyIsNotRead() {
        Client owner = Client.owner(port);
        String large = "{\"maker\":\"" + "x".repeat(30_000_000) + "\"}";
        Client.Answer streamed = owner.postStream("/api/models", () -> new ByteArrayInputStream(large.getBytes()));
        assertThat(streamed.status()).isEqualTo(413);
        assertThat(streamed.code()).isEqualTo("body-too-large");
        assertThat(owner.get("/api/models").body().path("total").asInt()).isZero();
    }

    @Test
    void aFileThatIsNotThereIsNotKeptForAYearAndTellsNobodyApart() {
        Client.Answer missing = new Client(port).get("/assets/none-1234.js");
        assertThat(missing.status()).isEqualTo(404);
        assertThat(missing.raw().headers().firstValue("Cache-Control"))
                .hasValueSatisfying(c -> assertThat(c).contains("no-store"));
        assertThat(missing.raw().headers().allValues("Set-Cookie")).isEmpty();
    }

    @Test
    void theTokenOfAPageIsForThisPlaceAloneAndNewAfterSigningIn() {
        Client client = new Client(port);
        String before = client.get("/api/access").raw().headers().allValues("Set-Cookie").stream()
                .filter(c -> c.startsWith("XSRF-TOKEN"))
                .findFirst()
                .orElseThrow();
        assertThat(before).contains("SameSite=Strict");
        String after = client
                .post("/api/access/sign-in", Map.of("name", Client.NAME, "password", Client.PASSWORD))
                .raw()
                .headers()
                .allValues("Set-Cookie")
                .stream()
                .filter(c -> c.startsWith("XSRF-TOKEN"))
                .findFirst()
                .orElseThrow();
        assertThat(after.replaceAll(";.*", "")).isNotEqualTo(before.replaceAll(";.*", ""));
    }

    @Test
    void everyAnswerKeepsTheBrowserSafe() {
        Client.Answer page = new Client(port).get("/api/access");
        assertThat(page.raw().headers().map())
                .containsKeys("cross-origin-opener-policy", "cross-origin-embedder-policy", "x-content-type-options");
        assertThat(page.raw().headers().firstValue("Content-Security-Policy").orElseThrow())
                .doesNotContain("unsafe-inline");
    }
}
