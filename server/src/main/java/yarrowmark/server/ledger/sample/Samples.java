package yarrowmark.server.ledger.sample;

import jakarta.persistence.EntityManager;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.measure.Measured;
import yarrowmark.core.stats.SampleMoments;
import yarrowmark.server.catalog.MetricRow;

/**
 * Keeps the table of samples true: each change of a configuration's counted readings recomputes the touched sample
 * from its readings, in the same transaction. A sample has few readings, so this is cheap, and no sum can drift.
 */
@Service
public class Samples {
    private final EntityManager entities;
    private final JdbcTemplate jdbc;
    private final ApplicationEventPublisher events;

    Samples(EntityManager entities, JdbcTemplate jdbc, ApplicationEventPublisher events) {
        this.events = events;
        this.jdbc = jdbc;
        this.entities = entities;
    }

    /** A stored sample with its place. */
    public record SampleRow(long configurationId, long metricId, SampleMoments moments) {}

    /** Waits until no other transaction changes readings of this configuration. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void lock(long configurationId) {
        entities.createNativeQuery("select id from configuration where id = ? for update", Long.class)
                .setParameter(1, configurationId)
                .getSingleResult();
    }

    /** Recomputes one sample. The caller holds the configuration's lock and has flushed its changes. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void refresh(long configurationId, MetricRow metric) {
        events.publishEvent(new SamplesChanged(configurationId, Set.of(metric.suiteVersionId())));
        List<Measured> counted = counted(configurationId, metric.id());
        Sample.Key key = new Sample.Key(configurationId, metric.id());
        if (counted.isEmpty()) {
            Sample gone = entities.find(Sample.class, key);
            if (gone != null) {
                entities.remove(gone);
            }
        } else {
            entities.merge(new Sample(key, SampleMoments.of(counted, metric.direction(), metric.scale())));
        }
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

    /** The same for many metrics at once, past the entities. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void refreshAll(long configurationId, Collection<MetricRow> metrics) {
        events.publishEvent(new SamplesChanged(
                configurationId, metrics.stream().map(MetricRow::suiteVersionId).collect(Collectors.toSet())));
        Map<Long, List<Measured>> counted = new HashMap<>();
        jdbc.query(
                "select metric_id, value, resolution from reading r where configuration_id = ? and not exists (select 1 from set_aside a where a.reading_id = r.id and a.taken_back_at is null)",
                (java.sql.ResultSet row) -> {
                    counted.computeIfAbsent(row.getLong(1), m -> new ArrayList<>())
                            .add(new Measured(row.getDouble(2), row.getDouble(3)));
                },
                configurationId);
        List<Object[]> rows = new ArrayList<>();
        for (MetricRow metric : metrics) {
            List<Measured> readings = counted.getOrDefault(metric.id(), List.of());
            if (readings.isEmpty()) {
                jdbc.update(
                        "delete from sample where configuration_id = ? and metric_id = ?",
                        configurationId,
                        metric.id());
            } else {
                SampleMoments m = SampleMoments.of(readings, metric.direction(), metric.scale());
                rows.add(new Object[] {
                    configurationId, metric.id(), m.n(), m.mean(), m.sumSquares(), m.resolutionVariance()
                });
            }
        }
        jdbc.batchUpdate(
                "insert into sample (configuration_id, metric_id, n, mean, sum_squares, resolution_variance) values (?, ?, ?, ?, ?, ?) "
                        + "on duplicate key update n = values(n), mean = values(mean), sum_squares = values(sum_squares), resolution_variance = values(resolution_variance)",
                rows);
    }

    /** Every sample of these metrics. */
    @Transactional(readOnly = true)
    public List<SampleRow> ofMetrics(Collection<Long> metricIds) {
        return metricIds.isEmpty() ? List.of() : where("s.key.metricId in :ids", metricIds);
    }

    /** Every sample of these configurations. */
    @Transactional(readOnly = true)
    public List<SampleRow> ofConfigurations(Collection<Long> configurationIds) {
        return configurationIds.isEmpty() ? List.of() : where("s.key.configurationId in :ids", configurationIds);
    }

    private List<SampleRow> where(String condition, Collection<Long> ids) {
        return entities
                .createQuery(
                        "select s.key.configurationId, s.key.metricId, s.n, s.mean, s.sumSquares, s.resolutionVariance from Sample s where "
                                + condition,
                        Object[].class)
                .setParameter("ids", ids)
                .getResultList()
                .stream()
                .map(r -> new SampleRow(
                        (Long) r[0],
                        (Long) r[1],
                        new SampleMoments((Integer) r[2], (Double) r[3], (Double) r[4], (Double) r[5])))
                .toList();
    }
}
