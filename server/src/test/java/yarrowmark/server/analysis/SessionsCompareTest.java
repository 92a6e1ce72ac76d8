package yarrowmark.server.analysis;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.jdbc.core.JdbcTemplate;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.Lab;
import yarrowmark.server.support.ServerTest;

/** What several sessions, a stated repeatability and an assumed spread do, from typing to a comparison and a standing. */
@ServerTest
class SessionsCompareTest {
    @LocalServerPort
    private int port;

    @Autowired
    private JdbcTemplate jdbc;

    private Lab lab;
    private long base;
    private long other;

    @BeforeEach
    void twoConfigurations() {
        lab = new Lab(port);
        base = lab.configuration(Map.of("firmware.version", "1.04"));
        other = lab.configuration(Map.of("firmware.version", "1.11"));
    }

    private JsonNode compared() {
        Client.Answer answer = lab.owner().get("/api/compare?base=" + base + "&with=" + other);
        assertThat(answer.status()).as(answer.detail()).isEqualTo(200);
        return answer.body();
    }

    private static JsonNode cell(JsonNode comparison) {
        return comparison.path("rows").get(0).path("cells").get(0);
    }

    private void typed(long of, String... texts) {
        lab.session(of, texts.length).typed(0, texts);
    }

    /** The method's example F through the whole program; with one test, what is lent by the others is its own. */
    @Test
    void anotherDayIsPartOfWhatIsSaid() {
        lab.suite("Weir, 1, more");
        long c = lab.configuration(Map.of("firmware.version", "2.02"));
        long d = lab.configuration(Map.of("firmware.version", "2.03"));
        long e = lab.configuration(Map.of("firmware.version", "2.04"));
        typed(base, "388.1", "391.7", "386.9");
        typed(other, "402.4", "405.9", "403.3");
        typed(c, "512.0", "498.6", "505.1");
        typed(d, "610.8", "612.2", "607.5", "609.9");
        typed(e, "291.3", "290.1");
        JsonNode before = cell(compared());
        assertThat(before.path("oneSession").asBoolean()).isTrue();
        assertThat(before.path("verdict").asString()).isEqualTo("CLEAR_GAIN");
        assertThat(compared()
                        .path("sides")
                        .get(0)
                        .path("overall")
                        .path("covers")
                        .asString())
                .isEqualTo("WITHIN_ONE_SESSION");

        typed(base, "381.0", "383.5", "380.2");
        typed(c, "509.9", "514.2", "511.0");
        typed(c, "500.3", "503.8", "498.9");
        typed(e, "295.9", "296.4", "294.8");
        JsonNode after = cell(compared());
        assertThat(after.path("oneSession").asBoolean()).isFalse();
        assertThat(after.path("ratio").asDouble()).isCloseTo(1.048420124, within(5e-9));
        assertThat(after.path("sessions").asInt()).isEqualTo(1);
        assertThat(compared().path("rows").get(0).path("sessions").asInt()).isEqualTo(2);
        double width = after.path("high").asDouble() - after.path("low").asDouble();
        assertThat(width)
                .as("days differ more than runs")
                .isGreaterThan(
                        2 * (before.path("high").asDouble() - before.path("low").asDouble()));
        assertThat(compared()
                        .path("sides")
                        .get(0)
                        .path("overall")
                        .path("covers")
                        .asString())
                .isEqualTo("DAY_TO_DAY");
        assertThat(compared()
                        .path("sides")
                        .get(0)
                        .path("overall")
                        .path("sentence")
                        .asString())
                .contains("(day to day included)");
        JsonNode standing = lab.owner()
                .get("/api/standings?metric=" + lab.metric(0) + "&base=" + base)
                .body();
        for (JsonNode row : standing.path("rows")) {
            assertThat(row.path("covers").asString()).isEqualTo("DAY_TO_DAY");
            if (row.path("configuration").path("id").asLong() == base) {
                assertThat(row.path("low").asDouble()).isEqualTo(100);
            } else {
                assertThat(row.path("low").asDouble())
                        .isLessThan(row.path("index").asDouble());
            }
        }
    }

    @Test
    void eachSessionHasItsOwnMoments() {
        lab.suite("Weir, 1, more");
        typed(base, "100", "102");
        long first = lab.session();
        typed(base, "110");
        String here = "select count(*) from sample where configuration_id = " + base;
        assertThat(jdbc.queryForObject(here, Integer.class)).isEqualTo(2);
        assertThat(jdbc.queryForObject(here + " and session_id = " + first + " and n = 2", Integer.class))
                .isEqualTo(1);
        jdbc.queryForList("select id from reading where configuration_id = ? order by id", Long.class, base).stream()
                .limit(2)
                .forEach(id -> assertThat(lab.owner()
                                .post("/api/readings/" + id + "/set-aside", Map.of("reason", "wrong charger"))
                                .status())
                        .isEqualTo(200));
        assertThat(jdbc.queryForObject(here, Integer.class))
                .as("a session with nothing that counts has no sample")
                .isEqualTo(1);
    }

    @Test
    void singleRunsRestOnAnAssumedSpreadUntilARepeatabilityIsStated() {
        lab.suite("Weir, 1, more");
        typed(base, "100");
        typed(other, "120");
        JsonNode guessed = cell(compared());
        assertThat(guessed.path("assumed").asBoolean()).isTrue();
        assertThat(guessed.path("verdict").asString()).isEqualTo("CANNOT_TELL");
        assertThat(lab.sentence("base=" + base + "&with=" + other, 0, 0))
                .contains("assuming a spread of 10 %, which nobody measured");
        assertThat(compared()
                        .path("sides")
                        .get(0)
                        .path("overall")
                        .path("assumed")
                        .asInt())
                .isEqualTo(1);

        String door = "/api/tests/" + lab.tests().get(0) + "/repeatability";
        assertThat(lab.owner().put(door, Map.of("percent", -1, "source", "us")).code())
                .isEqualTo("not-a-repeatability");
        assertThat(lab.owner().put(door, Map.of("percent", 1, "source", " ")).code())
                .isEqualTo("no-source");
        assertThat(lab.owner()
                        .put("/api/tests/987654321/repeatability", Map.of())
                        .status())
                .isEqualTo(404);
        assertThat(lab.owner()
                        .put(door, Map.of("percent", 1, "source", "fifty runs in our lab"))
                        .status())
                .isEqualTo(200);
        JsonNode stated = cell(compared());
        assertThat(stated.path("assumed").asBoolean()).isFalse();
        assertThat(stated.path("verdict").asString()).isEqualTo("CLEAR_GAIN");
        assertThat(compared().path("rows").get(0).path("stated").asDouble()).isEqualTo(1);
        assertThat(lab.row(lab.tests().get(0)).path("repeatabilitySource").asString())
                .isEqualTo("fifty runs in our lab");
        assertThat(lab.owner().put(door, Map.of()).status()).isEqualTo(200);
        assertThat(cell(compared()).path("assumed").asBoolean()).isTrue();
    }

    /** Both at 60 of a display's 60: the least there may be, never level. */
    @Test
    void whatADisplayHoldsIsAtLeast() {
        lab.suite("Herons, fps, more, capped");
        long held = lab.configuration(Map.of("firmware.version", "3.0", "display.refresh", "60 Hz"));
        long free = lab.configuration(Map.of("firmware.version", "3.1", "display.refresh", "60 Hz"));
        typed(held, "59.9", "60.0", "59.95");
        typed(free, "21.8", "22.1", "22.0");
        base = free;
        other = held;
        JsonNode up = cell(compared());
        assertThat(up.path("bound").asString()).isEqualTo("AT_LEAST");
        assertThat(up.path("verdict").isMissingNode()).isTrue();
        assertThat(up.path("low").isMissingNode()).isTrue();
        assertThat(up.path("ratio").asDouble()).isCloseTo(2.73, within(0.01));
        assertThat(lab.sentence("base=" + base + "&with=" + other, 0, 0)).contains("at least 2.73 times");
        base = held;
        other = free;
        assertThat(cell(compared()).path("bound").asString()).isEqualTo("AT_MOST");
        assertThat(compared().path("rows").get(0).path("atLeast").asBoolean()).isTrue();
        JsonNode row = lab.owner()
                .get("/api/standings?metric=" + lab.metric(0) + "&base=" + free)
                .body()
                .path("rows")
                .get(0);
        assertThat(row.path("atLeast").asBoolean()).isTrue();
        assertThat(row.path("low").isMissingNode()).isTrue();
    }
}
