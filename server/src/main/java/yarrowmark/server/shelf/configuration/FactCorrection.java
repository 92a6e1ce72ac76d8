package yarrowmark.server.shelf.configuration;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import java.time.Instant;
import org.jspecify.annotations.Nullable;

/** A fact of the past that had been described wrongly. A value is null where the fact was not there. */
@Entity
class FactCorrection {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    Long id;

    long configurationId;
    String factKey;

    @Nullable
    String oldValue;

    @Nullable
    String newValue;

    String reason;
    String person;
    Instant at;
}
