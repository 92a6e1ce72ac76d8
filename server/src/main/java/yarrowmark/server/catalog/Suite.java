package yarrowmark.server.catalog;

import jakarta.persistence.Entity;
import jakarta.persistence.EntityListeners;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;

@Entity
@EntityListeners(CatalogWatch.class)
class Suite {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private String name;
    private boolean builtIn;

    protected Suite() {}

    Suite(String name, boolean builtIn) {
        this.name = name;
        this.builtIn = builtIn;
    }

    String name() {
        return name;
    }

    boolean builtIn() {
        return builtIn;
    }

    Long id() {
        return id;
    }

    void rename(String newName) {
        this.name = newName;
    }
}
