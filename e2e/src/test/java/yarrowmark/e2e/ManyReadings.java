package yarrowmark.e2e;

import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;

/** Fills a ledger from behind with what thousand other configurations scored in two hundred tests, five runs each. */
final class ManyReadings {
    /** Beyond whatever is there. */
    private static final long FROM = 1_000_000;

    private static final int TESTS = 200;
    private static final int RUNS = 5;

    private ManyReadings() {}

    /** @return how many readings there are now */
    static long into(Program program, int configurations) throws SQLException {
        String[] database = program.database();
        try (Connection connection = DriverManager.getConnection(database[0], database[1], database[2]);
                Statement sql = connection.createStatement()) {
            sql.execute("insert into maker (id, name) values (" + FROM + ", 'Bulk')");
            sql.execute("insert into model (id, maker_id, name, device_class, version) select " + FROM + " + seq, "
                    + FROM + ", concat('Wader ', seq), 'LAPTOP', 0 from seq_1_to_500");
            sql.execute("insert into unit (id, model_id, label) select " + FROM + " + seq, " + FROM
                    + " + seq, 'Unit 1' from seq_1_to_500");
            sql.execute(
                    "insert into configuration (id, unit_id, name, fingerprint, created_at) select " + FROM + " + seq, "
                            + FROM
                            + " + 1 + (seq mod 500), concat('firmware 1.', seq), sha2(seq, 256), utc_timestamp(3) from seq_1_to_"
                            + configurations);
            sql.execute(
                    "insert into session (id, configuration_id, plan_name, runs, timed_ms, state, started_at) select "
                            + FROM
                            + " + seq, " + FROM + " + seq, 'Bulk', 5, 0, 'DONE', '2026-01-01' from seq_1_to_"
                            + configurations);
            sql.execute("insert into suite (id, name, built_in) select " + FROM
                    + " + seq, concat('Bulk ', seq), 0 from seq_1_to_4");
            sql.execute("insert into suite_version (id, suite_id, version) select " + FROM + " + seq, " + FROM
                    + " + seq, '1' from seq_1_to_4");
            sql.execute("insert into comparability_group (id, suite_version_id) select " + FROM + " + seq, " + FROM
                    + " + seq from seq_1_to_4");
            sql.execute(
                    "insert into test (id, suite_version_id, comparability_group_id, test_key, name, summary, test_group, position) select "
                            + FROM + " + seq, " + FROM + " + 1 + seq mod 4, " + FROM
                            + " + 1 + seq mod 4, concat('bulk-', seq), concat('Bulk test ', seq), '', elt(1 + seq mod 5, 'PROCESSOR', 'GRAPHICS', 'STORAGE', 'BROWSER', 'MEMORY'), seq from seq_1_to_"
                            + TESTS);
            sql.execute(
                    "insert into metric (id, test_id, metric_key, name, unit, direction, scale, main) select " + FROM
                            + " + seq, " + FROM
                            + " + seq, 'rate', concat('Bulk test ', seq), 'MB/s', 'MORE_IS_BETTER', 'RATIO', 1 from seq_1_to_"
                            + TESTS);
            for (int run = 1; run <= RUNS; run++) {
                sql.execute(
                        "insert into run (session_id, test_id, configuration_id, run_number, attempt, state, duration_ms, finished_at) select "
                                + FROM + " + 1 + (seq - 1) div " + TESTS + ", " + FROM + " + 1 + (seq - 1) mod " + TESTS
                                + ", " + FROM + " + 1 + (seq - 1) div " + TESTS + ", " + run
                                + ", 1, 'OK', 3000, '2026-01-01' from seq_1_to_" + configurations * TESTS);
            }
            sql.execute(
                    "insert into reading (run_id, metric_id, configuration_id, value, resolution) select r.id, r.test_id, r.configuration_id, 100 * exp(0.3 * rand(3) + (r.configuration_id - "
                            + FROM + ") / 900), 0.01 from run r where r.test_id > " + FROM);
            sql.execute(
                    "insert into sample (configuration_id, metric_id, session_id, n, mean, sum_squares, resolution_variance) select configuration_id, metric_id, configuration_id, count(*), avg(ln(value)), var_pop(ln(value)) * count(*), avg(pow(resolution / value, 2)) / 12 from reading where metric_id > "
                            + FROM + " group by configuration_id, metric_id");
            sql.execute("analyze table sample, reading, run");
            try (ResultSet count = sql.executeQuery("select count(*) from reading")) {
                count.next();
                return count.getLong(1);
            }
        }
    }
}
