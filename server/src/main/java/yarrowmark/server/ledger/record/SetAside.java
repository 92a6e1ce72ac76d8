package yarrowmark.server.ledger.record;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import java.time.Instant;
import org.jspecify.annotations.Nullable;

/** A reading kept but not counted, with reason, person and time; or the record that it once was. */
@Entity
public class SetAside {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;
    /** What was set aside at once; null where it was one reading alone. */
    private @Nullable Long batch;

    private long readingId;
    private String reason;
    private String person;
    private Instant at;
    private @Nullable Instant takenBackAt;
    private @Nullable String takenBackBy;

    protected SetAside() {}

    SetAside(long readingId, String reason, String person, Instant at) {
        this.readingId = readingId;
        this.reason = reason;
        this.person = person;
        this.at = at;
    }

    public void takeBack(String who, Instant when) {
        this.takenBackBy = who;
        this.takenBackAt = when;
    }

    public String reason() {
        return reason;
    }

    public String person() {
        return person;
    }

    public Instant at() {
        return at;
    }

    public @Nullable Instant takenBackAt() {
        return takenBackAt;
    }

    public @Nullable String takenBackBy() {
        return takenBackBy;
    }

    public long readingId() {
        return readingId;
    }
}
