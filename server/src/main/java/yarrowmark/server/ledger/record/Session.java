package yarrowmark.server.ledger.record;

import jakarta.persistence.CollectionTable;
import jakarta.persistence.ElementCollection;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.JoinColumn;
import jakarta.persistence.OrderColumn;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;
import org.jspecify.annotations.Nullable;

/** One sitting of one configuration with one plan, with its conditions. */
@Entity
public class Session {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private long configurationId;
    private String planName;
    private int runs;
    private int timedMs;

    @Enumerated(EnumType.STRING)
    @JdbcTypeCode(SqlTypes.VARCHAR)
    private SessionState state = SessionState.OPEN;

    private @Nullable Boolean onMains;
    private @Nullable Double batteryLevel;
    private Instant startedAt;
    private @Nullable Instant endedAt;
    private @Nullable Double roomTemperature;
    private @Nullable Boolean recording;
    private @Nullable Boolean otherWork;
    private @Nullable String remarks;
    private @Nullable Integer tests;
    private boolean counts;

    @ElementCollection
    @CollectionTable(name = "session_test", joinColumns = @JoinColumn(name = "session_id"))
    @OrderColumn(name = "position")
    private List<TestByHand> testsByHand = new ArrayList<>();

    @ElementCollection
    @CollectionTable(name = "session_check", joinColumns = @JoinColumn(name = "session_id"))
    @OrderColumn(name = "position")
    private List<SessionCheck> checks = new ArrayList<>();

    protected Session() {}

    Session(long configurationId, NewSession s) {
        this.configurationId = configurationId;
        this.planName = s.planName();
        this.runs = s.runs();
        this.timedMs = s.timedMs();
        this.onMains = s.onMains();
        this.batteryLevel = s.batteryLevel();
        this.startedAt = s.startedAt();
        this.roomTemperature = s.byHand().roomTemperature();
        this.recording = s.byHand().recording();
        this.otherWork = s.byHand().otherWork();
        this.remarks = s.byHand().remarks();
        this.tests = s.tests();
        this.testsByHand.addAll(s.byHand().tests());
        s.checks().forEach(c -> checks.add(new SessionCheck(c.text(), c.ticked(), s.checkedBy())));
    }

    void end(SessionState how, Instant at) {
        this.state = how;
        this.endedAt = at;
    }

    public Long id() {
        return id;
    }

    public long configurationId() {
        return configurationId;
    }

    public String planName() {
        return planName;
    }

    public int runs() {
        return runs;
    }

    public int timedMs() {
        return timedMs;
    }

    public SessionState state() {
        return state;
    }

    public @Nullable Boolean onMains() {
        return onMains;
    }

    public @Nullable Double batteryLevel() {
        return batteryLevel;
    }

    /** How many tests it was to have; null where nobody planned any. */
    public @Nullable Integer tests() {
        return tests;
    }

    /** Whether somebody said that it counts although it was never finished. */
    public boolean counts() {
        return counts;
    }

    void count(boolean anyway) {
        this.counts = anyway;
    }

    void resume() {
        this.state = SessionState.OPEN;
        this.endedAt = null;
    }

    public @Nullable Double roomTemperature() {
        return roomTemperature;
    }

    public @Nullable Boolean recording() {
        return recording;
    }

    public @Nullable Boolean otherWork() {
        return otherWork;
    }

    public @Nullable String remarks() {
        return remarks;
    }

    public List<TestByHand> testsByHand() {
        return testsByHand;
    }

    public List<SessionCheck> checks() {
        return checks;
    }

    public Instant startedAt() {
        return startedAt;
    }

    public @Nullable Instant endedAt() {
        return endedAt;
    }
}
