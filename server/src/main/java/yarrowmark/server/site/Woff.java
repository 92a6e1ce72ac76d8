package yarrowmark.server.site;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.util.zip.DataFormatException;
import java.util.zip.Inflater;

/** Takes a font out of its wrapping for the web (WOFF 1.0, W3C Recommendation of 2012): Java reads the bare one. */
final class Woff {
    private static final int SIGNATURE = 0x774f4646;
    private static final int HEADER = 44;
    private static final int ENTRY = 20;
    private static final int BARE_HEADER = 12;
    private static final int BARE_ENTRY = 16;
    private static final int LARGEST = 10_000_000;

    private Woff() {}

    /** @throws IOException where it is no such font */
    static byte[] unwrapped(byte[] woff) throws IOException {
        ByteBuffer in = ByteBuffer.wrap(woff);
        if (woff.length < HEADER || in.getInt(0) != SIGNATURE) {
            throw new IOException("this is no WOFF font");
        }
        int tables = in.getShort(12);
        int size = in.getInt(16);
        if (size < BARE_HEADER || size > LARGEST) {
            throw new IOException("a font of " + size + " bytes");
        }
        ByteBuffer out = ByteBuffer.allocate(size);
        int power = Integer.highestOneBit(tables);
        out.putInt(in.getInt(4)).putShort((short) tables).putShort((short) (power * BARE_ENTRY));
        out.putShort((short) Integer.numberOfTrailingZeros(power)).putShort((short) ((tables - power) * BARE_ENTRY));
        int at = BARE_HEADER + tables * BARE_ENTRY;
        for (int i = 0; i < tables; i++) {
            int entry = HEADER + i * ENTRY;
            int packed = in.getInt(entry + 8);
            int length = in.getInt(entry + 12);
            out.position(BARE_HEADER + i * BARE_ENTRY);
            out.putInt(in.getInt(entry))
                    .putInt(in.getInt(entry + 16))
                    .putInt(at)
                    .putInt(length);
            out.position(at);
            unpack(woff, in.getInt(entry + 4), packed, length, out.array(), at);
            at += (length + 3) & ~3;
        }
        return out.array();
    }

    private static void unpack(byte[] from, int offset, int packed, int length, byte[] to, int at) throws IOException {
        if (packed == length) {
            System.arraycopy(from, offset, to, at, length);
            return;
        }
        Inflater inflater = new Inflater();
        try {
            inflater.setInput(from, offset, packed);
            if (inflater.inflate(to, at, length) != length) {
                throw new IOException("a table of this font is cut short");
            }
        } catch (DataFormatException e) {
            throw new IOException(e);
        } finally {
            inflater.end();
        }
    }
}
