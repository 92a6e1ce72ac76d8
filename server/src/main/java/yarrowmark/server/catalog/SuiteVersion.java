package yarrowmark.server.catalog;

import jakarta.persistence.Entity;
import jakarta.persistence.FetchType;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.ManyToOne;

@Entity
class SuiteVersion {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;
    @ManyToOne(fetch = FetchType.LAZY, optional = false)
    private Suite suite;
    private String version;

    protected SuiteVersion() {
    }

    SuiteVersion(Suite suite, String version) {
        this.suite = suite;
        this.version = version;
    }

    Long id() {
        return id;
    }

    Suite suite() {
        return suite;
    }

    String version() {
        return version;
    }
}
