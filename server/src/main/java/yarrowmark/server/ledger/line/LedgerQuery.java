package yarrowmark.server.ledger.line;

import jakarta.persistence.EntityManager;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.ledger.line.LedgerConditions.Condition;
import yarrowmark.server.platform.Page;
import yarrowmark.server.platform.Problem;

/**
 * Reads pages of the ledger, newest first. First only which lines are on the page, then what belongs to them: to join
 * everything before it is known which fifty lines are wanted takes a hundred times as long. The joined features are
 * named as entities only; their code is not used.
 */
@Service
public class LedgerQuery {
    private static final int MOST_SORTED = 50_000;
    private static final String RUNS = "from Run r";
    private static final String READINGS = " left join Reading rd on rd.runId = r.id";
    private static final String ASIDES = " left join SetAside a on a.readingId = rd.id and a.takenBackAt is null";
    private static final String ALL = RUNS
            + """
         join TestDefinition t on t.id = r.testId
        join Configuration c on c.id = r.configurationId join c.unit u join u.model m join m.maker k
        left join Reading rd on rd.runId = r.id left join Metric x on x.id = rd.metricId
        left join SetAside a on a.readingId = rd.id and a.takenBackAt is null""";

    private final EntityManager entities;
    private final LedgerConditions conditions;

    LedgerQuery(EntityManager entities, LedgerConditions conditions) {
        this.entities = entities;
        this.conditions = conditions;
    }

    @Transactional(readOnly = true)
    public Page<LedgerRow> page(LedgerFilter filter, int page, int size) {
        return page(filter, LedgerOrder.TIME, true, page, size);
    }

    /** @param falling from the newest, the largest or the end of the alphabet */
    @Transactional(readOnly = true)
    public Page<LedgerRow> page(LedgerFilter filter, LedgerOrder order, boolean falling, int page, int size) {
        Condition condition = conditions.of(filter);
        LedgerState state = filter.state();
        boolean withReadings = state == null || state.isOfReadings() || filter.readings() != null;
        String from = RUNS + (withReadings ? READINGS : "") + (state != null && withReadings ? ASIDES : "");
        if (order != LedgerOrder.TIME) {
            long all = count(from, condition);
            if (all > MOST_SORTED) {
                throw Problem.invalid(
                        "too-many-to-sort",
                        "Only by time can " + all + " lines be sorted. Filter the ledger to at most " + MOST_SORTED
                                + " first.");
            }
            from = ALL;
            withReadings = true;
        }
        if (order == LedgerOrder.TIME && condition.isEmpty()) {
            return new Page<>(rows(unfiltered(falling, page, size)), page, size, count(from, condition));
        }
        // Where several things are asked for, few lines are left, and counting them in passing is half the work.
        boolean counted = condition.parts().size() > 1;
        List<Object[]> lines = condition
                .bound(entities.createQuery(
                        "select r.id, " + (withReadings ? "rd.id " : "0 ") + (counted ? ", count(*) over () " : "")
                                + from + condition.where() + order.orderBy(falling)
                                + (withReadings ? ", rd.id" : ""),
                        Object[].class))
                .setFirstResult(page * size)
                .setMaxResults(size)
                .getResultList();
        return new Page<>(
                rows(lines), page, size, counted && !lines.isEmpty() ? (Long) lines.get(0)[2] : count(from, condition));
    }

    /**
     * Every run is a line at least, so the first lines are those of as many runs at the most: only those are sorted with their
     * readings, not the whole ledger.
     */
    private List<Object[]> unfiltered(boolean falling, int page, int size) {
        String way = falling ? " desc" : " asc";
        String order = " order by r.finishedAt" + way + ", r.id" + way;
        return entities.createQuery(
                        "select r.id, rd.id from (select r.id as id, r.finishedAt as finishedAt from Run r" + order
                                + " limit " + (page + 1L) * size + ") r left join Reading rd on rd.runId = r.id" + order
                                + ", rd.id",
                        Object[].class)
                .setFirstResult(page * size)
                .setMaxResults(size)
                .getResultList();
    }

    private long count(String from, Condition condition) {
        if (condition.isEmpty()) {
            // Every reading is a line, and so is every run without one.
            return entities.createQuery("select count(*) from Reading rd", Long.class)
                            .getSingleResult()
                    + entities.createQuery("select count(*) from Run r where r.state <> OK", Long.class)
                            .getSingleResult();
        }
        return condition
                .bound(entities.createQuery("select count(*) " + from + condition.where(), Long.class))
                .getSingleResult();
    }

    /** @param lines ids of run and reading, in order; the reading's is null or 0 where there is none */
    private List<LedgerRow> rows(List<Object[]> lines) {
        if (lines.isEmpty()) {
            return List.of();
        }
        Map<List<Object>, Integer> order = new LinkedHashMap<>();
        lines.forEach(l -> order.put(List.of(l[0], l[1] instanceof Long reading ? reading : 0L), order.size()));
        return entities
                .createQuery(
                        "select new yarrowmark.server.ledger.line.LedgerRow("
                                + "r.id, rd.id, r.sessionId, c.id, m.id, k.name, m.name, m.deviceClass, c.name, t.id, t.name, r.runNumber, r.attempt, "
                                + "r.state, r.reason, r.reasonWords, r.finishedAt, r.person, x.id, x.name, rd.value, rd.resolution, x.unit, x.direction, x.kind, x.choices, a.reason, r.disturbed) "
                                + ALL + " where r.id in :runs",
                        LedgerRow.class)
                .setParameter(
                        "runs", lines.stream().map(l -> (Long) l[0]).distinct().toList())
                .getResultList()
                .stream()
                .filter(r -> order.containsKey(key(r)))
                .sorted(Comparator.comparing(r -> order.get(key(r))))
                .toList();
    }

    private static List<Object> key(LedgerRow row) {
        return List.of(row.runId(), Objects.requireNonNullElse(row.readingId(), 0L));
    }

    @Transactional(readOnly = true)
    List<String> people() {
        return entities.createQuery(
                        "select distinct r.person from Run r where r.person is not null order by r.person",
                        String.class)
                .setMaxResults(500)
                .getResultList();
    }
}
