package yarrowmark.core.quality;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import yarrowmark.core.ExampleSamples;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Measured;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.stats.NoisePrior;
import yarrowmark.core.stats.SampleMoments;

/** Every limit of the method's section 6, from just inside and just outside. */
class LimitsTest {
    private static final OptionalDouble STEADY = OptionalDouble.of(0.2);

    private static Optional<HeldRate> held(double rate, double display) {
        return HeldRate.of(rate, STEADY, OptionalDouble.of(display), List.of());
    }

    @ParameterizedTest
    @CsvSource({"59.11, true", "59.09, false", "60.89, true", "60.91, false", "29.6, true", "29.5, false"})
    void heldIsWithinOneAndAHalfPerCentOfTheDisplay(double rate, boolean expected) {
        assertThat(held(rate, 60).isPresent()).isEqualTo(expected);
    }

    @ParameterizedTest
    @CsvSource({"0.99, true", "1.0, false", "1.01, false"})
    void heldSpreadsUnderOnePerCent(double spread, boolean expected) {
        assertThat(HeldRate.of(60, OptionalDouble.of(spread), OptionalDouble.of(60), List.of())
                        .isPresent())
                .isEqualTo(expected);
    }

    @Test
    void aQuarterOfTheDisplaysRateIsNotHeld() {
        assertThat(held(15, 60)).isEmpty();
        assertThat(held(20, 60)).contains(new HeldRate(20, 3));
    }

    @ParameterizedTest
    @CsvSource({"60.11, true", "60.13, false", "59.89, true", "59.87, false"})
    void withoutAKnownDisplayAnotherSitsWithinAFifthOfAPerCent(double other, boolean expected) {
        assertThat(HeldRate.of(60, STEADY, OptionalDouble.empty(), List.of(other))
                        .isPresent())
                .isEqualTo(expected);
    }

    @ParameterizedTest
    @CsvSource({"0.29, true", "0.31, false"})
    void withoutAKnownDisplayItIsMeasuredTwiceAndSteady(double spread, boolean expected) {
        assertThat(HeldRate.of(60, OptionalDouble.of(spread), OptionalDouble.empty(), List.of(60.0))
                        .isPresent())
                .isEqualTo(expected);
        assertThat(HeldRate.of(60, OptionalDouble.empty(), OptionalDouble.empty(), List.of(60.0)))
                .as("one reading alone")
                .isEmpty();
    }

    @ParameterizedTest
    @ValueSource(ints = {30, 48, 60, 72, 75, 90, 120, 144, 165, 240})
    void everyUsualRateIsTried(int rate) {
        assertThat(HeldRate.of(rate * 1.004, STEADY, OptionalDouble.empty(), List.of(rate * 1.003)))
                .contains(new HeldRate(rate, 1));
        assertThat(HeldRate.of(rate * 1.016, STEADY, OptionalDouble.empty(), List.of(rate * 1.016))
                        .filter(h -> h.rate() == rate))
                .isEmpty();
    }

    @ParameterizedTest
    @CsvSource({"3.9, false", "4.1, true", "-4.1, true", "-3.9, false"})
    void ofThreeWhatIsFourLentDeviationsAwayIsStray(double deviations, boolean expected) {
        double lent = 0.01;
        // The middle one of the three is the median.
        double median = deviations > 0 ? 0.001 : 0;
        double[] merits = {0, 0.001, median + deviations * lent};
        assertThat(Stray.of(merits, Optional.of(new NoisePrior(1000, lent * lent)), 0)[2])
                .isEqualTo(expected);
    }

    @Test
    void ofNineTheLentDeviationDecidesAndOfTenTheirOwn() {
        Optional<NoisePrior> wide = Optional.of(new NoisePrior(10, 1));
        double[] nine = {0, 0.01, -0.01, 0.005, -0.005, 0.003, -0.003, 0.001, 0.3};
        assertThat(Stray.of(nine, wide, 0)).containsOnly(false);
        assertThat(Stray.of(nine, Optional.empty(), 0)[8]).isTrue();
        double[] ten = Arrays.copyOf(nine, 10);
        assertThat(Stray.of(ten, wide, 0)[8])
                .as("from ten on, whatever is lent")
                .isTrue();
    }

    @ParameterizedTest
    @CsvSource({"3.4, false", "3.6, true"})
    void ofFiveWhatIsThreeAndAHalfDeviationsAwayIsStray(double deviations, boolean expected) {
        double[] merits = {0, 0, 0, 0, deviations * 0.01};
        assertThat(Stray.of(merits, Optional.of(new NoisePrior(100_000, 0.01 * 0.01)), 0)[4])
                .isEqualTo(expected);
    }

    /** A stray is a word with a meaning only where clean samples seldom have one. */
    @ParameterizedTest
    @ValueSource(ints = {5, 6, 7, 8, 9, 10, 12, 15, 20, 30})
    void oneInAHundredCleanSamplesHasAStray(int n) {
        Random random = new Random(11);
        int samples = 30_000;
        int marked = 0;
        for (int i = 0; i < samples; i++) {
            boolean[] stray =
                    Stray.of(random.doubles(n).map(u -> random.nextGaussian()).toArray(), Optional.empty(), 0);
            for (boolean one : stray) {
                if (one) {
                    marked++;
                    break;
                }
            }
        }
        assertThat(100.0 * marked / samples).isBetween(0.7, 1.3);
    }

    @ParameterizedTest
    @CsvSource({"7, false", "8, true"})
    void firstRunsAreWarmUpsFromFourInFiveOn(int worst, boolean expected) {
        List<List<Double>> sessions = new ArrayList<>(Collections.nCopies(worst, List.of(1.0, 1.2, 1.3)));
        sessions.addAll(Collections.nCopies(10 - worst, List.of(1.3, 1.2, 1.3)));
        assertThat(WarmUp.of(sessions).applies()).isEqualTo(expected);
    }

    /** First runs that are worst by less than half of what matters are no warm-up worth a mark: L/2 is 1.478 %. */
    @ParameterizedTest
    @CsvSource({"6, 0.0148, true", "6, 0.0147, false", "5, 0.5, false"})
    void aWarmUpIsWorthAMarkWhereItMatters(int sessions, double behind, boolean expected) {
        assertThat(WarmUp.of(Collections.nCopies(sessions, List.of(1.0, 1 + behind, 1 + behind)))
                        .applies())
                .isEqualTo(expected);
    }

    /** Forty loops that wander like a random walk without a trend: S says a trend, their likeness takes it back. */
    @Test
    void loopsThatResembleTheirNeighboursAreNoTrend() {
        java.util.SplittableRandom random = new java.util.SplittableRandom(4);
        int marked = 0;
        for (int series = 0; series < 400; series++) {
            double[] work = new double[40];
            double wander = 0;
            for (int i = 0; i < work.length; i++) {
                wander = 0.8 * wander + 12 * random.nextGaussian();
                work[i] = 1000 + wander;
            }
            marked += Throttling.of(work).throttled() ? 1 : 0;
        }
        assertThat(marked).isLessThan(12);
        double[] falling = new double[40];
        for (int i = 0; i < falling.length; i++) {
            falling[i] = 1000 - 4 * i + 3 * random.nextGaussian();
        }
        assertThat(Throttling.of(falling).throttled()).isTrue();
    }

    /** From twelve loops on one lucky loop is not the measure. */
    @Test
    void oneLuckyLoopIsNoThrottling() {
        double[] work = new double[12];
        for (int i = 0; i < work.length; i++) {
            work[i] = 1000 - 3 * i;
        }
        assertThat(Throttling.of(work).throttled()).isFalse();
        work[0] = 1060;
        assertThat(Throttling.of(work).throttled())
                .as("7 % below the one, 4 % below the three")
                .isFalse();
        work[1] = 1058;
        work[2] = 1056;
        assertThat(Throttling.of(work).throttled()).isTrue();
        assertThat(Throttling.of(work).sustained())
                .as("over the single best")
                .isCloseTo(970.0 / 1060, org.assertj.core.api.Assertions.within(0.002));
    }

    @Test
    void theSessionFarthestFromTheOthersIsTheOtherDay() {
        assertThat(AnotherDay.of(ExampleSamples.sessions(new double[][] {{100}, {101}, {88}, {100}}))
                        .session())
                .isEqualTo(3);
        AnotherDay later = AnotherDay.of(ExampleSamples.sessions(new double[][] {{100, 101}, {80}}));
        assertThat(later.session()).as("of two, the later").isEqualTo(2);
        assertThat(later.size())
                .isCloseTo(
                        Math.log(80) - (Math.log(100) + Math.log(101)) / 2,
                        org.assertj.core.api.Assertions.within(1e-12));
        assertThatIllegalArgumentException()
                .isThrownBy(() -> AnotherDay.of(ExampleSamples.sessions(new double[][] {{100, 90}})));
    }

    /** Of eight loops S = −18 has p = 0.0355, −20 has 0.0187, −22 has 0.0094 (normal, continuity-corrected). */
    @ParameterizedTest
    @CsvSource({
        "-18, false, 980 990 1000 960 950 970 930 900",
        "-20, false, 980 990 1000 960 970 950 930 900",
        "-22, true, 990 1000 970 980 950 960 930 900"
    })
    void throttlingNeedsAnErrorUnderOnePerCent(long s, boolean expected, String loops) {
        double[] work =
                Arrays.stream(loops.split(" ")).mapToDouble(Double::parseDouble).toArray();
        assertThat(Throttling.of(work).s()).isEqualTo(s);
        assertThat(Throttling.of(work).throttled()).isEqualTo(expected);
    }

    @ParameterizedTest
    @CsvSource({"950.1, false", "949.9, true"})
    void throttlingLosesMoreThanFivePerCentInTheLastQuarter(double mean, boolean expected) {
        double[] work = {1000, 990, 985, 980, 975, 970, mean + 1, mean - 1};
        assertThat(Throttling.of(work).throttled()).isEqualTo(expected);
    }

    /** At the limit itself: 95 % of the best is not below it, and as many loops as are needed are enough. */
    @Test
    void throttlingAtItsVeryLimits() {
        double[] work = {1000, 990, 985, 980, 975, 970, 960, 940};
        assertThat(Throttling.of(work).throttled())
                .as("the last quarter is at 95 %")
                .isFalse();
        assertThat(Throttling.of(new double[] {1000, 1000}).loops()).isEqualTo(2);
        double[] back = {1000, 990, 985, 980, 970, 940, 900, 990};
        assertThat(Throttling.of(back).throttled()).isFalse();
        double[] lastCameBack = {1000, 998, 996, 994, 992, 990, 988, 800, 780, 960};
        assertThat(Throttling.of(lastCameBack).onset())
                .as("throttled on the whole: from the last quarter on")
                .hasValue(7);
        double[] tied = {100, 100, 99, 99, 98, 98, 80, 80, 79, 79};
        Throttling t = Throttling.of(tied);
        // By hand: z = 39 / √120, where five pairs of ties take 5 off the 125 that ten loops have.
        assertThat(t.s()).isEqualTo(-40);
        assertThat(t.p()).isCloseTo(0.00037057721, org.assertj.core.api.Assertions.within(1e-10));
    }

    @Test
    void aStepIsCountedInStepsAndAHundredAreEnough() {
        assertThat(TooShort.of(-99, 1)).isTrue();
        assertThat(TooShort.of(25, 0.25)).isFalse();
        assertThat(TooShort.of(24.75, 0.25)).isTrue();
        assertThat(TooShort.of(0, 0)).isFalse();
    }

    /** A display of 60 Hz that holds the best of three runs: the mean of all is the least as well. */
    @Test
    void whatIsHeldInSomeRunsIsAtLeastAsWell() {
        assertThat(HeldRate.partly(59.9, 57.2, 60)).contains(new HeldRate(60, 1));
        assertThat(HeldRate.partly(30.2, 28, 60)).contains(new HeldRate(30, 2));
        assertThat(HeldRate.partly(52, 48, 60)).isEmpty();
        assertThat(HeldRate.partly(75, 70, 60))
                .as("above what the display shows")
                .isEmpty();
        assertThat(HeldRate.partly(60, 60, 60)).as("all of them are at it").isEmpty();
    }

    /** What is left to look at by single runs contains all that there is to find. */
    @Test
    void whateverIsPartlyHeldCanBeByItsMeanAndSpread() {
        double[][] runs = {{60, 57, 58}, {59.9, 40, 41}, {60, 30}, {60, 20, 20, 20, 20}, {29.9, 22, 25}};
        for (double[] of : runs) {
            SampleMoments moments = SampleMoments.of(
                    Arrays.stream(of).mapToObj(Measured::exact).toList(), Direction.MORE_IS_BETTER, Scale.RATIO);
            double largest = Arrays.stream(of).max().orElseThrow();
            assertThat(Math.exp(moments.bestPossible())).isGreaterThanOrEqualTo(largest - 1e-9);
            double mean = Math.exp(moments.mean());
            assertThat(HeldRate.partly(largest, mean, 60)).isPresent();
            assertThat(HeldRate.couldBePartly(mean, Math.exp(moments.bestPossible()), 60))
                    .isTrue();
        }
        assertThat(HeldRate.couldBePartly(51, 54, 60)).isFalse();
    }
}
