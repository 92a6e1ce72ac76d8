package yarrowmark.core.standing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Random;
import org.junit.jupiter.api.Test;

class FrontierTest {
    @Test
    void nobodyOnItIsBeatenInBoth() {
        for (int seed = 0; seed < 50; seed++) {
            Random random = new Random(seed);
            int n = random.nextInt(40);
            double[] cost = random.doubles(n).map(x -> Math.round(x * 12)).toArray();
            double[] merit = random.doubles(n).map(x -> Math.round(x * 12)).toArray();
            boolean[] on = Frontier.of(cost, merit);
            for (int i = 0; i < n; i++) {
                boolean beaten = false;
                for (int k = 0; k < n; k++) {
                    beaten |= cost[k] <= cost[i] && merit[k] >= merit[i] && (cost[k] < cost[i] || merit[k] > merit[i]);
                }
                assertThat(on[i]).as("seed %d, %d", seed, i).isEqualTo(!beaten);
            }
        }
    }

    @Test
    void twinsAreOnItTogether() {
        assertThat(Frontier.of(new double[] {300, 300, 500}, new double[] {1, 1, 1}))
                .containsExactly(true, true, false);
    }

    @Test
    void aPriceThatIsNotKnownIsRefused() {
        assertThatThrownBy(() -> Frontier.of(new double[] {Double.NaN}, new double[] {1}))
                .hasMessageContaining("finite");
    }
}
