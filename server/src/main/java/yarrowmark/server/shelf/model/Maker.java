package yarrowmark.server.shelf.model;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;

@Entity
public class Maker {
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

    public String name() {
        return name;
    }
}
