package yarrowmark.core.calibration;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import yarrowmark.core.formula.Formula;
import yarrowmark.core.measure.Direction;

class CalibrationTest {
    private static final Calibration TABLE = new Calibration(7, Map.of("rate", 250.0, "time", 0.5, "small", 1e-9));
    private static final List<Calibration.Part> PARTS = List.of(
            new Calibration.Part("rate", "a", Direction.MORE_IS_BETTER),
            new Calibration.Part("time", "b", Direction.LESS_IS_BETTER));

    private static double total(Calibration table, List<Calibration.Part> parts, Map<String, Double> values) {
        return ((Formula.Value) Formula.parse(table.total(parts)).evaluate(values)).value();
    }

    @Test
    void aDeviceWithEveryValueOfTheTableHasAThousandPoints() {
        assertThat(total(TABLE, PARTS, Map.of("a", 250.0, "b", 0.5))).isCloseTo(1000, within(1e-9));
    }

    @Test
    void twiceAsFastInOneOfTwoIsTheRootOfTwoWhicheverOne() {
        assertThat(total(TABLE, PARTS, Map.of("a", 500.0, "b", 0.5))).isCloseTo(1414.2135623731, within(1e-9));
        assertThat(total(TABLE, PARTS, Map.of("a", 250.0, "b", 0.25))).isCloseTo(1414.2135623731, within(1e-9));
    }

    @Test
    void aValueTooSmallForPlainDigitsIsStillReadAsItIs() {
        assertThat(total(
                        TABLE,
                        List.of(new Calibration.Part("small", "s", Direction.MORE_IS_BETTER)),
                        Map.of("s", 2e-9)))
                .isCloseTo(2000, within(1e-6));
    }

    @Test
    void aMissingPartGivesNoTotal() {
        assertThat(Formula.parse(TABLE.total(PARTS)).evaluate(Map.of("a", 250.0)))
                .isInstanceOf(Formula.NoValue.class);
    }

    @Test
    void whatTheTableDoesNotHaveIsNamed() {
        assertThatThrownBy(() -> TABLE.total(List.of(new Calibration.Part("other", "a", Direction.MORE_IS_BETTER))))
                .hasMessageContaining("no value of other");
        assertThatThrownBy(() -> Calibration.load(0)).hasMessageContaining("no calibration table 0");
        assertThatThrownBy(() -> new Calibration(1, Map.of("x", 0.0))).hasMessageContaining("x must be above 0");
    }

    @Test
    void theShippedTableCanBeRead() {
        Calibration shipped = Calibration.load(1);
        assertThat(shipped.version()).isEqualTo(1);
        assertThat(shipped.values()).containsEntry("weir-hash-one", 4000.0);
    }
}
