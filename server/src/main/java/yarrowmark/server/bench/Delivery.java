package yarrowmark.server.bench;

import jakarta.persistence.Column;
import jakarta.persistence.Embeddable;
import jakarta.persistence.EmbeddedId;
import jakarta.persistence.Entity;
import java.io.Serializable;
import java.util.Objects;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** A run that a device has delivered, by its idempotency key. */
@Entity
class Delivery {
    @Embeddable
    static class Key implements Serializable {
        private static final long serialVersionUID = 1;
        private long seatId;

        @JdbcTypeCode(SqlTypes.CHAR)
        @Column(length = 36)
        private String deliveryKey;

        protected Key() {}

        Key(long seatId, String deliveryKey) {
            this.seatId = seatId;
            this.deliveryKey = deliveryKey;
        }

        @Override
        public boolean equals(Object other) {
            return other instanceof Key k && k.seatId == seatId && k.deliveryKey.equals(deliveryKey);
        }

        @Override
        public int hashCode() {
            return Objects.hash(seatId, deliveryKey);
        }
    }

    @EmbeddedId
    private Key key;

    @JdbcTypeCode(SqlTypes.CHAR)
    private String bodyHash;

    private Long runId;

    protected Delivery() {}

    Delivery(Key key, String bodyHash, long runId) {
        this.key = key;
        this.bodyHash = bodyHash;
        this.runId = runId;
    }

    String bodyHash() {
        return bodyHash;
    }

    long runId() {
        return runId;
    }
}
