package yarrowmark.server.platform;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.springframework.boot.test.web.server.LocalServerPort;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.node.ObjectNode;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.ServerTest;

/**
 * The interface's types are generated from web/openapi.json. This test fails where that file is not what the server
 * says; run with -Dyarrowmark.write-api to write it anew, and look at the difference before committing it.
 */
@ServerTest
class ApiDocumentTest {
    private static final Path FILE = Path.of("..", "web", "openapi.json");

    @LocalServerPort
    private int port;

    @Test
    void theCommittedApiDocumentIsTheServersOwn() throws IOException {
        ObjectNode document = (ObjectNode) new Client(port).get("/v3/api-docs").body();
        document.remove("servers");
        String now = Client.JSON
                        .rebuild()
                        .enable(SerializationFeature.INDENT_OUTPUT, SerializationFeature.ORDER_MAP_ENTRIES_BY_KEYS)
                        .build()
                        .writeValueAsString(Client.JSON.treeToValue(document, Object.class))
                + "\n";
        if (System.getProperty("yarrowmark.write-api") != null) {
            Files.writeString(FILE, now);
        }
        JsonNode committed = Client.JSON.readTree(Files.readString(FILE));
        assertThat(Client.JSON.readTree(now))
                .as("web/openapi.json differs from the server; see this test's comment")
                .isEqualTo(committed);
    }
}
