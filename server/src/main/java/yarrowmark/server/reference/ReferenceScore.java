package yarrowmark.server.reference;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import java.time.Instant;
import java.time.LocalDate;
import org.jspecify.annotations.Nullable;

@Entity
class ReferenceScore {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    Long id;

    long modelId;
    long metricId;
    double value;
    double resolution;
    String source;

    @Nullable
    LocalDate publishedOn;

    @Nullable
    Integer results;

    String person;
    Instant at;

    @Nullable
    Instant removedAt;
}
