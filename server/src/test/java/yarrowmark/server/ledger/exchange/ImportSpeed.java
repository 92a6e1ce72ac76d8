package yarrowmark.server.ledger.exchange;

import java.nio.charset.StandardCharsets;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import org.springframework.boot.builder.SpringApplicationBuilder;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.transaction.support.TransactionTemplate;
import yarrowmark.server.YarrowmarkServer;
import yarrowmark.server.support.FreshSchema;

/** How many rows of CSV a second are taken in, and that of plain batched inserts of the same rows into one flat table. Run by bin/bench. */
public final class ImportSpeed {
    /** Whether only to see that it works: the smallest size that goes through everything. */
    private static final boolean SMALLEST = Boolean.getBoolean("yarrowmark.smallest");

    private static final int CONFIGURATIONS = SMALLEST ? 2 : 200;
    private static final int TESTS = 50;
    private static final int RUNS = 10;
    private static final int ROUNDS = SMALLEST ? 1 : 3;
    private static final int BATCH = 1_000;

    private ImportSpeed() {}

    public static void main(String[] arguments) {
        try (ConfigurableApplicationContext context = new SpringApplicationBuilder(YarrowmarkServer.class)
                .initializers(new FreshSchema())
                .run("--server.port=0")) {
            JdbcTemplate jdbc = context.getBean(JdbcTemplate.class);
            LedgerImport imports = context.getBean(LedgerImport.class);
            TransactionTemplate transaction = context.getBean(TransactionTemplate.class);
            System.out.printf(
                    "Import of %d readings on %d configurations%n", CONFIGURATIONS * TESTS * RUNS, CONFIGURATIONS);
            for (int round = 1; round <= ROUNDS; round++) {
                List<String[]> rows = rows(round);
                byte[] file = file(rows);
                long start = System.nanoTime();
                Steps steps = new Steps();
                LedgerImport.ImportOutcome outcome = imports.store(file, true, "bench", steps);
                double imported = rows.size() / ((System.nanoTime() - start) / 1e9);
                String words = steps.words();
                start = System.nanoTime();
                transaction.executeWithoutResult(t -> plain(jdbc, rows));
                double plain = rows.size() / ((System.nanoTime() - start) / 1e9);
                double shaped = rows.size() / transaction.execute(t -> sameShape(jdbc, outcome.readings()));
                System.out.printf(
                        Locale.ROOT,
                        "  round %d: %d readings stored of a file of %.1f MB; %.0f rows/s; plain inserts as run and reading %.0f rows/s, ratio %.2f; as one flat row without an index %.0f rows/s, ratio %.2f%s%s%n",
                        round,
                        outcome.readings(),
                        file.length / 1e6,
                        imported,
                        shaped,
                        imported / shaped,
                        plain,
                        imported / plain,
                        round == 1 ? " (cold)" : "",
                        words);
            }
        }
    }

    /** When each step began. */
    private static final class Steps extends ImportProgress {
        private final Map<Step, Long> began = new EnumMap<>(Step.class);

        @Override
        public void at(Step now, int nowDone, int nowOf) {
            began.putIfAbsent(now, System.nanoTime());
            if (now == Step.READING && nowDone == nowOf) {
                began.put(Step.DONE, System.nanoTime());
            }
            super.at(now, nowDone, nowOf);
        }

        String words() {
            double end = System.nanoTime();
            return String.format(
                    Locale.ROOT,
                    "; rows understood in %.1f s, what is new made in %.1f s, runs stored in %.1f s, samples and commit %.1f s",
                    (began.get(Step.DONE) - began.get(Step.READING)) / 1e9,
                    (began.get(Step.STORING) - began.get(Step.DONE)) / 1e9,
                    (began.get(Step.SAMPLES) - began.get(Step.STORING)) / 1e9,
                    (end - began.get(Step.SAMPLES)) / 1e9);
        }
    }

    private static final List<String> COLUMNS = List.of(
            "maker",
            "model",
            "class",
            "unit",
            "configuration",
            "fact:memory.size",
            "fact:os.name",
            "fact:processor.name",
            "fact:firmware.version",
            "suite",
            "version",
            "mode",
            "test",
            "metric",
            "measure unit",
            "direction",
            "session",
            "started",
            "run",
            "state",
            "value",
            "note");

    private static List<String[]> rows(int round) {
        Random random = new Random(round);
        List<String[]> rows = new ArrayList<>();
        for (int c = 0; c < CONFIGURATIONS; c++) {
            for (int t = 0; t < TESTS; t++) {
                for (int r = 1; r <= RUNS; r++) {
                    rows.add(new String[] {
                        "Quenby",
                        "Folio r" + round + " m" + c / 4,
                        "LAPTOP",
                        "Unit 1",
                        "firmware 1." + c % 4,
                        Long.toString(8L << 30),
                        "Fenland",
                        "Corvane " + c % 9,
                        "1." + c % 4,
                        "Speed r" + round,
                        "1",
                        "",
                        "Test " + t,
                        "Test " + t,
                        "MB/s",
                        "more",
                        "Bulk",
                        "2026-03-0" + (1 + c % 9) + "T09:10:00Z",
                        Integer.toString(r),
                        "ok",
                        String.format(Locale.ROOT, "%.2f", 100 + 900 * random.nextDouble()),
                        ""
                    });
                }
            }
        }
        return rows;
    }

    private static byte[] file(List<String[]> rows) {
        StringBuilder text = new StringBuilder(String.join(",", COLUMNS)).append("\r\n");
        rows.forEach(r -> text.append(String.join(",", r)).append("\r\n"));
        return text.toString().getBytes(StandardCharsets.UTF_8);
    }

    private static void plain(JdbcTemplate jdbc, List<String[]> rows) {
        StringBuilder columns = new StringBuilder();
        for (int i = 0; i < COLUMNS.size(); i++) {
            columns.append(i == 0 ? "" : ", ").append("c").append(i).append(" varchar(120)");
        }
        jdbc.execute("create table if not exists plain_row (id bigint auto_increment primary key, " + columns + ")");
        String insert = "insert into plain_row (" + columns.toString().replace(" varchar(120)", "") + ") values (?"
                + ",?".repeat(COLUMNS.size() - 1) + ")";
        for (int i = 0; i < rows.size(); i += BATCH) {
            jdbc.batchUpdate(
                    insert,
                    rows.subList(i, i + BATCH).stream().map(r -> (Object[]) r).toList());
        }
    }

    /** @return seconds for the rows that the import stored last, again, into tables of the same shape with the same indexes */
    private static double sameShape(JdbcTemplate jdbc, int readings) {
        List<Object[]> runs = jdbc.query(
                "select session_id, configuration_id, test_id, run_number, attempt, state, duration_ms, finished_at, person from run order by id desc limit "
                        + readings,
                (r, i) -> row(r, 9));
        List<Object[]> values = jdbc.query(
                "select run_id, metric_id, configuration_id, value, resolution from reading order by id desc limit "
                        + readings,
                (r, i) -> row(r, 5));
        for (String table : List.of("run", "reading")) {
            jdbc.execute("create table if not exists plain_" + table + " like " + table);
        }
        long start = System.nanoTime();
        for (int i = 0; i < runs.size(); i += BATCH) {
            jdbc.batchUpdate(
                    "insert into plain_run (session_id, configuration_id, test_id, run_number, attempt, state, duration_ms, finished_at, person) values (?,?,?,?,?,?,?,?,?)",
                    runs.subList(i, Math.min(runs.size(), i + BATCH)));
            jdbc.batchUpdate(
                    "insert into plain_reading (run_id, metric_id, configuration_id, value, resolution) values (?,?,?,?,?)",
                    values.subList(i, Math.min(values.size(), i + BATCH)));
        }
        return (System.nanoTime() - start) / 1e9;
    }

    private static Object[] row(ResultSet from, int columns) throws SQLException {
        Object[] row = new Object[columns];
        for (int i = 0; i < columns; i++) {
            row[i] = from.getObject(i + 1);
        }
        return row;
    }
}
