package yarrowmark.server.shelf;

import jakarta.persistence.Entity;
import jakarta.persistence.FetchType;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.ManyToOne;

/** One specimen of a model. */
@Entity
class Unit {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;
    @ManyToOne(fetch = FetchType.LAZY, optional = false)
    private Model model;
    private String label;

    protected Unit() {
    }

    Unit(Model model, String label) {
        this.model = model;
        this.label = label;
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
}
