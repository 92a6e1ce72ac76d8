package yarrowmark.server.ledger;

import jakarta.persistence.EntityManager;
import jakarta.persistence.TypedQuery;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.platform.Page;

/** Reads pages of the ledger, newest first. The joined features are named as entities only; their code is not used. */
@Service
class LedgerQuery {
    private static final String FROM = """
        from Run r join TestDefinition t on t.id = r.testId
        join Configuration c on c.id = r.configurationId join c.unit u join u.model m join m.maker k
        left join Reading rd on rd.runId = r.id left join Metric x on x.id = rd.metricId
        left join SetAside a on a.readingId = rd.id and a.takenBackAt is null""";
    /** Counting needs the joins of the filters only: the database then counts on an index. */
    private static final String COUNT_FROM = """
        from Run r left join Reading rd on rd.runId = r.id
        left join SetAside a on a.readingId = rd.id and a.takenBackAt is null""";

    private final EntityManager entities;

    LedgerQuery(EntityManager entities) {
        this.entities = entities;
    }

    @Transactional(readOnly = true)
    Page<LedgerRow> page(LedgerFilter filter, int page, int size) {
        Map<String, Object> values = new LinkedHashMap<>();
        String where = filter.where(values);
        TypedQuery<LedgerRow> rows = entities.createQuery("select new yarrowmark.server.ledger.LedgerRow("
            + "r.id, rd.id, r.sessionId, c.id, m.id, k.name, m.name, m.deviceClass, c.name, t.id, t.name, r.runNumber, r.attempt, "
            + "r.state, r.reason, r.reasonWords, r.finishedAt, r.person, x.id, x.name, rd.value, rd.resolution, x.unit, x.direction, x.kind, x.choices, a.reason) "
            + FROM + where + " order by r.finishedAt desc, r.id desc, rd.id", LedgerRow.class);
        TypedQuery<Long> count = entities.createQuery("select count(*) " + COUNT_FROM + where, Long.class);
        values.forEach((name, value) -> {
            rows.setParameter(name, value);
            count.setParameter(name, value);
        });
        return new Page<>(rows.setFirstResult(page * size).setMaxResults(size).getResultList(), page, size, count.getSingleResult());
    }

    @Transactional(readOnly = true)
    List<String> people() {
        return entities.createQuery("select distinct r.person from Run r where r.person is not null order by r.person", String.class).setMaxResults(500).getResultList();
    }
}
