package yarrowmark.core.speed;

import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import yarrowmark.core.choice.TestChoice;
import yarrowmark.core.standing.MeritGrid;

/**
 * How long one path over a large ledger takes, how near it comes to the best subset in small ones, and how often what is said of
 * a device not seen yet holds. Run by bin/bench.
 */
public final class ChoiceSpeed {
    /** Whether only to see that it works: the smallest size that goes through everything. */
    private static final boolean SMALLEST = Boolean.getBoolean("yarrowmark.smallest");

    private static final int CONFIGURATIONS = SMALLEST ? 12 : 200;
    private static final int TESTS = SMALLEST ? 8 : 100;
    private static final int TRIES = SMALLEST ? 1 : 3;
    private static final int LEDGERS = SMALLEST ? 2 : 50;
    private static final int SMALL_TESTS = SMALLEST ? 6 : 20;
    private static final int SMALL_CONFIGURATIONS = 16;
    private static final int UNSEEN_TESTS = 8;

    private ChoiceSpeed() {}

    public static void main(String[] arguments) {
        Random random = new Random(10);
        path(random);
        nearness(random);
        unseen(random);
    }

    private static MeritGrid grid(Random random, int configurations, int tests) {
        MeritGrid.Builder builder = MeritGrid.builder(configurations, tests);
        double[] level = random.doubles(configurations, -0.5, 0.5).toArray();
        for (int i = 0; i < configurations; i++) {
            for (int j = 0; j < tests; j++) {
                builder.cell(i, j, level[i] + 0.15 * random.nextGaussian(), 1e-4 / 3);
            }
        }
        return builder.build();
    }

    private static double[] even(int tests) {
        double[] weights = new double[tests];
        Arrays.fill(weights, 1.0 / tests);
        return weights;
    }

    private static void path(Random random) {
        double[] seconds = new double[TRIES];
        for (int round = 0; round < TRIES; round++) {
            MeritGrid grid = grid(random, CONFIGURATIONS, TESTS);
            double[] minutes = random.doubles(TESTS, 1, 60).toArray();
            long start = System.nanoTime();
            List<TestChoice.Step> path =
                    TestChoice.of(grid, even(TESTS)).orElseThrow().path(TestChoice.Ask.of(minutes, Double.MAX_VALUE));
            seconds[round] = (System.nanoTime() - start) / 1e9;
            if (path.size() != TESTS) {
                throw new IllegalStateException("the path leaves tests out");
            }
        }
        Arrays.sort(seconds);
        System.out.printf(
                Locale.ROOT,
                "Choice in core: one path over %d configurations and %d tests takes %.2f s (median of %d)%n",
                CONFIGURATIONS,
                TESTS,
                seconds[TRIES / 2],
                TRIES);
    }

    private static void nearness(Random random) {
        double most = 0;
        for (int ledger = 0; ledger < LEDGERS; ledger++) {
            TestChoice choice = TestChoice.of(grid(random, SMALL_CONFIGURATIONS, SMALL_TESTS), even(SMALL_TESTS))
                    .orElseThrow();
            double[] minutes = random.doubles(SMALL_TESTS, 1, 60).toArray();
            // Of all subsets those of a quarter of the time: the others would only be more of the same.
            TestChoice.Ask ask =
                    TestChoice.Ask.of(minutes, Arrays.stream(minutes).sum() / 4);
            BitSet exact = choice.exact(ask);
            List<TestChoice.Step> path = choice.path(ask);
            most = Math.max(
                    most,
                    choice.told(exact).surely()
                            - path.get(path.size() - 1).told().surely());
        }
        System.out.printf(
                Locale.ROOT,
                "The path tells at most %.4f less than the best of all subsets of %d tests, in %d ledgers%n",
                most,
                SMALL_TESTS,
                LEDGERS);
    }

    /** A device more than the ledger has: does its agreement's mean lie in what was promised? */
    private static void unseen(Random random) {
        int held = 0;
        for (int ledger = 0; ledger < LEDGERS; ledger++) {
            double[] minutes = random.doubles(UNSEEN_TESTS, 1, 60).toArray();
            TestChoice.Ask ask =
                    TestChoice.Ask.of(minutes, Arrays.stream(minutes).sum() / 3);
            TestChoice.Unseen promised = TestChoice.of(
                            grid(random, SMALL_CONFIGURATIONS, UNSEEN_TESTS), even(UNSEEN_TESTS))
                    .orElseThrow()
                    .unseen(ask);
            double[] others = TestChoice.of(grid(random, 60, UNSEEN_TESTS), even(UNSEEN_TESTS))
                    .orElseThrow()
                    .unseen(ask)
                    .each();
            double mean = Arrays.stream(others)
                    .filter(a -> !Double.isNaN(a))
                    .average()
                    .orElseThrow();
            held += mean >= promised.low() && mean <= promised.high() ? 1 : 0;
        }
        System.out.printf(
                Locale.ROOT,
                "What is said of a device not seen yet holds for the mean of sixty others in %d of %d ledgers%n",
                held,
                LEDGERS);
    }
}
