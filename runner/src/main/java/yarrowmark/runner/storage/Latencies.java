package yarrowmark.runner.storage;

import java.util.Arrays;

/** How long each of many operations took. */
final class Latencies {
    private static final int MOST = 4_000_000;

    private long[] nanos = new long[4096];
    private int count;

    void add(long took) {
        if (count == nanos.length) {
            if (count >= MOST) {
                return;
            }
            nanos = Arrays.copyOf(nanos, Math.min(MOST, 2 * count));
        }
        nanos[count++] = took;
    }

    int count() {
        return count;
    }

    static Latencies together(Iterable<Latencies> parts) {
        Latencies all = new Latencies();
        for (Latencies part : parts) {
            for (int i = 0; i < part.count; i++) {
                all.add(part.nanos[i]);
            }
        }
        Arrays.sort(all.nanos, 0, all.count);
        return all;
    }

    /** The smallest time that so large a share took at most, in µs. Of what {@link #together} made. @param share 0 to 1 */
    double micros(double share) {
        if (count == 0) {
            throw new IllegalStateException("nothing was timed");
        }
        int at = (int) Math.ceil(share * count) - 1;
        return nanos[Math.max(0, Math.min(count - 1, at))] / 1e3;
    }
}
