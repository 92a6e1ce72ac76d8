package yarrowmark.server.access;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import org.jspecify.annotations.Nullable;

@Entity
@Table(name = "person")
class Person {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private String name;

    @Enumerated(EnumType.STRING)
    private Role role;

    private String passwordHash;

    /** 1 for the first one of a shelf, of which there is one. */
    @Nullable
    private Byte founder;

    /** Absent for those of before this was kept. */
    @Nullable
    private Instant madeAt;

    @Nullable
    private Instant removedAt;

    protected Person() {}

    Person(String name, Role role, String passwordHash, Instant madeAt) {
        this.name = name;
        this.role = role;
        this.passwordHash = passwordHash;
        this.madeAt = madeAt;
    }

    static Person first(String name, String passwordHash, Instant madeAt) {
        Person owner = new Person(name, Role.OWNER, passwordHash, madeAt);
        owner.founder = 1;
        return owner;
    }

    long id() {
        return id;
    }

    String name() {
        return name;
    }

    void rename(String to) {
        name = to;
    }

    Role role() {
        return role;
    }

    void become(Role next) {
        role = next;
    }

    String passwordHash() {
        return passwordHash;
    }

    void passwordHash(String hash) {
        passwordHash = hash;
    }

    @Nullable
    Instant madeAt() {
        return madeAt;
    }

    boolean isHere() {
        return removedAt == null;
    }

    void remove(Instant at) {
        removedAt = at;
    }
}
