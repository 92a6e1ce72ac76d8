package yarrowmark.server.access;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import java.time.Duration;
import java.time.Instant;
import org.jspecify.annotations.Nullable;
import yarrowmark.server.platform.Tokens;

/** A link that works once: to become somebody here, or to choose a new password. */
@Entity
class Invitation {
    private static final Duration TO_JOIN = Duration.ofDays(7);
    private static final Duration TO_RESET = Duration.ofDays(1);

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private String tokenHash;

    /** Of who is invited; absent where it is for a new password. */
    @Enumerated(EnumType.STRING)
    @Nullable
    private Role role;

    /** Whose password it is for, or who came by it. */
    @Nullable
    private Long personId;

    private String madeBy;
    private Instant madeAt;
    private Instant expiresAt;

    @Nullable
    private Instant usedAt;

    protected Invitation() {}

    static Invitation toJoin(String token, Role role, String madeBy, Instant at) {
        Invitation i = new Invitation(token, madeBy, at, TO_JOIN);
        i.role = role;
        return i;
    }

    static Invitation toReset(String token, long personId, String madeBy, Instant at) {
        Invitation i = new Invitation(token, madeBy, at, TO_RESET);
        i.personId = personId;
        return i;
    }

    private Invitation(String token, String madeBy, Instant at, Duration lasts) {
        this.tokenHash = Tokens.hash(token);
        this.madeBy = madeBy;
        this.madeAt = at;
        this.expiresAt = at.plus(lasts);
    }

    long id() {
        return id;
    }

    @Nullable
    Role role() {
        return role;
    }

    @Nullable
    Long personId() {
        return personId;
    }

    String madeBy() {
        return madeBy;
    }

    Instant madeAt() {
        return madeAt;
    }

    Instant expiresAt() {
        return expiresAt;
    }

    boolean isOpen(Instant now) {
        return usedAt == null && now.isBefore(expiresAt);
    }

    void use(Instant at, long by) {
        usedAt = at;
        personId = by;
    }

    /** Nobody can use it any more. */
    void close(Instant at) {
        usedAt = at;
    }
}
