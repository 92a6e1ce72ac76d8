package yarrowmark.core.compare;

import java.util.Arrays;
import java.util.OptionalInt;

/** The one test that makes most of an overall by itself. */
public final class Dominant {
    private static final double MOST = 2.0 / 3;
    private static final int FEWEST = 3;

    private Dominant() {}

    /**
     * @param contributions of each test to the overall, of either sign; NaN where it does not count
     * @return the one whose size is above two thirds of the sum of all sizes; empty where none is, and below three tests
     */
    public static OptionalInt of(double[] contributions) {
        double[] sizes = Arrays.stream(contributions)
                .map(c -> Double.isNaN(c) ? 0 : Math.abs(c))
                .toArray();
        double all = Arrays.stream(sizes).sum();
        long counted =
                Arrays.stream(contributions).filter(c -> !Double.isNaN(c)).count();
        if (counted >= FEWEST) {
            for (int i = 0; i < sizes.length; i++) {
                if (sizes[i] > MOST * all) {
                    return OptionalInt.of(i);
                }
            }
        }
        return OptionalInt.empty();
    }
}
