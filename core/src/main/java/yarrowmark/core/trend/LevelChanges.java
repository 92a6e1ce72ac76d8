package yarrowmark.core.trend;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.DoubleSupplier;
import java.util.stream.DoubleStream;
import org.apache.commons.rng.UniformRandomProvider;
import org.apache.commons.rng.sampling.distribution.AhrensDieterMarsagliaTsangGammaSampler;
import org.apache.commons.rng.sampling.distribution.SharedStateContinuousSampler;
import org.apache.commons.rng.sampling.distribution.ZigguratSampler;
import org.apache.commons.rng.simple.RandomSource;
import org.apache.commons.statistics.distribution.NormalDistribution;
import org.apache.commons.statistics.distribution.TDistribution;
import yarrowmark.core.stats.StudentT;

/**
 * Where the level of a series changed. The split with the largest |difference of the two weighted means| / √(sum of their
 * variances) is a change where that is above the 95 % point of the same largest value in series without any change, of which
 * 10,000 are simulated with the same variances and a fixed seed; then each side is searched again. Where several series are
 * shown together, the 5 % are shared between them: otherwise half of all plots with thirteen flat lines had a change. The
 * variances are estimates that share their scale, so in each simulated series that is off by √(χ²/ν) as well.
 *
 * <p>Edge cases: shorter series than eight are not searched. A variance of 0 counts as the smallest that is told from it.
 * Accuracy: the point is known to about 0.02. Source: section 7 of the method.
 */
public final class LevelChanges {
    /** The fewest steps that are searched. */
    public static final int LEAST = 8;

    private static final int SERIES = 10_000;
    private static final double CHANCE = 0.05;
    private static final long SEED = 20_240_611L;
    private static final double SMALLEST_VARIANCE = 1e-18;
    /**
     * @param before last value before the change, as an index; the next one is the first after it
     * @param size   of the change, on merits
     * @param low    lower end of its 95 % interval
     * @param high   upper end
     */
    public record Change(int before, double size, double low, double high) {}

    private static final KnownPoints POINTS = new KnownPoints();

    /**
     * Points that were simulated already: it depends on the variances only by how they stand to one another, and all tests
     * of a device that were run equally often at each step have the same.
     */
    private static final class KnownPoints {
        private static final int MOST = 1_000;

        private record Key(List<Float> relative, float degrees, int together) {}

        private final Map<Key, Double> known = Collections.synchronizedMap(new LinkedHashMap<>(MOST, 0.75f, true) {
            @Override
            protected boolean removeEldestEntry(Map.Entry<Key, Double> eldest) {
                return size() > MOST;
            }
        });

        double of(double[] v, double degrees, int together) {
            Key key = new Key(Arrays.stream(v).mapToObj(x -> (float) (x / v[0])).toList(), (float) degrees, together);
            Double point = known.get(key);
            if (point == null) {
                // Outside of the lock: two may simulate the same, and find the same.
                point = point(v, degrees, together);
                known.put(key, point);
            }
            return point;
        }
    }

    private record Split(int before, double difference, double error) {
        double statistic() {
            return Math.abs(difference) / error;
        }
    }

    private LevelChanges() {}

    /**
     * @param means     in order
     * @param variances of the means
     * @param degrees   of freedom with which their common scale is known; infinite where it is known exactly
     * @param together  how many series are searched for one plot, this one counted
     * @return in order; none where the series is too short
     */
    public static List<Change> of(double[] means, double[] variances, double degrees, int together) {
        if (means.length < LEAST) {
            return List.of();
        }
        double[] v = Arrays.stream(variances)
                .map(x -> Math.max(x, SMALLEST_VARIANCE))
                .toArray();
        List<Change> changes = new ArrayList<>();
        search(means, v, degrees, together, 0, means.length, changes);
        changes.sort(Comparator.comparingInt(Change::before));
        return changes;
    }

    private static void search(
            double[] means, double[] v, double degrees, int together, int from, int to, List<Change> into) {
        if (to - from < 2) {
            return;
        }
        Split best = best(means, v, from, to);
        if (!isChange(best.statistic(), Arrays.copyOfRange(v, from, to), degrees, together)) {
            return;
        }
        double half = StudentT.upper(degrees) * best.error();
        into.add(new Change(best.before(), best.difference(), best.difference() - half, best.difference() + half));
        search(means, v, degrees, together, from, best.before() + 1, into);
        search(means, v, degrees, together, best.before() + 1, to, into);
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
    private static boolean isChange(double statistic, double[] v, double degrees, int together) {
        int splits = v.length - 1;
        if (statistic <= StudentT.upper(degrees)) {
            return false;
        }
        double tail = CHANCE / together / 2 / splits;
        double most = Double.isInfinite(degrees)
                ? NormalDistribution.of(0, 1).inverseSurvivalProbability(tail)
                : TDistribution.of(degrees).inverseSurvivalProbability(tail);
        return statistic > most || statistic > POINTS.of(v, degrees, together);
    }

    /** The point of the largest statistic that one plot in twenty without a change is above. */
    static double point(double[] v, double degrees, int together) {
        double[] largest = DoubleStream.generate(unchanged(v, degrees))
                .limit(SERIES)
                .sorted()
                .toArray();
        return largest[(int) Math.ceil((1 - CHANCE / together) * SERIES) - 1];
    }

    /** The largest statistic of one series without a change after another, the same ones each time. */
    private static DoubleSupplier unchanged(double[] v, double degrees) {
        UniformRandomProvider random = RandomSource.XO_RO_SHI_RO_128_PP.create(SEED);
        ZigguratSampler.NormalizedGaussian normal = ZigguratSampler.NormalizedGaussian.of(random);
        // χ²/ν is a gamma of shape ν/2 and mean 1.
        SharedStateContinuousSampler scale = Double.isInfinite(degrees)
                ? null
                : AhrensDieterMarsagliaTsangGammaSampler.of(random, degrees / 2, 2 / degrees);
        int n = v.length;
        double[] each = new double[n];
        double[] left = new double[n];
        double whole = 0;
        for (int i = 0; i < n; i++) {
            each[i] = 1 / Math.sqrt(v[i]);
            whole += 1 / v[i];
            left[i] = whole;
        }
        // Of a split with weights A and B on its sides: |Σ A − Σ_left (A + B)| / √((A + B) A B).
        double[] share = new double[n];
        double[] by = new double[n];
        for (int i = 0; i < n - 1; i++) {
            double root = Math.sqrt(whole * left[i] * (whole - left[i]));
            share[i] = left[i] / root;
            by[i] = whole / root;
        }
        double[] sums = new double[n];
        return () -> {
            double sum = 0;
            for (int i = 0; i < n; i++) {
                sum += each[i] * normal.sample();
                sums[i] = sum;
            }
            double largest = 0;
            for (int i = 0; i < n - 1; i++) {
                largest = Math.max(largest, Math.abs(sum * share[i] - sums[i] * by[i]));
            }
            return scale == null ? largest : largest / Math.sqrt(scale.sample());
        };
    }
}
