package yarrowmark.server.ledger.record;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.util.zip.DeflaterOutputStream;
import java.util.zip.InflaterInputStream;

/** How timing samples are kept: deflated big-endian doubles. */
public final class PackedSamples {
    private PackedSamples() {}

    /** @throws UncheckedIOException where it is nothing that {@link #pack} made */
    public static double[] unpack(byte[] packed) {
        try (DataInputStream in = new DataInputStream(new InflaterInputStream(new ByteArrayInputStream(packed)))) {
            ByteBuffer bytes = ByteBuffer.wrap(in.readAllBytes());
            double[] values = new double[bytes.remaining() / Double.BYTES];
            bytes.asDoubleBuffer().get(values);
            return values;
        } catch (IOException e) {
            throw new UncheckedIOException("samples cannot be unpacked", e);
        }
    }

    public static byte[] pack(double[] values) {
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
