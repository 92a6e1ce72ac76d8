package yarrowmark.server.ledger;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import java.time.Instant;

/** A reading kept but not counted, with reason, person and time; or the record that it once was. */
@Entity
class SetAside {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;
    /** What was set aside at once; null where it was one reading alone. */
    private Long batch;

    private long readingId;
    private String reason;
    private String person;
    private Instant at;
    private Instant takenBackAt;
    private String takenBackBy;

    protected SetAside() {}

    SetAside(long readingId, String reason, String person, Instant at) {
        this.readingId = readingId;
        this.reason = reason;
        this.person = person;
        this.at = at;
    }

    void takeBack(String who, Instant when) {
        this.takenBackBy = who;
        this.takenBackAt = when;
    }

    String reason() {
        return reason;
    }

    String person() {
        return person;
    }

    Instant at() {
        return at;
    }

    Instant takenBackAt() {
        return takenBackAt;
    }

    String takenBackBy() {
        return takenBackBy;
    }

    long readingId() {
        return readingId;
    }
}
