package yarrowmark.server.platform.records;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static yarrowmark.server.platform.Require.require;

import java.nio.file.Path;
import java.sql.SQLException;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicInteger;
import javax.sql.DataSource;
import net.ttddyy.dsproxy.ExecutionInfo;
import net.ttddyy.dsproxy.QueryInfo;
import net.ttddyy.dsproxy.listener.QueryExecutionListener;
import net.ttddyy.dsproxy.support.ProxyDataSourceBuilder;
import org.flywaydb.core.Flyway;
import org.flywaydb.core.api.MigrationInfo;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.boot.builder.SpringApplicationBuilder;
import org.springframework.boot.test.util.TestPropertyValues;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import yarrowmark.server.YarrowmarkServer;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.health.DiskSpace;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.EveryTable;
import yarrowmark.server.support.Schemas;

/** Updates of the records that are cut off, on a real database with records of an earlier version. */
@Timeout(600)
class SchemaUpdateTest {
    private static final String BEFORE = "13";

    private final Schemas schemas = new Schemas();
    private final SchemaUpdate update = new SchemaUpdate(new DiskSpace(() -> new DiskSpace.Room(1L << 40, 1L << 41)));

    /** The machine loses power at one of the statements: that one and all later ones never arrive. */
    private static DataSource lostAt(DataSource source, int statement) {
        AtomicInteger count = new AtomicInteger();
        return ProxyDataSourceBuilder.create(source)
                .listener(new QueryExecutionListener() {
                    @Override
                    public void beforeQuery(ExecutionInfo execution, List<QueryInfo> queries) {
                        if (count.incrementAndGet() > statement) {
                            throw new IllegalStateException("the power is gone");
                        }
                    }

                    @Override
                    public void afterQuery(ExecutionInfo execution, List<QueryInfo> queries) {
                        // Only what is sent counts.
                    }
                })
                .build();
    }

    private void cutOffAt(int statement) {
        try {
            update.migrate(flyway(lostAt(schemas.source(), statement)));
        } catch (RuntimeException lost) {
            assertThat(lost).hasStackTraceContaining("the power is gone");
        }
        // Its connections go with it, and the locks they hold.
        JdbcTemplate jdbc = schemas.jdbc();
        jdbc.queryForList(
                        "select id from information_schema.processlist where db like concat(database(), '%') and id <> connection_id()",
                        Long.class)
                .forEach(id -> jdbc.execute("kill " + id));
    }

    private static Flyway flyway(DataSource source) {
        return Flyway.configure()
                .dataSource(source)
                .locations("classpath:db/migration")
                .load();
    }

    @BeforeEach
    void recordsOfAnEarlierVersion() {
        schemas.migrate(BEFORE);
        JdbcTemplate jdbc = schemas.jdbc();
        jdbc.update("insert into maker (id, name) values (1, 'Pellow')");
        jdbc.update(
                "insert into model (id, maker_id, name, device_class, version) values (7, 1, 'Drift 11', 'LAPTOP', 0)");
        jdbc.update(
                "insert into person (name, role, password_hash) values ('wren', 'OWNER', 'x'), ('reed', 'OWNER', 'x')");
    }

    private void isWholeAndOfTheNewestForm() {
        JdbcTemplate jdbc = schemas.jdbc();
        assertThat(flyway(schemas.source()).info().pending()).isEmpty();
        assertThat(jdbc.queryForList(
                        "select m.id, m.name, k.name maker from model m join maker k on k.id = m.maker_id"))
                .isEqualTo(List.of(Map.of("id", 7L, "name", "Drift 11", "maker", "Pellow")));
        assertThat(jdbc.queryForList("select name from person where role = 'OWNER'", String.class))
                .containsExactly("wren");
        // What tables refer to came along.
        assertThatThrownBy(() -> jdbc.update(
                        "insert into model (maker_id, name, device_class, version) values (99, 'x', 'LAPTOP', 0)"))
                .hasMessageContaining("foreign key");
        assertThat(
                        jdbc.queryForList(
                                "select schema_name from information_schema.schemata where schema_name = concat(database(), '_before')"))
                .as("the copy is gone")
                .isEmpty();
    }

    @ParameterizedTest
    @ValueSource(ints = {3, 40, 150, 197, 208, 215, 222, 233, 250})
    void anUpdateThatIsCutOffIsDoneAtTheNextStart(int statement) {
        cutOffAt(statement);
        update.migrate(flyway(schemas.source()));
        isWholeAndOfTheNewestForm();
    }

    @Test
    void onePuttingBackThatIsCutOffTooIsDoneAtTheOneAfter() {
        for (int statement : new int[] {230, 20, 60, 120}) {
            cutOffAt(statement);
        }
        update.migrate(flyway(schemas.source()));
        isWholeAndOfTheNewestForm();
    }

    @Test
    void recordsOfANewerProgramAreLeftAlone() {
        update.migrate(flyway(schemas.source()));
        schemas.jdbc()
                .update(
                        "insert into flyway_schema_history select max(installed_rank) + 1, '9001', 'from the future', 'SQL', 'V9001__from_the_future.sql', 1, 'x', now(), 1, 1 from flyway_schema_history");
        assertThatThrownBy(() -> update.migrate(flyway(schemas.source())))
                .isInstanceOf(SchemaUpdate.RecordsAreNewer.class)
                .hasMessageContaining("9001")
                .hasMessageContaining("newer Yarrowmark");
    }

    @Test
    void withoutRoomForACopyNothingIsBegun() {
        SchemaUpdate full = new SchemaUpdate(new DiskSpace(() -> new DiskSpace.Room(1 << 20, 1L << 40)));
        assertThatThrownBy(() -> full.migrate(flyway(schemas.source())))
                .isInstanceOf(Problem.class)
                .hasMessageContaining("copy of the records");
        assertThat(flyway(schemas.source()).info().pending()).isNotEmpty();
    }

    @Test
    void aDatabaseThatAnswersNothingIsSaidToBeAway() {
        DataSource away = lostAt(schemas.source(), 0);
        assertThatThrownBy(() -> update.migrate(flyway(away))).hasStackTraceContaining("the power is gone");
        assertThat(RecordsTrouble.of(
                                new IllegalStateException(new SQLException("no", "HY000", 1114)),
                                new DiskSpace.Room(1L << 40, 1L << 40))
                        .code())
                .isEqualTo(RecordsTrouble.FULL);
    }

    /** From the first form that was ever published, each next one with a row in every table that it has. */
    @Test
    void recordsOfEveryFormComeToTheNewestAndTheServerReadsThem(@TempDir Path directory) {
        Schemas old = new Schemas();
        Map<String, List<String>> filled = new LinkedHashMap<>();
        for (MigrationInfo form : flyway(old.source()).info().all()) {
            String version = require(form.getVersion()).getVersion();
            old.migrate(version);
            filled.put(version, EveryTable.fill(old.jdbc()));
        }
        assertThat(filled.get("1")).contains("reading", "run", "session", "seat", "person");
        JdbcTemplate jdbc = old.jdbc();
        filled.values().stream().flatMap(List::stream).forEach(table -> assertThat(
                        jdbc.queryForObject("select count(*) from `" + table + "`", Integer.class))
                .as(table)
                .isEqualTo(1));
        Map<String, Object> settings = new HashMap<>(old.environment());
        settings.put("YARROWMARK_VAR", directory.toString());
        settings.put("server.port", 0);
        jdbc.update(
                "update person set password_hash = ?",
                "{bcrypt}" + new BCryptPasswordEncoder(4).encode(Client.PASSWORD));
        try (ConfigurableApplicationContext server = new SpringApplicationBuilder(YarrowmarkServer.class)
                .initializers(context -> TestPropertyValues.of(
                                settings.entrySet().stream().map(e -> e.getKey() + "=" + e.getValue()))
                        .applyTo(context))
                .run()) {
            Client wren = Client.owner(
                    Integer.parseInt(require(server.getEnvironment().getProperty("local.server.port"))));
            for (String question : List.of(
                    "/api/models",
                    "/api/models/1",
                    "/api/configurations/1",
                    "/api/ledger",
                    "/api/sessions/1",
                    "/api/standings",
                    "/api/plans",
                    "/api/tests",
                    "/api/purposes",
                    "/api/bench",
                    "/api/people",
                    "/api/doings",
                    "/api/ledger/csv")) {
                Client.Answer answer = wren.get(question);
                assertThat(answer.status()).as(question + " " + answer.detail()).isEqualTo(200);
            }
            assertThat(wren.get("/api/ledger")
                            .body()
                            .path("rows")
                            .get(0)
                            .path("value")
                            .asDouble())
                    .isEqualTo(1.0 / 3);
        }
    }
}
