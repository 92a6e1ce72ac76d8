package yarrowmark.core.trend;

import java.util.Comparator;
import java.util.stream.IntStream;

/**
 * p-values corrected for having looked several times: the k-th smallest of n is multiplied by n − k + 1, none is below
 * one that was smaller, and none is above 1. Source: Holm 1979, "A simple sequentially rejective multiple test
 * procedure"; section 7 of the method.
 */
public final class Holm {
    private Holm() {}

    /** @param p each from 0 to 1. @return the corrected ones, in the same order */
    public static double[] corrected(double[] p) {
        int[] order = IntStream.range(0, p.length)
                .boxed()
                .sorted(Comparator.comparingDouble(i -> p[i]))
                .mapToInt(Integer::intValue)
                .toArray();
        double[] corrected = new double[p.length];
        double most = 0;
        for (int k = 0; k < order.length; k++) {
            most = Math.max(most, Math.min(1, (p.length - k) * p[order[k]]));
            corrected[order[k]] = most;
        }
        return corrected;
    }
}
