package yarrowmark.server.shelf.configuration;

import jakarta.persistence.CascadeType;
import jakarta.persistence.CollectionTable;
import jakarta.persistence.Column;
import jakarta.persistence.ElementCollection;
import jakarta.persistence.Entity;
import jakarta.persistence.FetchType;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.JoinColumn;
import jakarta.persistence.ManyToOne;
import jakarta.persistence.OneToMany;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.setup.Fingerprint;
import yarrowmark.server.shelf.model.Unit;

/**
 * The facts of a unit at the time of a session. Once it has sessions its facts change by corrections only: a changed
 * unit is a new configuration with a parent.
 */
@Entity
public class Configuration {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    @ManyToOne(fetch = FetchType.LAZY, optional = false)
    private Unit unit;

    @ManyToOne(fetch = FetchType.LAZY)
    private @Nullable Configuration parent;

    private String name;

    @JdbcTypeCode(SqlTypes.CHAR)
    private String fingerprint;

    private Instant createdAt;
    private @Nullable Instant retiredAt;
    /** Where its sessions went, when it turned out to be the same as another. */
    private @Nullable Long mergedInto;

    @OneToMany(
            mappedBy = "configuration",
            cascade = {CascadeType.PERSIST, CascadeType.REMOVE, CascadeType.REFRESH},
            orphanRemoval = true)
    private List<Fact> facts = new ArrayList<>();

    @ElementCollection
    @CollectionTable(name = "tested_fact", joinColumns = @JoinColumn(name = "configuration_id"))
    @Column(name = "fact_key")
    private Set<String> tested = new TreeSet<>();

    protected Configuration() {}

    Configuration(Unit unit, @Nullable Configuration parent, String name, Instant createdAt) {
        this.unit = unit;
        this.parent = parent;
        this.name = name;
        this.createdAt = createdAt;
        this.fingerprint = Fingerprint.of(Map.of());
    }

    /** Makes the facts these and no others; facts that stay are kept as they are stored. */
    void describe(Map<String, GivenFact> given) {
        facts.removeIf(f -> !given.containsKey(f.key()));
        given.forEach((key, g) -> fact(key)
                .ifPresentOrElse(
                        f -> {
                            f.factValue = g.value();
                            f.source = g.source();
                            f.otherValue = g.other();
                        },
                        () -> {
                            Fact made = new Fact(this, key, g.value(), g.source());
                            made.otherValue = g.other();
                            facts.add(made);
                        }));
        seal();
    }

    /** Brings the fingerprint up to date with the facts. */
    void seal() {
        fingerprint = Fingerprint.of(values());
    }

    void rename(String newName) {
        this.name = newName;
    }

    void retire(@Nullable Instant at) {
        this.retiredAt = at;
    }

    void mergeInto(long other, Instant at) {
        this.mergedInto = other;
        this.retiredAt = at;
    }

    Optional<Fact> fact(String key) {
        return facts.stream().filter(f -> f.key().equals(key)).findFirst();
    }

    void remove(Fact fact) {
        facts.remove(fact);
    }

    Map<String, String> values() {
        Map<String, String> values = new TreeMap<>();
        facts.forEach(f -> values.put(f.key(), f.value()));
        return values;
    }

    public Long id() {
        return id;
    }

    public Unit unit() {
        return unit;
    }

    @Nullable
    public Configuration parent() {
        return parent;
    }

    public String fingerprint() {
        return fingerprint;
    }

    public Instant createdAt() {
        return createdAt;
    }

    List<Fact> facts() {
        return facts;
    }

    Set<String> tested() {
        return tested;
    }

    public String name() {
        return name;
    }

    @Nullable
    public Long mergedInto() {
        return mergedInto;
    }

    public boolean isRetired() {
        return retiredAt != null;
    }
}
