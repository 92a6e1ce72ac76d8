package yarrowmark.server.writeup;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;
import org.jspecify.annotations.Nullable;

/** What a write-up begins with, as this lab wants it. */
@Entity
@Table(name = "write_up_kind")
class WriteUpKind {
    /** What is on the screen when a write-up is begun from it. */
    enum Begins {
        MODEL,
        COMPARISON,
        STANDING,
        TREND
    }

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    Long id;

    String name;

    @JdbcTypeCode(SqlTypes.VARCHAR)
    Begins begins;

    /** JSON: a list of {@link WriteUpKinds.KindPiece}. */
    @JdbcTypeCode(SqlTypes.LONG32VARCHAR)
    String pieces;

    int revision;
    String changedBy;
    Instant changedAt;

    @Nullable
    Instant removedAt;
}
