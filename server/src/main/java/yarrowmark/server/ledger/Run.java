package yarrowmark.server.ledger;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import java.time.Instant;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** One attempt at one test in a session. */
@Entity
class Run {
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
    private Reason reason;

    private String reasonWords;
    private int durationMs;
    private Instant finishedAt;
    private String person;
    /** What the device noticed meanwhile; null where it noticed nothing. */
    private String disturbed;
    /** Of the whole duration; null where nobody timed parts. */
    private Integer timedMs;

    protected Run() {}

    Run(Session session, Ledger.NewRun run) {
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

    String disturbed() {
        return disturbed;
    }

    Integer timedMs() {
        return timedMs;
    }

    Long id() {
        return id;
    }

    long sessionId() {
        return sessionId;
    }

    long configurationId() {
        return configurationId;
    }

    long testId() {
        return testId;
    }

    int runNumber() {
        return runNumber;
    }

    int attempt() {
        return attempt;
    }

    RunState state() {
        return state;
    }

    Reason reason() {
        return reason;
    }

    String reasonWords() {
        return reasonWords;
    }

    int durationMs() {
        return durationMs;
    }

    Instant finishedAt() {
        return finishedAt;
    }

    String person() {
        return person;
    }
}
