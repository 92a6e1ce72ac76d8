package yarrowmark.core.trend;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.function.ToDoubleFunction;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import yarrowmark.core.compare.Materiality;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Measured;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.stats.Noise;
import yarrowmark.core.stats.Sample;
import yarrowmark.core.stats.SampleMoments;
import yarrowmark.core.stats.SharedDay;

/** Twelve steps of a metric, held against R 4.2.2 (core/src/test/r/trend.R). */
class TrendAgainstRTest {
    private static final double NINE_DIGITS = 5e-10;
    private static final int STEPS = 12;

    private long state = 20_261_127;

    private double draw() {
        state = state * 16_807 % 2_147_483_647;
        return state / 2_147_483_647.0;
    }

    private TrendLine line() {
        List<@Nullable Sample> samples = new ArrayList<>();
        for (int i = 1; i <= STEPS; i++) {
            List<Measured> runs = new ArrayList<>();
            for (int r = 0; r < 3 + i % 3; r++) {
                runs.add(Measured.exact((i > 7 ? 106 : 100) * (1 + 0.05 * (draw() - 0.5))));
            }
            samples.add(Sample.ofOneSession(i, SampleMoments.of(runs, Direction.MORE_IS_BETTER, Scale.RATIO)));
        }
        return TrendLines.ofOne(new TrendMetric(samples, Noise.UNKNOWN, SharedDay.UNKNOWN, 1), new Materiality(0.03));
    }

    private static Map<String, double[]> expected() throws IOException {
        try (InputStream in = TrendAgainstRTest.class.getResourceAsStream("trend-expected.csv")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8)
                    .lines()
                    .map(l -> l.split(","))
                    .collect(Collectors.toMap(c -> c[0], c -> Arrays.stream(c)
                            .skip(1)
                            .mapToDouble(Double::parseDouble)
                            .toArray()));
        }
    }

    private static void same(List<TrendStep> steps, ToDoubleFunction<TrendStep> of, double[] expected) {
        for (int i = 0; i < expected.length; i++) {
            assertThat(of.applyAsDouble(steps.get(i)) / expected[i])
                    .as("step %d", i + 1)
                    .isCloseTo(1, within(NINE_DIGITS));
        }
        assertThat(steps).hasSize(expected.length);
    }

    @Test
    void stepsTheirCorrectionSlopeAndLevelAreThoseOfR() throws IOException {
        TrendLine line = line();
        Map<String, double[]> r = expected();
        same(line.steps(), TrendStep::p, r.get("p"));
        same(line.steps(), TrendStep::corrected, r.get("bh"));
        same(line.steps(), s -> s.interval().low(), r.get("low"));
        same(line.steps(), s -> s.interval().high(), r.get("high"));

        Slope slope = line.slope().orElseThrow();
        double[] ofR = r.get("slope");
        assertThat(slope.perStep() / ofR[0]).isCloseTo(1, within(NINE_DIGITS));
        assertThat(slope.interval().orElseThrow().low() / ofR[1]).isCloseTo(1, within(NINE_DIGITS));
        assertThat(slope.interval().orElseThrow().high() / ofR[2]).isCloseTo(1, within(NINE_DIGITS));

        double[] change = r.get("change");
        // R tells the best split only; each side may have one more.
        TrendLine.Change best = line.changes().stream()
                .filter(c -> c.before() + 1 == (int) change[0])
                .findFirst()
                .orElseThrow();
        assertThat(best.size() / change[1]).isCloseTo(1, within(NINE_DIGITS));
        assertThat(best.low() / change[2]).isCloseTo(1, within(NINE_DIGITS));
        assertThat(best.high() / change[3]).isCloseTo(1, within(NINE_DIGITS));
    }
}
