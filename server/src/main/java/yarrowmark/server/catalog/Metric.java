package yarrowmark.server.catalog;

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
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Scale;

@Entity
class Metric {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;
    @ManyToOne(fetch = FetchType.LAZY, optional = false)
    private TestDefinition test;
    private String metricKey;
    private String name;
    private String unit;
    @Enumerated(EnumType.STRING)
    @JdbcTypeCode(SqlTypes.VARCHAR)
    private Direction direction;
    @Enumerated(EnumType.STRING)
    @JdbcTypeCode(SqlTypes.VARCHAR)
    private Scale scale;
    /** Whether it takes part in overall rankings. */
    private boolean main;

    protected Metric() {
    }

    Metric(TestDefinition test, Catalog.NewMetric metric) {
        this.test = test;
        this.metricKey = metric.key();
        this.name = metric.name();
        this.unit = metric.unit();
        this.direction = metric.direction();
        this.scale = metric.scale();
        this.main = metric.main();
    }

    Long id() {
        return id;
    }

    TestDefinition test() {
        return test;
    }

    String key() {
        return metricKey;
    }

    String name() {
        return name;
    }

    String unit() {
        return unit;
    }

    Direction direction() {
        return direction;
    }

    Scale scale() {
        return scale;
    }

    boolean main() {
        return main;
    }
}
