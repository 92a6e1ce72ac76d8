package yarrowmark.runner.kernel;

/**
 * Sine and cosine to the very bit that the compiled kernels of the device page have them: Java's own differ in the last one
 * for some angles, and then every answer does. As in the musl C library, for angles up to half a turn.
 */
final class Turn {
    private static final double QUARTER_1 = Double.longBitsToDouble(0x3FF921FB54400000L);
    private static final double QUARTER_1_REST = Double.longBitsToDouble(0x3DD0B4611A626331L);
    private static final double QUARTER_2 = Double.longBitsToDouble(0x3DD0B4611A600000L);
    private static final double QUARTER_2_REST = Double.longBitsToDouble(0x3BA3198A2E037073L);
    private static final double QUARTERS_IN_ONE = Double.longBitsToDouble(0x3FE45F306DC9C883L);
    private static final int EIGHTH_HIGH = 0x3FE921FB;
    private static final int THREE_EIGHTHS_HIGH = 0x4002D97C;
    private static final int QUARTER_HIGH = 0x3FF921FB;
    private static final int TINY_SINE_HIGH = 0x3E500000;
    private static final int TINY_COSINE_HIGH = 0x3E46A09E;

    private final int quarters;
    /** What is left of the angle, and what is left of that. */
    private final double rest;

    private final double rest2;

    private Turn(int quarters, double rest, double rest2) {
        this.quarters = quarters;
        this.rest = rest;
        this.rest2 = rest2;
    }

    private static int high(double x) {
        return (int) (Double.doubleToRawLongBits(x) >>> 32) & 0x7FFFFFFF;
    }

    static double sin(double x) {
        if (high(x) <= EIGHTH_HIGH) {
            return high(x) < TINY_SINE_HIGH ? x : sine(x, 0, false);
        }
        Turn t = reduced(x);
        double v = (t.quarters & 1) != 0 ? cosine(t.rest, t.rest2) : sine(t.rest, t.rest2, true);
        return (t.quarters & 2) != 0 ? -v : v;
    }

    static double cos(double x) {
        if (high(x) <= EIGHTH_HIGH) {
            return high(x) < TINY_COSINE_HIGH ? 1.0 : cosine(x, 0);
        }
        Turn t = reduced(x);
        double v = (t.quarters & 1) != 0 ? sine(t.rest, t.rest2, true) : cosine(t.rest, t.rest2);
        return (t.quarters + 1 & 2) != 0 ? -v : v;
    }

    private static Turn reduced(double x) {
        int high = high(x);
        if (high < THREE_EIGHTHS_HIGH) {
            int sign = x < 0 ? -1 : 1;
            double z = x - sign * QUARTER_1;
            double tail = QUARTER_1_REST;
            if (high == QUARTER_HIGH) {
                z -= sign * QUARTER_2;
                tail = QUARTER_2_REST;
            }
            double rest = z - sign * tail;
            return new Turn(sign, rest, z - rest - sign * tail);
        }
        double q = Math.rint(x * QUARTERS_IN_ONE);
        double r = x - q * QUARTER_1;
        double w = q * QUARTER_1_REST;
        double rest = r - w;
        if ((high >> 20) - (high(rest) >> 20) > 16) {
            double t = r;
            w = q * QUARTER_2;
            r = t - w;
            w = q * QUARTER_2_REST - (t - r - w);
            rest = r - w;
        }
        return new Turn((int) q, rest, r - rest - w);
    }

    private static double sine(double x, double y, boolean hasRest) {
        double z = x * x;
        double w = z * z;
        double r = Double.longBitsToDouble(0x3F8111111110F8A6L)
                + z * (Double.longBitsToDouble(0xBF2A01A019C161D5L) + z * Double.longBitsToDouble(0x3EC71DE357B1FE7DL))
                + z
                        * w
                        * (Double.longBitsToDouble(0xBE5AE5E68A2B9CEBL)
                                + z * Double.longBitsToDouble(0x3DE5D93A5ACFD57CL));
        double v = z * x;
        double first = Double.longBitsToDouble(0xBFC5555555555549L);
        return hasRest ? x - (z * (0.5 * y - v * r) - y - v * first) : x + v * (first + z * r);
    }

    private static double cosine(double x, double y) {
        double z = x * x;
        double w = z * z;
        double r = z
                        * (Double.longBitsToDouble(0x3FA555555555554CL)
                                + z
                                        * (Double.longBitsToDouble(0xBF56C16C16C15177L)
                                                + z * Double.longBitsToDouble(0x3EFA01A019CB1590L)))
                + w
                        * w
                        * (Double.longBitsToDouble(0xBE927E4F809C52ADL)
                                + z
                                        * (Double.longBitsToDouble(0x3E21EE9EBDB4B1C4L)
                                                + z * Double.longBitsToDouble(0xBDA8FAE9BE8838D4L)));
        double half = 0.5 * z;
        double left = 1.0 - half;
        return left + (1.0 - left - half + (z * r - x * y));
    }
}
