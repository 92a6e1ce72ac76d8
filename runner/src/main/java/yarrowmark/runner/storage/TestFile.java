package yarrowmark.runner.storage;

import com.sun.nio.file.ExtendedOpenOption;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.file.OpenOption;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.SplittableRandom;
import yarrowmark.runner.kernel.WrongAnswer;

/**
 * A file full of what cannot be compressed, each of whose blocks says which one it is: what is read is known to be what was
 * written, and no drive can keep two blocks as one.
 */
final class TestFile implements AutoCloseable {
    static final int BLOCK = 4096;
    private static final int CHUNK = 1 << 20;
    private static final int ALIGNED = 4096;
    private static final byte[] GRAIN = new byte[CHUNK];

    static {
        SplittableRandom random = new SplittableRandom(8112);
        for (int i = 0; i < GRAIN.length; i++) {
            GRAIN[i] = (byte) random.nextInt();
        }
    }

    private final FileChannel channel;
    private final long bytes;
    private final boolean direct;
    private final WriteBudget budget;

    private TestFile(FileChannel channel, long bytes, boolean direct, WriteBudget budget) {
        this.channel = channel;
        this.bytes = bytes;
        this.direct = direct;
        this.budget = budget;
    }

    /** @param wanted whether past the system's cache; where the file system cannot, it goes through the cache and says so */
    static TestFile open(Path file, long bytes, boolean wanted, WriteBudget budget) throws IOException {
        OpenOption[] plain = {StandardOpenOption.CREATE, StandardOpenOption.READ, StandardOpenOption.WRITE};
        if (wanted) {
            FileChannel channel = null;
            try {
                channel = FileChannel.open(file, plain[0], plain[1], plain[2], ExtendedOpenOption.DIRECT);
                TestFile direct = new TestFile(channel, bytes, true, budget);
                direct.write(direct.buffer(BLOCK), 0);
                return direct;
            } catch (IOException | UnsupportedOperationException e) {
                if (channel != null) {
                    channel.close();
                }
            }
        }
        return new TestFile(FileChannel.open(file, plain), bytes, false, budget);
    }

    /** Whether it goes past the system's cache. */
    boolean isDirect() {
        return direct;
    }

    long bytes() {
        return bytes;
    }

    /** A buffer that may be used for direct input and output. */
    ByteBuffer buffer(int size) {
        ByteBuffer made =
                ByteBuffer.allocateDirect(size + ALIGNED).alignedSlice(ALIGNED).order(ByteOrder.LITTLE_ENDIAN);
        made.limit(size);
        for (int at = 0; at < size; at += CHUNK) {
            made.put(at, GRAIN, 0, Math.min(CHUNK, size - at));
        }
        return made;
    }

    /** Writes the whole buffer, each block with its number. @param at in bytes, whole blocks */
    void write(ByteBuffer from, long at) throws IOException {
        int size = from.limit();
        budget.take(size);
        for (int block = 0; block + BLOCK <= size; block += BLOCK) {
            stamp(from, block, (at + block) / BLOCK + 1);
        }
        from.position(0);
        long to = at;
        while (from.hasRemaining()) {
            to += channel.write(from, to);
        }
    }

    /** Fills the buffer, and looks at both ends of each block. */
    void read(ByteBuffer to, long at) throws IOException {
        int size = to.limit();
        to.position(0);
        long from = at;
        while (to.hasRemaining()) {
            int read = channel.read(to, from);
            if (read < 0) {
                throw new IOException("The file ended at " + from + " bytes: something else shortened it.");
            }
            from += read;
        }
        for (int block = 0; block + BLOCK <= size; block += BLOCK) {
            long number = (at + block) / BLOCK + 1;
            if (to.getLong(block) != number || to.getLong(block + BLOCK - Long.BYTES) != ~number) {
                throw new WrongAnswer("What was read at " + (at + block) + " bytes is not what was written there.");
            }
        }
    }

    /** At its beginning and at its end: half a block of another one would be seen. */
    private static void stamp(ByteBuffer buffer, int block, long number) {
        buffer.putLong(block, number);
        buffer.putLong(block + BLOCK - Long.BYTES, ~number);
    }

    void flush() throws IOException {
        channel.force(false);
    }

    /** Writes all of it, so that whatever is read is there. */
    void fill() throws IOException {
        ByteBuffer chunk = buffer((int) Math.min(CHUNK, bytes));
        for (long at = 0; at < bytes; at += chunk.limit()) {
            if (Thread.interrupted()) {
                throw new IOException("It was stopped.");
            }
            write(chunk, at);
        }
        flush();
    }

    /** Reads all of it, so that what is asked of the cache is in it as far as it fits. */
    void toCache() throws IOException {
        ByteBuffer chunk = buffer((int) Math.min(CHUNK, bytes));
        for (long at = 0; at < bytes; at += chunk.limit()) {
            if (Thread.interrupted()) {
                throw new IOException("It was stopped.");
            }
            read(chunk, at);
        }
    }

    @Override
    public void close() throws IOException {
        channel.close();
    }
}
