package yarrowmark.server.catalog;

import jakarta.persistence.CascadeType;
import jakarta.persistence.Convert;
import jakarta.persistence.Entity;
import jakarta.persistence.EntityListeners;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.FetchType;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.ManyToOne;
import jakarta.persistence.OneToMany;
import jakarta.persistence.OrderBy;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.LinkedHashSet;
import java.util.Set;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;
import org.jspecify.annotations.Nullable;

/** A test of a suite version. Named so because "Test" is taken in every test file. */
@Entity
@EntityListeners(CatalogWatch.class)
@Table(name = "test")
class TestDefinition {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    @ManyToOne(fetch = FetchType.LAZY, optional = false)
    private SuiteVersion suiteVersion;

    @ManyToOne(fetch = FetchType.LAZY, optional = false)
    private ComparabilityGroup comparabilityGroup;

    private String testKey;
    private String name;
    private String summary;

    @Enumerated(EnumType.STRING)
    @JdbcTypeCode(SqlTypes.VARCHAR)
    private TestGroup testGroup;

    private int position;

    @OneToMany(mappedBy = "test", cascade = CascadeType.PERSIST)
    @OrderBy("id")
    private Set<Metric> metrics = new LinkedHashSet<>();

    private @Nullable Instant retiredAt;
    /** In per cent, as somebody states it; null where nobody does. */
    private @Nullable Double repeatability;

    private @Nullable String repeatabilitySource;

    @Convert(converter = TimedCommandText.class)
    @JdbcTypeCode(SqlTypes.LONG32VARCHAR)
    private @Nullable TimedCommand command;

    protected TestDefinition() {}

    TestDefinition(
            SuiteVersion suiteVersion, ComparabilityGroup comparabilityGroup, Catalog.NewTest test, int position) {
        this.suiteVersion = suiteVersion;
        this.comparabilityGroup = comparabilityGroup;
        this.testKey = test.key();
        this.name = test.name();
        this.summary = test.summary();
        this.testGroup = test.group();
        this.position = position;
        this.command = test.command();
        test.metrics().forEach(m -> metrics.add(new Metric(this, m)));
    }

    Long id() {
        return id;
    }

    SuiteVersion suiteVersion() {
        return suiteVersion;
    }

    String key() {
        return testKey;
    }

    String name() {
        return name;
    }

    String summary() {
        return summary;
    }

    TestGroup group() {
        return testGroup;
    }

    Set<Metric> metrics() {
        return metrics;
    }

    ComparabilityGroup comparabilityGroup() {
        return comparabilityGroup;
    }

    @Nullable
    TimedCommand command() {
        return command;
    }

    int position() {
        return position;
    }

    @Nullable
    Instant retiredAt() {
        return retiredAt;
    }

    @Nullable
    Double repeatability() {
        return repeatability;
    }

    @Nullable
    String repeatabilitySource() {
        return repeatabilitySource;
    }

    void state(@Nullable Double percent, @Nullable String source) {
        this.repeatability = percent;
        this.repeatabilitySource = source;
    }

    void retire(@Nullable Instant at) {
        this.retiredAt = at;
    }
}
