package yarrowmark.server.ledger.record;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import org.hibernate.annotations.Immutable;
import org.springframework.data.domain.Persistable;

/** The timing samples behind a reading, packed. */
@Entity
@Immutable
public class ReadingSamples implements Persistable<Long> {
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

    @Override
    public Long getId() {
        return readingId;
    }

    /** Only ever written once and never taken away by itself; without this each would be looked for before it is written. */
    @Override
    public boolean isNew() {
        return true;
    }

    public double[] values() {
        return PackedSamples.unpack(packed);
    }
}
