package yarrowmark.core.compare;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.Test;

class ReversalTest {
    private static final Reversal.Weighing ALIKE = kept -> {
        double[] weights = new double[kept.length];
        Arrays.fill(weights, 1);
        return weights;
    };

    @Test
    void oneTestThatCarriesTheWholeIsFound() {
        Reversal r = Reversal.of(new double[] {-0.1, 0.9, -0.2}, ALIKE).orElseThrow();
        assertThat(r.out()).containsExactly(1);
        assertThat(r.difference()).isCloseTo(-0.15, within(1e-12));
    }

    @Test
    void ofTwoThatWouldTurnItTheOneThatTurnsItMostIsTaken() {
        Reversal r = Reversal.of(new double[] {0.5, 0.6, -0.7}, ALIKE).orElseThrow();
        assertThat(r.out()).containsExactly(1);
    }

    @Test
    void whereOneIsNotEnoughThoseThatAddMostGo() {
        Reversal r =
                Reversal.of(new double[] {-0.3, -0.3, -0.1, 0.2, 0.1}, ALIKE).orElseThrow();
        assertThat(r.out()).containsExactlyInAnyOrder(0, 1);
        assertThat(r.difference()).isPositive();
    }

    @Test
    void whatEveryTestSaysCannotBeReversed() {
        assertThat(Reversal.of(new double[] {0.1, 0.2, 0.3}, ALIKE)).isEmpty();
        assertThat(Reversal.of(new double[] {0.1}, ALIKE)).isEmpty();
        assertThat(Reversal.of(new double[] {0, 0}, ALIKE)).isEmpty();
        assertThat(Reversal.of(new double[] {1, 1, 1, 1, 1, -0.1}, ALIKE))
                .as("five of six would have to go")
                .isEmpty();
    }

    /** Weights are spread anew: without the first, the second counts for both. */
    @Test
    void weightsFollowWhatIsKept() {
        Reversal.Weighing byPart = kept -> {
            double[] weights = new double[kept.length];
            long firstPart = Arrays.stream(kept).filter(k -> k < 2).count();
            for (int i = 0; i < weights.length; i++) {
                weights[i] = kept[i] < 2 ? 1.0 / firstPart : 0.5;
            }
            return weights;
        };
        assertThat(Reversal.of(new double[] {0.4, -0.3, 0.1}, byPart)
                        .orElseThrow()
                        .out())
                .containsExactly(0);
        assertThat(Reversal.of(new double[] {0.4, -0.3}, kept -> new double[0])).isEmpty();
    }

    @Test
    void whatComesBackReallyTurnsItAndSwappedItIsTheSame() {
        Random random = new Random(9);
        for (int round = 0; round < 200; round++) {
            double[] d = random.doubles(2 + random.nextInt(9), -1, 1).toArray();
            double[] turned = Arrays.stream(d).map(x -> -x).toArray();
            Reversal.of(d, ALIKE).ifPresent(r -> {
                double before = Arrays.stream(d).sum();
                assertThat(r.difference() * before).isLessThanOrEqualTo(0);
                assertThat(r.out()).hasSizeLessThanOrEqualTo(Math.max(1, d.length / 2));
                assertThat(Reversal.of(turned, ALIKE).orElseThrow().out()).isEqualTo(r.out());
            });
        }
        assertThat(Reversal.mean(new double[] {1, 2}, new int[] {1}, new double[] {0}))
                .isZero();
    }

    /** Each test has a weight of its own, which leaving others out does not change. */
    private static Reversal.Weighing fixed(double... weights) {
        return kept -> Arrays.stream(kept).mapToDouble(k -> weights[k]).toArray();
    }

    /** The heaviest adds less, but without it less weight is left, so the rest is turned further. */
    @Test
    void ofSinglesTheOneThatTurnsItMostIsNotAlwaysTheOneThatAddsMost() {
        double[] d = {10, 1.9, -105};
        double[] w = {0.1, 0.5, 0.01};
        Reversal r = Reversal.of(d, fixed(w)).orElseThrow();
        assertThat(r.out()).containsExactly(1);
        assertThat(r.difference()).isCloseTo((1 - 1.05) / 0.11, within(1e-12));
    }

    /** Only the dozen that add most are tried alone, wherever they stand; here the two that matter stand last. */
    @Test
    void whatAddsMostIsTriedFirst() {
        double[] d = new double[16];
        double[] w = new double[16];
        Arrays.fill(d, 0, 13, 1e-9);
        Arrays.fill(w, 0, 13, 1e-3);
        d[13] = -105;
        w[13] = 0.01;
        d[14] = 10;
        w[14] = 0.1;
        d[15] = 1.9;
        w[15] = 0.5;
        assertThat(Reversal.of(d, fixed(w)).orElseThrow().out()).containsExactly(15);
    }

    @Test
    void aWholeThatComesToNothingIsTurned() {
        Reversal r = Reversal.of(new double[] {1, 1, 1, -1}, ALIKE).orElseThrow();
        assertThat(r.out()).hasSize(2);
        assertThat(r.difference()).isZero();
    }

    @Test
    void singlesAreTheSameAsTryingEachOfThem() {
        Random random = new Random(31);
        int found = 0;
        for (int round = 0; round < 300; round++) {
            int n = 3 + random.nextInt(7);
            double[] d = random.doubles(n, -1, 1).toArray();
            double[] w = random.doubles(n, 0.1, 3).toArray();
            double[] added = new double[n];
            Arrays.setAll(added, i -> w[i] * d[i]);
            double whole = Arrays.stream(added).sum();
            int best = -1;
            double turned = 0;
            for (int i = 0; i < n; i++) {
                double rest = (whole - added[i]) / (Arrays.stream(w).sum() - w[i]) * Math.signum(whole);
                if (rest <= 0 && (best < 0 || rest < turned)) {
                    best = i;
                    turned = rest;
                }
            }
            if (best >= 0) {
                found++;
                Reversal r = Reversal.of(d, fixed(w)).orElseThrow();
                assertThat(r.out()).containsExactly(best);
                assertThat(r.difference() * Math.signum(whole)).isCloseTo(turned, within(1e-9));
            }
        }
        assertThat(found).isGreaterThan(50);
    }

    /** Weights follow the positions that are kept, so the right ones must be. */
    @Test
    void manyThatGoAreTakenOneAfterTheOther() {
        double[] d = {0.1, 0.9, 0.2, 0.8, 0.3, 0.7, -1, -1};
        Reversal r = Reversal.of(d, ALIKE).orElseThrow();
        assertThat(r.out()).containsExactly(1, 3);
        assertThat(r.difference()).isCloseTo((0.1 + 0.2 + 0.3 + 0.7 - 2) / 6, within(1e-12));
    }
}
