package yarrowmark.core.standing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import yarrowmark.core.ExampleSamples;
import yarrowmark.core.compare.PairComparison;
import yarrowmark.core.stats.Centre;
import yarrowmark.core.stats.DayBasis;
import yarrowmark.core.stats.Noise;
import yarrowmark.core.stats.SharedDay;
import yarrowmark.core.stats.StudentT;

/** Expected values: the method's example D, R 4.2.2, to the digits shown there. */
class RankingTest {
    private static final double GAP = Double.NaN;
    private static final double[][] D = {
        {388, 1540, 41.2, 3310, 94}, {406, 1791, 46.9, 3323, 97}, {512, 2604, 71.3, GAP, 131},
        {291, 870, GAP, 1180, 70}, {610, 3920, 96.4, 5120, GAP}, {GAP, GAP, 38.0, GAP, GAP}
    };
    private static final double[] WEIGHTS = {0.125, 0.125, 0.25, 0.25, 0.25};
    private static final double NOISE = 0.01 * 0.01 / 3;

    private static MeritGrid grid(double[][] values, double noise) {
        MeritGrid.Builder builder = MeritGrid.builder(values.length, values[0].length);
        for (int i = 0; i < values.length; i++) {
            for (int j = 0; j < values[i].length; j++) {
                if (!Double.isNaN(values[i][j])) {
                    builder.cell(i, j, Math.log(values[i][j]), noise);
                }
            }
        }
        return builder.build();
    }

    private static List<Standing.Entry> byRow(Standing standing) {
        return standing.entries().stream()
                .sorted(Comparator.comparingInt(Standing.Entry::row))
                .toList();
    }

    @Test
    void exampleD() {
        Standing standing = Ranking.of(grid(D, NOISE), WEIGHTS, 0);
        List<Standing.Entry> rows = byRow(standing);
        double[] index = {100, 106.79824359, 143.61488815, 57.70562832, 196.55427060, 82.94418721};
        double[] error = {0.002700308624, 0.002700308624, 0.042613812865, 0.042613812865, 0.042613812865, 0.154742512675
        };
        double[] coverage = {1, 1, 0.75, 0.75, 0.75, 0.25};
        for (int i = 0; i < index.length; i++) {
            assertThat(rows.get(i).index().orElseThrow()).isCloseTo(index[i], within(5e-9));
            assertThat(rows.get(i).standardError().orElseThrow()).isCloseTo(error[i], within(5e-13));
            assertThat(rows.get(i).coverage()).isCloseTo(coverage[i], within(1e-15));
        }
        assertThat(standing.tauSquared()).isCloseTo(0.03060724723, within(5e-12));
        assertThat(standing.entries()).extracting(Standing.Entry::row).containsExactly(4, 2, 1, 0, 3, 5);
        assertThat(rows)
                .extracting(r -> r.place().map(Place::words).orElse("none"))
                .containsExactly("4", "3", "2", "5", "1", "none");
        assertThat(rows.get(5).status()).isEqualTo(Standing.Status.PROVISIONAL);
        assertThat(rows).allMatch(r -> r.percentile().isEmpty() && r.third().isEmpty());
    }

    @Test
    void onAFullGridItIsTheWeightedMeanOfLogRatios() {
        double[][] full = {{388, 1540, 41.2}, {406, 1791, 46.9}, {512, 2604, 71.3}};
        double[] weights = {0.5, 0.2, 0.3};
        double expected = 0;
        for (int j = 0; j < 3; j++) {
            expected += weights[j] * Math.log(full[2][j] / full[0][j]);
        }
        assertThat(byRow(Ranking.of(grid(full, NOISE), weights, 0))
                        .get(2)
                        .merit()
                        .orElseThrow())
                .isCloseTo(expected, within(1e-13));
    }

    @Test
    void unitsOfAMetricAndTheScaleOfWeightsDoNotMatter() {
        double[][] inOtherUnits = new double[D.length][];
        for (int i = 0; i < D.length; i++) {
            inOtherUnits[i] = D[i].clone();
            inOtherUnits[i][3] *= 1e6;
        }
        double[] tenfold = {1.25, 1.25, 2.5, 2.5, 2.5};
        List<Standing.Entry> expected = byRow(Ranking.of(grid(D, NOISE), WEIGHTS, 0));
        List<Standing.Entry> got = byRow(Ranking.of(grid(inOtherUnits, NOISE), tenfold, 0));
        for (int i = 0; i < D.length; i++) {
            assertThat(got.get(i).merit().orElseThrow())
                    .isCloseTo(expected.get(i).merit().orElseThrow(), within(1e-10));
            assertThat(got.get(i).place()).isEqualTo(expected.get(i).place());
        }
    }

    @Test
    void anotherReferenceMovesTheIndexAndNotThePlaces() {
        List<Standing.Entry> a = byRow(Ranking.of(grid(D, NOISE), WEIGHTS, 0));
        List<Standing.Entry> e = byRow(Ranking.of(grid(D, NOISE), WEIGHTS, 4));
        for (int i = 0; i < D.length; i++) {
            assertThat(e.get(i).merit().orElseThrow() - a.get(i).merit().orElseThrow())
                    .isCloseTo(-a.get(4).merit().orElseThrow(), within(1e-12));
            assertThat(e.get(i).place()).isEqualTo(a.get(i).place());
        }
    }

    @Test
    void islandsAreListedApart() {
        double[][] islands = {{1, 2, GAP, GAP}, {2, 3, GAP, GAP}, {GAP, GAP, 5, 6}, {GAP, GAP, GAP, 7}};
        List<Standing.Entry> rows = byRow(Ranking.of(grid(islands, NOISE), new double[] {1, 1, 1, 1}, 0));
        assertThat(rows)
                .extracting(Standing.Entry::status)
                .containsExactly(
                        Standing.Status.PLACED,
                        Standing.Status.PLACED,
                        Standing.Status.NOT_LINKED,
                        Standing.Status.NOT_LINKED);
        assertThat(rows.get(2).merit()).isEmpty();
        assertThat(rows.get(0).coverage()).isCloseTo(0.5, within(1e-15));
    }

    @Test
    void aMetricWithoutWeightLinksNothing() {
        double[][] values = {{1, GAP}, {2, 5}, {GAP, 6}};
        assertThat(byRow(Ranking.of(grid(values, NOISE), new double[] {1, 0}, 0))
                        .get(2)
                        .status())
                .isEqualTo(Standing.Status.NOT_LINKED);
    }

    /** By hand, section 5: errors of a − a of A, and degrees of freedom by Satterthwaite with N − p = 23 − 10 for τ². */
    @Test
    void exampleDHasIntervalsWithTheNoiseOfBoth() {
        Standing standing = Ranking.of(grid(D, NOISE), WEIGHTS, 0);
        List<Standing.Entry> rows = byRow(standing);
        double[] error = {0, 0.003818813079, 0.042699282354, 0.042699282354, 0.042699282354, 0.154766071526};
        for (int i = 0; i < error.length; i++) {
            assertThat(rows.get(i).interval().orElseThrow().standardError()).isCloseTo(error[i], within(1e-12));
        }
        assertThat(rows.get(0).interval().orElseThrow().high()).isEqualTo(1);
        PairComparison.Interval c = rows.get(2).interval().orElseThrow();
        int free = standing.cells() - (6 + 5 - 1);
        assertThat(standing.testDegrees()).isEqualTo(free);
        assertThat(c.degreesOfFreedom()).isBetween((double) free, 1.1 * free);
        double half = StudentT.upper(c.degreesOfFreedom()) * 0.042699282354;
        assertThat(c.low()).isCloseTo(1.4361488815 * Math.exp(-half), within(1e-9));
        assertThat(c.high()).isCloseTo(1.4361488815 * Math.exp(half), within(1e-9));
    }

    /** What rests on a guess is as wide as the guess, and says so. */
    @Test
    void anAssumedNoiseMakesAPlaceWide() {
        Centre guessed = Centre.of(ExampleSamples.one(ExampleSamples.more(Math.E)), Noise.UNKNOWN);
        MeritGrid grid = MeritGrid.builder(3, 1)
                .cell(0, 0, 0.9, 1e-6)
                .cell(1, 0, guessed)
                .cell(2, 0, 1.1, 1e-6)
                .build();
        List<Standing.Entry> rows = byRow(Ranking.of(grid, new double[] {1}, 0));
        assertThat(rows.get(1).place()).isEqualTo(Optional.of(new Place(2, 1, 3)));
        assertThat(rows.get(1).unmeasured().metrics()).isEqualTo(1);
        assertThat(rows.get(2).place()).isEqualTo(Optional.of(new Place(1, 1, 2)));
        assertThat(rows.get(0).place()).isEqualTo(Optional.of(new Place(3, 2, 3)));
        assertThat(rows.get(0).unmeasured().metrics()).isZero();
    }

    /** Sessions of all tests of a row add up: with κ = 1 the errors do, with κ = 0 their squares. */
    @Test
    void aDayThatMovesAllTestsAlikeWidensMore() {
        double[] weights = {0.25, 0.75};
        double[] error = new double[2];
        for (int together = 0; together < 2; together++) {
            MeritGrid.Builder builder = MeritGrid.builder(2, 2).day(new SharedDay(together, 2, DayBasis.of(2)));
            for (int i = 0; i < 2; i++) {
                for (int j = 0; j < 2; j++) {
                    builder.cell(i, j, new Centre(i + j, 1e-6, 9, 1, 4e-4, 6, 0, false, false));
                }
            }
            Standing standing = Ranking.of(builder.build(), weights, 0);
            error[together] = byRow(standing).get(1).standardError().orElseThrow();
            assertThat(standing.sessionDegrees()).isEqualTo(6);
            assertThat(standing.days()).isEqualTo(DayBasis.of(2));
        }
        double runs = 1e-6 * (0.0625 + 0.5625);
        assertThat(error[0]).isCloseTo(Math.sqrt(runs + 4e-4 * (0.0625 + 0.5625)), within(1e-12));
        assertThat(error[1]).isCloseTo(Math.sqrt(runs + 4e-4), within(1e-12));
    }

    /** The median has no noise of its own; that of the one nearest to it stands for it. */
    @Test
    void againstTheTypicalOneTheNearestLendsItsNoise() {
        MeritGrid grid = MeritGrid.builder(3, 1)
                .cell(0, 0, 0, 1e-4)
                .cell(1, 0, 1, 4e-4)
                .cell(2, 0, 2, 9e-4)
                .build();
        List<Standing.Entry> rows = byRow(Ranking.of(grid, new double[] {1}, Reference.typical()));
        assertThat(rows.get(2).interval().orElseThrow().standardError()).isCloseTo(Math.sqrt(13e-4), within(1e-12));
        assertThat(rows.get(1).interval().orElseThrow().standardError()).isCloseTo(Math.sqrt(8e-4), within(1e-12));
    }

    /** With an even number the median lies between two, and it must not matter which of them comes first. */
    @Test
    void whereTwoAreEquallyNearToTheTypicalOneBothLendTheirNoise() {
        for (int[] order : new int[][] {{0, 1, 2, 3}, {0, 2, 1, 3}, {3, 2, 1, 0}}) {
            double[] noise = {1e-4, 4e-4, 16e-4, 9e-4};
            MeritGrid.Builder builder = MeritGrid.builder(4, 1);
            for (int r = 0; r < 4; r++) {
                builder.cell(r, 0, order[r], noise[order[r]]);
            }
            List<Standing.Entry> rows = byRow(Ranking.of(builder.build(), new double[] {1}, Reference.typical()));
            for (int r = 0; r < 4; r++) {
                assertThat(rows.get(r).interval().orElseThrow().standardError())
                        .isCloseTo(Math.sqrt(noise[order[r]] + 10e-4), within(1e-12));
            }
        }
    }

    @Test
    void oneConfigurationIsFirst() {
        Standing standing = Ranking.of(grid(new double[][] {{5, 7}}, NOISE), new double[] {1, 1}, 0);
        assertThat(standing.entries().get(0).place()).isEqualTo(Optional.of(new Place(1, 1, 1)));
        assertThat(standing.entries().get(0).index().orElseThrow()).isEqualTo(100);
        assertThat(standing.tauSquared()).isZero();
    }

    @Test
    void allEqualShareEveryPlaceAndHalfThePercentile() {
        double[][] equal = new double[8][1];
        for (double[] row : equal) {
            row[0] = 42;
        }
        List<Standing.Entry> rows =
                Ranking.of(grid(equal, 0), new double[] {1}, 3).entries();
        assertThat(rows)
                .allMatch(r -> r.place().orElseThrow().worst() == 8
                        && r.place().orElseThrow().best() == 1
                        && r.percentile().orElseThrow() == 0.5);
        assertThat(rows).extracting(r -> r.third().orElseThrow()).containsOnly(Standing.Third.MIDDLE);
    }

    @Test
    void percentilesFromFiveOthersAndThirdsFromSixPlaced() {
        double[][] five = {{1}, {2}, {3}, {4}, {5}};
        assertThat(Ranking.of(grid(five, 0), new double[] {1}, 0).entries())
                .allMatch(r -> r.percentile().isEmpty());
        double[][] six = {{1}, {2}, {3}, {4}, {5}, {6}};
        List<Standing.Entry> rows = byRow(Ranking.of(grid(six, 0), new double[] {1}, 0));
        assertThat(rows.get(5).percentile().orElseThrow()).isEqualTo(1);
        assertThat(rows.get(1).percentile().orElseThrow()).isCloseTo(0.2, within(1e-15));
        assertThat(rows)
                .extracting(r -> r.third().orElseThrow())
                .containsExactly(
                        Standing.Third.LOWER,
                        Standing.Third.LOWER,
                        Standing.Third.MIDDLE,
                        Standing.Third.MIDDLE,
                        Standing.Third.UPPER,
                        Standing.Third.UPPER);
    }

    @Test
    void nearlyUnlinkedHalvesAreStillSolved() {
        // One tiny weight is the only bridge between two blocks: the worst conditioned grid a purpose can make.
        double[][] values = {{10, 20, GAP, GAP}, {11, 22, 5, GAP}, {GAP, GAP, 6, 30}, {GAP, GAP, 7, 33}};
        List<Standing.Entry> rows = byRow(Ranking.of(grid(values, NOISE), new double[] {1, 1, 1e-7, 1}, 0));
        double bridge = Math.log(11.0 / 10) + Math.log(6.0 / 5);
        double inBlock = (Math.log(33.0 / 30) * 1 + Math.log(7.0 / 6) * 1e-7) / (1 + 1e-7);
        assertThat(rows.get(3).merit().orElseThrow() - rows.get(2).merit().orElseThrow())
                .isCloseTo(inBlock, within(1e-6));
        assertThat(rows.get(2).merit().orElseThrow()).isCloseTo(bridge, within(0.1));
    }

    @Test
    void halfOfTheWeightIsEnoughForAPlaceAndLessIsNot() {
        double[][] values = {{10, 20, 30, 40}, {11, 21, GAP, GAP}, {12, GAP, 31, GAP}};
        List<Standing.Entry> rows = byRow(Ranking.of(grid(values, NOISE), new double[] {0.3, 0.2, 0.15, 0.35}, 0));
        assertThat(rows)
                .extracting(Standing.Entry::status)
                .containsExactly(Standing.Status.PLACED, Standing.Status.PLACED, Standing.Status.PROVISIONAL);
        assertThat(rows.get(2).coverage()).isCloseTo(0.45, within(1e-12));
    }

    /** A provisional one far away is not what is typical. */
    @Test
    void theTypicalOneIsTheMedianOfThosePlaced() {
        double[][] values = {{10, 10}, {20, 20}, {40, 40}, {1_000, GAP}, {2_000, GAP}};
        List<Standing.Entry> rows =
                byRow(Ranking.of(grid(values, NOISE), new double[] {0.4, 0.6}, new Reference.Typical()));
        assertThat(rows.get(1).index().orElseThrow()).isCloseTo(100, within(1e-9));
        assertThat(rows.get(3).status()).isEqualTo(Standing.Status.PROVISIONAL);
    }

    @Test
    void badInputIsNamed() {
        MeritGrid grid = grid(D, NOISE);
        assertThatThrownBy(() -> Ranking.of(grid, new double[] {1, 1}, 0)).hasMessageContaining("2 for 5");
        assertThatThrownBy(() -> Ranking.of(grid, new double[5], 0)).hasMessageContaining("above 0");
        assertThatThrownBy(() -> Ranking.of(grid, new double[] {1, 1, GAP, 1, 1}, 0))
                .hasMessageContaining("NaN");
        assertThatThrownBy(() -> Ranking.of(grid, new double[] {1, 1, 0, 1, 1}, 5))
                .hasMessageContaining("row 5");
        assertThatThrownBy(() -> MeritGrid.builder(1, 1)
                        .cell(0, 0, 1, 0)
                        .cell(0, 0, 2, 0)
                        .build())
                .hasMessageContaining("twice");
        assertThatThrownBy(() -> MeritGrid.builder(1, 1).cell(0, 1, 1, 0)).hasMessageContaining("outside");
    }

    @Test
    void randomGridsKeepTheirOrderWhenRowsArePermuted() {
        Random random = new Random(8);
        for (int round = 0; round < 20; round++) {
            int n = 12;
            double[][] values = new double[n][6];
            for (int i = 0; i < n; i++) {
                for (int j = 0; j < 6; j++) {
                    values[i][j] = j > 0 && random.nextDouble() < 0.3 ? GAP : Math.exp(random.nextGaussian());
                }
            }
            double[][] turned = new double[n][];
            for (int i = 0; i < n; i++) {
                turned[i] = values[n - 1 - i];
            }
            double[] weights = {1, 2, 1, 1, 3, 1};
            List<Standing.Entry> there = byRow(Ranking.of(grid(values, NOISE), weights, 0));
            List<Standing.Entry> back = byRow(Ranking.of(grid(turned, NOISE), weights, n - 1));
            for (int i = 0; i < n; i++) {
                assertThat(back.get(n - 1 - i).merit().orElseThrow())
                        .isCloseTo(there.get(i).merit().orElseThrow(), within(1e-11));
                assertThat(back.get(n - 1 - i).place()).isEqualTo(there.get(i).place());
            }
        }
    }
}
