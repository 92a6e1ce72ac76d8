package yarrowmark.runner.kernel;

import java.util.Arrays;

/** Dictionary compression of map tiles, each on its own as maps are kept: an LZ77 kind, byte-oriented. */
final class MapTileCrush implements Kernel {
    private static final int TILES = 8;
    private static final int SIDE = 160;
    private static final int TILE_BYTES = SIDE * SIDE;
    private static final int HASH_BITS = 13;
    private static final int LEAST_MATCH = 4;
    private static final int MOST_MATCH = 259;
    private static final int WINDOW = 65_535;
    private static final int MOST_LITERALS = 254;

    private final byte[] raw = new byte[TILES * TILE_BYTES];
    private final byte[] packed = new byte[2 * TILES * TILE_BYTES];
    private final byte[] unpacked = new byte[TILE_BYTES + MOST_MATCH];
    /** Positions + 1 of the last place with this hash. */
    private final int[] hashes = new int[1 << HASH_BITS];

    /** Bands of land cover with winding borders, a dotted path and some grain. */
    @Override
    public void prepare(int seed) {
        int x = seed;
        for (int tile = 0; tile < TILES; tile++) {
            int border = 20 + tile * 37 % 90;
            for (int row = 0; row < SIDE; row++) {
                x = Bits.next(x);
                border = Math.max(4, Math.min(SIDE - 24, border + (x >>> 9) % 5 - 2));
                for (int column = 0; column < SIDE; column++) {
                    int cover = column < border ? 3 : column < border + 18 ? 7 : 11 + ((row >> 4) + tile) % 3;
                    if ((row + column * 3) % 41 == 0) {
                        cover += 64;
                    }
                    if ((x >>> (column & 15) & 511) == 5) {
                        cover += 128;
                    }
                    raw[tile * TILE_BYTES + row * SIDE + column] = (byte) cover;
                }
            }
        }
    }

    private int hashAt(int at) {
        return (int) Bits.INT.get(raw, at) * 0x9e3779b1 >>> 32 - HASH_BITS;
    }

    /** @return the packed length of a tile, which is put behind what was packed before */
    private int pack(int tile, int offset) {
        Arrays.fill(hashes, 0);
        int first = tile * TILE_BYTES;
        int end = first + TILE_BYTES;
        int last = end - LEAST_MATCH;
        int from = first;
        int literal = first;
        int to = offset;
        while (from <= last) {
            int slot = hashAt(from);
            int before = hashes[slot] - 1;
            hashes[slot] = from + 1;
            int length = 0;
            if (before >= first
                    && from - before <= WINDOW
                    && (int) Bits.INT.get(raw, before) == (int) Bits.INT.get(raw, from)) {
                length = LEAST_MATCH;
                int most = Math.min(MOST_MATCH, end - from);
                while (length < most && raw[before + length] == raw[from + length]) {
                    length++;
                }
            }
            if (length == 0) {
                from++;
                continue;
            }
            to = literals(to, literal, from);
            packed[to] = (byte) (length - LEAST_MATCH);
            packed[to + 1] = (byte) (from - before);
            packed[to + 2] = (byte) (from - before >>> 8);
            to += 3;
            int after = from + length;
            from++;
            while (from < after && from <= last) {
                hashes[hashAt(from)] = from + 1;
                from++;
            }
            from = after;
            literal = after;
        }
        return literals(to, literal, end) - offset;
    }

    /** A count of literals (255: more follow in another block), then the literals. */
    private int literals(int at, int start, int end) {
        int to = at;
        int from = start;
        while (end - from > MOST_LITERALS) {
            packed[to] = (byte) 255;
            System.arraycopy(raw, from, packed, to + 1, MOST_LITERALS);
            to += MOST_LITERALS + 1;
            from += MOST_LITERALS;
        }
        packed[to] = (byte) (end - from);
        System.arraycopy(raw, from, packed, to + 1, end - from);
        return to + 1 + end - from;
    }

    private int unpack(int offset, int packedLength) {
        int from = offset;
        int end = from + packedLength;
        int to = 0;
        while (from < end) {
            int count = packed[from++] & 255;
            while (count == 255) {
                System.arraycopy(packed, from, unpacked, to, MOST_LITERALS);
                to += MOST_LITERALS;
                from += MOST_LITERALS;
                count = packed[from++] & 255;
            }
            System.arraycopy(packed, from, unpacked, to, count);
            to += count;
            from += count;
            if (from >= end) {
                break;
            }
            int length = (packed[from] & 255) + LEAST_MATCH;
            int distance = packed[from + 1] & 255 | (packed[from + 2] & 255) << 8;
            from += 3;
            // Byte by byte: a match may reach into what it is just writing.
            for (int i = 0; i < length; i++) {
                unpacked[to + i] = unpacked[to + i - distance];
            }
            to += length;
        }
        return to;
    }

    @Override
    public int operate() {
        int offset = 0;
        for (int tile = 0; tile < TILES; tile++) {
            int length = pack(tile, offset);
            int first = tile * TILE_BYTES;
            if (unpack(offset, length) != TILE_BYTES
                    || !Arrays.equals(raw, first, first + TILE_BYTES, unpacked, 0, TILE_BYTES)) {
                return 0;
            }
            offset += length;
        }
        return offset;
    }

    @Override
    public int digest(int packedLength) {
        int h = Bits.HASH;
        for (int i = 0; i < packedLength; i++) {
            h = (h ^ packed[i] & 255) * Bits.PRIME;
        }
        return h;
    }
}
