package yarrowmark.server.ledger.record;

import jakarta.persistence.EntityManager;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.ledger.sample.ConditionsChanged;
import yarrowmark.server.ledger.sample.Samples;
import yarrowmark.server.platform.change.RecordsChanged;
import yarrowmark.server.shelf.configuration.ConfigurationUse;
import yarrowmark.server.shelf.configuration.Configurations;

/** Puts the sessions of two configurations that turned out to be the same under one; no reading changes its value. */
@Service
public class Merging implements ConfigurationUse {
    private final EntityManager entities;
    private final Configurations configurations;
    private final Samples samples;
    private final ApplicationEventPublisher events;
    private final Catalog catalog;

    Merging(
            EntityManager entities,
            Configurations configurations,
            Samples samples,
            Catalog catalog,
            ApplicationEventPublisher events) {
        this.events = events;
        this.entities = entities;
        this.configurations = configurations;
        this.samples = samples;
        this.catalog = catalog;
    }

    @Override
    @Transactional(readOnly = true)
    public Map<Long, Integer> sessions(Collection<Long> configurationIds) {
        return entities
                .createQuery(
                        "select s.configurationId, count(s) from Session s where s.configurationId in :ids group by s.configurationId",
                        Object[].class)
                .setParameter("ids", configurationIds)
                .getResultList()
                .stream()
                .collect(Collectors.toMap(r -> (Long) r[0], r -> ((Number) r[1]).intValue()));
    }

    @Transactional
    public void merge(long from, long into, String person) {
        // In one order whatever is merged into what, so that two who do it at once wait for each other.
        samples.lock(Math.min(from, into));
        samples.lock(Math.max(from, into));
        configurations.checkSame(from, into);
        List<Long> metrics = entities.createQuery(
                        "select distinct r.metricId from Reading r where r.configurationId = :from", Long.class)
                .setParameter("from", from)
                .getResultList();
        // Past the entities on purpose: a reading never changes, only the way to the configuration of its session does.
        for (String table : List.of("session", "run", "reading")) {
            entities.createNativeQuery(
                            "update " + table + " set configuration_id = :into where configuration_id = :from")
                    .setParameter("into", into)
                    .setParameter("from", from)
                    .executeUpdate();
        }
        entities.clear();
        for (MetricRow metric : catalog.metrics()) {
            if (metrics.contains(metric.id())) {
                samples.refresh(from, metric);
                samples.refresh(into, metric);
            }
        }
        events.publishEvent((RecordsChanged) new ConditionsChanged());
        configurations.merged(from, into, person);
    }
}
