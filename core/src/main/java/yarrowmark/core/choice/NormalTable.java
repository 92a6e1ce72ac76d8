package yarrowmark.core.choice;

import org.apache.commons.statistics.distribution.NormalDistribution;

/**
 * The standard normal distribution function by cubic interpolation in a table, which agrees with the distribution itself to
 * twelve digits and is ten times quicker: a path asks for it a hundred million times.
 */
final class NormalTable {
    private static final int EACH = 512;
    private static final int END = 8;
    private static final double[] POINT = new double[END * EACH + 3];

    static {
        NormalDistribution normal = NormalDistribution.of(0, 1);
        for (int i = 0; i < POINT.length; i++) {
            POINT[i] = normal.cumulativeProbability((i - 1.0) / EACH);
        }
    }

    private NormalTable() {}

    /** @param z any number, also infinite */
    static double below(double z) {
        if (z < 0) {
            return 1 - below(-z);
        }
        if (!(z < END - 1)) {
            return Double.isNaN(z) ? z : 1;
        }
        double at = z * EACH + 1;
        int i = (int) at;
        double x = at - i;
        return -x * (x - 1) * (x - 2) / 6 * POINT[i - 1]
                + (x + 1) * (x - 1) * (x - 2) / 2 * POINT[i]
                - (x + 1) * x * (x - 2) / 2 * POINT[i + 1]
                + (x + 1) * x * (x - 1) / 6 * POINT[i + 2];
    }
}
