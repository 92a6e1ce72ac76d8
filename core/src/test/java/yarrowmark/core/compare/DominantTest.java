package yarrowmark.core.compare;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

class DominantTest {
    @Test
    void theOneThatMakesMoreThanTwoThirdsIsNamedWhicheverWayItGoes() {
        assertThat(Dominant.of(new double[] {1, -7, 2})).hasValue(1);
        assertThat(Dominant.of(new double[] {-1, 7, Double.NaN, 2})).hasValue(1);
        assertThat(Dominant.of(new double[] {1, 6, 2}))
                .as("two thirds are not more")
                .isEmpty();
    }

    @Test
    void amongFewTestsOneAlwaysMakesMost() {
        assertThat(Dominant.of(new double[] {1, 90})).isEmpty();
        assertThat(Dominant.of(new double[] {1, 90, Double.NaN})).isEmpty();
        assertThat(Dominant.of(new double[0])).isEmpty();
        assertThat(Dominant.of(new double[] {0, 0, 0})).isEmpty();
    }
}
