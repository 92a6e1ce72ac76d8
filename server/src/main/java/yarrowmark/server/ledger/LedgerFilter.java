package yarrowmark.server.ledger;

import jakarta.validation.constraints.Size;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import yarrowmark.server.shelf.ShelfIndex.FactCondition;
import yarrowmark.server.shelf.ShelfIndex.Relation;

/**
 * Which lines of the ledger are wanted; null means any.
 *
 * @param version  of a suite
 * @param person   who carried it out
 * @param from     first day, in UTC
 * @param to       last day, in UTC
 * @param fact     of the configuration, with how it relates to the value as a person writes it
 * @param relation how
 * @param value    to what
 */
record LedgerFilter(@Nullable Long model, @Nullable Long configuration, @Nullable Long test, @Nullable Long session, @Nullable LedgerState state, @Nullable Long version,
                    @Nullable @Size(max = 80) String person, @Nullable LocalDate from, @Nullable LocalDate to, @Nullable @Size(max = 80) String fact, @Nullable Relation relation,
                    @Nullable @Size(max = 200) String value) {

    /** The condition, over the names that the ledger's queries share (r, rd, a); its values are put into the map. */
    String where(Map<String, Object> values) {
        List<String> conditions = new ArrayList<>();
        if (model != null) {
            conditions.add("r.configurationId in (select mc.id from Configuration mc where mc.unit.model.id = :model)");
            values.put("model", model);
        }
        equal("r.configurationId", "configuration", configuration, conditions, values);
        equal("r.testId", "test", test, conditions, values);
        equal("r.sessionId", "session", session, conditions, values);
        equal("r.person", "person", person, conditions, values);
        if (version != null) {
            conditions.add("r.testId in (select vt.id from TestDefinition vt where vt.suiteVersion.id = :version)");
            values.put("version", version);
        }
        if (from != null) {
            conditions.add("r.finishedAt >= :from");
            values.put("from", from.atTime(LocalTime.MIN).toInstant(ZoneOffset.UTC));
        }
        if (to != null) {
            conditions.add("r.finishedAt < :to");
            values.put("to", to.plusDays(1).atTime(LocalTime.MIN).toInstant(ZoneOffset.UTC));
        }
        if (fact != null) {
            conditions.add("r.configurationId in (select f.configuration.id from Fact f where f.factKey = :fact" + factCondition(values) + ")");
            values.put("fact", fact);
        }
        if (state != null) {
            conditions.add(state.condition());
        }
        return conditions.isEmpty() ? "" : " where " + String.join(" and ", conditions);
    }

    private String factCondition(Map<String, Object> values) {
        FactCondition read = FactCondition.read(fact, relation == null ? Relation.KNOWN : relation, value == null ? "" : value);
        if (read.relation() == Relation.KNOWN || read.value() == null) {
            return "";
        }
        boolean is = read.relation() == Relation.IS;
        values.put("factValue", is ? read.value() : (Object) Double.valueOf(read.value()));
        return is ? " and f.factValue = :factValue" : " and cast(f.factValue as double) " + (read.relation() == Relation.AT_LEAST ? ">=" : "<=") + " :factValue";
    }

    private static void equal(String path, String name, @Nullable Object value, List<String> conditions, Map<String, Object> values) {
        if (value != null) {
            conditions.add(path + " = :" + name);
            values.put(name, value);
        }
    }
}
