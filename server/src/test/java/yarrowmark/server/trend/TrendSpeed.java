package yarrowmark.server.trend;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import org.springframework.boot.builder.SpringApplicationBuilder;
import org.springframework.boot.web.server.servlet.context.ServletWebServerApplicationContext;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.jdbc.core.JdbcTemplate;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.YarrowmarkServer;
import yarrowmark.server.ledger.line.LedgerPageSpeed;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.FreshSchema;

/** The time of a trend of 60 steps and 30 tests with five runs each, through HTTP, beside a ledger of a million readings. Run by bin/bench. */
public final class TrendSpeed {
    private static final boolean SMALLEST = Boolean.getBoolean("yarrowmark.smallest");
    private static final int STEPS = SMALLEST ? 3 : 60;
    private static final int TESTS = 30;
    private static final int ROUNDS = SMALLEST ? 3 : 140;
    private static final int WARM = SMALLEST ? 1 : 40;
    private static final long FIRST = 100_000;

    private TrendSpeed() {}

    public static void main(String[] arguments) {
        try (ConfigurableApplicationContext context = new SpringApplicationBuilder(YarrowmarkServer.class)
                .initializers(new FreshSchema())
                .run("--server.port=0")) {
            JdbcTemplate jdbc = context.getBean(JdbcTemplate.class);
            LedgerPageSpeed.fill(jdbc);
            fill(jdbc);
            Client owner = Client.owner(((ServletWebServerApplicationContext) context)
                    .getWebServer()
                    .getPort());
            List<Double> answers = new ArrayList<>();
            for (int round = 0; round < ROUNDS; round++) {
                long start = System.nanoTime();
                JsonNode trend =
                        owner.get("/api/trends?along=os.kernel&model=" + FIRST).body();
                double ms = (System.nanoTime() - start) / 1e6;
                if (trend.path("steps").size() != STEPS || trend.path("lines").size() != TESTS) {
                    throw new IllegalStateException(
                            "not the whole trend: " + trend.path("steps").size() + " steps, "
                                    + trend.path("lines").size() + " tests");
                }
                if (round >= WARM) {
                    answers.add(ms);
                }
            }
            Collections.sort(answers);
            System.out.printf(
                    Locale.ROOT,
                    "Trend of %d steps and %d tests, five runs each, through HTTP: median %.1f ms, 95th percentile %.1f ms%n",
                    STEPS,
                    TESTS,
                    answers.get(answers.size() / 2),
                    answers.get((int) Math.round(0.95 * (answers.size() - 1))));
        }
    }

    private static void fill(JdbcTemplate jdbc) {
        jdbc.update(
                "insert into model (id, maker_id, name, device_class, version) values (?, 1, 'Long way', 'MINI', 0)",
                FIRST);
        jdbc.update("insert into unit (id, model_id, label) values (?, ?, 'Unit 1')", FIRST, FIRST);
        String steps = " from seq_1_to_" + STEPS;
        jdbc.update(
                "insert into configuration (id, unit_id, name, fingerprint, created_at) select " + FIRST + " + seq, "
                        + FIRST + ", concat('kernel 6.', seq), sha2(concat('k', seq), 256), utc_timestamp(3)" + steps);
        jdbc.update("insert into fact (configuration_id, fact_key, fact_value, source) select " + FIRST
                + " + seq, 'os.kernel', concat('6.', seq), 'TYPED'" + steps);
        jdbc.update("insert into session (id, configuration_id, plan_name, runs, timed_ms, state, started_at) select "
                + FIRST + " + seq, " + FIRST + " + seq, 'Bulk', 5, 0, 'DONE', date_add('2026-02-01', interval seq day)"
                + steps);
        jdbc.update(
                "insert into sample (configuration_id, metric_id, session_id, n, mean, sum_squares, resolution_variance) select "
                        + FIRST + " + s.seq, " + LedgerPageSpeed.PAST + " + t.seq, " + FIRST
                        + " + s.seq, 5, 5 + 0.001 * s.seq + 0.004 * sin(s.seq * t.seq), 4e-4, 0 from seq_1_to_" + STEPS
                        + " s join seq_1_to_" + TESTS + " t");
    }
}
