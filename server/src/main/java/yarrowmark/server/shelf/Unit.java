package yarrowmark.server.shelf;

import jakarta.persistence.Entity;
import jakarta.persistence.FetchType;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.ManyToOne;
import java.time.Instant;
import java.time.LocalDate;
import org.jspecify.annotations.Nullable;

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
    @Nullable
    String serial;
    /** Where it came from. */
    @Nullable
    String origin;
    /** When it must go back. */
    @Nullable
    LocalDate dueBack;

    @Nullable
    Instant retiredAt;

    protected Unit() {}

    Unit(Model model, String label) {
        this.model = model;
        this.label = label;
    }

    void retire(@Nullable Instant at) {
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

    @Nullable
    LocalDate dueBack() {
        return dueBack;
    }

    boolean isRetired() {
        return retiredAt != null;
    }
}
