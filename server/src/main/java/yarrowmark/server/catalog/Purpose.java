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
import java.util.EnumMap;
import java.util.Map;
import org.hibernate.annotations.MapKeyJdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** A named set of weights over groups of tests. */
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

    protected Purpose() {
    }

    Purpose(String name, Map<TestGroup, Double> weights) {
        this.name = name;
        this.weights.putAll(weights);
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
