package yarrowmark.core.stats;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.apache.commons.statistics.distribution.TDistribution;
import org.junit.jupiter.api.Test;

class StudentTTest {
    /** R 4.2.2: qt(0.975, c(1, 3, 10, Inf)). */
    @Test
    void pointsOfTheTable() {
        assertThat(StudentT.upper(1)).isCloseTo(12.70620474, within(5e-9));
        assertThat(StudentT.upper(3)).isCloseTo(3.182446305, within(5e-10));
        assertThat(StudentT.upper(10)).isCloseTo(2.228138852, within(5e-10));
        assertThat(StudentT.upper(Double.POSITIVE_INFINITY)).isCloseTo(1.959963985, within(5e-10));
    }

    @Test
    void interpolationAgreesWithTheDistributionToElevenDigits() {
        Random random = new Random(6);
        for (int i = 0; i < 3_000; i++) {
            double df = 1 / (random.nextDouble() + 1e-7);
            double exact = TDistribution.of(df).inverseSurvivalProbability(0.025);
            assertThat(StudentT.upper(df)).as("%s degrees", df).isCloseTo(exact, within(1e-11 * exact));
        }
        assertThat(StudentT.upper(0.5))
                .isCloseTo(TDistribution.of(0.5).inverseSurvivalProbability(0.025), within(1e-9));
    }

    /** The table only saves work: just below and just above the point the answers are those of the point. */
    @Test
    void aDifferenceIsBeyondExactlyAboveThePoint() {
        Random random = new Random(4);
        for (int i = 0; i < 2_000; i++) {
            double df = i % 50 == 0 ? Double.POSITIVE_INFINITY : 1 / Math.max(1e-4, random.nextDouble());
            double point = StudentT.upper(df);
            assertThat(StudentT.isBeyond(point * 0.5 * (1 + 1e-9), 0.5, df)).isTrue();
            assertThat(StudentT.isBeyond(point * 0.5 * (1 - 1e-9), 0.5, df)).isFalse();
        }
        assertThat(StudentT.isBeyond(0, 0, 5)).isFalse();
        assertThat(StudentT.isBeyond(1e-9, 0, 5)).isTrue();
    }
}
