package yarrowmark.core.compare;

import static org.assertj.core.api.Assertions.assertThat;
import static yarrowmark.core.ExampleSamples.more;
import static yarrowmark.core.ExampleSamples.sample;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.List;
import java.util.Optional;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import yarrowmark.core.ExampleSamples;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.stats.NoisePrior;
import yarrowmark.core.stats.SampleMoments;
import yarrowmark.core.stats.SharedDay;

/** Numbers: the method's example B, put into words by hand. */
class SizeInWordsTest {
    private static final Optional<NoisePrior> NOISE = NoisePrior.fit(ExampleSamples.A);

    private static String sentence(SampleMoments a, SampleMoments base, Direction direction, String quantity) {
        return SizeInWords.sentence(
                "Clip encode",
                "Folio",
                "Ledger",
                ExampleSamples.pair(a, base, NOISE, Materiality.USUAL),
                direction,
                Optional.ofNullable(quantity));
    }

    @Test
    void timesAreLessNeverFaster() {
        String words = sentence(
                sample(Direction.LESS_IS_BETTER, 1, 234, 236, 233),
                sample(Direction.LESS_IS_BETTER, 1, 277, 279, 276),
                Direction.LESS_IS_BETTER,
                "time");
        assertThat(words)
                .isEqualTo(
                        "Clip encode: Folio takes 15.5 % less time than Ledger, 95 % interval 14.5 to 16.5 % within one session, 3 runs each.");
        String back = sentence(
                sample(Direction.LESS_IS_BETTER, 1, 277, 279, 276),
                sample(Direction.LESS_IS_BETTER, 1, 234, 236, 233),
                Direction.LESS_IS_BETTER,
                "time");
        assertThat(back)
                .isEqualTo(
                        "Clip encode: Folio takes 18.4 % more time than Ledger, 95 % interval 16.9 to 19.8 % within one session, 3 runs each.");
    }

    @Test
    void aQuantityThatTheUnitDoesNotNameIsLowerOrHigher() {
        assertThat(sentence(
                        sample(Direction.LESS_IS_BETTER, 0, 80, 81, 79),
                        sample(Direction.LESS_IS_BETTER, 0, 100, 101, 99),
                        Direction.LESS_IS_BETTER,
                        null))
                .contains("Folio is 20.0 % lower than Ledger");
        assertThat(sentence(more(402.4, 405.9, 403.3), more(388.1, 391.7, 386.9), Direction.MORE_IS_BETTER, null))
                .isEqualTo(
                        "Clip encode: Folio is 3.8 % higher than Ledger, 95 % interval 2.6 to 5.1 % within one session, 3 runs each.");
    }

    @Test
    void whatMayBeNoiseIsSaidSo() {
        assertThat(sentence(more(120, 90, 105), more(100, 101), Direction.MORE_IS_BETTER, null))
                .contains("which may be noise")
                .contains("3 runs against 2.");
        assertThat(SizeInWords.sentence(
                        "Clip",
                        "A",
                        "B",
                        ExampleSamples.pair(more(1.2), more(1), Optional.empty(), Materiality.USUAL),
                        Direction.MORE_IS_BETTER,
                        Optional.empty()))
                .isEqualTo(
                        "Clip: A is 20.0 % higher than B, 95 % interval -21.9 to 84.3 % within one session, assuming a spread of 10 %, which nobody measured, which may be noise, 1 run.");
        assertThat(sentence(more(100.1, 100, 99.9), more(100, 100.1, 99.9), Direction.MORE_IS_BETTER, null))
                .contains("Folio and Ledger are level, the 95 % interval of the difference is within ")
                .doesNotContain(" to ");
    }

    @Test
    void theOverallNamesItsTests() {
        PairComparison pair =
                ExampleSamples.pair(ExampleSamples.A.get(1), ExampleSamples.A.get(0), NOISE, Materiality.USUAL);
        OverallComparison all =
                OverallComparison.of(List.of(pair), new double[] {1}, SharedDay.UNKNOWN, Materiality.USUAL);
        assertThat(SizeInWords.overall("Folio", "Ledger", all, 1))
                .isEqualTo(
                        "Folio is 3.8 % better than Ledger over the one test that both ran, 95 % interval 1.026 to 1.051 times (within one session).");
    }

    @Test
    void besideARatioStandsItsSizeAlone() {
        assertThat(SizeInWords.brief(1.034, Direction.MORE_IS_BETTER, Optional.empty()))
                .isEqualTo("3.4 % higher");
        assertThat(SizeInWords.brief(0.8, Direction.MORE_IS_BETTER, Optional.empty()))
                .isEqualTo("20.0 % lower");
        assertThat(SizeInWords.brief(1.25, Direction.LESS_IS_BETTER, Optional.of("time")))
                .isEqualTo("20.0 % less time");
        assertThat(SizeInWords.brief(0.8, Direction.LESS_IS_BETTER, Optional.of("power")))
                .isEqualTo("25.0 % more power");
        assertThat(SizeInWords.brief(1.25, Direction.LESS_IS_BETTER, Optional.empty()))
                .as("lower is what is better here")
                .isEqualTo("20.0 % lower");
    }

    @Test
    void sizesAreRoundedAsDecimalsAreAlsoAtTheHalves() {
        SplittableRandom random = new SplittableRandom(7);
        for (int i = 0; i < 20_000; i++) {
            // Half of them lie on a half of a tenth, or hardly beside it.
            double percent = i % 2 == 0
                    ? random.nextDouble(-99, 900)
                    : random.nextInt(-990, 9_000) / 10.0 + 0.05 + (i % 3 - 1) * 1e-9;
            double ratio = 1 + percent / 100;
            double size = 100 * (ratio - 1);
            assertThat(SizeInWords.brief(ratio, Direction.MORE_IS_BETTER, Optional.empty()))
                    .isEqualTo(BigDecimal.valueOf(Math.abs(size))
                                    .setScale(1, RoundingMode.HALF_UP)
                                    .toPlainString()
                            + (size >= 0 ? " % higher" : " % lower"));
        }
    }
}
