package yarrowmark.runner.kernel;

/** Fast Fourier transform of complex 64-bit numbers, radix two, in place: forth, and back again. */
final class TideSpectrum implements Kernel {
    private static final int POINTS = 4096;
    private static final int BITS = 12;

    /** Real and imaginary part in turn. */
    private final double[] source = new double[2 * POINTS];

    private final double[] work = new double[2 * POINTS];
    /** Cosine and sine of each part of a turn. */
    private final double[] turns = new double[POINTS];

    /** A tide gauge's year: a few periods and some noise. */
    @Override
    public void prepare(int seed) {
        int x = seed;
        for (int i = 0; i < POINTS; i++) {
            x = Bits.next(x);
            double noise = x / 2147483648.0;
            source[2 * i] = i * 17 % 511 / 255.5 - 1.0 + 0.25 * noise;
            source[2 * i + 1] = i * 5 % 97 / 97.0;
        }
        for (int i = 0; i < POINTS / 2; i++) {
            double angle = -2.0 * Math.PI * i / POINTS;
            turns[2 * i] = Turn.cos(angle);
            turns[2 * i + 1] = Turn.sin(angle);
        }
    }

    /** @param back 1 forth, −1 back (without the division by the number of points) */
    private void transform(double back) {
        double[] w = work;
        for (int i = 0; i < POINTS; i++) {
            int mirrored = Integer.reverse(i) >>> 32 - BITS;
            if (mirrored > i) {
                double re = w[2 * i];
                double im = w[2 * i + 1];
                w[2 * i] = w[2 * mirrored];
                w[2 * i + 1] = w[2 * mirrored + 1];
                w[2 * mirrored] = re;
                w[2 * mirrored + 1] = im;
            }
        }
        for (int half = 1; half < POINTS; half <<= 1) {
            int step = POINTS / (2 * half);
            for (int from = 0; from < POINTS; from += 2 * half) {
                for (int i = 0; i < half; i++) {
                    double cos = turns[2 * i * step];
                    double sin = turns[2 * i * step + 1] * back;
                    int a = 2 * (from + i);
                    int b = a + 2 * half;
                    double re = w[b] * cos - w[b + 1] * sin;
                    double im = w[b] * sin + w[b + 1] * cos;
                    w[b] = w[a] - re;
                    w[b + 1] = w[a + 1] - im;
                    w[a] = w[a] + re;
                    w[a + 1] = w[a + 1] + im;
                }
            }
        }
    }

    @Override
    public int operate() {
        System.arraycopy(source, 0, work, 0, work.length);
        transform(1.0);
        transform(-1.0);
        return Bits.digest(work);
    }
}
