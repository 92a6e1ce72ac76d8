package yarrowmark.server.analysis;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

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
        assertThat(before.path("verdict").asString()).isEqualTo("CLEAR_GAIN");
        assertThat(overall().path("days").asString())
                .isEqualTo("day to day as is usual for tests: nobody here has measured a device on two days yet");

        typedDaysAgo(1, base, "381.0", "383.5", "380.2");
        typedDaysAgo(1, c, "509.9", "514.2", "511.0");
        typedDaysAgo(2, c, "500.3", "503.8", "498.9");
        typedDaysAgo(1, e, "295.9", "296.4", "294.8");
        typed(lab.configuration(Map.of("firmware.version", "2.05")), "297.0");
        JsonNode after = cell(compared());
        assertThat(after.path("ratio").asDouble()).isCloseTo(1.048420124, within(5e-9));
        assertThat(after.path("low").asDouble()).isCloseTo(1.020374052, within(5e-9));
        assertThat(after.path("high").asDouble()).isCloseTo(1.077237071, within(5e-9));
        assertThat(after.path("sessions").asInt()).isEqualTo(1);
        assertThat(compared().path("rows").get(0).path("sessions").asInt()).isEqualTo(2);
        assertThat(overall().path("days").asString()).isEqualTo("day to day from 3 devices");
        assertThat(overall().path("sentence").asString()).contains(", day to day from 3 devices.");
        JsonNode standing = lab.owner()
                .get("/api/standings?metric=" + lab.metric(0) + "&base=" + base)
                .body();
        assertThat(standing.path("days").asString()).isEqualTo("day to day from 3 devices");
        for (JsonNode row : standing.path("rows")) {
            if (row.path("configuration").path("id").asLong() == base) {
                assertThat(row.path("low").asDouble()).isEqualTo(100);
            } else {
                assertThat(row.path("low").asDouble())
                        .isLessThan(row.path("index").asDouble());
            }
        }
    }

    private JsonNode overall() {
        return compared().path("sides").get(0).path("overall");
    }

    /** As if the session had been on an earlier day. */
    private void typedDaysAgo(int days, long of, String... texts) {
        long session = lab.session(of, texts.length).session();
        jdbc.update(
                "update session set started_at = started_at - interval ? day, ended_at = ended_at - interval ? day where id = ?",
                days,
                days,
                session);
        lab.typed(0, texts);
    }

    /** Two sittings of one afternoon say nothing about days. */
    @Test
    void sessionsOfOneAfternoonAreOne() {
        lab.suite("Weir, 1, more");
        typed(base, "100", "101");
        typed(base, "102");
        typed(other, "110", "111", "112");
        JsonNode row = compared().path("rows").get(0);
        assertThat(row.path("runs").asInt()).isEqualTo(3);
        assertThat(row.path("sessions").asInt()).isEqualTo(1);
        typedDaysAgo(1, base, "101");
        assertThat(compared().path("rows").get(0).path("sessions").asInt()).isEqualTo(2);
    }

    /** One session that went wrong is marked once, with its size, and hardly widens what is said of others. */
    @Test
    void aSessionThatWentWrongIsMarkedAndDoesNotSpoilOthers() {
        lab.suite("Weir, 1, more\nSort, 1, more\nPack, s, less");
        long bad = lab.configuration(Map.of("firmware.version", "2.02"));
        long fine = lab.configuration(Map.of("firmware.version", "2.03"));
        for (long of : List.of(base, other, bad, fine)) {
            lab.session(of, 3).typed(0, "100", "101", "100.5");
            lab.typed(1, "200", "201", "202");
            lab.typed(2, "30.1", "30.2", "30");
        }
        long session = lab.session(bad, 3).session();
        jdbc.update("update session set started_at = started_at + interval 3 day where id = ?", session);
        lab.typed(0, "80", "80.5", "81");
        lab.typed(1, "160", "161", "161.5");
        lab.typed(2, "37", "37.1", "37.2");
        List<String> marked = lab.owner()
                .get("/api/ledger?session=" + session)
                .body()
                .path("rows")
                .valueStream()
                .map(r -> r.path("marks").toString())
                .filter(m -> m.contains("ANOTHER_DAY"))
                .toList();
        assertThat(marked)
                .hasSize(9)
                .allMatch(m -> m.contains("Most tests of this session are off the same way, this one "));
        assertThat(marked.toString())
                .contains("19.9 % lower than in the other sessions")
                .contains("23.3 % more time than in the other sessions");
        double width = cell(compared()).path("high").asDouble()
                / cell(compared()).path("low").asDouble();
        assertThat(width).isLessThan(1.15);
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
    void singleRunsRestOnAUsualSpreadUntilARepeatabilityIsStated() {
        lab.suite("Weir, 1, more, network");
        typed(base, "100");
        typed(other, "150");
        JsonNode usual = cell(compared());
        assertThat(usual.path("unmeasured").asBoolean()).isTrue();
        assertThat(usual.path("verdict").asString()).isEqualTo("PROBABLY_GAIN");
        assertThat(compared().path("rows").get(0).path("restsOn").asString())
                .matches("as usual for network tests, 8 %|as other network tests here");
        assertThat(lab.sentence("base=" + base + "&with=" + other, 0, 0))
                .contains("is probably 50.0 % higher than")
                .endsWith("1 run each; how repeatable the test is was not measured here.");
        assertThat(overall().path("unmeasured").asInt()).isEqualTo(1);
        assertThat(overall().path("verdict").asString()).isEqualTo("PROBABLY_GAIN");

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
        assertThat(stated.path("unmeasured").asBoolean())
                .as("stated, not measured")
                .isTrue();
        assertThat(stated.path("high").asDouble()).isLessThan(usual.path("high").asDouble());
        assertThat(compared().path("rows").get(0).path("restsOn").asString()).isEqualTo("as stated, 1 %");
        assertThat(lab.row(lab.tests().get(0)).path("repeatabilitySource").asString())
                .isEqualTo("fifty runs in our lab");
        assertThat(lab.owner().put(door, Map.of()).status()).isEqualTo(200);
        assertThat(cell(compared()).path("high").asDouble())
                .isEqualTo(usual.path("high").asDouble());
        String all = "/api/suite-versions/" + lab.version() + "/repeatability";
        assertThat(lab.owner().put(all, Map.of("percent", 60, "source", "us")).status())
                .isEqualTo(200);
        assertThat(cell(compared()).path("verdict").asString()).isEqualTo("CANNOT_TELL");
        assertThat(cell(compared()).path("threeEach").asBoolean()).isTrue();
        assertThat(lab.owner()
                        .put("/api/suite-versions/987654321/repeatability", Map.of())
                        .status())
                .isEqualTo(404);
    }

    @Test
    void theLabChangesWhatIsUsual() {
        // A group in which nothing else on this shelf was run twice, whatever other tests left here.
        lab.suite("Net, 1, more, network\nFilm, 1, more, video\nNoise, 1, more, body\nTabs, 1, more, browser");
        for (long of : List.of(base, other)) {
            lab.session(of, 1);
            for (int test = 0; test < 4; test++) {
                lab.typed(test, of == base ? "100" : "150");
            }
        }
        JsonNode row = compared()
                .path("rows")
                .valueStream()
                .filter(r -> r.path("restsOn").asString().startsWith("as usual for "))
                .findFirst()
                .orElseThrow();
        String group = row.path("metric").path("group").asString();
        String test = row.path("metric").path("test").asString();
        assertThat(row.path("cells").get(0).path("verdict").asString()).isEqualTo("PROBABLY_GAIN");
        double before = lab.owner()
                .get("/api/usual-spreads")
                .body()
                .path("percent")
                .path(group)
                .asDouble();
        assertThat(row.path("restsOn").asString())
                .contains(before == Math.rint(before) ? Math.round(before) + " %" : before + " %");
        for (double wrong : new double[] {0, -2, 1001}) {
            assertThat(lab.owner()
                            .put("/api/usual-spreads", Map.of("percent", Map.of(group, wrong)))
                            .code())
                    .isEqualTo("not-a-spread");
        }
        try {
            assertThat(lab.owner()
                            .put("/api/usual-spreads", Map.of("percent", Map.of(group, 60)))
                            .body()
                            .path("percent")
                            .path(group)
                            .asDouble())
                    .isEqualTo(60);
            assertThat(compared()
                            .path("rows")
                            .valueStream()
                            .filter(r ->
                                    r.path("metric").path("test").asString().equals(test))
                            .map(r -> r.path("cells").get(0).path("verdict").asString()))
                    .containsExactly("CANNOT_TELL");
        } finally {
            lab.owner().put("/api/usual-spreads", Map.of("percent", Map.of(group, before)));
        }
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
