package yarrowmark.core.standing;

import java.util.Arrays;
import yarrowmark.core.stats.StudentT;

/**
 * How many of a falling order are clearly above and clearly below each: k is clearly above i when
 * (a of k − a of i) / √(var i + var k) is above the 97.5 % point of Student's t for the degrees of freedom of the two.
 *
 * <p>Those that are so far apart that the largest variance with the fewest degrees of freedom could not bridge it are
 * counted at once, those nearer than the smallest variance allows are not looked at, so the work grows with n log n and the
 * pairs between. Exact: every pair in doubt is compared. Source: section 5 of the method.
 */
final class ClearOrder {
    private final int[] above;
    private final int[] below;

    private final double[] level;

    private ClearOrder(double[] level) {
        this.level = level;
        above = new int[level.length];
        below = new int[level.length];
    }

    /**
     * @param level falling
     * @param noise of each
     */
    static ClearOrder of(double[] level, LevelNoise[] noise, LevelNoise.Degrees degrees) {
        int n = level.length;
        ClearOrder order = new ClearOrder(level);
        double least = Double.POSITIVE_INFINITY;
        double most = 0;
        double fewest = Double.POSITIVE_INFINITY;
        for (LevelNoise v : noise) {
            least = Math.min(least, v.variance());
            most = Math.max(most, v.variance());
            // The degrees of freedom of a difference are never fewer than those of any term of it.
            fewest = Math.min(fewest, LevelNoise.degrees(v, LevelNoise.NONE, degrees));
        }
        double mostErrors = n == 0 ? 0 : StudentT.upper(fewest);
        double fewestErrors = StudentT.upper(Double.POSITIVE_INFINITY);
        int[] all = new int[n + 1];
        for (int i = 0; i < n; i++) {
            double own = noise[i].variance();
            int require = firstWithin(level, level[i] + mostErrors * Math.sqrt(own + most), i);
            int count = require;
            all[0]++;
            all[require]--;
            double never = fewestErrors * Math.sqrt(own + least);
            for (int k = require; k < i && level[k] - level[i] > never; k++) {
                if (LevelNoise.isClear(level[k] - level[i], noise[i], noise[k], degrees)) {
                    count++;
                    order.below[k]++;
                }
            }
            order.above[i] = count;
        }
        int running = 0;
        for (int i = 0; i < n; i++) {
            running += all[i];
            order.below[i] += running;
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
        int first = i;
        while (first > 0 && level[first - 1] == level[i]) {
            first--;
        }
        return new Place(1 + first, 1 + above[i], above.length - below[i]);
    }

    @Override
    public String toString() {
        return "above " + Arrays.toString(above) + ", below " + Arrays.toString(below);
    }
}
