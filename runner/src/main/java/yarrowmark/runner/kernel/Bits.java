package yarrowmark.runner.kernel;

import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteOrder;

/** What every kernel computes with. */
final class Bits {
    /** Four bytes as a number, whatever the processor's own order is. */
    static final VarHandle INT = MethodHandles.byteArrayViewVarHandle(int[].class, ByteOrder.LITTLE_ENDIAN);

    /** Beginning and factor of the 32-bit hashes (FNV-1a). */
    static final int HASH = 0x811c9dc5;

    static final int PRIME = 0x01000193;

    private Bits() {}

    /** The next number of a generator that is the same everywhere: xorshift, 32 bits. */
    static int next(int x) {
        int a = x ^ x << 13;
        int b = a ^ a >>> 17;
        return b ^ b << 5;
    }

    /** Every bit of many numbers in one. */
    static int digest(double[] values) {
        long h = 0xcbf29ce484222325L;
        for (double v : values) {
            h = Long.rotateLeft(h ^ Double.doubleToRawLongBits(v), 23) * 0x9e3779b97f4a7c15L;
        }
        return (int) (h ^ h >>> 32);
    }
}
