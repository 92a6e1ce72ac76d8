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
    private Instant joinedAt;

    @JdbcTypeCode(SqlTypes.CHAR)
    private String tokenHash;

    private String device;
    private Long sessionId;

    @Enumerated(EnumType.STRING)
    @JdbcTypeCode(SqlTypes.VARCHAR)
    private Command command = Command.GO;

    private int commandRevision;

    @Enumerated(EnumType.STRING)
    @JdbcTypeCode(SqlTypes.VARCHAR)
    private Phase phase = Phase.WAITING;

    private Long phaseTestId;
    private Integer phaseRun;
    private Instant phaseUntil;
    private Instant lastHeardAt;
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

    void join(String newTokenHash, String newDevice, Instant now) {
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

    void enter(Phase newPhase, Long testId, Integer run, Instant until) {
        this.phase = newPhase;
        this.phaseTestId = testId;
        this.phaseRun = run;
        this.phaseUntil = until;
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

    Instant joinedAt() {
        return joinedAt;
    }

    String device() {
        return device;
    }

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

    Long phaseTestId() {
        return phaseTestId;
    }

    Integer phaseRun() {
        return phaseRun;
    }

    Instant phaseUntil() {
        return phaseUntil;
    }

    Instant lastHeardAt() {
        return lastHeardAt;
    }
}
