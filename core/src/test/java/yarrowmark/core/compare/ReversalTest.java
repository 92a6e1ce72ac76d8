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
}
