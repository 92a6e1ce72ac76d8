package yarrowmark.core.standing;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.Test;

class ClearOrderTest {
    /** What counting in bulk must not change: every pair by itself. */
    @Test
    void bulkCountingIsThatOfEveryPair() {
        for (int seed = 0; seed < 40; seed++) {
            Random random = new Random(seed);
            int n = 1 + random.nextInt(120);
            double[] level =
                    random.doubles(n, 0, 2).map(x -> Math.round(x * 50) / 50.0).toArray();
            Arrays.sort(level);
            double[] falling = new double[n];
            double[] variance = new double[n];
            for (int i = 0; i < n; i++) {
                falling[i] = level[n - 1 - i];
                variance[i] = random.nextInt(9) == 0
                        ? Double.NaN
                        : random.nextInt(5) == 0 ? 0 : Math.pow(10, -4 + 4 * random.nextDouble());
            }
            ClearOrder order = ClearOrder.of(falling, variance);
            for (int i = 0; i < n; i++) {
                int above = 0;
                int below = 0;
                for (int k = 0; k < n; k++) {
                    double apart = (falling[k] - falling[i]) / Math.sqrt(variance[i] + variance[k]);
                    above += apart > ClearOrder.CLEAR ? 1 : 0;
                    below += apart < -ClearOrder.CLEAR ? 1 : 0;
                }
                assertThat(order.above(i)).as("seed %d, %d of %d", seed, i, n).isEqualTo(above);
                assertThat(order.below(i)).as("seed %d, %d of %d", seed, i, n).isEqualTo(below);
            }
        }
    }

    @Test
    void allEqualShareEveryPlace() {
        assertThat(ClearOrder.of(new double[] {1, 1, 1}, new double[] {0, 0, 0}).place(1))
                .isEqualTo(new Place(1, 3));
    }

    @Test
    void nobodyIsANormalCase() {
        assertThat(ClearOrder.of(new double[0], new double[0])).hasToString("above [], below []");
    }
}
