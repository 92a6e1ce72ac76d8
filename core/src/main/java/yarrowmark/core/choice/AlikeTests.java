package yarrowmark.core.choice;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import yarrowmark.core.standing.SubsetFit;

/**
 * How alike tests rank configurations: Spearman's rank correlation over the configurations that have both, ties at the mean of
 * their ranks. Section 10 of the method.
 */
public final class AlikeTests {
    /** Fewer configurations than these say nothing. */
    public static final int FEWEST = 6;

    private static final int FEWEST_FOR_THE_SAME = 12;
    private static final double THE_SAME = 0.95;
    /** Correlations nearer to each other than this are equal. */
    private static final double LEVEL = 1e-12;

    /** @param correlation of ranks. @param configurations that have both */
    public record Alike(int test, int other, double correlation, int configurations) {
        /** Whether the two say the same. */
        public boolean isTheSame() {
            return correlation > THE_SAME && configurations >= FEWEST_FOR_THE_SAME;
        }
    }

    private final List<List<Optional<Alike>>> all;

    private AlikeTests(List<List<Optional<Alike>>> all) {
        this.all = all;
    }

    /** @param column of each test; −1 where it has none */
    static AlikeTests of(SubsetFit fit, int[] column) {
        List<List<Optional<Alike>>> all = new ArrayList<>();
        for (int a = 0; a < column.length; a++) {
            List<Optional<Alike>> row = new ArrayList<>();
            for (int b = 0; b < column.length; b++) {
                row.add(
                        b < a
                                ? all.get(b)
                                        .get(a)
                                        .map(t -> new Alike(t.other(), t.test(), t.correlation(), t.configurations()))
                                : a == b || column[a] < 0 || column[b] < 0
                                        ? Optional.empty()
                                        : of(fit, a, column[a], b, column[b]));
            }
            all.add(row);
        }
        return new AlikeTests(all);
    }

    /** Empty where too few configurations have both, or one of them puts all at one rank. */
    public Optional<Alike> of(int test, int other) {
        return all.get(test).get(other);
    }

    /** The one of some tests that ranks most like a test; of several as alike the first. */
    public Optional<Alike> nearest(int test, List<Integer> among) {
        return among.stream()
                .filter(o -> o != test)
                .flatMap(o -> of(test, o).stream())
                .reduce((a, b) -> b.correlation() > a.correlation() + LEVEL ? b : a);
    }

    private static Optional<Alike> of(SubsetFit fit, int test, int column, int other, int otherColumn) {
        int[] both = fit.rows().stream()
                .filter(r -> !Double.isNaN(fit.merit(r, column)) && !Double.isNaN(fit.merit(r, otherColumn)))
                .toArray();
        if (both.length < FEWEST) {
            return Optional.empty();
        }
        double correlation = correlation(
                ranks(Arrays.stream(both).mapToDouble(r -> fit.merit(r, column)).toArray()),
                ranks(Arrays.stream(both)
                        .mapToDouble(r -> fit.merit(r, otherColumn))
                        .toArray()));
        return Double.isNaN(correlation)
                ? Optional.empty()
                : Optional.of(new Alike(test, other, correlation, both.length));
    }

    /** From 1; equal ones share the mean of theirs. */
    static double[] ranks(double[] values) {
        int[] order = IntStream.range(0, values.length)
                .boxed()
                .sorted((a, b) -> Double.compare(values[a], values[b]))
                .mapToInt(Integer::intValue)
                .toArray();
        double[] ranks = new double[values.length];
        for (int first = 0; first < order.length; ) {
            int last = first;
            while (last + 1 < order.length && values[order[last + 1]] == values[order[first]]) {
                last++;
            }
            for (int i = first; i <= last; i++) {
                ranks[order[i]] = (first + last) / 2.0 + 1;
            }
            first = last + 1;
        }
        return ranks;
    }

    /** Of ranks, whose mean is known; NaN where all of one side are equal. */
    private static double correlation(double[] a, double[] b) {
        double mean = (a.length + 1) / 2.0;
        double ab = 0;
        double aa = 0;
        double bb = 0;
        for (int i = 0; i < a.length; i++) {
            ab += (a[i] - mean) * (b[i] - mean);
            aa += (a[i] - mean) * (a[i] - mean);
            bb += (b[i] - mean) * (b[i] - mean);
        }
        return ab / Math.sqrt(aa * bb);
    }
}
