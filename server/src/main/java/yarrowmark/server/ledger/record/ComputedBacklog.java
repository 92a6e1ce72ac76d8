package yarrowmark.server.ledger.record;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentSkipListMap;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;
import yarrowmark.server.catalog.ComputedAdded;
import yarrowmark.server.catalog.ComputedMetrics;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.ledger.sample.Samples;
import yarrowmark.server.platform.records.AfterCommitQueue;

/**
 * Computes a value that was added today for the sessions of before, a few at a time beside all other work. What is not done
 * when the program ends is done after its next start: computing twice gives the same.
 */
@Service
public class ComputedBacklog {
    private static final int AT_ONCE = 20;

    /** How far one value is. @param done sessions of all that have any of its inputs */
    public record Backlog(long metricId, String test, long suiteVersionId, int done, int of) {}

    private final ComputedMetrics computedMetrics;
    private final ComputedValues computed;
    private final Samples samples;
    private final SessionRepository sessions;
    private final AfterCommitQueue queue;
    private final EntityManager entities;
    private final TransactionTemplate transaction;
    private final Clock clock;
    private final Map<Long, Backlog> going = new ConcurrentSkipListMap<>();

    ComputedBacklog(
            ComputedMetrics computedMetrics,
            ComputedValues computed,
            Samples samples,
            SessionRepository sessions,
            AfterCommitQueue queue,
            EntityManager entities,
            PlatformTransactionManager transactions,
            Clock clock) {
        this.computedMetrics = computedMetrics;
        this.computed = computed;
        this.samples = samples;
        this.sessions = sessions;
        this.queue = queue;
        this.entities = entities;
        this.transaction = new TransactionTemplate(transactions);
        this.clock = clock;
    }

    /** Values that are being computed for sessions of before. */
    public List<Backlog> going() {
        return List.copyOf(going.values());
    }

    @EventListener
    void added(ComputedAdded event) {
        queue.afterCommit(event, this::begin);
    }

    @EventListener(ApplicationReadyEvent.class)
    void started() {
        queue.afterCommit(ComputedBacklog.class, this::begin);
    }

    private void begin() {
        for (MetricRow metric : computedMetrics.behind()) {
            if (!going.containsKey(metric.id())) {
                int of = Math.toIntExact(count(metric.inputs().values()));
                going.put(metric.id(), new Backlog(metric.id(), metric.test(), metric.suiteVersionId(), 0, of));
                goOn(metric, 0);
            }
        }
    }

    private void goOn(MetricRow metric, long after) {
        queue.afterCommit(List.of(metric.id(), after), () -> {
            try {
                step(metric, after);
            } catch (RuntimeException e) {
                // It stays behind, and is begun anew with the next value that is added, or at the next start.
                going.remove(metric.id());
                throw e;
            }
        });
    }

    private void step(MetricRow metric, long after) {
        List<Long> next = next(metric.inputs().values(), after);
        next.forEach(session -> transaction.executeWithoutResult(s -> compute(session, metric)));
        if (next.size() == AT_ONCE) {
            going.computeIfPresent(
                    metric.id(),
                    (id, b) -> new Backlog(
                            id, b.test(), b.suiteVersionId(), Math.min(b.of(), b.done() + AT_ONCE), b.of()));
            goOn(metric, next.get(AT_ONCE - 1));
        } else {
            computedMetrics.caughtUp(metric.id());
            going.remove(metric.id());
        }
    }

    private void compute(long sessionId, MetricRow metric) {
        sessions.findById(sessionId).ifPresent(session -> {
            samples.lock(session.configurationId());
            computed.refresh(session, metric.inputs().values(), clock.instant());
        });
    }

    private static final String THOSE =
            " from Reading rd join Run r on r.id = rd.runId where rd.metricId in :inputs and r.sessionId > :after";

    private long count(Collection<Long> inputs) {
        return transaction.execute(s -> entities.createQuery("select count(distinct r.sessionId)" + THOSE, Long.class)
                .setParameter("inputs", inputs)
                .setParameter("after", 0L)
                .getSingleResult());
    }

    private List<Long> next(Collection<Long> inputs, long after) {
        return transaction.execute(
                s -> entities.createQuery("select distinct r.sessionId" + THOSE + " order by r.sessionId", Long.class)
                        .setParameter("inputs", inputs)
                        .setParameter("after", after)
                        .setMaxResults(AT_ONCE)
                        .getResultList());
    }
}
