package yarrowmark.server.bench;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import java.time.Duration;
import java.time.Instant;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;
import org.jspecify.annotations.Nullable;

/** A device's place at the bench: first a code that waits, then a device with a token, then its session. */
@Entity
class Seat {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private String code;
    private long planId;
    private int runs;
    private int timedMs;
    private int pauseMs;
    /** Without what is only nice to have. */
    private boolean mustOnly;

    private Instant createdAt;
    private Instant expiresAt;
    private @Nullable Instant joinedAt;

    @JdbcTypeCode(SqlTypes.CHAR)
    private @Nullable String tokenHash;

    private @Nullable String device;
    private @Nullable Long sessionId;

    @Enumerated(EnumType.STRING)
    @JdbcTypeCode(SqlTypes.VARCHAR)
    private Command command = Command.GO;

    private int commandRevision;

    @Enumerated(EnumType.STRING)
    @JdbcTypeCode(SqlTypes.VARCHAR)
    private Phase phase = Phase.WAITING;

    private @Nullable Long phaseTestId;
    private @Nullable Integer phaseRun;
    private @Nullable Instant phaseUntil;
    private @Nullable Instant lastHeardAt;
    private String invitedBy;

    protected Seat() {}

    Seat(String code, Seats.Settings settings, String invitedBy, Instant now, Duration valid) {
        this.invitedBy = invitedBy;
        this.code = code;
        this.planId = settings.planId();
        this.runs = settings.runs();
        this.timedMs = settings.timedMs();
        this.pauseMs = settings.pauseMs();
        this.mustOnly = settings.mustOnly();
        this.createdAt = now;
        this.expiresAt = now.plus(valid);
    }

    void join(String newTokenHash, @Nullable String newDevice, Instant now) {
        this.tokenHash = newTokenHash;
        this.device = newDevice;
        this.joinedAt = now;
        this.phase = Phase.JOINED;
        this.lastHeardAt = now;
    }

    /** The reviewer who made the code; null for codes of earlier versions. */
    String invitedBy() {
        return invitedBy;
    }

    void start(long newSessionId) {
        this.sessionId = newSessionId;
        this.phase = Phase.RUNNING;
    }

    void enter(Phase newPhase, @Nullable Long testId, @Nullable Integer run, @Nullable Instant until) {
        this.phase = newPhase;
        this.phaseTestId = testId;
        this.phaseRun = run;
        this.phaseUntil = until;
    }

    /** Something came for it after it was cleared away. */
    void comeBack() {
        if (phase == Phase.CLEARED) {
            phase = Phase.STOPPED;
        }
    }

    void order(Command newCommand) {
        this.command = newCommand;
        this.commandRevision++;
    }

    void heard(Instant now) {
        this.lastHeardAt = now;
    }

    Long id() {
        return id;
    }

    String code() {
        return code;
    }

    long planId() {
        return planId;
    }

    int runs() {
        return runs;
    }

    int timedMs() {
        return timedMs;
    }

    int pauseMs() {
        return pauseMs;
    }

    boolean mustOnly() {
        return mustOnly;
    }

    Instant createdAt() {
        return createdAt;
    }

    Instant expiresAt() {
        return expiresAt;
    }

    @Nullable
    Instant joinedAt() {
        return joinedAt;
    }

    @Nullable
    String tokenHash() {
        return tokenHash;
    }

    @Nullable
    String device() {
        return device;
    }

    @Nullable
    Long sessionId() {
        return sessionId;
    }

    Command command() {
        return command;
    }

    int commandRevision() {
        return commandRevision;
    }

    Phase phase() {
        return phase;
    }

    @Nullable
    Long phaseTestId() {
        return phaseTestId;
    }

    @Nullable
    Integer phaseRun() {
        return phaseRun;
    }

    @Nullable
    Instant phaseUntil() {
        return phaseUntil;
    }

    @Nullable
    Instant lastHeardAt() {
        return lastHeardAt;
    }
}
