package yarrowmark.server.ledger;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.catalog.MetricRow;

/**
 * Stores many runs at once, past the entities: one by one, each with its sample, they come at 60 a second. Samples are
 * brought up to date once, at the end.
 */
@Service
class LedgerBulk {
    private static final int AT_ONCE = 1_000;

    /** @param asideReason why the reading does not count; null where it does */
    record BulkRun(long sessionId, long configurationId, MetricRow metric, Ledger.NewRun run, @Nullable String asideReason) { }

    private final EntityManager entities;
    private final JdbcTemplate jdbc;
    private final Samples samples;
    private final Clock clock;

    LedgerBulk(EntityManager entities, JdbcTemplate jdbc, Samples samples, Clock clock) {
        this.entities = entities;
        this.jdbc = jdbc;
        this.samples = samples;
        this.clock = clock;
    }

    /** The caller has checked that every run fits its test. Each has one reading of the metric, or none. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void store(List<BulkRun> runs, String person) {
        entities.flush();
        runs.stream().map(BulkRun::configurationId).distinct().sorted().forEach(samples::lock);
        for (int i = 0; i < runs.size(); i += AT_ONCE) {
            storeSome(runs.subList(i, Math.min(runs.size(), i + AT_ONCE)), person);
        }
        Map<Long, Map<Long, MetricRow>> touched = new LinkedHashMap<>();
        runs.stream().filter(r -> !r.run().readings().isEmpty()).forEach(r -> touched.computeIfAbsent(r.configurationId(), c -> new LinkedHashMap<>()).put(r.metric().id(), r.metric()));
        touched.forEach((configuration, metrics) -> {
            metrics.values().forEach(metric -> samples.refresh(configuration, metric));
            entities.flush();
            // A long list of stored things would be looked through again with every new one.
            entities.clear();
        });
    }

    private void storeSome(List<BulkRun> runs, String person) {
        List<Object> values = new ArrayList<>();
        for (BulkRun r : runs) {
            Ledger.NewRun n = r.run();
            Collections.addAll(values, r.sessionId(), r.configurationId(), n.testId(), n.runNumber(), n.attempt(), n.state().name(), n.reason() == null ? null : n.reason().name(),
                n.reasonWords(), n.durationMs(), utc(n.finishedAt()));
        }
        List<Long> runIds = insert("run (session_id, configuration_id, test_id, run_number, attempt, state, reason, reason_words, duration_ms, finished_at)", 10, values);
        List<Object> readings = new ArrayList<>();
        List<BulkRun> withReading = new ArrayList<>();
        for (int i = 0; i < runs.size(); i++) {
            BulkRun r = runs.get(i);
            if (!r.run().readings().isEmpty()) {
                Ledger.NewReading reading = r.run().readings().get(0);
                Collections.addAll(readings, runIds.get(i), r.metric().id(), r.configurationId(), reading.value(), reading.resolution());
                withReading.add(r);
            }
        }
        List<Long> readingIds = readings.isEmpty() ? List.of() : insert("reading (run_id, metric_id, configuration_id, value, resolution)", 5, readings);
        List<Object> asides = new ArrayList<>();
        for (int i = 0; i < withReading.size(); i++) {
            if (withReading.get(i).asideReason() != null) {
                Collections.addAll(asides, readingIds.get(i), withReading.get(i).asideReason(), person, utc(clock.instant()));
            }
        }
        if (!asides.isEmpty()) {
            insert("set_aside (reading_id, reason, person, at)", 4, asides);
        }
    }

    /** Times are kept in UTC, wherever the server stands. */
    private static LocalDateTime utc(Instant at) {
        return LocalDateTime.ofInstant(at, ZoneOffset.UTC);
    }

    /** @return the ids in the order of the rows */
    private List<Long> insert(String into, int columns, List<Object> values) {
        String row = "(" + String.join(",", Collections.nCopies(columns, "?")) + ")";
        String rows = Collections.nCopies(values.size() / columns, row).stream().collect(Collectors.joining(","));
        return jdbc.queryForList("insert into " + into + " values " + rows + " returning id", Long.class, values.toArray());
    }
}
