package yarrowmark.core.standing;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.Test;
import yarrowmark.core.stats.StudentT;

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
            LevelNoise[] noise = new LevelNoise[n];
            LevelNoise.Degrees degrees = new LevelNoise.Degrees(1 + random.nextInt(40), 1 + random.nextInt(300));
            for (int i = 0; i < n; i++) {
                falling[i] = level[n - 1 - i];
                double runs = random.nextInt(5) == 0 ? 0 : Math.pow(10, -4 + 3 * random.nextDouble());
                noise[i] = new LevelNoise(
                        runs,
                        runs * runs / (1 + 9 * random.nextDouble()),
                        random.nextInt(3) == 0 ? 0.003 * random.nextDouble() : 0,
                        random.nextInt(3) == 0 ? 0.003 * random.nextDouble() : 0);
            }
            ClearOrder order = ClearOrder.of(falling, noise, degrees);
            for (int i = 0; i < n; i++) {
                int above = 0;
                int below = 0;
                for (int k = 0; k < n; k++) {
                    double apart = falling[k] - falling[i];
                    boolean clear = Math.abs(apart)
                            > StudentT.upper(LevelNoise.degrees(noise[i], noise[k], degrees))
                                    * Math.sqrt(LevelNoise.variance(noise[i], noise[k]));
                    above += clear && apart > 0 ? 1 : 0;
                    below += clear && apart < 0 ? 1 : 0;
                }
                assertThat(order.above(i)).as("seed %d, %d of %d", seed, i, n).isEqualTo(above);
                assertThat(order.below(i)).as("seed %d, %d of %d", seed, i, n).isEqualTo(below);
            }
        }
    }

    @Test
    void allEqualShareEveryPlace() {
        assertThat(ClearOrder.of(
                                new double[] {1, 1, 1},
                                new LevelNoise[] {LevelNoise.NONE, LevelNoise.NONE, LevelNoise.NONE},
                                new LevelNoise.Degrees(1, 1))
                        .place(1))
                .isEqualTo(new Place(1, 1, 3));
    }

    @Test
    void nobodyIsANormalCase() {
        assertThat(ClearOrder.of(new double[0], new LevelNoise[0], new LevelNoise.Degrees(1, 1)))
                .hasToString("above [], below []");
    }
}
