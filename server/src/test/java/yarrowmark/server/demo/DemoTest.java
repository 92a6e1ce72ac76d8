package yarrowmark.server.demo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static yarrowmark.server.platform.Require.require;

import java.io.ByteArrayOutputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.builder.SpringApplicationBuilder;
import org.springframework.boot.test.util.TestPropertyValues;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.core.env.Environment;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.test.annotation.DirtiesContext;
import org.springframework.test.context.TestPropertySource;
import tools.jackson.databind.JsonNode;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Measured;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.stats.SampleMoments;
import yarrowmark.server.YarrowmarkServer;
import yarrowmark.server.lab.LabCommand;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.Schemas;
import yarrowmark.server.support.ServerTest;

/** The demo shelf as a reviewer meets it. Ends its server afterwards: the other tests want an empty shelf. */
@ServerTest
@TestPropertySource(properties = {"yarrowmark.demo=true", "server.address=127.0.0.1"})
@DirtiesContext
class DemoTest {
    @LocalServerPort
    private int port;

    @Autowired
    private DemoLoader loader;

    @Autowired
    private JdbcTemplate sql;

    @Autowired
    private Environment environment;

    private Client reviewer;

    @BeforeEach
    void signIn() {
        reviewer = new Client(port);
        JsonNode known = reviewer.get("/api/access").body().path("demo");
        assertThat(reviewer.post(
                                "/api/access/sign-in",
                                Map.of(
                                        "name",
                                        known.path("name").asString(),
                                        "password",
                                        known.path("password").asString()))
                        .status())
                .isEqualTo(200);
    }

    @Test
    void theShelfHasModelsOfEveryClassFailuresGapsAndTwoReadingsSetAside() {
        JsonNode models = reviewer.get("/api/models?size=200").body();
        Set<String> classes = new HashSet<>();
        models.path("rows").forEach(m -> classes.add(m.path("deviceClass").asString()));
        assertThat(models.path("total").asInt()).isGreaterThanOrEqualTo(14);
        assertThat(classes).hasSize(6);
        assertThat(sql.queryForObject("select count(*) from configuration", Integer.class))
                .isGreaterThanOrEqualTo(20);
        assertThat(reviewer.get("/api/tests").body()).hasSizeGreaterThanOrEqualTo(11);
        assertThat(reviewer.get("/api/ledger?state=SET_ASIDE")
                        .body()
                        .path("total")
                        .asInt())
                .isEqualTo(2);
        assertThat(reviewer.get("/api/ledger?state=FAILED").body().path("total").asInt())
                .isPositive();
        assertThat(reviewer.get("/api/ledger?state=STOPPED")
                        .body()
                        .path("total")
                        .asInt())
                .isPositive();
        JsonNode rows = reviewer.get("/api/standings").body().path("rows");
        int whole = reviewer.get("/api/standings").body().path("metrics").size();
        assertThat(rows)
                .anyMatch(r -> r.path("tests").asInt() < whole)
                .anyMatch(r -> r.path("tests").asInt() == whole);
    }

    /** A newcomer sees what each suite gives, and what is published. */
    @Test
    void everySuiteThatComesWithTheProgramWasRunAndFourPagesArePublished() {
        assertThat(sql.queryForList(
                        "select concat(s.name, ' ', v.mode, ': ', t.name) from test t join suite_version v on v.id = t.suite_version_id join suite s on s.id = v.suite_id join metric x on x.test_id = t.id where s.built_in and t.retired_at is null and x.main and (x.formula is null or x.typed) group by s.name, v.mode, t.name having sum((select count(*) from sample p where p.metric_id = x.id)) = 0",
                        String.class))
                .isEmpty();
        String front = reviewer.get("/w").raw().body();
        assertThat(front)
                .contains(
                        "Two winters with the Drift 13",
                        "Three tablets in the rain",
                        "kernel by kernel",
                        "test by test");
        assertThat(sql.queryForObject(
                        "select count(*) from edition where page like '%class=\"on-phone\"%' and page like '%What these tests do%'",
                        Integer.class))
                .isPositive();
    }

    @Test
    void aUnitIsThereUnderSevenKernelsOnALadderAndAReferenceOnFourteenDays() {
        long cob = model("Cob mini");
        JsonNode kernels = trend(cob, "os.kernel");
        assertThat(kernels.path("steps")
                        .valueStream()
                        .map(s -> s.path("label").asString())
                        .distinct())
                .containsExactly("5.19", "6.1", "6.2", "6.4", "6.6", "6.8", "6.12");
        assertThat(kernels.path("gaps").get(0).path("words").asString()).isEqualTo("no driver for this kernel");
        assertThat(kernels.path("lines")
                        .valueStream()
                        .filter(l -> l.path("metric").path("test").asString().startsWith("Lantern"))
                        .flatMap(l -> l.path("steps").valueStream())
                        .filter(s -> s.path("marked").asBoolean())
                        .map(s -> kernels.path("steps")
                                .get(s.path("to").asInt())
                                .path("label")
                                .asString()))
                .as("one real jump")
                .contains("6.8");
        JsonNode ladder = trend(cob, "power.sustained_limit");
        assertThat(ladder.path("ladder").has("best")).isTrue();
        assertThat(ladder.path("sides")
                        .valueStream()
                        .map(s -> s.path("metric").path("test").asString()))
                .contains("Surface temperature", "Ten loops without a stop");
        JsonNode days = trend(model("Fell"), "date");
        assertThat(days.path("steps").size()).isGreaterThanOrEqualTo(14);
        assertThat(days.path("lines")
                        .valueStream()
                        .flatMap(l -> l.path("ranges").valueStream())
                        .filter(r -> r.path("outside").asBoolean())
                        .map(r -> days.path("steps")
                                .get(r.path("step").asInt())
                                .path("label")
                                .asString()))
                .as("one bad day")
                .contains("2026-10-19");
    }

    private long model(String name) {
        return reviewer.get("/api/models?q=" + name.replace(" ", "%20"))
                .body()
                .path("rows")
                .get(0)
                .path("id")
                .asLong();
    }

    private JsonNode trend(long model, String along) {
        return reviewer.get("/api/trends?model=" + model + "&along=" + along).body();
    }

    @Test
    void loadingAgainChangesNothing() {
        Integer before = sql.queryForObject("select count(*) from reading", Integer.class);
        loader.start();
        assertThat(sql.queryForObject("select count(*) from reading", Integer.class))
                .isEqualTo(before);
    }

    @Test
    void everyStoredSampleIsWhatItsCountedReadingsSay() {
        List<Map<String, Object>> stored =
                sql.queryForList("select s.*, m.direction, m.scale from sample s join metric m on m.id = s.metric_id");
        assertThat(stored).hasSizeGreaterThan(150);
        for (Map<String, Object> s : stored) {
            List<Measured> readings = sql.query(
                    """
                select r.value, r.resolution from reading r join run u on u.id = r.run_id
                left join set_aside a on a.reading_id = r.id and a.taken_back_at is null
                where r.configuration_id = ? and r.metric_id = ? and u.session_id = ? and a.id is null""",
                    (row, i) -> new Measured(row.getDouble(1), row.getDouble(2)),
                    s.get("configuration_id"),
                    s.get("metric_id"),
                    s.get("session_id"));
            SampleMoments expected = SampleMoments.of(
                    readings, Direction.valueOf((String) s.get("direction")), Scale.valueOf((String) s.get("scale")));
            assertThat(s.get("n")).isEqualTo(expected.n());
            assertThat((Double) s.get("mean")).isCloseTo(expected.mean(), within(1e-12));
            assertThat((Double) s.get("sum_squares")).isCloseTo(expected.sumSquares(), within(1e-12));
        }
    }

    @Test
    void lessIsBetterWhereThatIsSo() {
        long recount = 0;
        for (JsonNode test : reviewer.get("/api/tests").body()) {
            if (test.path("key").asString().equals("recount")) {
                recount = test.path("metrics").get(0).path("id").asLong();
            }
        }
        JsonNode rows = reviewer.get("/api/standings?metric=" + recount).body().path("rows");
        double first = rows.get(0).path("value").asDouble();
        double last = rows.get(rows.size() - 1).path("value").asDouble();
        assertThat(first).isLessThan(last);
    }

    @Test
    void anOpenAddressIsRefused() {
        org.assertj.core.api.Assertions.assertThatThrownBy(
                        () -> yarrowmark.server.access.DemoAddressCheck.check("0.0.0.0"))
                .hasMessageContaining("loopback");
        yarrowmark.server.access.DemoAddressCheck.check("127.0.0.1");
    }

    @Test
    void whatIsTakenAwayHasTheSameStandingsElsewhere(@TempDir Path directory) {
        String file = directory.resolve("lab.zip").toString();
        ByteArrayOutputStream said = new ByteArrayOutputStream();
        PrintStream says = new PrintStream(said, true, StandardCharsets.UTF_8);
        Map<String, String> here = Map.of(
                "YARROWMARK_DB_URL", require(environment.getProperty("YARROWMARK_DB_URL")),
                "YARROWMARK_DB_USER", require(environment.getProperty("YARROWMARK_DB_USER")),
                "YARROWMARK_DB_PASSWORD", require(environment.getProperty("YARROWMARK_DB_PASSWORD")));
        Map<String, String> there = new Schemas().environment();
        assertThat(LabCommand.run(here, YarrowmarkServer.class, says, "export", file))
                .as(said.toString())
                .isZero();
        assertThat(LabCommand.run(there, YarrowmarkServer.class, says, "import", file))
                .as(said.toString())
                .isZero();
        Map<String, Object> settings = new HashMap<>(there);
        settings.put("YARROWMARK_VAR", directory.toString());
        settings.put("server.port", 0);
        try (ConfigurableApplicationContext other = new SpringApplicationBuilder(YarrowmarkServer.class)
                .initializers(context -> TestPropertyValues.of(
                                settings.entrySet().stream().map(e -> e.getKey() + "=" + e.getValue()))
                        .applyTo(context))
                .run()) {
            Client owner =
                    Client.owner(Integer.parseInt(require(other.getEnvironment().getProperty("local.server.port"))));
            for (String question : List.of(
                    "/api/standings",
                    "/api/standings?deviceClass=LAPTOP",
                    "/api/models?size=200",
                    "/api/ledger?size=50&state=SET_ASIDE",
                    "/api/trends?model=" + modelNamed("Cob mini"))) {
                Client.Answer answer = owner.get(question);
                assertThat(answer.status()).as(question).isEqualTo(200);
                assertThat(answer.body())
                        .as(question)
                        .isEqualTo(reviewer.get(question).body());
            }
        }
    }

    private long modelNamed(String name) {
        for (JsonNode model : reviewer.get("/api/models?size=200").body().path("rows")) {
            if (model.path("name").asString().equals(name)) {
                return model.path("id").asLong();
            }
        }
        throw new AssertionError("the demo has no " + name);
    }
}
