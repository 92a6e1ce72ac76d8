package yarrowmark.server.ledger.record;

import jakarta.persistence.EntityManager;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.ledger.sample.Samples;
import yarrowmark.server.platform.Problem;

/**
 * Sessions and readings under the lock of the configuration they belong to. A merge moves them to another one, so what
 * they belong to is known only once the lock is held.
 */
@Component
public class ConfigurationLock {
    private final EntityManager entities;
    private final Samples samples;

    ConfigurationLock(EntityManager entities, Samples samples) {
        this.entities = entities;
        this.samples = samples;
    }

    /** @return as it is under its configuration's lock */
    @Transactional(propagation = Propagation.MANDATORY)
    public Session session(long id) {
        Session session = entities.find(Session.class, id);
        if (session == null) {
            throw Problem.notFound("session", id);
        }
        entities.flush();
        long locked;
        do {
            locked = session.configurationId();
            samples.lock(locked);
            entities.refresh(session);
        } while (session.configurationId() != locked);
        return session;
    }

    /** @return as it is under its configuration's lock */
    @Transactional(propagation = Propagation.MANDATORY)
    Reading reading(long id) {
        long locked;
        do {
            locked = configurationOf(id);
            samples.lock(locked);
        } while (configurationOf(id) != locked);
        Reading there = entities.find(Reading.class, id);
        if (there.configurationId() != locked) {
            // It was read before the merge. A reading is immutable for Hibernate and cannot be read again in place.
            entities.detach(there);
            there = entities.find(Reading.class, id);
        }
        return there;
    }

    private long configurationOf(long readingId) {
        return entities.createQuery("select r.configurationId from Reading r where r.id = :id", Long.class)
                .setParameter("id", readingId)
                .getResultStream()
                .findFirst()
                .orElseThrow(() -> Problem.notFound("reading", readingId));
    }
}
