package yarrowmark.server.ledger.line;

import jakarta.persistence.Entity;
import jakarta.persistence.EntityManager;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.platform.Problem;

/** Views of the ledger that a person comes back to: what its sentence says, under a name. */
@Service
class SavedViews {
    private static final int MOST = 100;

    @Entity(name = "SavedView")
    static class SavedView {
        @Id
        @GeneratedValue(strategy = GenerationType.IDENTITY)
        Long id;

        String person;
        String name;
        String address;
        Instant madeAt;
    }

    /** @param address the part of the view's address behind the question mark */
    record View(long id, String name, String address) {}

    private final EntityManager entities;
    private final Clock clock;

    SavedViews(EntityManager entities, Clock clock) {
        this.entities = entities;
        this.clock = clock;
    }

    @Transactional(readOnly = true)
    List<View> of(String person) {
        return all(person).stream().map(v -> new View(v.id, v.name, v.address)).toList();
    }

    /** A view of the same name is replaced. */
    @Transactional
    List<View> save(String name, String address, String person) {
        List<SavedView> all = all(person);
        SavedView view = all.stream()
                .filter(v -> v.name.equalsIgnoreCase(name.strip()))
                .findFirst()
                .orElseGet(SavedView::new);
        if (view.id == null && all.size() >= MOST) {
            throw Problem.conflict("too-many-views", "There are " + MOST + " saved views already. Remove one first.");
        }
        view.person = person;
        view.name = name.strip();
        view.address = address;
        view.madeAt = clock.instant();
        entities.persist(view);
        entities.flush();
        return of(person);
    }

    @Transactional
    List<View> remove(long id, String person) {
        all(person).stream().filter(v -> v.id == id).findFirst().ifPresentOrElse(entities::remove, () -> {
            throw Problem.notFound("saved view", id);
        });
        entities.flush();
        return of(person);
    }

    private List<SavedView> all(String person) {
        return entities.createQuery(
                        "select v from SavedView v where v.person = :person order by v.name", SavedView.class)
                .setParameter("person", person)
                .getResultList();
    }
}
