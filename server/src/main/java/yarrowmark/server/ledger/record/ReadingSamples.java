package yarrowmark.server.ledger.record;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import org.hibernate.annotations.Immutable;

/** The timing samples behind a reading, packed. */
@Entity
@Immutable
public class ReadingSamples {
    @Id
    private Long readingId;

    private int points;
    private byte[] packed;

    protected ReadingSamples() {}

    ReadingSamples(long readingId, double[] values) {
        this.readingId = readingId;
        this.points = values.length;
        this.packed = PackedSamples.pack(values);
    }

    public Long readingId() {
        return readingId;
    }

    public double[] values() {
        return PackedSamples.unpack(packed);
    }
}
