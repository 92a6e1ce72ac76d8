package yarrowmark.core.formula;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;
import yarrowmark.core.calibration.Calibration;
import yarrowmark.core.measure.Direction;

class TotalShapeTest {
    private static final List<SuiteTotal.Part> PARTS =
            List.of(new SuiteTotal.Part("p1", 1), new SuiteTotal.Part("p2", 2.5), new SuiteTotal.Part("p3", 1));
    private static final Map<String, Double> BASE = Map.of("p1", 1200.0, "p2", 1850.0, "p3", 2400.0);
    private static final Map<String, Double> OTHER = Map.of("p1", 1320.0, "p2", 1820.0, "p3", 2900.0);

    private static double evaluated(String formula, Map<String, Double> values) {
        return ((Formula.Value) Formula.parse(formula).evaluate(values)).value();
    }

    @ParameterizedTest
    @EnumSource(SuiteTotal.Kind.class)
    void readsWhatATotalIsWrittenAs(SuiteTotal.Kind kind) {
        String formula = SuiteTotal.formula(kind, PARTS);
        TotalShape shape = TotalShape.read(formula).orElseThrow();
        assertThat(shape.kind()).isEqualTo(kind);
        TotalShape.Recomputed all = shape.recompute(BASE, OTHER).orElseThrow();
        assertThat(all.base()).isCloseTo(evaluated(formula, BASE), within(1e-9));
        assertThat(all.total()).isCloseTo(evaluated(formula, OTHER), within(1e-9));
        assertThat(all.contributions().parts().stream().mapToDouble(p -> p).sum())
                .isCloseTo(all.total() - all.base(), within(1e-9));
    }

    @Test
    void readsACalibratedTotalWithPartsThatGetBetterEitherWay() {
        Calibration table = new Calibration(1, Map.of("fast", 4000.0, "slow", 0.25));
        String formula = table.total(List.of(
                new Calibration.Part("fast", "t1", Direction.MORE_IS_BETTER),
                new Calibration.Part("slow", "t2", Direction.LESS_IS_BETTER)));
        TotalShape shape = TotalShape.read(formula).orElseThrow();
        TotalShape.Recomputed both = shape.recompute(
                        Map.of("t1", 4000.0, "t2", 0.25), Map.of("t1", 8000.0, "t2", 0.125))
                .orElseThrow();
        assertThat(both.base()).isCloseTo(1000, within(1e-9));
        assertThat(both.total()).isCloseTo(2000, within(1e-9));
        assertThat(both.contributions().parts().get(0)).isCloseTo(500, within(1e-9));
    }

    @Test
    void leavesOutWhatOneOfThemLacks() {
        TotalShape shape = TotalShape.read(SuiteTotal.formula(
                        SuiteTotal.Kind.HARMONIC,
                        List.of(
                                new SuiteTotal.Part("p1", 1),
                                new SuiteTotal.Part("p2", 1),
                                new SuiteTotal.Part("p3", 1))))
                .orElseThrow();
        TotalShape.Recomputed two =
                shape.recompute(BASE, Map.of("p1", 1320.0, "p3", 2900.0)).orElseThrow();
        assertThat(two.used()).containsExactly("p1", "p3");
        assertThat(two.base()).isCloseTo(1600, within(1e-9));
        assertThat(shape.recompute(BASE, Map.of())).isEmpty();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {"a - b", "1*a + 2*a", "exp((ln(a/2)+ln(b/3))/3)", "100*exp((ln(all1/one1))/1)", "a", "min(a, b)"
            })
    void whatIsNoTotalIsNone(String formula) {
        assertThat(TotalShape.read(formula)).isEmpty();
    }
}
