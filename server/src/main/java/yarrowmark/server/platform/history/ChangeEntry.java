package yarrowmark.server.platform.history;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import java.time.Instant;
import org.jspecify.annotations.Nullable;

/** One value that changed. Entries of one transaction share a change set. */
@Entity
class ChangeEntry {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    Long id;

    Instant at;
    String person;
    String subject;
    long subjectId;
    String field;

    @Nullable
    String oldValue;

    @Nullable
    String newValue;

    long changeSet;

    @Nullable
    String reason;
    /** Who took the change back, where somebody did. */
    String undoneBy;
    /** The change set that this one takes back. */
    Long undoes;
}
