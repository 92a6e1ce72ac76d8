package yarrowmark.server.ledger.record;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import java.time.Instant;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;
import org.jspecify.annotations.Nullable;

/** One attempt at one test in a session. */
@Entity
public class Run {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private long sessionId;
    private long configurationId;
    private long testId;
    private int runNumber;
    private int attempt;

    @Enumerated(EnumType.STRING)
    @JdbcTypeCode(SqlTypes.VARCHAR)
    private RunState state;

    @Enumerated(EnumType.STRING)
    @JdbcTypeCode(SqlTypes.VARCHAR)
    private @Nullable Reason reason;

    private @Nullable String reasonWords;
    private int durationMs;
    private Instant finishedAt;
    private @Nullable String person;
    /** What the device noticed meanwhile; null where it noticed nothing. */
    private @Nullable String disturbed;
    /** Of the whole duration; null where nobody timed parts. */
    private @Nullable Integer timedMs;

    protected Run() {}

    Run(Session session, NewRun run) {
        this.sessionId = session.id();
        this.configurationId = session.configurationId();
        this.testId = run.testId();
        this.runNumber = run.runNumber();
        this.attempt = run.attempt();
        this.state = run.state();
        this.reason = run.reason();
        this.reasonWords = run.reasonWords();
        this.durationMs = run.durationMs();
        this.finishedAt = run.finishedAt();
        this.person = run.person();
        this.disturbed = run.disturbed();
        this.timedMs = run.timedMs();
    }

    public @Nullable String disturbed() {
        return disturbed;
    }

    public @Nullable Integer timedMs() {
        return timedMs;
    }

    public Long id() {
        return id;
    }

    public long sessionId() {
        return sessionId;
    }

    long configurationId() {
        return configurationId;
    }

    public long testId() {
        return testId;
    }

    public int runNumber() {
        return runNumber;
    }

    public int attempt() {
        return attempt;
    }

    public RunState state() {
        return state;
    }

    @Nullable
    Reason reason() {
        return reason;
    }

    public @Nullable String reasonWords() {
        return reasonWords;
    }

    public int durationMs() {
        return durationMs;
    }

    public Instant finishedAt() {
        return finishedAt;
    }

    public @Nullable String person() {
        return person;
    }
}
