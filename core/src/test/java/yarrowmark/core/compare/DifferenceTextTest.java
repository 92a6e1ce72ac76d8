package yarrowmark.core.compare;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
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
import yarrowmark.core.stats.Noise;
import yarrowmark.core.stats.NoisePrior;
import yarrowmark.core.stats.SampleMoments;
import yarrowmark.core.stats.SharedDay;
import yarrowmark.core.stats.UsualSpread;

/** Numbers: the method's example B, put into words by hand. */
class DifferenceTextTest {
    private static final Optional<NoisePrior> NOISE = NoisePrior.fit(ExampleSamples.A);

    private static String sentence(SampleMoments a, SampleMoments base, Direction direction, String quantity) {
        return DifferenceText.sentence(
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
                        "Clip encode: Folio takes 15.5 % less time than Ledger, 95 % interval 14.5 to 16.5 % less time, 3 runs each.");
        String back = sentence(
                sample(Direction.LESS_IS_BETTER, 1, 277, 279, 276),
                sample(Direction.LESS_IS_BETTER, 1, 234, 236, 233),
                Direction.LESS_IS_BETTER,
                "time");
        assertThat(back)
                .isEqualTo(
                        "Clip encode: Folio takes 18.4 % more time than Ledger, 95 % interval 16.9 to 19.8 % more time, 3 runs each.");
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
                        "Clip encode: Folio is 3.8 % higher than Ledger, 95 % interval 2.6 to 5.1 % higher, 3 runs each.");
    }

    @Test
    void whatIsTooCloseToCallIsSaidSoWithBothEndsInWords() {
        assertThat(sentence(more(120, 90, 105), more(100, 101), Direction.MORE_IS_BETTER, null))
                .startsWith(
                        "Clip encode: Folio and Ledger are too close to call, Folio is 3.8 % higher, but anything from ")
                .contains(" % lower to ")
                .endsWith(" % higher is possible, 3 runs against 2.");
        assertThat(sentence(more(100.1, 100, 99.9), more(100, 100.1, 99.9), Direction.MORE_IS_BETTER, null))
                .contains("Folio and Ledger are level, the difference is within ")
                .doesNotContain(" to ");
    }

    @Test
    void whatRestsOnAUsualSpreadIsOnlyProbable() {
        Noise usual = Noise.of(new UsualSpread(2), Noise.Source.USUAL);
        PairComparison pair = PairComparison.of(
                ExampleSamples.one(more(112)), ExampleSamples.one(more(100)), usual, Materiality.USUAL);
        assertThat(pair.verdict()).isEqualTo(Verdict.PROBABLY_GAIN);
        assertThat(DifferenceText.sentence("Clip", "A", "B", pair, Direction.MORE_IS_BETTER, Optional.empty()))
                .startsWith("Clip: A is probably 12.0 % higher than B, 95 % interval ")
                .endsWith(" % higher, 1 run each; how repeatable the test is was not measured here.");
    }

    @Test
    void manyTimesAreSaidAsTimesAndHardlyAnythingAsSuch() {
        assertThat(DifferenceText.brief(10033.557, Direction.MORE_IS_BETTER, Optional.empty()))
                .isEqualTo("10000 times as high");
        assertThat(DifferenceText.brief(1 / 12.34, Direction.LESS_IS_BETTER, Optional.of("time")))
                .isEqualTo("12.3 times the time");
        assertThat(DifferenceText.brief(12.34, Direction.LESS_IS_BETTER, Optional.of("time")))
                .isEqualTo("91.9 % less time");
        assertThat(DifferenceText.brief(1.0002, Direction.MORE_IS_BETTER, Optional.empty()))
                .isEqualTo("under 0.1 % higher");
        assertThat(DifferenceText.overallSize(14)).isEqualTo("14 times as good");
        assertThat(DifferenceText.range(
                        PairComparison.Interval.around(Math.log(8), 0.02, 9),
                        Direction.MORE_IS_BETTER,
                        Optional.empty()))
                .startsWith("481.")
                .endsWith(" times as high");
    }

    @Test
    void theOverallNamesItsTests() {
        PairComparison pair =
                ExampleSamples.pair(ExampleSamples.A.get(1), ExampleSamples.A.get(0), NOISE, Materiality.USUAL);
        OverallComparison all =
                OverallComparison.of(List.of(pair), new double[] {1}, SharedDay.UNKNOWN, Materiality.USUAL);
        assertThat(DifferenceText.overall("Folio", "Ledger", all, 1))
                .isEqualTo(
                        "Folio is 3.8 % better than Ledger over the one test that both ran, 95 % interval 2.6 to 5.1 % better, day to day as is usual for tests: nobody here has measured a device on two days yet.");
    }

    @Test
    void besideARatioStandsItsSizeAlone() {
        assertThat(DifferenceText.brief(1.034, Direction.MORE_IS_BETTER, Optional.empty()))
                .isEqualTo("3.4 % higher");
        assertThat(DifferenceText.brief(0.8, Direction.MORE_IS_BETTER, Optional.empty()))
                .isEqualTo("20.0 % lower");
        assertThat(DifferenceText.brief(1.25, Direction.LESS_IS_BETTER, Optional.of("time")))
                .isEqualTo("20.0 % less time");
        assertThat(DifferenceText.brief(0.8, Direction.LESS_IS_BETTER, Optional.of("power")))
                .isEqualTo("25.0 % more power");
        assertThat(DifferenceText.brief(1.25, Direction.LESS_IS_BETTER, Optional.empty()))
                .as("lower is what is better here")
                .isEqualTo("20.0 % lower");
    }

    @Test
    void sizesAreRoundedAsDecimalsAreAlsoAtTheHalves() {
        SplittableRandom random = new SplittableRandom(7);
        for (int i = 0; i < 20_000; i++) {
            // Half of them lie on a half of a tenth, or hardly beside it.
            double percent = i % 2 == 0
                    ? random.nextDouble(-99, 890)
                    : random.nextInt(-990, 8_900) / 10.0 + 0.05 + (i % 3 - 1) * 1e-9;
            double ratio = 1 + percent / 100;
            double size = 100 * (ratio - 1);
            assertThat(DifferenceText.brief(ratio, Direction.MORE_IS_BETTER, Optional.empty())
                            .replace("under 0.1", "0.0"))
                    .isEqualTo(BigDecimal.valueOf(Math.abs(size))
                                    .setScale(1, RoundingMode.HALF_UP)
                                    .toPlainString()
                            + (size >= 0 ? " % higher" : " % lower"));
        }
    }

    @Test
    void whatADisplayHoldsIsSaidFromBothSides() {
        assertThat(Bound.of(false, false)).isEqualTo(Bound.NONE);
        assertThat(Bound.of(true, false)).isEqualTo(Bound.AT_LEAST);
        assertThat(Bound.of(false, true)).isEqualTo(Bound.AT_MOST);
        assertThat(Bound.of(true, true)).isEqualTo(Bound.OPEN);
        assertThat(Bound.AT_LEAST.words()).isEqualTo("at least");
        assertThat(Bound.AT_MOST.words()).isEqualTo("at most");
        assertThat(DifferenceText.bounded("Herons", "Folio", "Ledger", 2.726, Bound.AT_LEAST))
                .isEqualTo("Herons: Folio has at least 2.73 times what Ledger has, held by its display.");
        assertThat(DifferenceText.bounded("Herons", "Folio", "Ledger", 0.367, Bound.AT_MOST))
                .isEqualTo("Herons: Folio has at most 0.37 times what Ledger has, which is held by its display.");
        assertThat(DifferenceText.bounded("Herons", "Folio", "Ledger", 1, Bound.OPEN))
                .isEqualTo("Herons: Folio and Ledger are both held by their displays, so which is better is open.");
    }

    /** The end that lies further from the same, in the words that were rounded by hand. */
    @Test
    void aLevelLineNamesTheLargerEndOfItsInterval() {
        PairComparison pair = ExampleSamples.pair(
                more(500.2, 500.4, 500.1, 500.3), more(500.0, 500.3, 500.1, 500.2), NOISE, new Materiality(0.2));
        assertThat(pair.verdict()).isEqualTo(Verdict.LEVEL);
        double larger = 100
                * Math.max(
                        Math.abs(pair.interval().low() - 1),
                        Math.abs(pair.interval().high() - 1));
        assertThat(DifferenceText.sentence("Weir", "Folio", "Ledger", pair, Direction.MORE_IS_BETTER, Optional.empty()))
                .contains("the difference is within "
                        + BigDecimal.valueOf(larger).setScale(1, RoundingMode.HALF_UP) + " %")
                .doesNotContain("within 0.0 %");
    }

    @Test
    void noDifferenceAtAllIsTheSame() {
        assertThat(DifferenceText.brief(1, Direction.MORE_IS_BETTER, Optional.empty()))
                .isEqualTo("the same");
        assertThat(DifferenceText.brief(1, Direction.LESS_IS_BETTER, Optional.of("time")))
                .isEqualTo("the same");
        assertThat(DifferenceText.brief(1, Direction.LESS_IS_BETTER, Optional.empty()))
                .isEqualTo("the same");
        for (double none : new double[] {0, -1, Double.POSITIVE_INFINITY, Double.NaN}) {
            assertThatThrownBy(() -> DifferenceText.brief(none, Direction.MORE_IS_BETTER, Optional.empty()))
                    .isInstanceOf(IllegalArgumentException.class);
        }
    }

    @Test
    void anOverallThatMayBeNoiseIsTooCloseToCall() {
        for (boolean better : new boolean[] {true, false}) {
            SampleMoments one = more(100, 130, 90);
            SampleMoments other = more(104, 133, 95);
            PairComparison pair = ExampleSamples.pair(
                    better ? other : one, better ? one : other, Optional.empty(), Materiality.USUAL);
            OverallComparison all =
                    OverallComparison.of(List.of(pair), new double[] {1}, SharedDay.UNKNOWN, Materiality.USUAL);
            assertThat(all.verdict()).isEqualTo(Verdict.CANNOT_TELL);
            assertThat(DifferenceText.overall("Folio", "Ledger", all, 1))
                    .startsWith("Folio and Ledger are too close to call over the one test that both ran: Folio is ")
                    .contains(better ? " % better, 95 % interval " : " % worse, 95 % interval ");
        }
    }
}
