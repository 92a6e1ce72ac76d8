package yarrowmark.server.shelf;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;

@Entity
class Maker {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private String name;

    protected Maker() {}

    Maker(String name) {
        this.name = name;
    }

    Long id() {
        return id;
    }

    String name() {
        return name;
    }
}
