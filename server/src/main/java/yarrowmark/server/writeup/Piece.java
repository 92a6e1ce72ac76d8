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

/** A piece of a write-up. What is in it depends on its kind; {@link PieceShape} knows. */
@Entity
@Table(name = "write_up_piece")
class Piece {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    Long id;

    Long writeUpId;
    /** Pieces stand in this order; one that is put between two gets a number between theirs. */
    double place;

    @JdbcTypeCode(SqlTypes.VARCHAR)
    PieceKind kind;

    /** JSON. */
    @JdbcTypeCode(SqlTypes.LONG32VARCHAR)
    String body;

    int revision;
    String changedBy;
    Instant changedAt;

    @Nullable
    Instant removedAt;

    protected Piece() {}

    Piece(long writeUpId, double place, PieceKind kind, String body, String person, Instant at) {
        this.writeUpId = writeUpId;
        this.place = place;
        this.kind = kind;
        this.body = body;
        this.revision = 1;
        this.changedBy = person;
        this.changedAt = at;
    }

    void changed(String person, Instant at) {
        revision++;
        changedBy = person;
        changedAt = at;
    }
}
