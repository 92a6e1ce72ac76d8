package yarrowmark.server.writeup;

import jakarta.persistence.CollectionTable;
import jakarta.persistence.Column;
import jakarta.persistence.ElementCollection;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.JoinColumn;
import java.time.Instant;
import java.util.HashSet;
import java.util.Set;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;
import org.jspecify.annotations.Nullable;

/** A page about some models, made of pieces. */
@Entity
class WriteUp {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    Long id;

    String title;

    @Nullable
    String subtitle;

    /** What the public front page lists it under, in the lab's own words. */
    @Nullable
    String kind;

    /** Its address once it is published; nobody can guess it. */
    @JdbcTypeCode(SqlTypes.CHAR)
    String publicKey;

    /** Whether the lab's public page lists it; otherwise only its address leads there. */
    boolean listed;

    String madeBy;
    Instant madeAt;
    Instant changedAt;

    @Nullable
    Instant removedAt;

    /** Of the token of its secret link; null where there is none. */
    @JdbcTypeCode(SqlTypes.CHAR)
    @Nullable
    String draftHash;

    @JdbcTypeCode(SqlTypes.LONG32VARCHAR)
    @Nullable
    String draftPage;

    @Nullable
    Instant draftAt;

    /** Rises with every change of it or of a piece. */
    int revision;

    @ElementCollection
    @CollectionTable(name = "write_up_model", joinColumns = @JoinColumn(name = "write_up_id"))
    @Column(name = "model_id")
    Set<Long> models = new HashSet<>();

    protected WriteUp() {}

    WriteUp(String title, String publicKey, String madeBy, Instant madeAt) {
        this.title = title;
        this.publicKey = publicKey;
        this.madeBy = madeBy;
        this.madeAt = madeAt;
        this.changedAt = madeAt;
    }

    void touched(Instant at) {
        revision++;
        changedAt = at;
    }
}
