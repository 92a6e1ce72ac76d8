package yarrowmark.server.access;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import java.time.Instant;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;
import org.jspecify.annotations.Nullable;

/** A browser in which somebody is signed in. */
@Entity
class SignedPlace {
    private static final int LONGEST_AGENT = 200;

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private long personId;
    /** Of the token in its browser's cookie. */
    @JdbcTypeCode(SqlTypes.CHAR)
    private @Nullable String tokenHash;

    private String address;
    private String agent;
    private Instant startedAt;
    private Instant lastAt;

    @Nullable
    private Instant endedAt;

    protected SignedPlace() {}

    SignedPlace(long personId, String tokenHash, String address, String agent, Instant at) {
        this.personId = personId;
        this.tokenHash = tokenHash;
        this.address = address;
        this.agent = agent.substring(0, Math.min(LONGEST_AGENT, agent.length()));
        this.startedAt = at;
        this.lastAt = at;
    }

    long id() {
        return id;
    }

    long personId() {
        return personId;
    }

    @Nullable
    String tokenHash() {
        return tokenHash;
    }

    String address() {
        return address;
    }

    String agent() {
        return agent;
    }

    Instant startedAt() {
        return startedAt;
    }

    Instant lastAt() {
        return lastAt;
    }

    void seen(Instant at) {
        lastAt = at;
    }

    void end(Instant at) {
        endedAt = at;
    }
}
