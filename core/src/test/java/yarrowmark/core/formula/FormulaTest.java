package yarrowmark.core.formula;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;
import static org.assertj.core.api.Assertions.within;

import java.time.Duration;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Assertions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class FormulaTest {
    private static final Map<String, Double> VALUES =
            Map.of("started", 14.2, "firmware", 5.1, "score", 1200.0, "zero", 0.0, "read", 2100.0, "write", 1400.0);

    private static double value(String formula) {
        Formula.Result result = Formula.parse(formula).evaluate(VALUES);
        assertThat(result).as(formula).isInstanceOf(Formula.Value.class);
        return ((Formula.Value) result).value();
    }

    private static String reason(String formula) {
        return ((Formula.NoValue) Formula.parse(formula).evaluate(VALUES)).reason();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "started - firmware | 9.1",
                "-firmware + started | 9.1",
                "score × 2 ÷ 3 | 800",
                "2 ^ 3 ^ 2 + zero | 512",
                "(read + write) / 2 | 1750",
                "sqrt(read * write) | 1714.642820",
                "geomean(read, write) | 1714.642820",
                "harmean(read, write) | 1680",
                "mean(read, write) | 1750",
                "sum(read, write, 1) | 3501",
                "min(read, write) | 1400",
                "max(read, write) | 2100",
                "ln(exp(firmware)) | 5.1",
                "log10(1000 + zero) | 3",
                "abs(firmware - started) | 9.1",
                "SCORE / 2 | 600",
            })
    void computes(String formula, double expected) {
        assertThat(value(formula)).isCloseTo(expected, within(1e-6));
    }

    @Test
    void saysWhichInputsItNeeds() {
        assertThat(Formula.parse("(started - firmware) / started").inputs())
                .containsExactlyInAnyOrder("started", "firmware");
    }

    @Test
    void hasNoValueAndSaysWhy() {
        assertThat(reason("score / zero")).contains("divides by zero");
        assertThat(reason("score / absent - gone")).contains("absent").contains("gone");
        assertThat(reason("ln(zero)")).contains("no finite number");
        assertThat(reason("sqrt(zero - score)")).contains("no finite number");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "   ",
                "1 + 2",
                "started -",
                "started ** firmware",
                "(started",
                "started; firmware",
                "launch(\"sh\")",
                "started.firmware",
                "if(started, 1, 2)",
                "random() + started",
                "started[0]",
                "factorial(score)",
                "started == 1",
                "\"text\" + started"
            })
    void refusesWhatIsNoFormula(String formula) {
        assertThatIllegalArgumentException().isThrownBy(() -> Formula.parse(formula));
    }

    @Test
    void endsAtOnceWhateverThePowers() {
        Assertions.assertTimeoutPreemptively(Duration.ofMinutes(5), () -> {
            assertThat(reason("score ^ score ^ score")).contains("no finite number");
            assertThat(reason("9 ^ 9 ^ 9 ^ 9 * score")).contains("no finite number");
        });
    }

    @Test
    void refusesWhatIsTooLong() {
        assertThatIllegalArgumentException()
                .isThrownBy(() -> Formula.parse("started" + " + 1".repeat(200)))
                .withMessageContaining("500");
    }

    @Test
    void theSameFormulaIsUsedAgainAndAgain() {
        Formula twice = Formula.parse("score * 2");
        Map<String, Double> values = new HashMap<>(Map.of("score", 1.0));
        assertThat(twice.evaluate(values)).isEqualTo(new Formula.Value(2));
        values.put("score", 5.0);
        assertThat(twice.evaluate(values)).isEqualTo(new Formula.Value(10));
        assertThat(twice.evaluate(Map.of())).isInstanceOf(Formula.NoValue.class);
    }

    @Test
    void theStepsOfTheInputsGoOnIntoTheResult() {
        Map<String, Double> values = Map.of("a", 200.0, "b", 50.0);
        assertThat(Formula.parse("a - b").step(values, Map.of("a", 0.3, "b", 0.4)))
                .isCloseTo(0.5, within(1e-9));
        assertThat(Formula.parse("a / b").step(values, Map.of("a", 1.0))).isCloseTo(0.02, within(1e-9));
        assertThat(Formula.parse("a / b").step(values, Map.of())).isZero();
        assertThat(Formula.parse("a / c").step(values, Map.of("a", 1.0))).isZero();
    }

    /** Example C of the method, computed in R 4.2.2. */
    @Test
    void totalsOfTheExample() {
        List<SuiteTotal.Part> parts =
                List.of(new SuiteTotal.Part("a", 1), new SuiteTotal.Part("b", 1), new SuiteTotal.Part("c", 1));
        Map<String, Double> first = Map.of("a", 1200.0, "b", 1850.0, "c", 2400.0);
        assertThat(total(SuiteTotal.Kind.HARMONIC, parts, first)).isCloseTo(1675.471698, within(5e-7));
        assertThat(total(SuiteTotal.Kind.HARMONIC, parts, Map.of("a", 1320.0, "b", 1820.0, "c", 2900.0)))
                .isCloseTo(1816.141253, within(5e-7));
        assertThat(total(SuiteTotal.Kind.SUM, parts, first)).isEqualTo(5450);
        assertThat(total(SuiteTotal.Kind.GEOMETRIC, parts, first))
                .isCloseTo(Math.cbrt(1200.0 * 1850 * 2400), within(1e-9));
    }

    @Test
    void weightsAreScaled() {
        Map<String, Double> values = Map.of("a", 100.0, "b", 400.0);
        for (SuiteTotal.Kind kind :
                List.of(SuiteTotal.Kind.ARITHMETIC, SuiteTotal.Kind.GEOMETRIC, SuiteTotal.Kind.HARMONIC)) {
            double once = total(kind, List.of(new SuiteTotal.Part("a", 1), new SuiteTotal.Part("b", 3)), values);
            double scaled = total(kind, List.of(new SuiteTotal.Part("b", 7.5), new SuiteTotal.Part("a", 2.5)), values);
            assertThat(scaled).as(kind.name()).isCloseTo(once, within(1e-9));
            assertThat(once).isBetween(100.0, 400.0);
        }
        assertThatIllegalArgumentException().isThrownBy(() -> new SuiteTotal.Part("a", 0));
    }

    private static double total(SuiteTotal.Kind kind, List<SuiteTotal.Part> parts, Map<String, Double> values) {
        return ((Formula.Value) Formula.parse(SuiteTotal.formula(kind, parts)).evaluate(values)).value();
    }
}
