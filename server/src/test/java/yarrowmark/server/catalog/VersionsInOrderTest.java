package yarrowmark.server.catalog;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.support.Lab;
import yarrowmark.server.support.ServerTest;

/** Which version of a suite is the newest is told by its number, and by the reviewer where the number does not tell. */
@ServerTest
class VersionsInOrderTest {
    @LocalServerPort
    private int port;

    @Autowired
    private Catalog catalog;

    private Lab lab;
    private String suite;

    @BeforeEach
    void threeVersionsMadeInNoOrder() {
        lab = new Lab(port);
        suite = "Estuary " + lab.number();
        for (String version : List.of("2.0", "1.10", "1.9")) {
            lab.suite(suite, version, "Weir, 1, more");
        }
    }

    private List<JsonNode> versions() {
        List<JsonNode> own = new ArrayList<>();
        for (JsonNode row : lab.owner().get("/api/suite-versions").body()) {
            if (row.path("suite").asString().equals(suite)) {
                own.add(row);
            }
        }
        return own;
    }

    private List<String> numbers() {
        return versions().stream().map(v -> v.path("version").asString()).toList();
    }

    private long id(String version) {
        return versions().stream()
                .filter(v -> v.path("version").asString().equals(version))
                .findFirst()
                .orElseThrow()
                .path("id")
                .asLong();
    }

    private List<String> current() {
        return versions().stream()
                .filter(v -> !catalog.outdatedVersions().contains(v.path("id").asLong()))
                .map(v -> v.path("version").asString())
                .toList();
    }

    @Test
    void theOneMadeLastIsNotTheNewest() {
        assertThat(numbers()).containsExactly("1.9", "1.10", "2.0");
        assertThat(current()).containsExactly("2.0");
    }

    @Test
    void theReviewerMovesAVersionAndTheNewestFollows() {
        assertThat(lab.owner()
                        .put("/api/suite-versions/" + id("2.0") + "/order", Map.of("earlier", true))
                        .status())
                .isEqualTo(200);
        assertThat(numbers()).containsExactly("1.9", "2.0", "1.10");
        assertThat(current()).containsExactly("1.10");
        lab.owner().put("/api/suite-versions/" + id("1.10") + "/order", Map.of("earlier", false));
        assertThat(numbers()).as("there is nothing after the last").containsExactly("1.9", "2.0", "1.10");
        assertThat(lab.owner()
                        .put("/api/suite-versions/999999/order", Map.of("earlier", false))
                        .status())
                .isEqualTo(404);
    }
}
