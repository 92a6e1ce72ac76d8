package yarrowmark.core.standing;

import java.util.Arrays;

/**
 * How many of a falling order are clearly above and clearly below each: k is clearly above i when
 * (a of k − a of i) / √(var i + var k) &gt; 1.959964. One whose variance is not known is separated from nothing.
 *
 * <p>Those that are so far apart that the largest variance could not bridge it are counted at once, those nearer than the
 * smallest variance allows are not looked at, so the work grows with n log n and the pairs between. Exact: every pair in
 * doubt is compared. Source: section 5 of the method.
 */
final class ClearOrder {
    /** Two-sided 95 % point of the standard normal distribution. */
    static final double CLEAR = 1.959964;

    private final int[] above;
    private final int[] below;

    private ClearOrder(int n) {
        above = new int[n];
        below = new int[n];
    }

    /**
     * @param level    falling
     * @param variance of each; NaN where it is not known
     */
    static ClearOrder of(double[] level, double[] variance) {
        ClearOrder order = new ClearOrder(level.length);
        int[] known = new int[level.length];
        int n = 0;
        double least = Double.POSITIVE_INFINITY;
        double most = 0;
        for (int i = 0; i < level.length; i++) {
            if (!Double.isNaN(variance[i])) {
                known[n++] = i;
                least = Math.min(least, variance[i]);
                most = Math.max(most, variance[i]);
            }
        }
        double[] a = new double[n];
        double[] v = new double[n];
        for (int i = 0; i < n; i++) {
            a[i] = level[known[i]];
            v[i] = variance[known[i]];
        }
        int[] all = new int[n + 1];
        for (int i = 0; i < n; i++) {
            int sure = firstWithin(a, a[i] + CLEAR * Math.sqrt(v[i] + most), i);
            int count = sure;
            all[0]++;
            all[sure]--;
            double never = CLEAR * Math.sqrt(v[i] + least);
            for (int k = sure; k < i && a[k] - a[i] > never; k++) {
                if (a[k] - a[i] > CLEAR * Math.sqrt(v[i] + v[k])) {
                    count++;
                    order.below[known[k]]++;
                }
            }
            order.above[known[i]] = count;
        }
        int running = 0;
        for (int i = 0; i < n; i++) {
            running += all[i];
            order.below[known[i]] += running;
        }
        return order;
    }

    /** Index of the first of a falling order, up to {@code end}, that is not above the limit. */
    private static int firstWithin(double[] falling, double limit, int end) {
        int low = 0;
        int high = end;
        while (low < high) {
            int middle = (low + high) >>> 1;
            if (falling[middle] > limit) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        return low;
    }

    /** Number clearly above, and with it the best place less 1. */
    int above(int i) {
        return above[i];
    }

    int below(int i) {
        return below[i];
    }

    Place place(int i) {
        return new Place(1 + above[i], above.length - below[i]);
    }

    @Override
    public String toString() {
        return "above " + Arrays.toString(above) + ", below " + Arrays.toString(below);
    }
}
