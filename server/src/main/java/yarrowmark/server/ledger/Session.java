package yarrowmark.server.ledger;

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

/** One sitting of one configuration with one plan, with its conditions. */
@Entity
class Session {
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

    private Boolean onMains;
    private Double batteryLevel;
    private Instant startedAt;
    private Instant endedAt;
    private Double roomTemperature;
    private Boolean recording;
    private String remarks;

    @ElementCollection
    @CollectionTable(name = "session_test", joinColumns = @JoinColumn(name = "session_id"))
    @OrderColumn(name = "position")
    private List<TestByHand> testsByHand = new ArrayList<>();

    @ElementCollection
    @CollectionTable(name = "session_check", joinColumns = @JoinColumn(name = "session_id"))
    @OrderColumn(name = "position")
    private List<SessionCheck> checks = new ArrayList<>();

    protected Session() {}

    Session(Ledger.NewSession s) {
        this.configurationId = s.configurationId();
        this.planName = s.planName();
        this.runs = s.runs();
        this.timedMs = s.timedMs();
        this.onMains = s.onMains();
        this.batteryLevel = s.batteryLevel();
        this.startedAt = s.startedAt();
        this.roomTemperature = s.byHand().roomTemperature();
        this.recording = s.byHand().recording();
        this.remarks = s.byHand().remarks();
        this.testsByHand.addAll(s.byHand().tests());
        s.checks().forEach(c -> checks.add(new SessionCheck(c.text(), c.ticked(), s.checkedBy())));
    }

    void end(SessionState how, Instant at) {
        this.state = how;
        this.endedAt = at;
    }

    Long id() {
        return id;
    }

    long configurationId() {
        return configurationId;
    }

    String planName() {
        return planName;
    }

    int runs() {
        return runs;
    }

    int timedMs() {
        return timedMs;
    }

    SessionState state() {
        return state;
    }

    Boolean onMains() {
        return onMains;
    }

    Double batteryLevel() {
        return batteryLevel;
    }

    void resume() {
        this.state = SessionState.OPEN;
        this.endedAt = null;
    }

    Double roomTemperature() {
        return roomTemperature;
    }

    Boolean recording() {
        return recording;
    }

    String remarks() {
        return remarks;
    }

    List<TestByHand> testsByHand() {
        return testsByHand;
    }

    List<SessionCheck> checks() {
        return checks;
    }

    Instant startedAt() {
        return startedAt;
    }

    Instant endedAt() {
        return endedAt;
    }
}
