package yarrowmark.core.trend;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import org.apache.commons.rng.UniformRandomProvider;
import org.apache.commons.rng.sampling.distribution.ZigguratSampler;
import org.apache.commons.rng.simple.RandomSource;
import org.apache.commons.statistics.distribution.NormalDistribution;

/**
 * Where the level of a series changed. The split with the largest |difference of the two weighted means| / √(sum of their
 * variances) is a change where that is above the 95 % point of the same largest value in series without any change, of which
 * 10,000 are simulated with the same variances and a fixed seed; then each side is searched again.
 *
 * <p>Edge cases: shorter series than eight are not searched. A variance of 0 counts as the smallest that is told from it.
 * Accuracy: the point is known to about 0.02. Source: section 7 of the method.
 */
public final class LevelChanges {
    /** The fewest steps that are searched. */
    public static final int LEAST = 8;

    private static final int SERIES = 10_000;
    private static final double POINT = 0.95;
    private static final long SEED = 20_240_611L;
    private static final double SMALLEST_VARIANCE = 1e-18;
    /** The point of one split alone: with more of them it is never below. */
    private static final double OF_ONE_SPLIT = 1.959963984540054;

    /**
     * @param before last value before the change, as an index; the next one is the first after it
     * @param size   of the change, on merits
     * @param low    lower end of its 95 % interval
     * @param high   upper end
     */
    public record Change(int before, double size, double low, double high) {}

    private record Split(int before, double difference, double error) {
        double statistic() {
            return Math.abs(difference) / error;
        }
    }

    private LevelChanges() {}

    /**
     * @param means     in order
     * @param variances of the means
     * @return in order; none where the series is too short
     */
    public static List<Change> of(double[] means, double[] variances) {
        if (means.length < LEAST) {
            return List.of();
        }
        double[] v = Arrays.stream(variances)
                .map(x -> Math.max(x, SMALLEST_VARIANCE))
                .toArray();
        List<Change> changes = new ArrayList<>();
        search(means, v, 0, means.length, changes);
        changes.sort(Comparator.comparingInt(Change::before));
        return changes;
    }

    private static void search(double[] means, double[] v, int from, int to, List<Change> into) {
        if (to - from < 2) {
            return;
        }
        Split best = best(means, v, from, to);
        if (!isChange(best.statistic(), Arrays.copyOfRange(v, from, to))) {
            return;
        }
        double half = OF_ONE_SPLIT * best.error();
        into.add(new Change(best.before(), best.difference(), best.difference() - half, best.difference() + half));
        search(means, v, from, best.before() + 1, into);
        search(means, v, best.before() + 1, to, into);
    }

    private static Split best(double[] means, double[] v, int from, int to) {
        double weights = 0;
        double sum = 0;
        for (int i = from; i < to; i++) {
            weights += 1 / v[i];
            sum += means[i] / v[i];
        }
        Split best = new Split(from, 0, 1);
        double leftWeights = 0;
        double left = 0;
        for (int i = from; i < to - 1; i++) {
            leftWeights += 1 / v[i];
            left += means[i] / v[i];
            double rightWeights = weights - leftWeights;
            Split split = new Split(
                    i, (sum - left) / rightWeights - left / leftWeights, Math.sqrt(1 / leftWeights + 1 / rightWeights));
            if (split.statistic() > best.statistic()) {
                best = split;
            }
        }
        return best;
    }

    /** Simulates only where the two bounds of the point do not tell: that of one split, and Bonferroni's. */
    private static boolean isChange(double statistic, double[] v) {
        int splits = v.length - 1;
        if (statistic <= OF_ONE_SPLIT) {
            return false;
        }
        double most = NormalDistribution.of(0, 1).inverseSurvivalProbability((1 - POINT) / 2 / splits);
        return statistic > most || statistic > point(v);
    }

    /** The 95 % point of the largest statistic where nothing changed. */
    static double point(double[] v) {
        UniformRandomProvider random = RandomSource.XO_RO_SHI_RO_128_PP.create(SEED);
        ZigguratSampler.NormalizedGaussian normal = ZigguratSampler.NormalizedGaussian.of(random);
        double[] deviation = Arrays.stream(v).map(Math::sqrt).toArray();
        double[] largest = new double[SERIES];
        double[] series = new double[v.length];
        for (int s = 0; s < SERIES; s++) {
            for (int i = 0; i < series.length; i++) {
                series[i] = deviation[i] * normal.sample();
            }
            largest[s] = best(series, v, 0, series.length).statistic();
        }
        Arrays.sort(largest);
        return largest[(int) Math.ceil(POINT * SERIES) - 1];
    }
}
