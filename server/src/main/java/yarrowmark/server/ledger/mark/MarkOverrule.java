package yarrowmark.server.ledger.mark;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import java.time.Instant;

/** Somebody's decision that readings which a display seems to hold count all the same. */
@Entity
class MarkOverrule {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    Long id;

    long configurationId;
    long metricId;
    String reason;
    String person;
    Instant at;
    Instant takenBackAt;
    String takenBackBy;
}
