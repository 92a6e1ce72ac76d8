package yarrowmark.server.ledger.line;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.springframework.boot.builder.SpringApplicationBuilder;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.jdbc.core.JdbcTemplate;
import yarrowmark.server.YarrowmarkServer;
import yarrowmark.server.shelf.search.ShelfIndex.Relation;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.FreshSchema;

/** The server's time for a page of a ledger of a million readings under three filters. Run by bin/bench. */
public final class LedgerPageSpeed {
    /** Whether only to see that it works: the smallest size that goes through everything. */
    private static final boolean SMALLEST = Boolean.getBoolean("yarrowmark.smallest");

    private static final int READINGS = SMALLEST ? 12_000 : Integer.getInteger("yarrowmark.readings", 1_000_000);
    private static final int CONFIGURATIONS = SMALLEST ? 20 : Integer.getInteger("yarrowmark.configurations", 2_000);
    private static final int TESTS = 60;
    /** What is made here has numbers above this one, which nothing built in has. */
    public static final long PAST = 10_000;

    private static final LedgerFilter NO_FILTER =
            new LedgerFilter(null, null, null, null, null, null, null, null, null, null, null, null, null);

    private static final int ROUNDS = SMALLEST ? 4 : 12;

    private LedgerPageSpeed() {}

    public static void main(String[] arguments) {
        try (ConfigurableApplicationContext context = new SpringApplicationBuilder(YarrowmarkServer.class)
                .initializers(new FreshSchema())
                .run("--server.port=0")) {
            fill(context.getBean(JdbcTemplate.class));
            LedgerQuery query = context.getBean(LedgerQuery.class);
            MarkedLines marked = context.getBean(MarkedLines.class);
            System.out.printf(
                    "Ledger of %d readings on %d configurations, a page of 50 with its count and marks%n",
                    READINGS, CONFIGURATIONS);
            List<Double> all = new ArrayList<>();
            filters().forEach((name, filter) -> {
                List<Double> ms = new ArrayList<>();
                long total = 0;
                for (int round = 0; round < ROUNDS; round++) {
                    long start = System.nanoTime();
                    total = marked.marked(query.page(filter, round % 3, 50)).total();
                    if (round >= 2) {
                        ms.add((System.nanoTime() - start) / 1e6);
                    }
                }
                if (!filter.equals(NO_FILTER)) {
                    all.addAll(ms);
                }
                System.out.printf(
                        Locale.ROOT,
                        "  %-52s median %7.1f ms   95th percentile %7.1f ms   %d lines%n",
                        name,
                        quantile(ms, 0.5),
                        quantile(ms, 0.95),
                        total);
            });
            System.out.printf(
                    Locale.ROOT,
                    "  %-52s median %7.1f ms   95th percentile %7.1f ms%n",
                    "all with three filters",
                    quantile(all, 0.5),
                    quantile(all, 0.95));
            places(Integer.parseInt(
                    java.util.Objects.requireNonNull(context.getEnvironment().getProperty("local.server.port"))));
        }
    }

    /** Where a model stands in each test, the first time after a score came and again. */
    private static void places(int port) {
        Client owner = Client.owner(port);
        for (String when : List.of("the first time", "again")) {
            long start = System.nanoTime();
            int tests = owner.get("/api/models/17/places").body().size();
            System.out.printf(
                    Locale.ROOT,
                    "  places of a model in %d tests among %d configurations, %s: %.0f ms%n",
                    tests,
                    CONFIGURATIONS,
                    when,
                    (System.nanoTime() - start) / 1e6);
        }
    }

    private static Map<String, LedgerFilter> filters() {
        LocalDate from = LocalDate.of(2026, 3, 1);
        Map<String, LedgerFilter> filters = new LinkedHashMap<>();
        filters.put("the newest, without a filter", NO_FILTER);
        filters.put(
                "model, test, counted",
                new LedgerFilter(
                        17L,
                        null,
                        PAST + 5,
                        null,
                        LedgerState.COUNTED,
                        null,
                        null,
                        null,
                        null,
                        null,
                        null,
                        null,
                        null));
        filters.put(
                "suite, fact is, set aside",
                new LedgerFilter(
                        null,
                        null,
                        null,
                        null,
                        LedgerState.SET_ASIDE,
                        PAST + 2,
                        null,
                        null,
                        null,
                        "os.name",
                        Relation.IS,
                        "Sedge",
                        null));
        filters.put(
                "test, fact at least, person",
                new LedgerFilter(
                        null,
                        null,
                        PAST + 9,
                        null,
                        null,
                        null,
                        "wren",
                        null,
                        null,
                        "memory.size",
                        Relation.AT_LEAST,
                        "16 GB",
                        null));
        filters.put(
                "suite, dates, failed",
                new LedgerFilter(
                        null,
                        null,
                        null,
                        null,
                        LedgerState.FAILED,
                        PAST + 3,
                        null,
                        from,
                        from.plusDays(60),
                        null,
                        null,
                        null,
                        null));
        filters.put(
                "model, dates, person",
                new LedgerFilter(
                        211L, null, null, null, null, null, "wren", from, from.plusDays(200), null, null, null, null));
        filters.put(
                "fact is, dates, counted",
                new LedgerFilter(
                        null,
                        null,
                        null,
                        null,
                        LedgerState.COUNTED,
                        null,
                        null,
                        from,
                        from.plusDays(30),
                        "os.name",
                        Relation.IS,
                        "Sedge",
                        null));
        return filters;
    }

    private static double quantile(List<Double> ms, double share) {
        List<Double> sorted = new ArrayList<>(ms);
        Collections.sort(sorted);
        return sorted.get((int) Math.min(sorted.size() - 1, Math.round(share * (sorted.size() - 1))));
    }

    /** A ledger of that many readings; other benches measure beside it too. */
    public static void fill(JdbcTemplate jdbc) {
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
                "insert into fact (configuration_id, fact_key, fact_value, source) select seq, 'memory.size', cast(pow(2, 32 + seq mod 5) as unsigned), 'TYPED' from seq_1_to_"
                        + CONFIGURATIONS);
        jdbc.update(
                "insert into session (id, configuration_id, plan_name, runs, timed_ms, state, started_at) select seq, seq, 'Bulk', 3, 0, 'DONE', '2026-01-01' from seq_1_to_"
                        + CONFIGURATIONS);
        jdbc.update("insert into suite (id, name, built_in) select 100 + seq, concat('Bulk ', seq), 0 from seq_1_to_3");
        jdbc.update("insert into suite_version (id, suite_id, version) select " + PAST
                + " + seq, 100 + seq, '1' from seq_1_to_3");
        jdbc.update("insert into comparability_group (id, suite_version_id) select 100 + seq, " + PAST
                + " + seq from seq_1_to_3");
        // A bulk test and its metric share a number.
        jdbc.update(
                "insert into test (id, suite_version_id, comparability_group_id, test_key, name, summary, test_group, position) select seq, "
                        + PAST
                        + " + 1 + seq mod 3, 101 + seq mod 3, concat('t', seq), concat('Test ', seq), '', 'STORAGE', seq "
                        + "from seq_" + (PAST + 1) + "_to_" + (PAST + TESTS));
        jdbc.update(
                "insert into metric (id, test_id, metric_key, name, unit, direction, scale, main) select seq, seq, 'value', concat('Test ', seq), 'MB/s', 'MORE_IS_BETTER', 'RATIO', 1 from seq_"
                        + (PAST + 1) + "_to_" + (PAST + TESTS));
        jdbc.update(
                "insert into run (id, session_id, configuration_id, test_id, run_number, attempt, state, reason, duration_ms, finished_at, person) "
                        + "select seq, 1 + seq mod " + CONFIGURATIONS + ", 1 + seq mod " + CONFIGURATIONS + ", "
                        + (PAST + 1) + " + (seq div " + CONFIGURATIONS + ") mod " + TESTS + ", 1 + seq div "
                        + CONFIGURATIONS * TESTS + ", 1, if(seq mod 33 = 0, 'FAILED', 'OK'), "
                        + "if(seq mod 33 = 0, 'ERROR', null), 5000, date_add('2026-01-01', interval (seq * 7919) mod 28000000 second), if(seq mod 3 = 0, 'wren', null) from seq_1_to_"
                        + READINGS);
        jdbc.update(
                "insert into reading (id, run_id, metric_id, configuration_id, value, resolution) select id, id, test_id, configuration_id, 100 + (id * 31) mod 900, 0.1 from run where state = 'OK'");
        jdbc.update(
                "insert into set_aside (reading_id, reason, person, at) select id, 'An update ran', 'wren', utc_timestamp(3) from reading where id mod 50 = 0");
        jdbc.update(
                "insert into sample (configuration_id, metric_id, session_id, n, mean, sum_squares, resolution_variance) select rd.configuration_id, rd.metric_id, 1, count(*), avg(ln(value)), coalesce(var_pop(ln(value)), 0) * count(*), 0 "
                        + "from reading rd where not exists (select 1 from set_aside a where a.reading_id = rd.id) group by rd.configuration_id, rd.metric_id");
        jdbc.execute("analyze table run, reading, set_aside, sample, configuration, fact");
    }
}
