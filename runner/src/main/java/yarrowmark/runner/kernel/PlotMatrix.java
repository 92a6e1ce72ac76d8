package yarrowmark.runner.kernel;

import java.util.Arrays;

/** Product of two dense matrices of 64-bit numbers, row by row, four rows of the second at a time. */
final class PlotMatrix implements Kernel {
    private static final int SIDE = 128;

    private final double[] a = new double[SIDE * SIDE];
    private final double[] b = new double[SIDE * SIDE];
    private final double[] c = new double[SIDE * SIDE];

    @Override
    public void prepare(int seed) {
        int x = seed;
        for (int i = 0; i < 2 * SIDE * SIDE; i++) {
            x = Bits.next(x);
            (i < a.length ? a : b)[i % a.length] = x / 2147483648.0;
        }
    }

    @Override
    public int operate() {
        Arrays.fill(c, 0);
        for (int i = 0; i < SIDE; i++) {
            for (int k = 0; k < SIDE; k += 4) {
                row(i * SIDE, k * SIDE, a[i * SIDE + k], a[i * SIDE + k + 1], a[i * SIDE + k + 2], a[i * SIDE + k + 3]);
            }
        }
        return Bits.digest(c);
    }

    private void row(int to, int from, double a0, double a1, double a2, double a3) {
        for (int at = 0; at < SIDE; at++) {
            c[to + at] = c[to + at]
                    + a0 * b[from + at]
                    + a1 * b[from + SIDE + at]
                    + a2 * b[from + 2 * SIDE + at]
                    + a3 * b[from + 3 * SIDE + at];
        }
    }
}
