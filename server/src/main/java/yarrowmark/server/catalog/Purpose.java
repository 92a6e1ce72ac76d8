package yarrowmark.server.catalog;

import jakarta.persistence.CollectionTable;
import jakarta.persistence.Column;
import jakarta.persistence.ElementCollection;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.FetchType;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.JoinColumn;
import jakarta.persistence.MapKeyColumn;
import jakarta.persistence.MapKeyEnumerated;
import java.time.Instant;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.Map;
import org.hibernate.annotations.MapKeyJdbcTypeCode;
import org.hibernate.type.SqlTypes;
import org.jspecify.annotations.Nullable;

/** A named set of weights over groups of tests, and inside them over suites and tests. */
@Entity
class Purpose {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private String name;

    @ElementCollection(fetch = FetchType.EAGER)
    @CollectionTable(name = "purpose_weight", joinColumns = @JoinColumn(name = "purpose_id"))
    @MapKeyColumn(name = "test_group")
    @MapKeyEnumerated(EnumType.STRING)
    @MapKeyJdbcTypeCode(SqlTypes.VARCHAR)
    @Column(name = "weight")
    private Map<TestGroup, Double> weights = new EnumMap<>(TestGroup.class);

    /** By suite id; 1 where there is none. */
    @ElementCollection(fetch = FetchType.EAGER)
    @CollectionTable(name = "purpose_suite", joinColumns = @JoinColumn(name = "purpose_id"))
    @MapKeyColumn(name = "suite_id")
    @Column(name = "weight")
    private Map<Long, Double> suites = new HashMap<>();
    /** By test id; 1 where there is none. */
    @ElementCollection(fetch = FetchType.EAGER)
    @CollectionTable(name = "purpose_test", joinColumns = @JoinColumn(name = "purpose_id"))
    @MapKeyColumn(name = "test_id")
    @Column(name = "weight")
    private Map<Long, Double> tests = new HashMap<>();

    private @Nullable Instant retiredAt;

    protected Purpose() {}

    Purpose(String name, Map<TestGroup, Double> weights) {
        this.name = name;
        this.weights.putAll(weights);
    }

    void change(String newName, PurposeWeighing weighing) {
        this.name = newName;
        refill(weights, weighing.groups());
        refill(suites, weighing.suites());
        refill(tests, weighing.tests());
    }

    private static <K> void refill(Map<K, Double> map, Map<K, Double> with) {
        map.clear();
        map.putAll(with);
    }

    void retire(@Nullable Instant at) {
        this.retiredAt = at;
    }

    boolean isRetired() {
        return retiredAt != null;
    }

    PurposeWeighing weighing() {
        return new PurposeWeighing(weights, suites, tests);
    }

    Long id() {
        return id;
    }

    String name() {
        return name;
    }

    Map<TestGroup, Double> weights() {
        return weights;
    }
}
