package yarrowmark.core.choice;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import org.apache.commons.statistics.distribution.NormalDistribution;
import org.junit.jupiter.api.Test;
import yarrowmark.core.standing.MeritGrid;

/** Expected values: the method's example G, R 4.2.2, to the digits shown there. */
class TestChoiceTest {
    private static final double[][] G = {
        {522, 1710, 53.4, 2650, 95.3, 88.3, 285, 15},
        {686, 3240, 90.8, 4210, 195, 117, 375, 24.6},
        {229, 1130, 32.2, 1330, 53.3, 47, 124, 8.95},
        {567, 1980, 48.6, 3890, 121, 87, 314, 11.2},
        {553, 2920, 72.8, 6070, 201, 91.4, 305, 19.1},
        {432, 1290, 39.8, 2270, 75.4, 60.7, 239, 12.6},
        {524, 1920, 58.5, 2650, 94.2, 83.7, 287, 12.3},
        {410, 1800, 50.6, 2420, 106, 73.2, 223, 15.3},
        {484, 1780, 54.5, 3290, 83.8, 102, 266, 17.8},
        {513, 2120, 55.2, 3510, 112, 71.6, 287, 16.7}
    };
    private static final double[] MINUTES = {4, 9, 3, 20, 6, 45, 5, 12};
    private static final double NOISE = 0.01 * 0.01 / 3;

    private static MeritGrid grid(double[][] values) {
        MeritGrid.Builder builder = MeritGrid.builder(values.length, values[0].length);
        for (int i = 0; i < values.length; i++) {
            for (int j = 0; j < values[i].length; j++) {
                if (!Double.isNaN(values[i][j])) {
                    builder.cell(i, j, Math.log(values[i][j]), NOISE);
                }
            }
        }
        return builder.build();
    }

    private static double[] even(int n) {
        double[] weights = new double[n];
        Arrays.fill(weights, 1.0 / n);
        return weights;
    }

    private static TestChoice choice(double[][] values) {
        return TestChoice.of(grid(values), even(values[0].length)).orElseThrow();
    }

    private static BitSet set(int... tests) {
        BitSet set = new BitSet();
        Arrays.stream(tests).forEach(set::set);
        return set;
    }

    private static List<Integer> tests(List<TestChoice.Step> path) {
        return path.stream().map(s -> s.test() + 1).toList();
    }

    @Test
    void exampleGPath() {
        TestChoice choice = choice(G);
        assertThat(choice.tauSquared()).isCloseTo(0.01970248035, within(5e-12));
        assertThat(choice.clearPairs()).hasSize(44);
        List<TestChoice.Step> path = choice.path(TestChoice.Ask.of(MINUTES, 1e9));
        assertThat(tests(path)).containsExactly(3, 1, 5, 7, 4, 8, 2, 6);
        double[] surely = {
            0.8075975610,
            0.8549555845,
            0.8940461280,
            0.9133514865,
            0.9470785368,
            0.9747887788,
            0.9792027060,
            0.9994562869
        };
        double[] same = {37, 38, 41, 41, 41, 44, 43, 44};
        for (int i = 0; i < same.length; i++) {
            assertThat(path.get(i).told().surely()).isCloseTo(surely[i], within(5e-11));
            assertThat(path.get(i).told().same()).isEqualTo(same[i]);
            assertThat(path.get(i).told().pairs()).isEqualTo(44);
        }
        assertThat(path.get(7).minutes()).isEqualTo(104);
    }

    @Test
    void exampleGWithinMinutes() {
        TestChoice choice = choice(G);
        List<TestChoice.Step> path = choice.path(TestChoice.Ask.of(MINUTES, 30));
        assertThat(tests(path)).containsExactly(3, 1, 5, 7, 8);
        assertThat(path.get(4).told().surely()).isCloseTo(0.9275226857, within(5e-11));
        assertThat(path.get(4).told().same()).isEqualTo(43);
        assertThat(choice.turned(set(2, 0, 4, 6, 7))).hasSize(1);
        BitSet exact = choice.exact(TestChoice.Ask.of(MINUTES, 30));
        assertThat(exact).isEqualTo(set(0, 4, 6, 7));
        assertThat(choice.told(exact).surely()).isCloseTo(0.9325313713, within(5e-11));
        BitSet quarter = choice.exact(TestChoice.Ask.of(MINUTES, 15));
        assertThat(quarter).isEqualTo(set(0, 4, 6));
        assertThat(choice.told(quarter).surely()).isCloseTo(0.9097336110, within(5e-11));
    }

    @Test
    void exampleGOfADeviceNotSeenYet() {
        TestChoice.Unseen unseen = choice(G).unseen(TestChoice.Ask.of(MINUTES, 30));
        double s = 7.0 / 9;
        assertThat(unseen.each()).containsExactly(new double[] {s, 1, 1, 1, 1, 1, s, 1, s, 1}, within(1e-12));
        assertThat(unseen.mean()).isCloseTo(0.9333333333, within(5e-11));
        assertThat(unseen.low()).isCloseTo(0.8565443968, within(5e-11));
        assertThat(unseen.high()).isEqualTo(1);
        assertThat(unseen.rough()).isTrue();
    }

    @Test
    void exampleGAlikeTests() {
        AlikeTests alike = choice(G).alike();
        List<Integer> all = IntStream.range(0, 8).boxed().toList();
        AlikeTests.Alike first = alike.nearest(0, all).orElseThrow();
        assertThat(first.other()).isEqualTo(6);
        assertThat(first.correlation()).isCloseTo(0.9787279253, within(5e-11));
        assertThat(first.isTheSame())
                .as("ten configurations are too few to say so")
                .isFalse();
        assertThat(alike.nearest(5, all).orElseThrow().other()).isEqualTo(3);
        assertThat(alike.nearest(5, all).orElseThrow().correlation()).isCloseTo(0.7477238187, within(5e-11));
        AlikeTests.Alike kept = alike.nearest(5, List.of(2, 0, 4, 6, 7)).orElseThrow();
        assertThat(kept.other())
                .as("of two as alike the one that is taken first")
                .isEqualTo(2);
        assertThat(kept.correlation()).isCloseTo(0.7091, within(5e-5));
        assertThat(AlikeTests.ranks(new double[] {3, 1, 3, 2})).containsExactly(3.5, 1, 3.5, 2);
    }

    @Test
    void mustHavesComeFirstAndWhatIsRefusedNever() {
        TestChoice choice = choice(G);
        List<TestChoice.Step> path = choice.path(new TestChoice.Ask(MINUTES, 60, set(5), set(2)));
        assertThat(path.get(0).test()).isEqualTo(5);
        assertThat(tests(path)).doesNotContain(3);
        assertThat(path.get(path.size() - 1).minutes()).isLessThanOrEqualTo(60);
        assertThat(tests(choice.path(new TestChoice.Ask(MINUTES, 10, set(5), new BitSet()))))
                .as("a must-have that is longer than the time there is")
                .containsExactly(6);
        assertThat(choice.exact(new TestChoice.Ask(MINUTES, 60, set(5), set(2))).get(5))
                .isTrue();
        assertThatThrownBy(() -> choice.path(new TestChoice.Ask(MINUTES, 60, set(5), set(5))))
                .isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> choice.path(TestChoice.Ask.of(new double[] {1, 0, 1, 1, 1, 1, 1, 1}, 60)))
                .hasMessageContaining("minutes");
    }

    @Test
    void theOrderOfTestsAndConfigurationsAndTheScaleOfATestChangeNothing() {
        double[][] turned = new double[G.length][];
        double[] minutes = new double[8];
        for (int i = 0; i < G.length; i++) {
            turned[G.length - 1 - i] = new double[8];
            for (int j = 0; j < 8; j++) {
                turned[G.length - 1 - i][7 - j] = G[i][j] * (j == 3 ? 1000 : 1);
                minutes[7 - j] = MINUTES[j];
            }
        }
        List<Integer> path = tests(choice(turned).path(TestChoice.Ask.of(minutes, 1e9)));
        assertThat(path.stream().map(t -> 9 - t).toList()).containsExactly(3, 1, 5, 7, 4, 8, 2, 6);
    }

    @Test
    void aTestIsTakenWithAllItsNumbers() {
        int[] testOf = {0, 0, 1, 1, 2, 2, 3, 3};
        TestChoice pairs = TestChoice.of(grid(G), even(8), testOf).orElseThrow();
        TestChoice single = choice(G);
        assertThat(pairs.told(set(1, 3))).isEqualTo(single.told(set(2, 3, 6, 7)));
        List<TestChoice.Step> path = pairs.path(TestChoice.Ask.of(new double[] {5, 6, 7, 8}, 13));
        assertThat(path).hasSize(2);
        assertThat(path.get(1).minutes()).isLessThanOrEqualTo(13);
        assertThat(pairs.alike().of(0, 3)).hasValueSatisfying(a -> assertThat(a.correlation())
                .isEqualTo(single.alike().of(0, 6).orElseThrow().correlation()));
    }

    @Test
    void aGridWithGapsIsFittedAndAFullOneGivesTheSameEitherWay() {
        double[][] gaps = Arrays.stream(G).map(double[]::clone).toArray(double[][]::new);
        gaps[1][3] = Double.NaN;
        gaps[7][0] = Double.NaN;
        gaps[4][6] = Double.NaN;
        TestChoice choice = choice(gaps);
        TestChoice.Told all = choice.told(set(IntStream.range(0, 8).toArray()));
        assertThat(all.same()).as("all tests agree with themselves").isEqualTo(all.pairs());
        List<TestChoice.Step> path = choice.path(TestChoice.Ask.of(MINUTES, 1e9));
        assertThat(path).hasSize(8);
        assertThat(path.get(7).told()).isEqualTo(all);
        assertThat(path).allMatch(s -> s.told().surely() > 0 && s.told().surely() < 1);
    }

    @Test
    void whereNothingCanBeSaidNothingIsSaid() {
        assertThat(TestChoice.of(grid(Arrays.copyOf(G, 5)), even(8)))
                .as("five configurations")
                .isEmpty();
        double[][] alike = new double[8][4];
        for (double[] row : alike) {
            Arrays.fill(row, 100);
        }
        assertThat(TestChoice.of(grid(alike), even(4))).as("no pair is clear").isEmpty();
        double[][] oneTest = new double[8][1];
        for (int i = 0; i < 8; i++) {
            oneTest[i][0] = 100 + 10 * i;
        }
        TestChoice.Told one = choice(oneTest).told(set(0));
        assertThat(one.agreement()).isEqualTo(1);
        assertThat(TestChoice.of(grid(G), new double[] {0, 0, 0, 0, 0, 1, 0, 0})
                        .orElseThrow()
                        .path(TestChoice.Ask.of(MINUTES, 1e9)))
                .as("tests without weight are none of the purpose's")
                .hasSize(1);
    }

    @Test
    void thePathIsNearlyAsGoodAsTheBestSubset() {
        Random random = new Random(41);
        for (int ledger = 0; ledger < 10; ledger++) {
            double[][] values = new double[12][9];
            for (int i = 0; i < 12; i++) {
                double level = random.nextGaussian() * 0.3;
                for (int j = 0; j < 9; j++) {
                    values[i][j] = Math.exp(level + 0.15 * random.nextGaussian());
                }
            }
            double[] minutes = random.doubles(9, 2, 40).toArray();
            TestChoice choice = choice(values);
            TestChoice.Ask ask = TestChoice.Ask.of(minutes, 60);
            List<TestChoice.Step> path = choice.path(ask);
            double exact = choice.told(choice.exact(ask)).surely();
            double greedy = path.get(path.size() - 1).told().surely();
            assertThat(greedy).isLessThanOrEqualTo(exact + 1e-12).isGreaterThan(exact - 0.06);
        }
    }

    @Test
    void theTableOfTheNormalDistributionAgreesWithIt() {
        NormalDistribution normal = NormalDistribution.of(0, 1);
        for (double z = -9; z <= 9; z += 0.0137) {
            assertThat(NormalTable.below(z)).isCloseTo(normal.cumulativeProbability(z), within(2e-12));
        }
        assertThat(NormalTable.below(Double.POSITIVE_INFINITY)).isEqualTo(1);
        assertThat(NormalTable.below(Double.NEGATIVE_INFINITY)).isZero();
    }
}
