package yarrowmark.runner.kernel;

import java.util.Arrays;

/** Shortest ways in a sparse graph: Dijkstra's search with a binary heap over footpaths that mostly lead nearby. */
final class FootpathSearch implements Kernel {
    private static final int PLACES = 8192;
    /** From each place. */
    private static final int PATHS = 5;

    private static final int FAR = Integer.MAX_VALUE;

    private final int[] lengths = new int[PLACES * PATHS];
    private final int[] ends = new int[PLACES * PATHS];
    private final int[] distance = new int[PLACES];
    /** Distance above, place below. */
    private final long[] heap = new long[PLACES * PATHS];

    private int size;
    private int start;

    /** Four paths to neighbours on an uneven grid, one to anywhere. */
    @Override
    public void prepare(int seed) {
        int x = seed;
        for (int place = 0; place < PLACES; place++) {
            for (int path = 0; path < PATHS; path++) {
                x = Bits.next(x);
                int jump =
                        switch (path) {
                            case 0 -> 1;
                            case 1 -> -1;
                            case 2 -> 90 + Integer.remainderUnsigned(x, 3);
                            case 3 -> -90 - Integer.remainderUnsigned(x, 3);
                            default -> (x >>> 8) % PLACES;
                        };
                int slot = place * PATHS + path;
                ends[slot] = (place + jump + PLACES) % PLACES;
                lengths[slot] = path == 4 ? 400 + (x & 1023) : 10 + (x >>> 4 & 63);
            }
        }
        start = Integer.remainderUnsigned(seed, PLACES);
    }

    private void push(long entry) {
        int i = size++;
        while (i > 0) {
            int up = i - 1 >> 1;
            long above = heap[up];
            if (above <= entry) {
                break;
            }
            heap[i] = above;
            i = up;
        }
        heap[i] = entry;
    }

    private long pop() {
        long top = heap[0];
        long last = heap[--size];
        int i = 0;
        while (true) {
            int down = 2 * i + 1;
            if (down >= size) {
                break;
            }
            if (down + 1 < size && heap[down + 1] < heap[down]) {
                down++;
            }
            long below = heap[down];
            if (below >= last) {
                break;
            }
            heap[i] = below;
            i = down;
        }
        heap[i] = last;
        return top;
    }

    @Override
    public int operate() {
        Arrays.fill(distance, FAR);
        size = 0;
        distance[start] = 0;
        push(start);
        while (size > 0) {
            long entry = pop();
            int place = (int) entry;
            int so = (int) (entry >>> 32);
            if (so > distance[place]) {
                continue; // a shorter way was found meanwhile
            }
            for (int slot = place * PATHS; slot < place * PATHS + PATHS; slot++) {
                int end = ends[slot];
                int way = so + lengths[slot];
                if (way < distance[end]) {
                    distance[end] = way;
                    push((long) way << 32 | end);
                }
            }
        }
        int h = Bits.HASH;
        for (int d : distance) {
            h = (h ^ d) * Bits.PRIME;
        }
        return h;
    }
}
