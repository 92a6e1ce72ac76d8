package yarrowmark.core.formula;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class TotalContributionsTest {
    private static double[] alike(int n) {
        double[] weights = new double[n];
        Arrays.fill(weights, 1);
        return weights;
    }

    private static double sum(TotalContributions c) {
        return c.parts().stream().mapToDouble(p -> p).sum();
    }

    /** Expected values: the method's example C, R 4.2.2. */
    @Test
    void exampleC() {
        TotalContributions c = TotalContributions.of(
                SuiteTotal.Kind.HARMONIC, alike(3), new double[] {1200, 1850, 2400}, new double[] {1320, 1820, 2900});
        assertThat(c.base()).isCloseTo(1675.471698, within(5e-7));
        assertThat(c.total()).isCloseTo(1816.141253, within(5e-7));
        assertThat(c.parts().get(0)).isCloseTo(76.846896162, within(5e-10));
        assertThat(c.parts().get(1)).isCloseTo(-9.056082295, within(5e-10));
        assertThat(c.parts().get(2)).isCloseTo(72.878741365, within(5e-10));
        assertThat(c.how()).isEqualTo(TotalContributions.How.SHAPLEY);
    }

    @ParameterizedTest
    @EnumSource(SuiteTotal.Kind.class)
    void partsAddUpToTheDifferenceHoweverManyThereAre(SuiteTotal.Kind kind) {
        Random random = new Random(2);
        for (int n = 1; n <= 24; n++) {
            double[] weights = random.doubles(n, 0.5, 4).toArray();
            double[] from = random.doubles(n, 10, 1000).toArray();
            double[] to = IntStream.range(0, n)
                    .mapToDouble(i -> from[i] * random.nextDouble(0.3, 3))
                    .toArray();
            TotalContributions c = TotalContributions.of(kind, weights, from, to);
            assertThat(sum(c)).isCloseTo(c.total() - c.base(), within(1e-9 * Math.abs(c.total() - c.base()) + 1e-9));
        }
    }

    /** There is one way to compute a total: the formula that is shown. */
    @ParameterizedTest
    @EnumSource(SuiteTotal.Kind.class)
    void theTotalIsThatOfTheFormula(SuiteTotal.Kind kind) {
        double[] weights = {1, 2, 3};
        Formula formula = Formula.parse(SuiteTotal.formula(
                kind, List.of(new SuiteTotal.Part("a", 1), new SuiteTotal.Part("b", 2), new SuiteTotal.Part("c", 3))));
        double shown = ((Formula.Value) formula.evaluate(Map.of("a", 5.0, "b", 7.0, "c", 11.0))).value();
        assertThat(TotalContributions.total(kind, weights, new double[] {5, 7, 11}))
                .isCloseTo(shown, within(1e-12 * shown));
    }

    @Test
    void aPartThatDidNotChangeAddsNothing() {
        for (int n : new int[] {3, 15}) {
            double[] from = new Random(n).doubles(n, 10, 100).toArray();
            double[] to = from.clone();
            to[0] *= 2;
            TotalContributions c = TotalContributions.of(SuiteTotal.Kind.GEOMETRIC, alike(n), from, to);
            assertThat(c.parts().subList(1, n)).allSatisfy(p -> assertThat(p).isCloseTo(0, within(1e-9)));
            assertThat(c.parts().get(0)).isCloseTo(c.total() - c.base(), within(1e-9));
        }
    }

    @Test
    void theOtherWayRoundEachPartTakesBackWhatItAdded() {
        double[] from = {3, 5, 8, 13};
        double[] to = {4, 4, 9, 20};
        TotalContributions there = TotalContributions.of(SuiteTotal.Kind.HARMONIC, alike(4), from, to);
        TotalContributions back = TotalContributions.of(SuiteTotal.Kind.HARMONIC, alike(4), to, from);
        IntStream.range(0, 4).forEach(i -> assertThat(back.parts().get(i))
                .isCloseTo(-there.parts().get(i), within(1e-12)));
    }

    @Test
    void refusesWhatIsNoTotal() {
        assertThatThrownBy(() ->
                        TotalContributions.of(SuiteTotal.Kind.SUM, alike(2), new double[] {1, 0}, new double[] {1, 1}))
                .hasMessageContaining("above 0");
        assertThatThrownBy(() ->
                        TotalContributions.of(SuiteTotal.Kind.SUM, alike(2), new double[] {1}, new double[] {1, 1}))
                .hasMessageContaining("two values");
    }
}
