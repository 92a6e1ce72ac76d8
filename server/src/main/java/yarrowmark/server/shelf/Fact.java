package yarrowmark.server.shelf;

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

@Entity
class Fact {
    /** Where a fact comes from. */
    public enum Source { DETECTED, TYPED }

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;
    @ManyToOne(fetch = FetchType.LAZY, optional = false)
    private Configuration configuration;
    private String factKey;
    private String factValue;
    @Enumerated(EnumType.STRING)
    @JdbcTypeCode(SqlTypes.VARCHAR)
    private Source source;

    protected Fact() {
    }

    Fact(Configuration configuration, String key, String value, Source source) {
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

    Source source() {
        return source;
    }
}
