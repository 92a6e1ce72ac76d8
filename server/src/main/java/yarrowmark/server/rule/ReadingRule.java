package yarrowmark.server.rule;

import jakarta.persistence.CollectionTable;
import jakarta.persistence.ElementCollection;
import jakarta.persistence.Embeddable;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.JoinColumn;
import jakarta.persistence.OrderColumn;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.rule.ScorePattern;

@Entity
class ReadingRule {
    @Embeddable
    static class Part {
        String name;

        @Enumerated(EnumType.STRING)
        @JdbcTypeCode(SqlTypes.VARCHAR)
        ScorePattern.Kind kind;

        String expression;
        String unit;
        int occurrence;
        long metricId;

        protected Part() {}

        Part(ScorePattern p, long metricId) {
            this.name = p.name();
            this.kind = p.kind();
            this.expression = p.expression();
            this.unit = p.unit();
            this.occurrence = p.occurrence();
            this.metricId = metricId;
        }

        ScorePattern pattern() {
            return new ScorePattern(name, kind, expression, unit, occurrence);
        }
    }

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private long suiteVersionId;
    private String person;
    private Instant madeAt;
    private @Nullable Instant retiredAt;
    private String sample;

    @ElementCollection
    @CollectionTable(name = "reading_rule_pattern", joinColumns = @JoinColumn(name = "rule_id"))
    @OrderColumn(name = "position")
    private List<Part> parts = new ArrayList<>();

    protected ReadingRule() {}

    ReadingRule(long suiteVersionId, List<Part> parts, String sample, String person, Instant at) {
        this.suiteVersionId = suiteVersionId;
        this.parts.addAll(parts);
        this.sample = sample;
        this.person = person;
        this.madeAt = at;
    }

    Long id() {
        return id;
    }

    long suiteVersionId() {
        return suiteVersionId;
    }

    String person() {
        return person;
    }

    Instant madeAt() {
        return madeAt;
    }

    String sample() {
        return sample;
    }

    List<Part> parts() {
        return parts;
    }

    void retire(@Nullable Instant at) {
        this.retiredAt = at;
    }

    boolean retired() {
        return retiredAt != null;
    }
}
