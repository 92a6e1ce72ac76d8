package yarrowmark.server.shelf.configuration;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.FetchType;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.ManyToOne;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;
import org.jspecify.annotations.Nullable;

/** One typed value of a configuration. */
@Entity
class Fact {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    @ManyToOne(fetch = FetchType.LAZY, optional = false)
    private Configuration configuration;

    private String factKey;
    String factValue;

    @Enumerated(EnumType.STRING)
    @JdbcTypeCode(SqlTypes.VARCHAR)
    FactSource source;
    /** What the other source says, until the reviewer picks; null where there is no contradiction. */
    @Nullable
    String otherValue;

    protected Fact() {}

    Fact(Configuration configuration, String key, String value, FactSource source) {
        this.configuration = configuration;
        this.factKey = key;
        this.factValue = value;
        this.source = source;
    }

    String key() {
        return factKey;
    }

    String value() {
        return factValue;
    }
}
