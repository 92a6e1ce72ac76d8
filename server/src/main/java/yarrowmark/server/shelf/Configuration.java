package yarrowmark.server.shelf;

import jakarta.persistence.CascadeType;
import jakarta.persistence.Entity;
import jakarta.persistence.FetchType;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.ManyToOne;
import jakarta.persistence.OneToMany;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** The facts of a unit at the time of a session. Immutable: a changed unit is a new configuration with a parent. */
@Entity
class Configuration {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;
    @ManyToOne(fetch = FetchType.LAZY, optional = false)
    private Unit unit;
    @ManyToOne(fetch = FetchType.LAZY)
    private Configuration parent;
    private String name;
    @JdbcTypeCode(SqlTypes.CHAR)
    private String fingerprint;
    private Instant createdAt;
    @OneToMany(mappedBy = "configuration", cascade = CascadeType.PERSIST)
    private List<Fact> facts = new ArrayList<>();

    protected Configuration() {
    }

    Configuration(Unit unit, Configuration parent, String name, String fingerprint, Instant createdAt) {
        this.unit = unit;
        this.parent = parent;
        this.name = name;
        this.fingerprint = fingerprint;
        this.createdAt = createdAt;
    }

    void add(String key, String value, Fact.Source source) {
        facts.add(new Fact(this, key, value, source));
    }

    Map<String, String> values() {
        Map<String, String> values = new TreeMap<>();
        facts.forEach(f -> values.put(f.key(), f.value()));
        return values;
    }

    Long id() {
        return id;
    }

    Unit unit() {
        return unit;
    }

    Configuration parent() {
        return parent;
    }

    String name() {
        return name;
    }

    Instant createdAt() {
        return createdAt;
    }

    List<Fact> facts() {
        return facts;
    }
}
