package yarrowmark.server.ledger.record;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.zip.DeflaterOutputStream;
import java.util.zip.InflaterInputStream;
import org.hibernate.annotations.Immutable;

/** The timing samples behind a reading, packed: deflated big-endian doubles. */
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
        this.packed = pack(values);
    }

    public Long readingId() {
        return readingId;
    }

    public double[] values() {
        double[] values = new double[points];
        try (DataInputStream in = new DataInputStream(new InflaterInputStream(new ByteArrayInputStream(packed)))) {
            for (int i = 0; i < points; i++) {
                values[i] = in.readDouble();
            }
        } catch (IOException e) {
            throw new UncheckedIOException("the samples of reading " + readingId + " cannot be unpacked", e);
        }
        return values;
    }

    private static byte[] pack(double[] values) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (DataOutputStream out = new DataOutputStream(new DeflaterOutputStream(bytes))) {
            for (double value : values) {
                out.writeDouble(value);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return bytes.toByteArray();
    }
}
