package yarrowmark.server.platform.history;

import jakarta.persistence.EntityManager;
import jakarta.persistence.TypedQuery;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.namedparam.NamedParameterJdbcTemplate;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.platform.Page;

/** Who did what, over everything that keeps a history: by person, kind and time. */
@Service
class ActivityLog {
    /**
     * What one person changed at once of one thing.
     *
     * @param subject kind of the thing, such as "model"
     * @param name    what it is called; null where it is gone, or has no name
     * @param place   where in the program it is looked at
     * @param changes in words where the kind has words for its fields
     */
    record Doing(
            Instant at,
            String person,
            String subject,
            long subjectId,
            @Nullable String name,
            @Nullable String place,
            List<History.NotedChange> changes,
            @Nullable String undoneBy) {}

    /** @param people and subjects that are in the log, to choose from */
    record Log(Page<Doing> page, List<String> people, List<String> subjects) {}

    private final EntityManager entities;
    private final Map<String, Undoable> kinds;
    private final NamedParameterJdbcTemplate jdbc;
    private final Map<String, String> names = new HashMap<>();

    /** @param place address in the program */
    private record Named(String name, String place) {}

    ActivityLog(
            EntityManager entities, List<Undoable> kinds, List<SubjectNames> names, NamedParameterJdbcTemplate jdbc) {
        this.jdbc = jdbc;
        names.forEach(of -> this.names.putAll(of.queries()));
        this.entities = entities;
        this.kinds = kinds.stream().collect(Collectors.toMap(Undoable::subject, Function.identity()));
    }

    /** @param from first day. @param to last day, both in UTC. @param since what happened after this moment */
    record Asked(
            @Nullable String person,
            @Nullable String subject,
            @Nullable LocalDate from,
            @Nullable LocalDate to,
            @Nullable Instant since) {
        String where() {
            List<String> parts = new ArrayList<>(List.of("1 = 1"));
            if (person != null) {
                parts.add("e.person = :person");
            }
            if (subject != null) {
                parts.add("e.subject = :subject");
            }
            if (from != null) {
                parts.add("e.at >= :from");
            }
            if (to != null) {
                parts.add("e.at < :to");
            }
            if (since != null) {
                parts.add("e.at > :since");
            }
            return String.join(" and ", parts);
        }

        <T> TypedQuery<T> into(TypedQuery<T> query) {
            if (person != null) {
                query.setParameter("person", person);
            }
            if (subject != null) {
                query.setParameter("subject", subject);
            }
            if (since != null) {
                query.setParameter("since", since);
            }
            if (from != null) {
                query.setParameter("from", from.atStartOfDay(ZoneOffset.UTC).toInstant());
            }
            if (to != null) {
                query.setParameter(
                        "to", to.plusDays(1).atStartOfDay(ZoneOffset.UTC).toInstant());
            }
            return query;
        }
    }

    private record Key(long set, String subject, long id) {}

    @Transactional(readOnly = true)
    Log log(Asked asked, int page, int size) {
        // Sets are numbered as they begin, so their index has the newest ones at its end.
        List<Object[]> keys = asked.into(entities.createQuery(
                        "select distinct e.changeSet, e.subject, e.subjectId from ChangeEntry e where " + asked.where()
                                + " order by e.changeSet desc, e.subject desc, e.subjectId desc",
                        Object[].class))
                .setFirstResult(page * size)
                .setMaxResults(size)
                .getResultList();
        Map<Key, List<ChangeEntry>> entries = new LinkedHashMap<>();
        keys.forEach(k -> entries.put(new Key((Long) k[0], (String) k[1], (Long) k[2]), new ArrayList<>()));
        if (!entries.isEmpty()) {
            entities.createQuery(
                            "select e from ChangeEntry e where e.changeSet in :sets order by e.id", ChangeEntry.class)
                    .setParameter(
                            "sets", entries.keySet().stream().map(Key::set).collect(Collectors.toSet()))
                    .getResultList()
                    .forEach(e -> entries.computeIfPresent(new Key(e.changeSet, e.subject, e.subjectId), (k, all) -> {
                        all.add(e);
                        return all;
                    }));
        }
        long total = asked.into(entities.createQuery(
                        "select count(*) from (select e.changeSet as a, e.subject as b, e.subjectId as c from ChangeEntry e where "
                                + asked.where()
                                + " group by e.changeSet, e.subject, e.subjectId) s",
                        Long.class))
                .getSingleResult();
        Map<String, Map<Long, Named>> named = entries.keySet().stream()
                .collect(Collectors.groupingBy(Key::subject, Collectors.mapping(Key::id, Collectors.toSet())))
                .entrySet()
                .stream()
                .collect(Collectors.toMap(Map.Entry::getKey, e -> named(e.getKey(), e.getValue())));
        return new Log(
                new Page<>(
                        entries.entrySet().stream()
                                .map(e -> shown(
                                        e.getValue(),
                                        named.getOrDefault(e.getKey().subject(), Map.of())
                                                .get(e.getKey().id())))
                                .toList(),
                        page,
                        size,
                        total),
                entities.createQuery("select distinct e.person from ChangeEntry e order by e.person", String.class)
                        .getResultList(),
                entities.createQuery("select distinct e.subject from ChangeEntry e order by e.subject", String.class)
                        .getResultList());
    }

    private Map<Long, Named> named(String subject, Collection<Long> ids) {
        Map<Long, Named> found = new HashMap<>();
        String query = names.get(subject);
        if (query != null) {
            jdbc.query(query, Map.of("ids", ids), row -> {
                found.put(row.getLong(1), new Named(row.getString(2), row.getString(3)));
            });
        }
        return found;
    }

    private Doing shown(List<ChangeEntry> entries, @Nullable Named named) {
        ChangeEntry first = entries.get(0);
        Undoable kind = kinds.get(first.subject);
        return new Doing(
                first.at,
                first.person,
                first.subject,
                first.subjectId,
                named == null ? null : named.name(),
                named == null ? null : named.place(),
                entries.stream().map(e -> History.noted(kind, e)).toList(),
                first.undoneBy);
    }
}
