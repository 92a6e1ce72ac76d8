package yarrowmark.server.standing;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import org.springframework.boot.builder.SpringApplicationBuilder;
import org.springframework.boot.web.server.servlet.context.ServletWebServerApplicationContext;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.jdbc.core.JdbcTemplate;
import yarrowmark.server.YarrowmarkServer;
import yarrowmark.server.catalog.DirectCatalogWrites;
import yarrowmark.server.ledger.sample.DirectWrites;
import yarrowmark.server.support.BareSamples;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.FreshSchema;

/**
 * A standing of 2,000 configurations × 60 metrics, a fifth of them missing, asked for through HTTP after each new reading,
 * so that nothing is kept; beside the bare SQL that reads the same rows. Run by bin/bench.
 */
public final class StandingsSpeed {
    /** Whether only to see that it works: the smallest size that goes through everything. */
    private static final boolean SMALLEST = Boolean.getBoolean("yarrowmark.smallest");

    private static final int CONFIGURATIONS = SMALLEST ? 40 : 2_000;
    private static final int TESTS = 60;
    private static final int ROUNDS = SMALLEST ? 3 : 30;
    private static final int WARM = SMALLEST ? 1 : 8;

    private StandingsSpeed() {}

    public static void main(String[] arguments) {
        try (ConfigurableApplicationContext context = new SpringApplicationBuilder(YarrowmarkServer.class)
                .initializers(new FreshSchema())
                .run("--server.port=0")) {
            JdbcTemplate jdbc = context.getBean(JdbcTemplate.class);
            fill(jdbc);
            Client owner = Client.owner(((ServletWebServerApplicationContext) context)
                    .getWebServer()
                    .getPort());
            System.out.printf(
                    "Standings: %d configurations, %d metrics, %d samples%n",
                    CONFIGURATIONS, TESTS, jdbc.queryForObject("select count(*) from sample", Long.class));
            long session = owner.post(
                            "/api/sessions",
                            java.util.Map.of(
                                    "configurationId",
                                    7,
                                    "name",
                                    "Bench",
                                    "testIds",
                                    List.of(jdbc.queryForObject("select max(id) from test", Long.class)),
                                    "runs",
                                    ROUNDS))
                    .body()
                    .path("session")
                    .path("id")
                    .asLong();
            long test = jdbc.queryForObject("select max(id) from test", Long.class);
            List<Double> bare = new ArrayList<>();
            List<Double> answers = new ArrayList<>();
            List<Double> again = new ArrayList<>();
            List<Double> why = new ArrayList<>();
            int bytes = 0;
            for (int round = 0; round < ROUNDS; round++) {
                bare.add(BareSamples.read(jdbc, ""));
                Client.Answer typed = owner.post(
                        "/api/sessions/" + session + "/scores",
                        java.util.Map.of(
                                "testId",
                                test,
                                "run",
                                1 + round,
                                "text",
                                Integer.toString(100 + round),
                                "byStopwatch",
                                false));
                if (typed.status() != 200) {
                    throw new IllegalStateException(typed.detail());
                }
                long start = System.nanoTime();
                bytes = owner.bytes("/api/standings");
                answers.add((System.nanoTime() - start) / 1e6);
                start = System.nanoTime();
                owner.bytes("/api/standings");
                again.add((System.nanoTime() - start) / 1e6);
                if (owner.get("/api/standings").body().path("rows").size() != CONFIGURATIONS) {
                    throw new IllegalStateException("not everything is ranked");
                }
                start = System.nanoTime();
                owner.get("/api/standings/why?configuration=" + (1 + round * 13));
                why.add((System.nanoTime() - start) / 1e6);
            }
            long start = System.nanoTime();
            owner.get("/api/standings/firmness");
            double firmness = (System.nanoTime() - start) / 1e6;
            thousandSuites(jdbc);
            DirectCatalogWrites.tell(context);
            start = System.nanoTime();
            context.getBean(org.springframework.transaction.support.TransactionTemplate.class)
                    .executeWithoutResult(t -> java.util.stream.LongStream.rangeClosed(1, 10)
                            .forEach(id -> DirectWrites.tell(context, id)));
            Client.Answer many = owner.get("/api/standings?group=BODY");
            if (many.status() != 200) {
                throw new IllegalStateException(many.detail());
            }
            System.out.printf(
                    Locale.ROOT,
                    "  a thousand suites of one test each on ten configurations: %d rows, %.0f ms%n",
                    many.body().path("rows").size(),
                    (System.nanoTime() - start) / 1e6);
            System.out.printf(
                    Locale.ROOT,
                    "  bare SQL of the same rows: median %.1f ms%n  after a new reading: median %.1f ms   95th percentile %.1f ms   ratio %.2f   %d bytes%n  the same question again: median %.1f ms%n  why: median %.1f ms   a thousand weightings: %.0f ms%n",
                    at(bare, 0.5),
                    at(answers, 0.5),
                    at(answers, 0.95),
                    at(answers, 0.5) / at(bare, 0.5),
                    bytes,
                    at(again, 0.5),
                    at(why, 0.5),
                    firmness);
        }
    }

    /** To the last byte, without making anything of it: that is the browser's work. */
    private static double at(List<Double> ms, double share) {
        List<Double> later = new ArrayList<>(ms.subList(WARM, ms.size()));
        Collections.sort(later);
        return later.get((int) (share * (later.size() - 1)));
    }

    /** Past the program, which mirrors samples and must be told. */
    private static void thousandSuites(JdbcTemplate jdbc) {
        long test = jdbc.queryForObject("select max(id) from test", Long.class);
        long metric = jdbc.queryForObject("select max(id) from metric", Long.class);
        long version = jdbc.queryForObject("select max(id) from suite_version", Long.class);
        jdbc.update(
                "insert into suite (id, name, built_in) select 1000 + seq, concat('Many ', seq), 0 from seq_1_to_1000");
        jdbc.update("insert into suite_version (id, suite_id, version) select " + version
                + " + seq, 1000 + seq, '1' from seq_1_to_1000");
        jdbc.update("insert into comparability_group (id, suite_version_id) select 1000 + seq, " + version
                + " + seq from seq_1_to_1000");
        jdbc.update(
                "insert into test (id, suite_version_id, comparability_group_id, test_key, name, summary, test_group, position) select "
                        + test + " + seq, " + version
                        + " + seq, 1000 + seq, 'only', concat('Many test ', seq), '', 'BODY', 1 from seq_1_to_1000");
        jdbc.update("insert into metric (id, test_id, metric_key, name, unit, direction, scale, main) select " + metric
                + " + seq, " + test
                + " + seq, 'rate', concat('Many test ', seq), 'MB/s', 'MORE_IS_BETTER', 'RATIO', 1 from seq_1_to_1000");
        jdbc.update(
                "insert into sample (configuration_id, metric_id, session_id, n, mean, sum_squares, resolution_variance) select c.seq, "
                        + metric
                        + " + m.seq, 1, 3, 4 + 0.3 * sin(c.seq), 0.0002, 1e-8 from seq_1_to_10 c join seq_1_to_1000 m");
    }

    private static void fill(JdbcTemplate jdbc) {
        jdbc.update("insert into maker (id, name) values (1, 'Larkspur')");
        jdbc.update(
                "insert into model (id, maker_id, name, device_class, price, currency, released, version) select seq, 1, concat('Wader ', seq), elt(1 + seq mod 3, 'LAPTOP', 'TABLET', 'PHONE'), 300 + seq, 'EUR', '2025-03-01', 0 from seq_1_to_1000");
        jdbc.update("insert into unit (id, model_id, label) select seq, seq, 'Unit 1' from seq_1_to_1000");
        jdbc.update(
                "insert into configuration (id, unit_id, name, fingerprint, created_at) select seq, 1 + (seq mod 1000), concat('firmware 1.', seq), sha2(seq, 256), utc_timestamp(3) from seq_1_to_"
                        + CONFIGURATIONS);
        jdbc.update(
                "insert into fact (configuration_id, fact_key, fact_value, source) select seq, 'firmware.version', concat('1.', seq div 1000), 'TYPED' from seq_1_to_"
                        + CONFIGURATIONS);
        jdbc.update(
                "insert into fact (configuration_id, fact_key, fact_value, source) select seq, 'memory.size', 8589934592, 'TYPED' from seq_1_to_"
                        + CONFIGURATIONS);
        long version = jdbc.queryForObject("select coalesce(max(id), 0) from suite_version", Long.class);
        long test = jdbc.queryForObject("select coalesce(max(id), 0) from test", Long.class);
        long metric = jdbc.queryForObject("select coalesce(max(id), 0) from metric", Long.class);
        jdbc.update("insert into suite (id, name, built_in) select 100 + seq, concat('Bulk ', seq), 0 from seq_1_to_4");
        jdbc.update("insert into suite_version (id, suite_id, version) select " + version
                + " + seq, 100 + seq, '1' from seq_1_to_4");
        jdbc.update("insert into comparability_group (id, suite_version_id) select 100 + seq, " + version
                + " + seq from seq_1_to_4");
        jdbc.update(
                "insert into test (id, suite_version_id, comparability_group_id, test_key, name, summary, test_group, position) select "
                        + test + " + seq, " + version
                        + " + 1 + seq mod 4, 101 + seq mod 4, concat('bulk-', seq), concat('Bulk test ', seq), '', elt(1 + seq mod 5, 'PROCESSOR', 'GRAPHICS', 'STORAGE', 'BROWSER', 'MEMORY'), seq from seq_1_to_"
                        + TESTS);
        jdbc.update("insert into metric (id, test_id, metric_key, name, unit, direction, scale, main) select " + metric
                + " + seq, " + test
                + " + seq, 'rate', concat('Bulk test ', seq), 'MB/s', 'MORE_IS_BETTER', 'RATIO', 1 from seq_1_to_"
                + TESTS);
        jdbc.update(
                "insert into sample (configuration_id, metric_id, session_id, n, mean, sum_squares, resolution_variance) select c.seq, "
                        + metric
                        + " + m.seq, c.seq, 3, 4 + 0.3 * sin(c.seq) + 0.05 * rand(5), 0.0002 * rand(6), 1e-8 from seq_1_to_"
                        + CONFIGURATIONS + " c join seq_1_to_" + TESTS + " m where rand(7) < 0.8");
        // One configuration in ten was measured on a second day.
        jdbc.update(
                "insert into sample (configuration_id, metric_id, session_id, n, mean, sum_squares, resolution_variance) select configuration_id, metric_id, 100000 + session_id, 3, mean + 0.01 * (rand(8) - 0.5), 0.0002 * rand(9), 1e-8 from sample where configuration_id mod 10 = 0 and metric_id > "
                        + metric);
        jdbc.execute("analyze table sample, fact, configuration");
    }
}
