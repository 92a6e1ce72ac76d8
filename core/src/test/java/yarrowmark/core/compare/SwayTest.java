package yarrowmark.core.compare;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

class SwayTest {
    private static int at(double overall, double... without) {
        double[] logs = java.util.Arrays.stream(without).map(Math::log).toArray();
        return Sway.of(Math.log(overall), logs, Materiality.USUAL).orElse(-1);
    }

    @Test
    void aPartThatTurnsALossIntoAGainIsNamed() {
        assertThat(at(0.903, 0.91, 1.21, 0.87)).isEqualTo(1);
        assertThat(at(1 / 0.903, 1 / 0.91, 1 / 1.21, 1 / 0.87))
                .as("seen from the other side")
                .isEqualTo(1);
    }

    @Test
    void partsThatAddTheirShareAreNotNamed() {
        assertThat(at(1.20, 1.19, 1.22, 1.17)).isEqualTo(-1);
        assertThat(at(1.00, 1.04, 0.97)).as("less than twice what matters").isEqualTo(-1);
        assertThat(at(2.0, 1.5)).as("less than half of it").isEqualTo(-1);
        assertThat(at(2.0, 1.3)).isZero();
    }

    @Test
    void ofTwoTheOneThatMovesItFurthestIsNamedAndNothingLeftIsNoPart() {
        assertThat(at(0.9, 1.1, 1.3)).isEqualTo(1);
        assertThat(at(0.9, Double.NaN, 1.3)).isEqualTo(1);
        assertThat(at(0.9, Double.NaN)).isEqualTo(-1);
        assertThat(at(0.9)).isEqualTo(-1);
    }
}
