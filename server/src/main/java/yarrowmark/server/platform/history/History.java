package yarrowmark.server.platform.history;

import static yarrowmark.server.platform.Require.require;

import jakarta.persistence.EntityManager;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.platform.Page;
import yarrowmark.server.platform.Problem;

/** Reads the change log, and takes the last change of a record back. */
@Service
class History {
    /** One value that changed, as it is shown. */
    record NotedChange(String field, @Nullable String from, @Nullable String to, @Nullable String reason) {}

    /**
     * What one person changed at once.
     *
     * @param undoneBy who took it back
     * @param undo     whether this change itself takes an earlier one back
     * @param last     whether it is the one that can be taken back now, as far as the log tells
     */
    record ChangeSet(
            String id,
            Instant at,
            String person,
            List<NotedChange> changes,
            @Nullable String undoneBy,
            boolean undo,
            boolean last) {}

    private final EntityManager entities;
    private final ChangeLog log;
    private final Map<String, Undoable> kinds;

    History(EntityManager entities, ChangeLog log, List<Undoable> kinds) {
        this.entities = entities;
        this.log = log;
        this.kinds = kinds.stream().collect(Collectors.toMap(Undoable::subject, Function.identity()));
    }

    @Transactional(readOnly = true)
    Page<ChangeSet> of(String subject, long id, int page, int size) {
        List<Long> sets = entities.createQuery(
                        """
                select e.changeSet from ChangeEntry e where e.subject = :subject and e.subjectId = :id
                group by e.changeSet order by max(e.id) desc""",
                        Long.class)
                .setParameter("subject", subject)
                .setParameter("id", id)
                .setFirstResult(page * size)
                .setMaxResults(size)
                .getResultList();
        long total = entities.createQuery(
                        "select count(distinct e.changeSet) from ChangeEntry e where e.subject = :subject and e.subjectId = :id",
                        Long.class)
                .setParameter("subject", subject)
                .setParameter("id", id)
                .getSingleResult();
        Map<Long, List<ChangeEntry>> entries = new LinkedHashMap<>();
        sets.forEach(s -> entries.put(s, new ArrayList<>()));
        if (!sets.isEmpty()) {
            entities.createQuery(
                            "select e from ChangeEntry e where e.subject = :subject and e.subjectId = :id and e.changeSet in :sets order by e.id",
                            ChangeEntry.class)
                    .setParameter("subject", subject)
                    .setParameter("id", id)
                    .setParameter("sets", sets)
                    .getResultList()
                    .forEach(e -> require(entries, e.changeSet).add(e));
        }
        Long last = last(subject, id);
        return new Page<>(
                entries.entrySet().stream()
                        .map(e -> shown(subject, e.getValue(), e.getKey().equals(last)))
                        .toList(),
                page,
                size,
                total);
    }

    /** The newest change that was not taken back and takes nothing back; null where there is none. */
    private @Nullable Long last(String subject, long id) {
        if (!kinds.containsKey(subject)) {
            return null;
        }
        return entities
                .createQuery(
                        """
                select e.changeSet from ChangeEntry e where e.subject = :subject and e.subjectId = :id and e.undoneBy is null and e.undoes is null
                order by e.id desc""",
                        Long.class)
                .setParameter("subject", subject)
                .setParameter("id", id)
                .setMaxResults(1)
                .getResultList()
                .stream()
                .findFirst()
                .orElse(null);
    }

    private ChangeSet shown(String subject, List<ChangeEntry> entries, boolean last) {
        ChangeEntry first = entries.get(0);
        Undoable kind = kinds.get(subject);
        return new ChangeSet(
                Long.toString(first.changeSet),
                first.at,
                first.person,
                entries.stream().map(e -> noted(kind, e)).toList(),
                first.undoneBy,
                first.undoes != null,
                last);
    }

    static NotedChange noted(@Nullable Undoable kind, ChangeEntry e) {
        return new NotedChange(
                kind == null ? e.field : kind.label(e.field),
                shown(kind, e.field, e.oldValue),
                shown(kind, e.field, e.newValue),
                e.reason);
    }

    private static @Nullable String shown(@Nullable Undoable kind, String field, @Nullable String value) {
        return kind == null || value == null ? value : kind.shown(field, value);
    }

    /** @param changeSet the change the person saw as the last one */
    @Transactional
    void undo(String subject, long id, long changeSet, String person) {
        Undoable kind = kinds.get(subject);
        if (kind == null) {
            throw Problem.invalid("cannot-undo", "Changes of a " + subject + " cannot be taken back here.");
        }
        Long last = last(subject, id);
        if (last == null || last != changeSet) {
            throw Problem.conflict(
                    "not-the-last",
                    "This is not the last change any more. Look at the history again: only the last one can be taken back.");
        }
        List<ChangeEntry> entries = entities.createQuery(
                        "select e from ChangeEntry e where e.subject = :subject and e.subjectId = :id and e.changeSet = :set order by e.id",
                        ChangeEntry.class)
                .setParameter("subject", subject)
                .setParameter("id", id)
                .setParameter("set", changeSet)
                .getResultList();
        kind.revert(
                id,
                entries.stream()
                        .map(e -> new Undoable.Noted(e.field, e.oldValue, e.newValue))
                        .toList(),
                person);
        entries.forEach(e -> e.undoneBy = person);
        entities.flush();
        entities.createQuery("update ChangeEntry e set e.undoes = :set where e.changeSet = :current")
                .setParameter("set", changeSet)
                .setParameter("current", log.currentSet())
                .executeUpdate();
    }
}
