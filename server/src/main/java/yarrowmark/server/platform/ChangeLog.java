package yarrowmark.server.platform;

import jakarta.persistence.Entity;
import jakarta.persistence.EntityManager;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Clock;
import java.time.Instant;
import java.util.Objects;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** Who changed what, when, from, to. Written in the transaction of the change itself. */
@Service
public class ChangeLog {
    private static final int LONGEST = 500;

    @Entity(name = "ChangeEntry")
    @Table(name = "change_entry")
    static class ChangeEntry {
        @Id
        @GeneratedValue(strategy = GenerationType.IDENTITY)
        private Long id;
        private Instant at;
        private String person;
        private String subject;
        private long subjectId;
        private String field;
        private String oldValue;
        private String newValue;
    }

    private final EntityManager entities;
    private final Clock clock;

    ChangeLog(EntityManager entities, Clock clock) {
        this.entities = entities;
        this.clock = clock;
    }

    /** Notes a change where the two values differ; null stands for "nothing there". */
    @Transactional(propagation = Propagation.MANDATORY)
    public void note(String person, String subject, long subjectId, String field, Object from, Object to) {
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
        entities.persist(entry);
    }

    private static String text(Object value) {
        if (value == null) {
            return null;
        }
        String text = value.toString();
        return text.length() <= LONGEST ? text : text.substring(0, LONGEST);
    }
}
