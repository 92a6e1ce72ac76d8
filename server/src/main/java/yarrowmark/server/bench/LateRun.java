package yarrowmark.server.bench;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import java.time.Instant;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** A finished run that came after its session was ended without the device: kept until the reviewer decides. */
@Entity
class LateRun {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private long seatId;

    @JdbcTypeCode(SqlTypes.CHAR)
    private String deliveryKey;

    @JdbcTypeCode(SqlTypes.CHAR)
    private String bodyHash;

    /** As JSON: it is read by nobody but who takes it in. */
    @JdbcTypeCode(SqlTypes.LONGVARCHAR)
    private String run;

    private Instant arrivedAt;

    protected LateRun() {}

    LateRun(long seatId, String deliveryKey, String bodyHash, String run, Instant arrivedAt) {
        this.seatId = seatId;
        this.deliveryKey = deliveryKey;
        this.bodyHash = bodyHash;
        this.run = run;
        this.arrivedAt = arrivedAt;
    }

    long seatId() {
        return seatId;
    }

    String deliveryKey() {
        return deliveryKey;
    }

    String bodyHash() {
        return bodyHash;
    }

    String run() {
        return run;
    }

    Instant arrivedAt() {
        return arrivedAt;
    }
}
