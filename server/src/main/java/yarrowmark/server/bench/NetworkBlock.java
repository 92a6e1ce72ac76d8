package yarrowmark.server.bench;

import java.io.IOException;
import java.io.OutputStream;
import java.util.Random;

/** What is sent to measure a network: bytes that nothing on the way can make smaller. */
final class NetworkBlock {
    /** Of one request, in either direction. */
    static final long MOST_BYTES = 64L << 20;

    private static final byte[] BYTES = new byte[1 << 20];
    private static final int CHUNK = 1 << 16;
    private static final long SEED = 4711;

    static {
        new Random(SEED).nextBytes(BYTES);
    }

    private NetworkBlock() {}

    static void write(OutputStream out, long bytes) throws IOException {
        for (long sent = 0; sent < bytes; ) {
            int from = (int) (sent % BYTES.length);
            int length = (int) Math.min(Math.min(CHUNK, bytes - sent), BYTES.length - from);
            out.write(BYTES, from, length);
            sent += length;
        }
    }
}
