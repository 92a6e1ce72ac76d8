package yarrowmark.server.access;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import java.time.Instant;
import org.jspecify.annotations.Nullable;
import yarrowmark.server.platform.Tokens;

/** A key with which a program comes in the name of a person. */
@Entity
class ApiKey {
    /** What a key is good for; each includes those before it. */
    enum Scope {
        READ,
        DELIVER,
        EVERYTHING
    }

    private static final int HINT = 6;

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private String name;

    @Enumerated(EnumType.STRING)
    private Scope scope;

    private String keyHash;
    /** How it begins, so that its holder knows which one it is. */
    private String hint;

    private long personId;
    private Instant madeAt;
    private Instant expiresAt;

    @Nullable
    private Instant lastAt;

    @Nullable
    private String lastAddress;

    @Nullable
    private Instant endedAt;

    protected ApiKey() {}

    ApiKey(String name, Scope scope, String key, long personId, Instant madeAt, Instant expiresAt) {
        this.name = name;
        this.scope = scope;
        this.keyHash = Tokens.hash(key);
        this.hint = key.substring(0, HINT);
        this.personId = personId;
        this.madeAt = madeAt;
        this.expiresAt = expiresAt;
    }

    long id() {
        return id;
    }

    String name() {
        return name;
    }

    Scope scope() {
        return scope;
    }

    String hint() {
        return hint;
    }

    long personId() {
        return personId;
    }

    Instant madeAt() {
        return madeAt;
    }

    Instant expiresAt() {
        return expiresAt;
    }

    @Nullable
    Instant lastAt() {
        return lastAt;
    }

    @Nullable
    String lastAddress() {
        return lastAddress;
    }

    boolean isEnded() {
        return endedAt != null;
    }

    boolean isGood(Instant now) {
        return endedAt == null && now.isBefore(expiresAt);
    }

    void used(Instant at, String address) {
        lastAt = at;
        lastAddress = address;
    }

    void end(Instant at) {
        endedAt = at;
    }
}
