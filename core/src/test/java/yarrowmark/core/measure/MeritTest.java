package yarrowmark.core.measure;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class MeritTest {
    @Test
    void aRateAndItsTimeHaveTheSameMerit() {
        assertThat(Merit.of(1 / 234.0, Direction.MORE_IS_BETTER))
                .isCloseTo(Merit.of(234, Direction.LESS_IS_BETTER), within(1e-15));
    }

    @Test
    void theReadingComesBackFromItsMerit() {
        for (Direction direction : Direction.values()) {
            assertThat(Merit.toValue(Merit.of(391.7, direction), direction)).isCloseTo(391.7, within(1e-12));
        }
    }

    @ParameterizedTest
    @ValueSource(doubles = {0, -0.0, -3, Double.NaN, Double.POSITIVE_INFINITY, Double.NEGATIVE_INFINITY})
    void whatHasNoMeritIsRefusedWithItsValue(double value) {
        assertThatThrownBy(() -> Merit.of(value, Direction.MORE_IS_BETTER))
                .isInstanceOf(InvalidReadingException.class)
                .hasMessageContaining(Double.toString(value));
    }

    @ParameterizedTest
    @ValueSource(doubles = {1e-320, Double.MIN_VALUE, 0.9e-30, 1.1e30, 1e308})
    void whatNoInstrumentShowsDoesNotComeIn(double value) {
        assertThatThrownBy(() -> new Measured(value, 0).admittedFor(Scale.RATIO))
                .isInstanceOf(InvalidReadingException.class)
                .hasMessageContaining(Double.toString(value));
        assertThatThrownBy(() -> new Measured(-value, 0).admittedFor(Scale.DIFFERENCE))
                .isInstanceOf(InvalidReadingException.class);
        if (value > 1) {
            assertThatThrownBy(() -> new Measured(5, value).admittedFor(Scale.RATIO))
                    .hasMessageContaining("resolution");
        }
    }

    @ParameterizedTest
    @ValueSource(doubles = {1e-30, 1e-12, 1, 1e15, 1e30})
    void whatInstrumentsShowComesIn(double value) {
        assertThat(new Measured(value, 0).admittedFor(Scale.RATIO).value()).isEqualTo(value);
        assertThat(new Measured(0, 0).admittedFor(Scale.DIFFERENCE).value()).isZero();
    }

    @Test
    void aDifferenceMetricMayBeZeroOrNegative() {
        assertThat(new Measured(-3, 0.1).checkedFor(Scale.DIFFERENCE).value()).isEqualTo(-3);
        assertThatThrownBy(() -> new Measured(1, -0.1)).hasMessageContaining("-0.1");
    }

    @Test
    void twiceThePriceIsWorthHalf() {
        assertThat(Merit.per(2, 400) - Merit.per(2, 800)).isCloseTo(Math.log(2), within(1e-15));
        assertThatThrownBy(() -> Merit.per(2, 0)).hasMessageContaining("cost");
    }
}
