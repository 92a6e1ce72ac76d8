package yarrowmark.server.ledger;

import jakarta.persistence.EntityManager;
import jakarta.persistence.TypedQuery;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
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

    /** What is wanted; null means any. */
    record Filter(@Nullable Long model, @Nullable Long configuration, @Nullable Long test, @Nullable Long session,
                  @Nullable LedgerState state) { }

    private final EntityManager entities;

    LedgerQuery(EntityManager entities) {
        this.entities = entities;
    }

    @Transactional(readOnly = true)
    Page<LedgerRow> page(Filter filter, int page, int size) {
        Map<String, Object> values = new LinkedHashMap<>();
        String where = where(filter, values);
        TypedQuery<LedgerRow> rows = entities.createQuery("select new yarrowmark.server.ledger.LedgerRow("
            + "r.id, rd.id, r.sessionId, c.id, m.id, k.name, m.name, m.deviceClass, c.name, t.id, t.name, r.runNumber, r.attempt, "
            + "r.state, r.reason, r.reasonWords, r.finishedAt, x.name, rd.value, rd.resolution, x.unit, x.direction, a.reason) "
            + FROM + where + " order by r.finishedAt desc, r.id desc, rd.id", LedgerRow.class);
        TypedQuery<Long> count = entities.createQuery("select count(*) " + COUNT_FROM + where, Long.class);
        values.forEach((name, value) -> {
            rows.setParameter(name, value);
            count.setParameter(name, value);
        });
        return new Page<>(rows.setFirstResult(page * size).setMaxResults(size).getResultList(), page, size, count.getSingleResult());
    }

    /** The condition for a filter, over the names that the queries here share; its values are put into the map. */
    static String where(Filter filter, Map<String, Object> values) {
        List<String> conditions = new ArrayList<>();
        if (filter.model() != null) {
            conditions.add("r.configurationId in (select mc.id from Configuration mc where mc.unit.model.id = :model)");
            values.put("model", filter.model());
        }
        equal("r.configurationId", "configuration", filter.configuration(), conditions, values);
        equal("r.testId", "test", filter.test(), conditions, values);
        equal("r.sessionId", "session", filter.session(), conditions, values);
        if (filter.state() != null) {
            conditions.add(filter.state().condition());
        }
        return conditions.isEmpty() ? "" : " where " + String.join(" and ", conditions);
    }

    private static void equal(String path, String name, @Nullable Long value, List<String> conditions, Map<String, Object> values) {
        if (value != null) {
            conditions.add(path + " = :" + name);
            values.put(name, value);
        }
    }
}
