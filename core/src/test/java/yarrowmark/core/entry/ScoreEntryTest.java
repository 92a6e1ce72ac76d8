package yarrowmark.core.entry;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ScoreEntryTest {
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "1 234,5 | MB/s | 1234.5 | 0.1",
                "1'234 | 1 | 1234 | 1",
                "12.5k | 1 | 12500 | 100",
                "12,5 k | ops/s | 12500 | 100",
                "3M | 1 | 3000000 | 1000000",
                "45 % | % | 45 | 1",
                "1,234.5 | MB/s | 1234.5 | 0.1",
                "1.234,5 MB/s | MB/s | 1234.5 | 0.1",
                "12,345,678 | 1 | 12345678 | 1",
                "1.234.567 pts | 1 | 1234567 | 1",
                "−1,234.50 | 1 | -1234.5 | 0.01",
                "388.10 MB/s | MB/s | 388.1 | 0.01",
                "41,2 FPS | fps | 41.2 | 0.1",
                "−3.5 | Cel | -3.5 | 0.1",
                ".5 | s | 0.5 | 0.1",
                "812 pts | 1 | 812 | 1",
                "4m07 | s | 247 | 1",
                "4 min 7.25 s | s | 247.25 | 0.01",
                "1:53.6 | s | 113.6 | 0.1",
                "1:02:03 | s | 3723 | 1",
                "1h 12 | min | 72 | 1",
                "1h 12 | s | 4320 | 60",
                "2 h | h | 2 | 1",
                "1h 2m 3s | s | 3723 | 1",
                "350 ms | s | 0.35 | 0.001",
                "1.5 min | s | 90 | 6",
                "90 | s | 90 | 1",
                "0.35 s | ms | 350 | 10"
            })
    void aScoreIsReadInTheMetricsUnitWithTheStepItWasWrittenIn(
            String typed, String unit, double value, double resolution) {
        assertThat(ScoreText.read(typed, unit)).isInstanceOfSatisfying(ScoreText.Value.class, v -> {
            assertThat(v.value()).isCloseTo(value, within(Math.abs(value) * 1e-12));
            assertThat(v.resolution()).isCloseTo(resolution, within(resolution * 1e-9));
        });
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "n/a crashed on start | true | crashed on start",
                "n/a | false | ''",
                "– | false | ''",
                "crashed | true | crashed",
                "n/a not in this system | false | not in this system",
                "NA: froze at 0:41 | true | froze at 0:41",
                "not supported | false | not supported",
                "stopped, screen slept | true | screen slept"
            })
    void noValueIsAResultWithItsReason(String typed, boolean ran, String words) {
        assertThat(ScoreText.read(typed, "s")).isEqualTo(new ScoreText.NoValue(ran, words));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "1,234 | 1 | may mean 1234 or 1.234",
                "fast | MB/s | no score",
                "12 GB | MB/s | not the unit here",
                "4m77 | s | 60 seconds",
                "1:53 | fps | is a time",
                "1.2.3 | 1 | no score",
                "12 s | MB/s | not the unit",
                "'' | s | Nothing",
                "1e5 | 1 | no score",
                "=1+1 | 1 | no score"
            })
    void whatIsNoScoreIsRefusedInWords(String typed, String unit, String reason) {
        Object said = ScoreText.read(typed, unit);
        assertThat(said).isInstanceOfSatisfying(ScoreText.NotUnderstood.class, n -> assertThat(n.reason())
                .contains(reason));
    }

    @ParameterizedTest
    @CsvSource({
        "3310, MB/s, DECIMAL_POINT, 331",
        "0.331, MB/s, DECIMAL_POINT, 331",
        "4.1, min, SIXTY, 246",
        "14760, s, SIXTY, 246",
        "3.05, fps, INVERSE, 327.8688525",
        "1500, MB/s, FAR, 331"
    })
    void aLikelySlipIsNamedWithWhatWasProbablyMeant(double value, String unit, LikelySlip.Kind kind, double would) {
        double[] others = kind == LikelySlip.Kind.SIXTY ? new double[] {240, 246, 251} : new double[] {329, 331, 340};
        assertThat(LikelySlip.of(value, unit, others)).anySatisfy(d -> {
            assertThat(d.kind()).isEqualTo(kind);
            assertThat(d.would()).isCloseTo(would, within(1e-6));
        });
    }

    @Test
    void whatIsNearOrHasNothingToBeHeldAgainstIsNotDoubted() {
        assertThat(LikelySlip.of(900, "MB/s", new double[] {331, 340})).isEmpty();
        assertThat(LikelySlip.of(900, "MB/s", new double[] {})).isEmpty();
        assertThat(LikelySlip.of(0, "MB/s", new double[] {331})).isEmpty();
        assertThat(LikelySlip.of(1010, "MB/s", new double[] {331, 340})).isNotEmpty();
    }

    @Test
    void aHandAddsAFifthOfASecondWhateverTheUnit() {
        assertThat(ScoreText.handStep("s")).isEqualTo(0.2);
        assertThat(ScoreText.handStep("ms")).isCloseTo(200, within(1e-9));
        assertThat(ScoreText.handStep("min")).isCloseTo(0.2 / 60, within(1e-12));
        org.assertj.core.api.Assertions.assertThatThrownBy(() -> ScoreText.handStep("MB/s"))
                .hasMessageContaining("no unit of time");
    }

    @Test
    void doubtIsTheSameWhateverTheScale() {
        for (double scale : new double[] {1e-6, 1, 1e6}) {
            assertThat(LikelySlip.of(3310 * scale, "x", new double[] {331 * scale, 333 * scale}))
                    .singleElement()
                    .satisfies(d -> assertThat(d.kind()).isEqualTo(LikelySlip.Kind.DECIMAL_POINT));
        }
    }
}
