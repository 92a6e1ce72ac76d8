package yarrowmark.server.shelf;

import jakarta.persistence.Entity;
import jakarta.persistence.FetchType;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.ManyToOne;
import java.time.Instant;
import java.time.LocalDate;

/** One specimen of a model. */
@Entity
class Unit {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    @ManyToOne(fetch = FetchType.LAZY, optional = false)
    private Model model;

    String label;
    /** Serial number or asset tag. */
    String serial;
    /** Where it came from. */
    String origin;
    /** When it must go back. */
    LocalDate dueBack;

    Instant retiredAt;

    protected Unit() {}

    Unit(Model model, String label) {
        this.model = model;
        this.label = label;
    }

    void retire(Instant at) {
        this.retiredAt = at;
    }

    Long id() {
        return id;
    }

    Model model() {
        return model;
    }

    String label() {
        return label;
    }

    LocalDate dueBack() {
        return dueBack;
    }

    boolean isRetired() {
        return retiredAt != null;
    }
}
