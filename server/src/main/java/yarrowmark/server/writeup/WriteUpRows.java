package yarrowmark.server.writeup;

import jakarta.persistence.EntityManager;
import jakarta.persistence.TypedQuery;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.platform.Page;

/** Write-ups in lists: newest first, with what each is about and how often it was published. */
@Service
class WriteUpRows {
    private final EntityManager entities;

    WriteUpRows(EntityManager entities) {
        this.entities = entities;
    }

    @Transactional(readOnly = true)
    public Page<WriteUps.WriteUpRow> all(@Nullable Long model, @Nullable String words, int page, int size) {
        String where = " from WriteUp w where w.removedAt is null"
                + (model == null ? "" : " and :model member of w.models")
                + (words == null ? "" : " and (locate(:words, w.title) > 0 or locate(:words, w.subtitle) > 0)");
        TypedQuery<WriteUp> rows = entities.createQuery(
                        "select w" + where + " order by w.changedAt desc, w.id desc", WriteUp.class)
                .setFirstResult(page * size)
                .setMaxResults(size);
        TypedQuery<Long> total = entities.createQuery("select count(w)" + where, Long.class);
        for (TypedQuery<?> query : List.of(rows, total)) {
            if (model != null) {
                query.setParameter("model", model);
            }
            if (words != null) {
                query.setParameter("words", words);
            }
        }
        return new Page<>(rows(rows.getResultList()), page, size, total.getSingleResult());
    }

    List<WriteUps.WriteUpRow> rows(List<WriteUp> found) {
        if (found.isEmpty()) {
            return List.of();
        }
        Set<Long> models = found.stream().flatMap(w -> w.models.stream()).collect(Collectors.toSet());
        Map<Long, String> names = new TreeMap<>();
        if (!models.isEmpty()) {
            entities.createQuery(
                            "select m.id, k.name, m.name from Model m join Maker k on k.id = m.maker.id where m.id in :ids",
                            Object[].class)
                    .setParameter("ids", models)
                    .getResultList()
                    .forEach(m -> names.put((Long) m[0], m[1] + " " + m[2]));
        }
        Map<Long, Object[]> editions = entities
                .createQuery(
                        "select e.writeUpId, count(e), max(e.publishedAt) from Edition e where e.writeUpId in :ids group by e.writeUpId",
                        Object[].class)
                .setParameter("ids", found.stream().map(w -> w.id).toList())
                .getResultList()
                .stream()
                .collect(Collectors.toMap(e -> (Long) e[0], e -> e));
        return found.stream()
                .map(w -> {
                    Object[] published = editions.get(w.id);
                    return new WriteUps.WriteUpRow(
                            w.id,
                            w.title,
                            w.subtitle,
                            w.models.stream()
                                    .sorted()
                                    .map(m -> new WriteUps.About(m, names.getOrDefault(m, "")))
                                    .toList(),
                            w.madeBy,
                            w.changedAt,
                            w.listed,
                            published == null ? 0 : (Long) published[1],
                            published == null ? null : (Instant) published[2],
                            w.publicKey,
                            w.kind);
                })
                .toList();
    }
}
