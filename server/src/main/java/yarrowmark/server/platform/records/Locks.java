package yarrowmark.server.platform.records;

import jakarta.persistence.EntityManager;
import jakarta.persistence.EntityNotFoundException;
import jakarta.persistence.LockModeType;
import java.util.Optional;
import org.hibernate.Hibernate;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/**
 * Waits for a row and reads it as it is then. What a transaction read before it waited may be old: whoever held the row
 * changed it meanwhile, and Hibernate gives back what it read first unless it is told to read again.
 */
@Component
public class Locks {
    private final EntityManager entities;

    Locks(EntityManager entities) {
        this.entities = entities;
    }

    /** Empty where there is no such row, or where it went while it was waited for. */
    @Transactional(propagation = Propagation.MANDATORY)
    public <T> Optional<T> lock(Class<T> type, Object id) {
        T there = entities.getReference(type, id);
        if (!Hibernate.isInitialized(there)) {
            return Optional.ofNullable(entities.find(type, id, LockModeType.PESSIMISTIC_WRITE));
        }
        entities.flush();
        try {
            entities.refresh(there, LockModeType.PESSIMISTIC_WRITE);
        } catch (EntityNotFoundException gone) {
            return Optional.empty();
        }
        return Optional.of(there);
    }
}
