package yarrowmark.runner.kernel;

/** An image filter on bytes: smoothing across and down with five weights, then sharpening what was there before. */
final class PlateFilter implements Kernel {
    private static final int SIDE = 256;
    private static final int PLANES = 3;
    private static final int BYTES = SIDE * SIDE;
    /** Stays as it is. */
    private static final int EDGE = 2;

    private final byte[] source = new byte[PLANES * BYTES];
    private final byte[] across = new byte[PLANES * BYTES];
    private final byte[] result = new byte[PLANES * BYTES];

    /** A plate of leaves: bands, spots and grain, different in each colour. */
    @Override
    public void prepare(int seed) {
        int x = seed;
        for (int i = 0; i < PLANES * BYTES; i++) {
            x = Bits.next(x);
            int row = i >> 8 & 255;
            int column = i & 255;
            int band = row * 3 + column * (1 + (i >> 16)) >> 4 & 7;
            source[i] = (byte) (band * 24 + ((row ^ column) & 31) + (x & 15));
        }
    }

    @Override
    public int operate() {
        System.arraycopy(source, 0, across, 0, across.length);
        System.arraycopy(source, 0, result, 0, result.length);
        for (int plane = 0; plane < PLANES; plane++) {
            int base = plane * BYTES;
            for (int row = 0; row < SIDE; row++) {
                across(base + row * SIDE);
            }
            for (int row = EDGE; row < SIDE - EDGE; row++) {
                down(base + row * SIDE);
            }
        }
        int h = Bits.HASH;
        for (int i = 0; i < PLANES * BYTES; i += 4) {
            h = (h ^ (int) Bits.INT.get(result, i)) * Bits.PRIME;
        }
        return h;
    }

    private void across(int from) {
        byte[] s = source;
        for (int at = from + EDGE; at < from + SIDE - EDGE; at++) {
            int sum = (s[at - 2] & 255)
                    + (s[at + 2] & 255)
                    + 4 * ((s[at - 1] & 255) + (s[at + 1] & 255))
                    + 6 * (s[at] & 255);
            across[at] = (byte) (sum + 8 >> 4);
        }
    }

    private void down(int from) {
        byte[] s = across;
        for (int at = from; at < from + SIDE; at++) {
            int sum = (s[at - 2 * SIDE] & 255)
                    + (s[at + 2 * SIDE] & 255)
                    + 4 * ((s[at - SIDE] & 255) + (s[at + SIDE] & 255))
                    + 6 * (s[at] & 255);
            int sharp = 2 * (source[at] & 255) - (sum + 8 >> 4);
            result[at] = (byte) Math.max(0, Math.min(255, sharp));
        }
    }
}
