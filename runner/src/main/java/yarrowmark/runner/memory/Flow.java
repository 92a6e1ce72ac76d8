package yarrowmark.runner.memory;

import java.util.Arrays;
import java.util.SplittableRandom;
import yarrowmark.runner.kernel.WrongAnswer;
import yarrowmark.runner.measure.Work;

/** A way through memory. */
enum Flow {
    READ("read") {
        @Override
        Work over(long bytes) {
            long[] block = new long[(int) (bytes / Long.BYTES)];
            Arrays.fill(block, 1);
            return rounds -> {
                for (long r = 0; r < rounds; r++) {
                    check(sum(block) == block.length);
                }
            };
        }
    },
    WRITE("write") {
        @Override
        Work over(long bytes) {
            long[] block = new long[(int) (bytes / Long.BYTES)];
            return rounds -> {
                for (long r = 0; r < rounds; r++) {
                    Arrays.fill(block, r);
                    check(block[block.length - 1] == r && block[block.length / 2] == r);
                }
            };
        }
    },
    COPY("copy") {
        @Override
        Work over(long bytes) {
            long[] from = new long[(int) (bytes / Long.BYTES / 2)];
            long[] to = new long[from.length];
            return rounds -> {
                for (long r = 0; r < rounds; r++) {
                    from[from.length - 1] = r;
                    System.arraycopy(from, 0, to, 0, from.length);
                    check(to[to.length - 1] == r);
                }
            };
        }
    },
    SCALED_ADD("scaled-add") {
        @Override
        Work over(long bytes) {
            int length = (int) (bytes / Double.BYTES / 3);
            double[] a = new double[length];
            double[] b = new double[length];
            double[] c = new double[length];
            Arrays.fill(b, 1);
            Arrays.fill(c, 2);
            return rounds -> {
                for (long r = 0; r < rounds; r++) {
                    scaledAdd(a, b, c, r);
                    check(a[length - 1] == 1 + 2.0 * r);
                }
            };
        }

        @Override
        double perRound(long bytes) {
            return bytes / Double.BYTES / 3 * 3.0 * Double.BYTES;
        }
    },
    LATENCY("latency") {
        @Override
        Work over(long bytes) {
            int[] next = ring((int) (bytes / LINE));
            return new Work() {
                private int at;

                @Override
                public void rounds(long rounds) {
                    at = walk(next, at, rounds * STEPS);
                }
            };
        }

        @Override
        double perRound(long bytes) {
            return STEPS;
        }
    };

    /** One place on each line of the cache, so that no step finds its line there because of the one before. */
    private static final int LINE = 64;

    private static final int WORDS = LINE / Integer.BYTES;
    private static final int STEPS = 1024;

    private final String key;

    Flow(String key) {
        this.key = key;
    }

    String key() {
        return key;
    }

    abstract Work over(long bytes);

    /** Bytes that one round moves; steps for the latency. */
    double perRound(long bytes) {
        return bytes;
    }

    private static long sum(long[] block) {
        long sum = 0;
        for (long v : block) {
            sum += v;
        }
        return sum;
    }

    private static void scaledAdd(double[] a, double[] b, double[] c, double factor) {
        for (int i = 0; i < a.length; i++) {
            a[i] = b[i] + factor * c[i];
        }
    }

    private static int walk(int[] next, int from, long steps) {
        int at = from;
        for (long i = 0; i < steps; i++) {
            at = next[at];
        }
        return at;
    }

    /** Every line once, in random order (Sattolo's shuffle): the whole block is walked before a place comes again. */
    static int[] ring(int lines) {
        SplittableRandom random = new SplittableRandom(4721);
        int[] order = new int[lines];
        for (int i = 0; i < lines; i++) {
            order[i] = i;
        }
        for (int i = lines - 1; i > 0; i--) {
            int j = random.nextInt(i);
            int swapped = order[i];
            order[i] = order[j];
            order[j] = swapped;
        }
        int[] next = new int[lines * WORDS];
        for (int i = 0; i < lines; i++) {
            next[order[i] * WORDS] = order[(i + 1) % lines] * WORDS;
        }
        return next;
    }

    private static void check(boolean right) {
        if (!right) {
            throw new WrongAnswer("Memory did not hold what was put there.");
        }
    }
}
