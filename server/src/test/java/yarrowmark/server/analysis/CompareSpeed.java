package yarrowmark.server.analysis;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.springframework.boot.builder.SpringApplicationBuilder;
import org.springframework.boot.web.server.servlet.context.ServletWebServerApplicationContext;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.jdbc.core.JdbcTemplate;
import yarrowmark.server.YarrowmarkServer;
import yarrowmark.server.support.BareSamples;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.FreshSchema;

/** Eight configurations over 200 metrics, asked for through HTTP against a ledger of a million readings. Run by bin/bench. */
public final class CompareSpeed {
    /** Whether only to see that it works: the smallest size that goes through everything. */
    private static final boolean SMALLEST = Boolean.getBoolean("yarrowmark.smallest");

    private static final int CONFIGURATIONS = SMALLEST ? 20 : 1_000;
    private static final int TESTS = 200;
    private static final int RUNS = 5;
    private static final int ROUNDS = SMALLEST ? 12 : 800;
    /** Asked before anything is counted, until Java has compiled what is asked often. */
    private static final int BEFORE = 3 * ROUNDS / 4;

    private CompareSpeed() {}

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
                    "Compare: 8 configurations, %d metrics, against %d readings and %d samples%n",
                    TESTS,
                    jdbc.queryForObject("select count(*) from reading", Long.class),
                    jdbc.queryForObject("select count(*) from sample", Long.class));
            List<Double> ms = new ArrayList<>();
            List<Double> bare = new ArrayList<>();
            int lines = 0;
            int bytes = 0;
            for (int round = 0; round < ROUNDS; round++) {
                int first = 1 + round * 13 % (CONFIGURATIONS - 8);
                String others = IntStream.range(first + 1, first + 8)
                        .mapToObj(Integer::toString)
                        .collect(Collectors.joining(","));
                bare.add(BareSamples.read(jdbc, " where configuration_id in (" + first + "," + others + ")"));
                long start = System.nanoTime();
                String question = "/api/compare?base=" + first + "&with=" + others;
                // The whole answer is read; what a reader then makes of it is not the server's time.
                bytes = owner.bytes(question);
                ms.add((System.nanoTime() - start) / 1e6);
                if (round == 0) {
                    Client.Answer answer = owner.get(question);
                    if (answer.status() != 200) {
                        throw new IllegalStateException(answer.detail());
                    }
                    lines = answer.body().path("rows").size();
                }
            }
            System.out.printf(Locale.ROOT, "  the first, before any noise was lent: %.0f ms%n", ms.get(0));
            List<Double> later = new ArrayList<>(ms.subList(BEFORE, ms.size()));
            Collections.sort(later);
            System.out.printf(
                    Locale.ROOT,
                    "  later ones, %d lines in %d kB: median %.1f ms   95th percentile %.1f ms%n",
                    lines,
                    bytes / 1_000,
                    later.get(later.size() / 2),
                    later.get((int) (0.95 * (later.size() - 1))));
            bare = new ArrayList<>(bare.subList(BEFORE, bare.size()));
            Collections.sort(bare);
            System.out.printf(
                    Locale.ROOT,
                    "  bare SQL of their sample rows: median %.1f ms   ratio %.2f%n",
                    bare.get(bare.size() / 2),
                    later.get(later.size() / 2) / bare.get(bare.size() / 2));
        }
    }

    private static void fill(JdbcTemplate jdbc) {
        jdbc.update("insert into maker (id, name) values (1, 'Larkspur')");
        jdbc.update(
                "insert into model (id, maker_id, name, device_class, version) select seq, 1, concat('Wader ', seq), 'LAPTOP', 0 from seq_1_to_500");
        jdbc.update("insert into unit (id, model_id, label) select seq, seq, 'Unit 1' from seq_1_to_500");
        jdbc.update(
                "insert into configuration (id, unit_id, name, fingerprint, created_at) select seq, 1 + (seq mod 500), concat('firmware 1.', seq), sha2(seq, 256), utc_timestamp(3) from seq_1_to_"
                        + CONFIGURATIONS);
        jdbc.update(
                "insert into fact (configuration_id, fact_key, fact_value, source) select seq, 'os.name', if(seq mod 7 = 0, 'Sedge', 'Fenland'), 'TYPED' from seq_1_to_"
                        + CONFIGURATIONS);
        jdbc.update(
                "insert into session (id, configuration_id, plan_name, runs, timed_ms, state, started_at) select seq, seq, 'Bulk', 5, 0, 'DONE', '2026-01-01' from seq_1_to_"
                        + CONFIGURATIONS);
        long version = jdbc.queryForObject("select coalesce(max(id), 0) from suite_version", Long.class);
        long test = jdbc.queryForObject("select coalesce(max(id), 0) from test", Long.class);
        long metric = jdbc.queryForObject("select coalesce(max(id), 0) from metric", Long.class);
        String groups = "elt(1 + seq mod 5, 'PROCESSOR', 'GRAPHICS', 'STORAGE', 'BROWSER', 'MEMORY')";
        jdbc.update("insert into suite (id, name, built_in) select 100 + seq, concat('Bulk ', seq), 0 from seq_1_to_4");
        jdbc.update("insert into suite_version (id, suite_id, version) select " + version
                + " + seq, 100 + seq, '1' from seq_1_to_4");
        jdbc.update("insert into comparability_group (id, suite_version_id) select 100 + seq, " + version
                + " + seq from seq_1_to_4");
        jdbc.update(
                "insert into test (id, suite_version_id, comparability_group_id, test_key, name, summary, test_group, position) select "
                        + test + " + seq, " + version
                        + " + 1 + seq mod 4, 101 + seq mod 4, concat('bulk-', seq), concat('Bulk test ', seq), '', "
                        + groups + ", seq from seq_1_to_" + TESTS);
        jdbc.update("insert into metric (id, test_id, metric_key, name, unit, direction, scale, main) select " + metric
                + " + seq, " + test
                + " + seq, 'rate', concat('Bulk test ', seq), 'MB/s', 'MORE_IS_BETTER', 'RATIO', 1 from seq_1_to_"
                + TESTS);
        for (int run = 1; run <= RUNS; run++) {
            jdbc.update(
                    "insert into run (session_id, test_id, configuration_id, run_number, attempt, state, duration_ms, finished_at) select 1 + (seq - 1) div "
                            + TESTS + ", " + test + " + 1 + (seq - 1) mod " + TESTS + ", 1 + (seq - 1) div " + TESTS
                            + ", " + run + ", 1, 'OK', 3000, '2026-01-01' from seq_1_to_" + CONFIGURATIONS * TESTS);
        }
        jdbc.update("insert into reading (run_id, metric_id, configuration_id, value, resolution) select r.id, "
                + metric + " + r.test_id - " + test
                + ", r.configuration_id, 100 * exp(0.3 * rand(3) + r.configuration_id / 900) , 0.01 from run r where r.test_id > "
                + test);
        jdbc.update(
                "insert into sample (configuration_id, metric_id, session_id, n, mean, sum_squares, resolution_variance) select configuration_id, metric_id, 1, count(*), avg(ln(value)), var_pop(ln(value)) * count(*), avg(pow(resolution / value, 2)) / 12 from reading group by configuration_id, metric_id");
        jdbc.execute("analyze table sample, reading, run");
    }
}
