package yarrowmark.server.ledger.sample;

import static yarrowmark.server.platform.Require.require;

import jakarta.persistence.EntityManager;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.measure.Measured;
import yarrowmark.core.stats.Sample;
import yarrowmark.core.stats.SampleMoments;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.change.RecordsChanged;

/**
 * Keeps the table of samples true: each change of a configuration's counted readings recomputes the touched samples
 * from their readings, in the same transaction. A sample has few readings, so this is cheap, and no sum can drift. The
 * table holds the moments of each session by itself.
 */
@Service
public class Samples {
    private static final String COUNTED =
            " and not exists (select 1 from set_aside a where a.reading_id = rd.id and a.taken_back_at is null)";
    /** From so many metrics on, all of a configuration's readings are read. */
    private static final int MANY = 200;

    private final EntityManager entities;
    private final JdbcTemplate jdbc;
    private final ApplicationEventPublisher events;
    private final CountedSessions taken;

    Samples(EntityManager entities, JdbcTemplate jdbc, ApplicationEventPublisher events, CountedSessions taken) {
        this.taken = taken;
        this.events = events;
        this.jdbc = jdbc;
        this.entities = entities;
    }

    /** A stored sample with its place. */
    public record SampleRow(long configurationId, long metricId, Sample sample) {}

    /** Where the moments of a session belong. */
    private record Place(long metricId, long sessionId) {}

    /** Waits until no other transaction changes readings of this configuration. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void lock(long configurationId) {
        if (entities.createNativeQuery("select id from configuration where id = ? for update", Long.class)
                .setParameter(1, configurationId)
                .getResultList()
                .isEmpty()) {
            throw Problem.notFound("configuration", configurationId);
        }
    }

    /** Recomputes one sample. The caller holds the configuration's lock. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void refresh(long configurationId, MetricRow metric) {
        refreshAll(configurationId, List.of(metric));
    }

    /** What counts: readings of this metric on this configuration that are not set aside. */
    @Transactional(readOnly = true)
    public List<Measured> counted(long configurationId, long metricId) {
        return entities
                .createQuery(
                        """
                select r.value, r.resolution from Reading r where r.configurationId = :configurationId and r.metricId = :metricId
                and not exists (select 1 from SetAside a where a.readingId = r.id and a.takenBackAt is null)""",
                        Object[].class)
                .setParameter("configurationId", configurationId)
                .setParameter("metricId", metricId)
                .getResultList()
                .stream()
                .map(r -> new Measured((Double) r[0], (Double) r[1]))
                .toList();
    }

    /** Recomputes the samples of these metrics. The caller holds the configuration's lock. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void refreshAll(long configurationId, Collection<MetricRow> metrics) {
        if (metrics.isEmpty()) {
            return;
        }
        events.publishEvent((RecordsChanged) new SamplesChanged(
                configurationId, metrics.stream().map(MetricRow::suiteVersionId).collect(Collectors.toSet())));
        // Changes that were made through the entities are read past them here.
        entities.flush();
        Map<Long, MetricRow> wanted = metrics.stream().collect(Collectors.toMap(MetricRow::id, m -> m, (a, b) -> a));
        String which = wanted.size() > MANY
                ? ""
                : " and metric_id in ("
                        + wanted.keySet().stream().map(String::valueOf).collect(Collectors.joining(",")) + ")";
        Map<Place, List<Measured>> counted = countedBySession(configurationId, which);
        Set<Place> gone = new HashSet<>();
        jdbc.query(
                "select metric_id, session_id from sample where configuration_id = ?" + which,
                (java.sql.ResultSet row) -> {
                    Place place = new Place(row.getLong(1), row.getLong(2));
                    if (wanted.containsKey(place.metricId()) && !counted.containsKey(place)) {
                        gone.add(place);
                    }
                },
                configurationId);
        gone.forEach(p -> jdbc.update(
                "delete from sample where configuration_id = ? and metric_id = ? and session_id = ?",
                configurationId,
                p.metricId(),
                p.sessionId()));
        List<Object[]> rows = new ArrayList<>();
        counted.forEach((place, readings) -> {
            MetricRow metric = wanted.get(place.metricId());
            if (metric != null) {
                SampleMoments m = SampleMoments.of(readings, metric.direction(), metric.scale());
                rows.add(new Object[] {
                    configurationId,
                    metric.id(),
                    place.sessionId(),
                    m.n(),
                    m.mean(),
                    m.sumSquares(),
                    m.resolutionVariance()
                });
            }
        });
        if (!rows.isEmpty()) {
            jdbc.batchUpdate(
                    "insert into sample (configuration_id, metric_id, session_id, n, mean, sum_squares, resolution_variance) values (?, ?, ?, ?, ?, ?, ?) "
                            + "on duplicate key update n = values(n), mean = values(mean), sum_squares = values(sum_squares), resolution_variance = values(resolution_variance)",
                    rows);
        }
    }

    private Map<Place, List<Measured>> countedBySession(long configurationId, String which) {
        Map<Place, List<Measured>> counted = new HashMap<>();
        jdbc.query(
                "select rd.metric_id, r.session_id, rd.value, rd.resolution from reading rd join run r on r.id = rd.run_id where rd.configuration_id = ?"
                        + which.replace("metric_id", "rd.metric_id") + COUNTED,
                (java.sql.ResultSet row) -> {
                    counted.computeIfAbsent(new Place(row.getLong(1), row.getLong(2)), p -> new ArrayList<>())
                            .add(new Measured(row.getDouble(3), row.getDouble(4)));
                },
                configurationId);
        return counted;
    }

    /** What the samples of a configuration should be, by metric. */
    Map<Long, Sample> made(long configurationId, Map<Long, MetricRow> metrics) {
        Map<Long, List<Sample.OfSession>> made = new TreeMap<>();
        countedBySession(configurationId, "").forEach((place, readings) -> {
            MetricRow metric = require(metrics, place.metricId());
            made.computeIfAbsent(place.metricId(), m -> new ArrayList<>())
                    .add(new Sample.OfSession(
                            place.sessionId(), SampleMoments.of(readings, metric.direction(), metric.scale())));
        });
        return made.entrySet().stream().collect(Collectors.toMap(Map.Entry::getKey, e -> Sample.of(e.getValue())));
    }

    /** Every sample of these metrics, of the sessions that count by default. */
    @Transactional(readOnly = true)
    public List<SampleRow> ofMetrics(Collection<Long> metricIds) {
        return metricIds.isEmpty() ? List.of() : where("metric_id", metricIds, SessionSelection.USUAL);
    }

    /** Every sample of these configurations, of the sessions that count by default. */
    @Transactional(readOnly = true)
    public List<SampleRow> ofConfigurations(Collection<Long> configurationIds) {
        return ofConfigurations(configurationIds, SessionSelection.USUAL);
    }

    @Transactional(readOnly = true)
    public List<SampleRow> ofConfigurations(Collection<Long> configurationIds, SessionSelection take) {
        return configurationIds.isEmpty() ? List.of() : where("configuration_id", configurationIds, take);
    }

    private List<SampleRow> where(String column, Collection<Long> ids, SessionSelection take) {
        String numbers = ids.stream().map(String::valueOf).collect(Collectors.joining(","));
        return taken.of(SampleRows.read(jdbc, " where " + column + " in (" + numbers + ")"), take);
    }
}
