package yarrowmark.runner.kernel;

/** A small path tracer: light from one lantern, bounced between spheres. Branches and roots that no processor can foresee. */
final class LanternPaths implements Kernel {
    private static final int WIDTH = 48;
    private static final int HEIGHT = 32;
    /** For each pixel. */
    private static final int PATHS = 4;

    private static final int BOUNCES = 4;
    private static final int SPHERES = 9;
    /** x, y, z, radius, colour, light. */
    private static final int PARTS = 6;

    private final double[] spheres = new double[SPHERES * PARTS];
    private int first = 1;
    private int x = 1;

    private double next() {
        x = Bits.next(x);
        return (x & 0xffffffffL) / 4294967296.0;
    }

    private void put(int i, double px, double py, double pz, double radius, double colour, double light) {
        int at = i * PARTS;
        spheres[at] = px;
        spheres[at + 1] = py;
        spheres[at + 2] = pz;
        spheres[at + 3] = radius;
        spheres[at + 4] = colour;
        spheres[at + 5] = light;
    }

    /** Seven stones on the ground (a very large sphere), and a lantern. */
    @Override
    public void prepare(int seed) {
        first = seed;
        x = seed;
        put(0, 0.0, -1000.0, 0.0, 1000.0, 0.6, 0.0);
        put(1, 0.5, 2.6, 4.0, 0.7, 0.0, 9.0);
        for (int i = 2; i < SPHERES; i++) {
            double radius = 0.25 + 0.4 * next();
            put(i, 4.0 * next() - 2.0, radius, 2.5 + 4.0 * next(), radius, 0.35 + 0.6 * next(), 0.0);
        }
    }

    @Override
    public int operate() {
        x = first;
        int h = Bits.HASH;
        for (int row = 0; row < HEIGHT; row++) {
            for (int column = 0; column < WIDTH; column++) {
                double bright = 0.0;
                for (int path = 0; path < PATHS; path++) {
                    bright += follow((column + next() - 24.0) / 24.0, (16.0 - row - next()) / 24.0);
                }
                h = (h ^ (int) Math.min(65535.0, bright * 4096.0)) * Bits.PRIME;
            }
        }
        return h;
    }

    private double follow(double right, double up) {
        double[] s = spheres;
        double ox = 0.0;
        double oy = 1.2;
        double oz = -2.0;
        double length = Math.sqrt(right * right + up * up + 1.0);
        double dx = right / length;
        double dy = up / length;
        double dz = 1.0 / length;
        double left = 1.0;
        for (int bounce = 0; bounce < BOUNCES; bounce++) {
            double nearest = 1e30;
            int hit = -1;
            for (int at = 0; at < s.length; at += PARTS) {
                double cx = s[at] - ox;
                double cy = s[at + 1] - oy;
                double cz = s[at + 2] - oz;
                double along = cx * dx + cy * dy + cz * dz;
                double radius = s[at + 3];
                double inside = along * along - (cx * cx + cy * cy + cz * cz) + radius * radius;
                if (inside <= 0.0) {
                    continue;
                }
                double root = Math.sqrt(inside);
                double t = along - root > 1e-4 ? along - root : along + root;
                if (t > 1e-4 && t < nearest) {
                    nearest = t;
                    hit = at;
                }
            }
            // A little sky from above, so that no part is wholly dark.
            if (hit < 0) {
                return left * (dy > 0.0 ? 0.3 * dy : 0.0);
            }
            if (s[hit + 5] > 0.0) {
                return left * s[hit + 5];
            }
            left *= s[hit + 4];
            ox += dx * nearest;
            oy += dy * nearest;
            oz += dz * nearest;
            double radius = s[hit + 3];
            double nx = (ox - s[hit]) / radius;
            double ny = (oy - s[hit + 1]) / radius;
            double nz = (oz - s[hit + 2]) / radius;
            // A point in the ball around the surface's normal gives a direction as a dull surface does.
            double bx;
            double by;
            double bz;
            do {
                bx = 2.0 * next() - 1.0;
                by = 2.0 * next() - 1.0;
                bz = 2.0 * next() - 1.0;
            } while (bx * bx + by * by + bz * bz > 1.0);
            dx = nx + bx;
            dy = ny + by;
            dz = nz + bz;
            length = Math.sqrt(dx * dx + dy * dy + dz * dz) + 1e-12;
            dx /= length;
            dy /= length;
            dz /= length;
        }
        return 0.0;
    }
}
