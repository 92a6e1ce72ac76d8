package yarrowmark.server.catalog;

import jakarta.persistence.Entity;
import jakarta.persistence.EntityListeners;
import jakarta.persistence.FetchType;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.ManyToOne;
import jakarta.persistence.OneToOne;
import java.time.Instant;
import java.util.HashSet;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** Scores are compared only inside one of these. Each suite version starts with its own; a person may join two. */
@Entity
@EntityListeners(CatalogWatch.class)
class ComparabilityGroup {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    @OneToOne(fetch = FetchType.LAZY, optional = false)
    private SuiteVersion suiteVersion;

    @ManyToOne(fetch = FetchType.LAZY)
    private @Nullable ComparabilityGroup joinedInto;

    private @Nullable String joinedReason;
    private @Nullable String joinedBy;
    private @Nullable Instant joinedAt;

    protected ComparabilityGroup() {}

    ComparabilityGroup(SuiteVersion suiteVersion) {
        this.suiteVersion = suiteVersion;
    }

    Long id() {
        return id;
    }

    SuiteVersion suiteVersion() {
        return suiteVersion;
    }

    void join(ComparabilityGroup into, String reason, String person, Instant at) {
        this.joinedInto = into;
        this.joinedReason = reason;
        this.joinedBy = person;
        this.joinedAt = at;
    }

    void part() {
        this.joinedInto = null;
        this.joinedReason = null;
        this.joinedBy = null;
        this.joinedAt = null;
    }

    @Nullable
    ComparabilityGroup joinedInto() {
        return joinedInto;
    }

    @Nullable
    String joinedReason() {
        return joinedReason;
    }

    @Nullable
    String joinedBy() {
        return joinedBy;
    }

    @Nullable
    Instant joinedAt() {
        return joinedAt;
    }

    /** The group whose scores these are held against: the end of the chain of joins. */
    ComparabilityGroup root() {
        ComparabilityGroup at = this;
        Set<ComparabilityGroup> seen = new HashSet<>();
        while (at.joinedInto() != null && seen.add(at)) {
            at = at.joinedInto();
        }
        return at;
    }
}
