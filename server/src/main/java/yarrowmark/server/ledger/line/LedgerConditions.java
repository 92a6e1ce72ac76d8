package yarrowmark.server.ledger.line;

import jakarta.persistence.EntityManager;
import jakarta.persistence.TypedQuery;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.shelf.search.ShelfIndex.FactCondition;
import yarrowmark.server.shelf.search.ShelfIndex.Relation;

/**
 * Turns a filter into a condition over the names that the ledger's queries share (r, rd, a). What is said of models,
 * facts and suites is looked up first: given the configurations and tests themselves, the database finds runs by its
 * indexes, and is a hundred times quicker than with the same said as subqueries.
 */
@Service
public class LedgerConditions {
    /**
     * What a filter means.
     *
     * @param parts  things that are asked for
     * @param values what the parameters stand for
     */
    public record Condition(List<String> parts, Map<String, Object> values) {
        public Condition {
            parts = List.copyOf(parts);
            values = Map.copyOf(values);
        }

        public boolean isEmpty() {
            return parts.isEmpty();
        }

        /** With the word "where" before it; empty where nothing is asked for. */
        public String where() {
            return parts.isEmpty() ? "" : " where " + String.join(" and ", parts);
        }

        /** The same and one thing more. */
        Condition and(String part) {
            List<String> all = new ArrayList<>(parts);
            all.add(part);
            return new Condition(all, values);
        }

        public <T> TypedQuery<T> bound(TypedQuery<T> query) {
            values.forEach(query::setParameter);
            return query;
        }
    }

    private final EntityManager entities;

    LedgerConditions(EntityManager entities) {
        this.entities = entities;
    }

    @Transactional(readOnly = true)
    public Condition of(LedgerFilter f) {
        Map<String, Object> values = new HashMap<>();
        List<String> conditions = new ArrayList<>();
        Set<Long> configurations = configurations(f);
        in("r.configurationId", "configurations", configurations, conditions, values);
        in("r.testId", "tests", tests(f), conditions, values);
        equal("r.sessionId", "session", f.session(), conditions, values);
        equal("r.person", "person", f.person(), conditions, values);
        in(
                "rd.id",
                "readings",
                f.readings() == null || f.readings().isEmpty() ? null : f.readings(),
                conditions,
                values);
        if (f.from() != null) {
            conditions.add("r.finishedAt >= :from");
            values.put("from", f.from().atTime(LocalTime.MIN).toInstant(ZoneOffset.UTC));
        }
        if (f.to() != null) {
            conditions.add("r.finishedAt < :to");
            values.put("to", f.to().plusDays(1).atTime(LocalTime.MIN).toInstant(ZoneOffset.UTC));
        }
        if (f.state() != null) {
            conditions.add(f.state().condition());
        }
        return new Condition(conditions, values);
    }

    /** @return null where any will do */
    private @Nullable Set<Long> configurations(LedgerFilter f) {
        Set<Long> found = null;
        if (f.configuration() != null) {
            found = Set.of(f.configuration());
        }
        if (f.model() != null) {
            found = both(
                    found,
                    entities.createQuery("select c.id from Configuration c where c.unit.model.id = :model", Long.class)
                            .setParameter("model", f.model())
                            .getResultList());
        }
        if (f.fact() != null) {
            found = both(
                    found,
                    ofFact(FactCondition.read(
                            f.fact(),
                            f.relation() == null ? Relation.KNOWN : f.relation(),
                            f.value() == null ? "" : f.value())));
        }
        return found;
    }

    private List<Long> ofFact(FactCondition f) {
        boolean known = f.relation() == Relation.KNOWN || f.value() == null;
        boolean is = f.relation() == Relation.IS;
        TypedQuery<Long> query = entities.createQuery(
                        "select f.configuration.id from Fact f where f.factKey = :fact"
                                + (known
                                        ? ""
                                        : is
                                                ? " and f.factValue = :value"
                                                : " and cast(f.factValue as double) "
                                                        + (f.relation() == Relation.AT_LEAST ? ">=" : "<=")
                                                        + " :value"),
                        Long.class)
                .setParameter("fact", f.key());
        if (!known) {
            query.setParameter("value", is ? f.value() : (Object) Double.valueOf(f.value()));
        }
        return query.getResultList();
    }

    private @Nullable Set<Long> tests(LedgerFilter f) {
        Set<Long> found = f.test() == null ? null : Set.of(f.test());
        return f.version() == null
                ? found
                : both(
                        found,
                        entities.createQuery(
                                        "select t.id from TestDefinition t where t.suiteVersion.id = :version",
                                        Long.class)
                                .setParameter("version", f.version())
                                .getResultList());
    }

    private static Set<Long> both(@Nullable Set<Long> before, List<Long> now) {
        Set<Long> both = new HashSet<>(now);
        if (before != null) {
            both.retainAll(before);
        }
        return both;
    }

    private static void in(
            String path, String name, @Nullable Set<Long> ids, List<String> conditions, Map<String, Object> values) {
        if (ids != null && ids.isEmpty()) {
            conditions.add("1 = 0");
        } else if (ids != null) {
            conditions.add(path + " in :" + name);
            values.put(name, ids);
        }
    }

    private static void equal(
            String path, String name, @Nullable Object value, List<String> conditions, Map<String, Object> values) {
        if (value != null) {
            conditions.add(path + " = :" + name);
            values.put(name, value);
        }
    }
}
