package yarrowmark.server.lab;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.jdbc.core.JdbcTemplate;
import yarrowmark.server.platform.records.FromElsewhere;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.ServerTest;

/** Records that no door of the program would have let in: each is named, and nothing is started with it. */
@ServerTest
class FromElsewhereTest {
    @Autowired
    private JdbcTemplate jdbc;

    @Autowired
    private List<FromElsewhere> rooms;

    @LocalServerPort
    private int port;

    /** Puts a value where it does not belong, looks over everything, and puts back what was there. */
    private void refused(String table, String column, String where, String value, String... words) {
        String id = jdbc.queryForObject("select min(id) from " + table + " where " + where, String.class);
        assertThat(id).as("a row of " + table).isNotNull();
        String before = jdbc.queryForObject("select " + column + " from " + table + " where id = ?", String.class, id);
        jdbc.update("update " + table + " set " + column + " = ? where id = ?", value, id);
        try {
            assertThatThrownBy(() -> LabStart.lookOver(rooms))
                    .as(table + "." + column + " = " + value)
                    .isInstanceOf(LabFault.class)
                    .hasMessageContainingAll(words);
        } finally {
            jdbc.update("update " + table + " set " + column + " = ? where id = ?", before, id);
        }
    }

    @Test
    void whatNoDoorWouldLetInIsNamed() {
        Client owner = Client.owner(port);
        owner.post("/api/models", Map.of("maker", "Looked", "name", "Over 1", "deviceClass", "LAPTOP"));
        Map<String, Object> text = Map.of("kind", "TEXT", "body", Map.of("text", "It begins."));
        long writeUp = owner.post(
                        "/api/write-ups", Map.of("title", "Looked over", "models", List.of(), "pieces", List.of(text)))
                .body()
                .path("writeUp")
                .path("id")
                .asLong();
        assertThatCode(() -> LabStart.lookOver(rooms)).as("before").doesNotThrowAnyException();
        refused("test", "test_group", "true", "WARP", "“WARP”", "Test");
        refused("model", "device_class", "true", "TOASTER", "“TOASTER”", "Model");
        refused("test", "command", "true", "{\"program\":", "the command of the test");
        refused(
                "test",
                "command",
                "true",
                "{\"run\":{\"arguments\":[],\"shell\":false},\"expectedExit\":0,\"limitSeconds\":1,\"cache\":\"AS_IT_IS\"}",
                "the command of the test",
                "run.arguments");
        refused("test", "repeatability", "true", "1e-300", "0.0001 to 1000");
        String piece = "write_up_id = " + writeUp;
        refused("write_up_piece", "body", piece, "[1, 2", "piece", "cannot be read");
        refused("write_up_piece", "body", piece, "{\"text\": 7}", "piece", "text is not what belongs there");
        refused("write_up_piece", "kind", piece, "SONG", "“SONG”");
        assertThatCode(() -> LabStart.lookOver(rooms)).as("after").doesNotThrowAnyException();
    }
}
