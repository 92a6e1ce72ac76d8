package yarrowmark.runner.kernel;

/** Bodies that draw each other: every pair in every step, 64-bit floating point with a root and a division each. */
final class RoostOrbits implements Kernel {
    private static final int BODIES = 96;
    private static final int STEPS = 8;
    private static final double DT = 0.001;
    /** Keeps close pairs finite. */
    private static final double SOFT = 0.01;
    /** x, y, z, mass, vx, vy, vz, 0 of each body. */
    private static final int PARTS = 8;

    private final double[] start = new double[BODIES * PARTS];
    private final double[] now = new double[BODIES * PARTS];

    @Override
    public void prepare(int seed) {
        int x = seed;
        for (int i = 0; i < BODIES * PARTS; i++) {
            x = Bits.next(x);
            int part = i & 7;
            double value = x / 2147483648.0;
            start[i] = part == 3 ? 1.5 + value : part == 7 ? 0.0 : value;
        }
    }

    @Override
    public int operate() {
        double[] w = now;
        System.arraycopy(start, 0, w, 0, w.length);
        for (int step = 0; step < STEPS; step++) {
            for (int a = 0; a < w.length; a += PARTS) {
                pull(w, a);
            }
            for (int a = 0; a < w.length; a += PARTS) {
                w[a] += w[a + 4] * DT;
                w[a + 1] += w[a + 5] * DT;
                w[a + 2] += w[a + 6] * DT;
            }
        }
        return Bits.digest(w);
    }

    private static void pull(double[] w, int a) {
        double x = w[a];
        double y = w[a + 1];
        double z = w[a + 2];
        double ax = 0.0;
        double ay = 0.0;
        double az = 0.0;
        for (int b = 0; b < w.length; b += PARTS) {
            double dx = w[b] - x;
            double dy = w[b + 1] - y;
            double dz = w[b + 2] - z;
            double square = dx * dx + dy * dy + dz * dz + SOFT;
            double pull = w[b + 3] / (square * Math.sqrt(square));
            ax += dx * pull;
            ay += dy * pull;
            az += dz * pull;
        }
        w[a + 4] += ax * DT;
        w[a + 5] += ay * DT;
        w[a + 6] += az * DT;
    }
}
