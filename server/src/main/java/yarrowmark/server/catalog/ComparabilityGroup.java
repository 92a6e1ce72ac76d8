package yarrowmark.server.catalog;

import jakarta.persistence.Entity;
import jakarta.persistence.FetchType;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.OneToOne;

/** Scores are compared only inside one of these. Each suite version starts with its own. */
@Entity
class ComparabilityGroup {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;
    @OneToOne(fetch = FetchType.LAZY, optional = false)
    private SuiteVersion suiteVersion;

    protected ComparabilityGroup() {
    }

    ComparabilityGroup(SuiteVersion suiteVersion) {
        this.suiteVersion = suiteVersion;
    }
}
