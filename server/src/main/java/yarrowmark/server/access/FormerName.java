package yarrowmark.server.access;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;

/** A name that somebody had. What they did under it stays under it, so nobody else may take it. */
@Entity
class FormerName {
    @Id
    private String name;

    private long personId;

    protected FormerName() {}

    FormerName(String name, long personId) {
        this.name = name;
        this.personId = personId;
    }

    long personId() {
        return personId;
    }
}
