package yarrowmark.core.compare;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/**
 * What reverses the picture: the smallest change of the tests taken that turns an overall from better to worse, or back.
 *
 * <p>Of the tests that add most, each is tried alone; beyond that, those that add most are left out one after the other, so
 * a smaller set of another kind may exist. Weights are spread anew over what is kept. Nothing comes back where more than half
 * of the tests would have to go, or more than a dozen, or where the overall is neither better nor worse.
 *
 * @param out        positions of the tests that are left out, one or more
 * @param difference ln G without them, of the other sign or 0
 */
public record Reversal(List<Integer> out, double difference) {
    /** More than so many tests are no small change any more. */
    private static final int MOST_OUT = 12;
    /** Spreading weights takes its time, and a test that adds little turns nothing. */
    private static final int MOST_TRIED = 12;

    public Reversal {
        out = List.copyOf(out);
    }

    /** How the tests that are kept are weighed: one weight each, in any scale; empty where none of them has weight. */
    public interface Weighing {
        double[] of(int[] kept);
    }

    /** @param differences δ of each test that counts, on merits */
    public static Optional<Reversal> of(double[] differences, Weighing weighing) {
        int[] all = IntStream.range(0, differences.length).toArray();
        double[] weights = weighing.of(all);
        double sign = Math.signum(mean(differences, all, weights));
        if (sign == 0) {
            return Optional.empty();
        }
        // Looked at from the side that is better, what turns it round brings the mean to 0 or below.
        double[] forIt = Arrays.stream(differences).map(d -> d * sign).toArray();
        return found(forIt, weighing, all, weights).map(r -> new Reversal(r.out(), sign * r.difference()));
    }

    private static Optional<Reversal> found(double[] forIt, Weighing weighing, int[] all, double[] ofAll) {
        if (Arrays.stream(forIt).noneMatch(d -> d < 0)) {
            return Optional.empty();
        }
        Optional<Reversal> one = one(forIt, weighing, all, ofAll);
        if (one.isPresent()) {
            return one;
        }
        int[] kept = all;
        double[] weights = ofAll;
        List<Integer> out = new ArrayList<>();
        while (out.size() < Math.min(MOST_OUT, forIt.length / 2)) {
            int most = most(forIt, kept, weights);
            if (most < 0) {
                return Optional.empty();
            }
            out.add(kept[most]);
            kept = without(kept, most);
            weights = weighing.of(kept);
            if (weights.length == 0) {
                return Optional.empty();
            }
            double rest = mean(forIt, kept, weights);
            if (rest <= 0) {
                return Optional.of(new Reversal(out, rest));
            }
        }
        return Optional.empty();
    }

    /** Of single tests that turn it, the one that turns it most. */
    private static Optional<Reversal> one(double[] forIt, Weighing weighing, int[] all, double[] weights) {
        return IntStream.of(all)
                .boxed()
                .sorted(Comparator.comparingDouble((Integer i) -> -weights[i] * forIt[i]))
                .limit(MOST_TRIED)
                .flatMap(i -> {
                    int[] kept = without(all, i);
                    double[] spread = weighing.of(kept);
                    return spread.length == 0
                            ? Stream.empty()
                            : Stream.of(new Reversal(List.of(i), mean(forIt, kept, spread)));
                })
                .filter(r -> r.difference() <= 0)
                .min(Comparator.comparingDouble(Reversal::difference));
    }

    private static int[] without(int[] kept, int position) {
        int[] rest = new int[kept.length - 1];
        System.arraycopy(kept, 0, rest, 0, position);
        System.arraycopy(kept, position + 1, rest, position, rest.length - position);
        return rest;
    }

    /** Position among those kept of the one that adds most; −1 where none adds anything. */
    private static int most(double[] forIt, int[] kept, double[] weights) {
        int most = -1;
        double adds = 0;
        for (int k = 0; k < kept.length; k++) {
            double own = weights[k] * forIt[kept[k]];
            if (own > adds) {
                adds = own;
                most = k;
            }
        }
        return most;
    }

    /** Σ wδ over those kept, with their weights scaled to sum 1. */
    public static double mean(double[] differences, int[] kept, double[] weights) {
        double sum = 0;
        double total = 0;
        for (int k = 0; k < weights.length; k++) {
            sum += weights[k] * differences[kept[k]];
            total += weights[k];
        }
        return total > 0 ? sum / total : 0;
    }
}
