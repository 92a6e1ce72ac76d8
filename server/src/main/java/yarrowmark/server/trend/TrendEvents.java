package yarrowmark.server.trend;

import jakarta.persistence.Entity;
import jakarta.persistence.EntityManager;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.history.ChangeLog;
import yarrowmark.server.shelf.ShelfPages;

/** What somebody pinned to a step, because no fact says it: new thermal paste, a repair, another room. */
@Service
class TrendEvents {
    private static final String SUBJECT = "event of a trend";

    @Entity(name = "TrendEvent")
    static class TrendEvent {
        @Id
        @GeneratedValue(strategy = GenerationType.IDENTITY)
        @Nullable
        Long id;

        long modelId;
        /** Of the step: a configuration, or a configuration and a day. */
        String stepKey;

        String words;
        String person;
        Instant at;
    }

    private final EntityManager entities;
    private final ShelfPages shelf;
    private final ChangeLog changes;
    private final Clock clock;

    TrendEvents(EntityManager entities, ShelfPages shelf, ChangeLog changes, Clock clock) {
        this.entities = entities;
        this.shelf = shelf;
        this.changes = changes;
        this.clock = clock;
    }

    /** By step. */
    @Transactional(readOnly = true)
    public Map<String, List<Trends.EventPart>> of(long modelId) {
        return entities
                .createQuery("select e from TrendEvent e where e.modelId = :model order by e.id", TrendEvent.class)
                .setParameter("model", modelId)
                .getResultList()
                .stream()
                .collect(Collectors.groupingBy(
                        e -> e.stepKey,
                        Collectors.mapping(
                                e -> new Trends.EventPart(e.id == null ? 0 : e.id, e.words, e.person),
                                Collectors.toList())));
    }

    @Transactional
    public void pin(long modelId, String stepKey, String words, String person) {
        shelf.model(modelId);
        TrendEvent event = new TrendEvent();
        event.modelId = modelId;
        event.stepKey = stepKey;
        event.words = words.strip();
        event.person = person;
        event.at = clock.instant();
        entities.persist(event);
        changes.note(person, SUBJECT, event.id == null ? 0 : event.id, ChangeLog.MADE, null, event.words);
    }

    @Transactional
    public void remove(long id, String person) {
        TrendEvent event = entities.find(TrendEvent.class, id);
        if (event == null) {
            throw Problem.notFound(SUBJECT, id);
        }
        entities.remove(event);
        changes.note(person, SUBJECT, id, "removed", event.words, null);
    }
}
