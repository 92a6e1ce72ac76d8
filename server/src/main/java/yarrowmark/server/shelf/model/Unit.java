package yarrowmark.server.shelf.model;

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
public class Unit {
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

    public Unit(Model model, String label) {
        this.model = model;
        this.label = label;
    }

    public void retire(@Nullable Instant at) {
        this.retiredAt = at;
    }

    public Long id() {
        return id;
    }

    public Model model() {
        return model;
    }

    public String label() {
        return label;
    }

    @Nullable
    public LocalDate dueBack() {
        return dueBack;
    }

    public boolean isRetired() {
        return retiredAt != null;
    }
}
