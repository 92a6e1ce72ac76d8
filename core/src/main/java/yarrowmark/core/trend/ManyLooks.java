package yarrowmark.core.trend;

import java.util.Comparator;
import java.util.stream.IntStream;

/**
 * p-values corrected for having looked many times: the k-th smallest of n is multiplied by n / k, and none is above one that
 * was larger, nor above 1. Of what is then below 0.05, one in twenty is chance at the most.
 *
 * <p>Accuracy: as R's p.adjust. Source: Benjamini and Hochberg 1995, "Controlling the false discovery rate", doi:10.1111/j.2517-6161.1995.tb02031.x;
 * section 7 of the method.
 */
public final class ManyLooks {
    private ManyLooks() {}

    /** @param p each from 0 to 1. @return the corrected ones, in the same order */
    public static double[] corrected(double[] p) {
        int[] order = IntStream.range(0, p.length)
                .boxed()
                .sorted(Comparator.comparingDouble(i -> p[i]))
                .mapToInt(Integer::intValue)
                .toArray();
        double[] corrected = new double[p.length];
        double least = 1;
        for (int k = order.length; k > 0; k--) {
            least = Math.min(least, p[order[k - 1]] * p.length / k);
            corrected[order[k - 1]] = least;
        }
        return corrected;
    }
}
