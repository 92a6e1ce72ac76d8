package yarrowmark.server.access;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.boot.test.web.server.LocalServerPort;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.ServerTest;

/** A change is stored under the name of whoever typed it, on the shelf it was typed for, or not at all. */
@ServerTest
class PageOwnerTest {
    @LocalServerPort
    private int port;

    private String owner(Client client) {
        var access = client.get("/api/access").body();
        assertThat(access.path("shelf").asString()).hasSizeGreaterThan(10);
        return access.path("shelf").asString() + "/" + access.path("person").asString();
    }

    @Test
    void thePageOfWhoIsSignedInStoresAndAProgramSaysNothing() {
        Client client = Client.owner(port);
        String owner = owner(client);
        assertThat(client.header("Yarrowmark-For", owner)
                        .put("/api/usual-spreads", Map.of("percent", Map.of()))
                        .status())
                .isEqualTo(200);
        assertThat(Client.owner(port)
                        .put("/api/usual-spreads", Map.of("percent", Map.of()))
                        .status())
                .isEqualTo(200);
    }

    @ParameterizedTest
    @CsvSource({
        "PERSON, belongs to some%20body",
        "SHELF, another shelf",
        "EMPTY, another shelf",
        "BROKEN, another shelf"
    })
    void thePageOfSomebodyElseIsRefused(String what, String words) {
        Client client = Client.owner(port);
        String owner = owner(client);
        String header =
                switch (what) {
                    case "PERSON" -> owner.substring(0, owner.indexOf('/')) + "/some%20body";
                    case "SHELF" -> "elsewhere" + owner.substring(owner.indexOf('/'));
                    case "EMPTY" -> "/";
                    default -> "%zz/%";
                };
        Client.Answer answer = client.header("Yarrowmark-For", header)
                .put("/api/usual-spreads", Map.of("percent", Map.of("BROWSER", 99)));
        assertThat(answer.status()).isEqualTo(409);
        assertThat(answer.code()).isEqualTo("page-of-another");
        assertThat(answer.detail()).contains(words.replace("%20", " ")).contains("Nothing was stored");
        assertThat(Client.owner(port)
                        .get("/api/usual-spreads")
                        .body()
                        .path("percent")
                        .path("BROWSER")
                        .asDouble())
                .isNotEqualTo(99);
    }
}
