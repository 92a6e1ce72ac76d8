package yarrowmark.server.evidence;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import java.time.Instant;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;
import org.jspecify.annotations.Nullable;

@Entity
class Evidence {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    Long id;

    long sessionId;

    @Nullable
    Long runId;

    @JdbcTypeCode(SqlTypes.CHAR)
    String hash;

    String name;
    long sizeBytes;
    String person;
    Instant at;

    @Nullable
    Instant removedAt;

    @Nullable
    String removedBy;
}
