package yarrowmark.server.catalog;

import jakarta.persistence.CollectionTable;
import jakarta.persistence.Column;
import jakarta.persistence.ElementCollection;
import jakarta.persistence.Entity;
import jakarta.persistence.EntityListeners;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.FetchType;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.JoinColumn;
import jakarta.persistence.ManyToOne;
import jakarta.persistence.MapKeyColumn;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.curve.SeriesNumber;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Kind;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.standing.RatingLimits;

@Entity
@EntityListeners(CatalogWatch.class)
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

    @Enumerated(EnumType.STRING)
    @JdbcTypeCode(SqlTypes.VARCHAR)
    private Kind kind = Kind.NUMBER;
    /** From worst to best, one a line. */
    private @Nullable String choices;

    private @Nullable String xUnit;
    private boolean capped;

    @Enumerated(EnumType.STRING)
    @JdbcTypeCode(SqlTypes.VARCHAR)
    private @Nullable SeriesNumber series;

    private @Nullable String formula;

    @ElementCollection
    @CollectionTable(name = "metric_input", joinColumns = @JoinColumn(name = "metric_id"))
    @MapKeyColumn(name = "name")
    @Column(name = "input_id")
    private Map<String, Long> inputs = new HashMap<>();

    @ElementCollection
    @CollectionTable(name = "metric_fact", joinColumns = @JoinColumn(name = "metric_id"))
    @MapKeyColumn(name = "name")
    @Column(name = "fact_key")
    private Map<String, String> facts = new HashMap<>();

    /** Whether a person types it although it has a formula, which then says how the suite makes it of its parts. */
    private boolean typed;
    /** Whether it is still to be computed for sessions that were there before it. */
    private boolean behind;
    /** In the unit, both or neither. */
    private @Nullable Double goodLimit;

    private @Nullable Double poorLimit;

    protected Metric() {}

    Metric(TestDefinition test, Catalog.NewMetric metric) {
        this.test = test;
        this.metricKey = metric.key();
        this.name = metric.name();
        this.unit = metric.unit();
        this.direction = metric.direction();
        this.scale = metric.scale();
        this.main = metric.main();
        this.kind = metric.more().kind();
        this.choices = metric.more().choices().isEmpty()
                ? null
                : String.join("\n", metric.more().choices());
        this.xUnit = metric.more().xUnit();
        this.capped = metric.more().capped();
        this.series = metric.more().series();
        this.formula = metric.more().formula();
        this.inputs.putAll(metric.more().inputs());
        this.facts.putAll(metric.more().facts());
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

    Kind kind() {
        return kind;
    }

    List<String> choices() {
        return choices == null ? List.of() : List.of(choices.split("\n"));
    }

    @Nullable
    String xUnit() {
        return xUnit;
    }

    boolean capped() {
        return capped;
    }

    @Nullable
    SeriesNumber series() {
        return series;
    }

    @Nullable
    String formula() {
        return formula;
    }

    Map<String, Long> inputs() {
        return inputs;
    }

    Map<String, String> facts() {
        return facts;
    }

    boolean typed() {
        return typed;
    }

    boolean behind() {
        return behind;
    }

    void setBehind(boolean behind) {
        this.behind = behind;
    }

    /** What a person types is the total of these parts. */
    void declareTotal(String formula, Map<String, Long> parts) {
        this.formula = formula;
        this.typed = true;
        inputs.clear();
        inputs.putAll(parts);
    }

    /** What a person types stands for itself again. */
    void undeclareTotal() {
        formula = null;
        typed = false;
        inputs.clear();
    }

    /** Null: by thirds of those placed. */
    @Nullable
    RatingLimits limits() {
        return goodLimit == null || poorLimit == null ? null : new RatingLimits(direction, goodLimit, poorLimit);
    }

    void limit(@Nullable RatingLimits limits) {
        goodLimit = limits == null ? null : limits.good();
        poorLimit = limits == null ? null : limits.poor();
    }
}
