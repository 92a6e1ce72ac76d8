package yarrowmark.server.catalog;

import jakarta.persistence.Entity;
import jakarta.persistence.EntityListeners;
import jakarta.persistence.FetchType;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.ManyToOne;

@Entity
@EntityListeners(CatalogWatch.class)
class SuiteVersion {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    @ManyToOne(fetch = FetchType.LAZY, optional = false)
    private Suite suite;

    private String version;
    /** Empty where the version has only one. */
    private String mode;
    /** Among the versions of its suite, the oldest first. */
    private long position;

    protected SuiteVersion() {}

    SuiteVersion(Suite suite, String version, String mode) {
        this.mode = mode;
        this.suite = suite;
        this.version = version;
    }

    long position() {
        return position;
    }

    void move(long to) {
        position = to;
    }

    Long id() {
        return id;
    }

    Suite suite() {
        return suite;
    }

    String number() {
        return version;
    }

    String mode() {
        return mode;
    }

    /** With its mode: "1.4, 64 bit". Scores of two modes are never compared. */
    String version() {
        return mode.isEmpty() ? version : version + ", " + mode;
    }
}
