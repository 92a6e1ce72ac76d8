package yarrowmark.server.platform.history;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.util.Objects;
import java.util.concurrent.atomic.AtomicLong;
import org.jspecify.annotations.Nullable;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import yarrowmark.server.platform.change.RecordsChanged;

/** Who changed what, when, from, to. Written in the transaction of the change itself. */
@Service
public class ChangeLog {
    /** The field of a change that made its subject. */
    public static final String MADE = "made";

    private static final int LONGEST = 20_000;

    private record Noted() implements RecordsChanged {}

    private final EntityManager entities;
    private final ApplicationEventPublisher events;
    private final Clock clock;
    private final AtomicLong last = new AtomicLong();

    ChangeLog(EntityManager entities, ApplicationEventPublisher events, Clock clock) {
        this.entities = entities;
        this.events = events;
        this.clock = clock;
    }

    /** Notes a change where the two values differ; null stands for "nothing there". */
    @Transactional(propagation = Propagation.MANDATORY)
    public void note(
            String person, String subject, long subjectId, String field, @Nullable Object from, @Nullable Object to) {
        note(person, subject, subjectId, field, from, to, null);
    }

    @Transactional(propagation = Propagation.MANDATORY)
    public void note(
            String person,
            String subject,
            long subjectId,
            String field,
            @Nullable Object from,
            @Nullable Object to,
            @Nullable String reason) {
        if (Objects.equals(from, to)) {
            return;
        }
        ChangeEntry entry = new ChangeEntry();
        entry.at = clock.instant();
        entry.person = person;
        entry.subject = subject;
        entry.subjectId = subjectId;
        entry.field = field;
        entry.oldValue = text(from);
        entry.newValue = text(to);
        entry.changeSet = currentSet();
        entry.reason = reason;
        entities.persist(entry);
        events.publishEvent(new Noted());
    }

    /** All that one transaction changes belongs together and is taken back together. */
    long currentSet() {
        Long set = (Long) TransactionSynchronizationManager.getResource(this);
        if (set == null) {
            set = next();
            TransactionSynchronizationManager.bindResource(this, set);
            TransactionSynchronizationManager.registerSynchronization(new TransactionSynchronization() {
                @Override
                public void afterCompletion(int status) {
                    TransactionSynchronizationManager.unbindResourceIfPossible(ChangeLog.this);
                }
            });
        }
        return set;
    }

    /** Later sets have higher numbers, so that the newest are found at an index's end. Below 2^53, for JavaScript. */
    private long next() {
        return last.updateAndGet(before -> Math.max(before + 1, clock.millis() << 12));
    }

    private static @Nullable String text(@Nullable Object value) {
        if (value == null) {
            return null;
        }
        String text = value.toString();
        return text.length() <= LONGEST ? text : text.substring(0, LONGEST);
    }
}
