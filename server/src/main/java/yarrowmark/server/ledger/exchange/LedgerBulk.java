package yarrowmark.server.ledger.exchange;

import jakarta.persistence.EntityManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.Types;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.ConnectionCallback;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.ledger.record.ComputedValues;
import yarrowmark.server.ledger.record.PackedSamples;
import yarrowmark.server.ledger.record.Reason;
import yarrowmark.server.ledger.record.RunState;
import yarrowmark.server.ledger.record.SessionRepository;
import yarrowmark.server.ledger.sample.Samples;

/**
 * Stores many runs at once, past the entities: one by one, each with its sample, they come at 60 a second. Samples are
 * brought up to date once, at the end.
 */
@Service
class LedgerBulk {
    private static final int AT_ONCE = 1_000;

    /** @param asideReason why the reading does not count; null where it does. @param points of the series whose reading it is */
    record BulkReading(
            MetricRow metric, double value, double resolution, @Nullable String asideReason, List<Double> points) {}

    record BulkRun(
            long sessionId,
            long configurationId,
            long testId,
            int runNumber,
            int attempt,
            RunState state,
            @Nullable Reason reason,
            @Nullable String words,
            Instant finishedAt,
            List<BulkReading> readings) {}

    private final EntityManager entities;
    private final JdbcTemplate jdbc;
    private final Samples samples;
    private final ComputedValues computed;
    private final SessionRepository sessions;
    private final Catalog catalog;
    private final Clock clock;

    LedgerBulk(
            EntityManager entities,
            JdbcTemplate jdbc,
            Samples samples,
            ComputedValues computed,
            SessionRepository sessions,
            Catalog catalog,
            Clock clock) {
        this.entities = entities;
        this.jdbc = jdbc;
        this.samples = samples;
        this.computed = computed;
        this.sessions = sessions;
        this.catalog = catalog;
        this.clock = clock;
    }

    /** The caller has checked that every run fits its test. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void store(List<BulkRun> runs, String person, ImportProgress progress) {
        entities.flush();
        entities.clear();
        runs.stream().map(BulkRun::configurationId).distinct().sorted().forEach(samples::lock);
        // Everything these rows point to was read or made in this transaction, and the configurations are locked: to
        // look
        // each of seven keys up again for each row would take as long as all the rest.
        jdbc.execute("set session foreign_key_checks = 0");
        try {
            for (int i = 0; i < runs.size(); i += AT_ONCE) {
                progress.at(ImportProgress.Step.STORING, i, runs.size());
                storeSome(runs.subList(i, Math.min(runs.size(), i + AT_ONCE)), person);
            }
        } finally {
            jdbc.execute("set session foreign_key_checks = 1");
        }
        Map<Long, Map<Long, MetricRow>> touched = new TreeMap<>();
        runs.forEach(r -> r.readings().forEach(x -> touched.computeIfAbsent(r.configurationId(), c -> new TreeMap<>())
                .put(x.metric().id(), x.metric())));
        int done = 0;
        for (Map.Entry<Long, Map<Long, MetricRow>> of : touched.entrySet()) {
            progress.at(ImportProgress.Step.SAMPLES, done++, touched.size());
            samples.refreshAll(of.getKey(), of.getValue().values());
        }
        computeAnew(runs);
    }

    private void computeAnew(List<BulkRun> runs) {
        Set<Long> inputs = new HashSet<>();
        catalog.computed().forEach(m -> inputs.addAll(m.inputs().values()));
        if (inputs.isEmpty()) {
            return;
        }
        Map<Long, Set<Long>> touched = new TreeMap<>();
        runs.forEach(r -> r.readings().stream()
                .filter(x -> inputs.contains(x.metric().id()))
                .forEach(x -> touched.computeIfAbsent(r.sessionId(), s -> new HashSet<>())
                        .add(x.metric().id())));
        touched.forEach((session, metrics) ->
                computed.refresh(sessions.findById(session).orElseThrow(), metrics, clock.instant()));
    }

    private void storeSome(List<BulkRun> runs, String person) {
        List<Object> values = new ArrayList<>();
        for (BulkRun r : runs) {
            Collections.addAll(
                    values,
                    r.sessionId(),
                    r.configurationId(),
                    r.testId(),
                    r.runNumber(),
                    r.attempt(),
                    r.state().name(),
                    r.reason() == null ? null : r.reason().name(),
                    r.words(),
                    0,
                    utc(r.finishedAt()),
                    person);
        }
        List<Long> runIds = insert(
                "run (session_id, configuration_id, test_id, run_number, attempt, state, reason, reason_words, duration_ms, finished_at, person)",
                11,
                values);
        List<Object> readings = new ArrayList<>();
        List<BulkReading> flat = new ArrayList<>();
        for (int i = 0; i < runs.size(); i++) {
            for (BulkReading reading : runs.get(i).readings()) {
                Collections.addAll(
                        readings,
                        runIds.get(i),
                        reading.metric().id(),
                        runs.get(i).configurationId(),
                        reading.value(),
                        reading.resolution());
                flat.add(reading);
            }
        }
        List<Long> readingIds = readings.isEmpty()
                ? List.of()
                : insert("reading (run_id, metric_id, configuration_id, value, resolution)", 5, readings);
        List<Object[]> points = new ArrayList<>();
        for (int i = 0; i < flat.size(); i++) {
            double[] own = flat.get(i).points().stream()
                    .mapToDouble(Double::doubleValue)
                    .toArray();
            if (own.length > 0) {
                points.add(new Object[] {readingIds.get(i), own.length, PackedSamples.pack(own)});
            }
        }
        if (!points.isEmpty()) {
            jdbc.batchUpdate("insert into reading_samples (reading_id, points, packed) values (?, ?, ?)", points);
        }
        List<Object> asides = new ArrayList<>();
        for (int i = 0; i < flat.size(); i++) {
            if (flat.get(i).asideReason() != null) {
                Collections.addAll(asides, readingIds.get(i), flat.get(i).asideReason(), person, utc(clock.instant()));
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
        // Past the template's own way to set values: it asks the driver for the type of each null, which costs more
        // than the row.
        return jdbc.execute((ConnectionCallback<List<Long>>) connection -> {
            try (PreparedStatement statement =
                    connection.prepareStatement("insert into " + into + " values " + rows + " returning id")) {
                for (int i = 0; i < values.size(); i++) {
                    if (values.get(i) == null) {
                        statement.setNull(i + 1, Types.VARCHAR);
                    } else {
                        statement.setObject(i + 1, values.get(i));
                    }
                }
                List<Long> ids = new ArrayList<>(values.size() / columns);
                try (ResultSet made = statement.executeQuery()) {
                    while (made.next()) {
                        ids.add(made.getLong(1));
                    }
                }
                return ids;
            }
        });
    }
}
