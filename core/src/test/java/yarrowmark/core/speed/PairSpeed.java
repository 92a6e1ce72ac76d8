package yarrowmark.core.speed;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Random;
import yarrowmark.core.ExampleSamples;
import yarrowmark.core.compare.Materiality;
import yarrowmark.core.compare.OverallComparison;
import yarrowmark.core.compare.PairComparison;
import yarrowmark.core.stats.NoisePrior;
import yarrowmark.core.stats.SampleMoments;
import yarrowmark.core.stats.SharedDay;

/** Pairs that core compares in a second, and overalls of 200 tests. Run by bin/bench. */
public final class PairSpeed {
    /** Whether only to see that it works: the smallest size that goes through everything. */
    private static final boolean SMALLEST = Boolean.getBoolean("yarrowmark.smallest");

    private static final int PAIRS = SMALLEST ? 600 : 20_000;
    private static final int TESTS = 200;
    private static final int TRIES = SMALLEST ? 2 : 9;

    private PairSpeed() {}

    public static void main(String[] arguments) {
        Random random = new Random(11);
        List<SampleMoments> samples = new ArrayList<>();
        for (int i = 0; i < PAIRS + 1; i++) {
            samples.add(new SampleMoments(3, 5 + 0.1 * random.nextGaussian(), 1e-4 * (1 + random.nextDouble()), 1e-8));
        }
        Optional<NoisePrior> prior = NoisePrior.fit(samples.subList(0, 500));
        double[] pairs = new double[TRIES];
        double[] overalls = new double[TRIES];
        double[] weights = new double[TESTS];
        Arrays.fill(weights, 1);
        double sum = 0;
        for (int round = 0; round < TRIES; round++) {
            List<PairComparison> compared = new ArrayList<>(PAIRS);
            long start = System.nanoTime();
            for (int i = 0; i < PAIRS; i++) {
                compared.add(ExampleSamples.pair(samples.get(i), samples.get(i + 1), prior, Materiality.USUAL));
            }
            pairs[round] = PAIRS / ((System.nanoTime() - start) / 1e9);
            start = System.nanoTime();
            for (int i = 0; i + TESTS <= PAIRS; i += TESTS) {
                sum += OverallComparison.of(
                                compared.subList(i, i + TESTS), weights, SharedDay.UNKNOWN, Materiality.USUAL)
                        .ratio();
            }
            overalls[round] = PAIRS / TESTS / ((System.nanoTime() - start) / 1e9);
        }
        Arrays.sort(pairs);
        Arrays.sort(overalls);
        System.out.printf(
                Locale.ROOT,
                "Comparing in core, median of %d: %.0f pairs a second, %.0f overalls of %d tests a second (sum %.3f)%n",
                TRIES,
                pairs[TRIES / 2],
                overalls[TRIES / 2],
                TESTS,
                sum);
    }
}
