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
import org.hibernate.annotations.Immutable;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;
import org.jspecify.annotations.Nullable;

/** A write-up as it was published. */
@Entity
@Immutable
class Edition {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    Long id;

    Long writeUpId;
    int number;
    String title;

    /** What is other than in the edition before. */
    @Nullable
    String changes;

    /** HTML. */
    @JdbcTypeCode(SqlTypes.LONG32VARCHAR)
    String page;

    /** {@link Frozen} as JSON: what the page was made from, and the numbers behind it. */
    @JdbcTypeCode(SqlTypes.LONG32VARCHAR)
    String content;

    /** What a search or a shared link says of it; null in editions of before it was kept, until the next start. */
    @Nullable
    String description;

    /** The photo that leads it, by its hash; null where it shows none. */
    @JdbcTypeCode(SqlTypes.CHAR)
    @Nullable
    String photo;

    String person;
    Instant publishedAt;

    @ElementCollection
    @CollectionTable(name = "edition_file", joinColumns = @JoinColumn(name = "edition_id"))
    @Column(name = "hash", columnDefinition = "char(64)")
    @JdbcTypeCode(SqlTypes.CHAR)
    Set<String> files = new HashSet<>();
}
