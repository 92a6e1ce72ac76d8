package yarrowmark.core.standing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import yarrowmark.core.standing.PurposeWeights.MetricPlace;
import yarrowmark.core.standing.PurposeWeights.Weights;

class PurposeWeightsTest {
    private static final List<MetricPlace> METRICS = List.of(
            new MetricPlace("Processor", "s1", "one"),
            new MetricPlace("Processor", "s1", "all"),
            new MetricPlace("Processor", "s2", "x"),
            new MetricPlace("Processor", "s2", "x"),
            new MetricPlace("Graphics", "s1", "g"));

    @Test
    void groupsSuitesTestsAndMetricsShareEqually() {
        assertThat(PurposeWeights.spread(
                        Weights.ofGroups(Map.of("Processor", 1.0, "Graphics", 1.0, "Storage", 5.0)), METRICS))
                .containsExactly(0.125, 0.125, 0.125, 0.125, 0.5);
    }

    @Test
    void suitesAndTestsWeighWhatThePurposeSaysInsideTheirGroup() {
        Map<String, Double> groups = Map.of("Processor", 1.0, "Graphics", 1.0);
        assertThat(PurposeWeights.spread(new Weights(groups, Map.of("s1", 3.0), Map.of("one", 4.0)), METRICS))
                .containsExactly(0.3, 0.075, 0.0625, 0.0625, 0.5);
        assertThat(PurposeWeights.spread(new Weights(groups, Map.of("s2", 0.0), Map.of()), METRICS))
                .containsExactly(0.25, 0.25, 0, 0, 0.5);
        assertThat(PurposeWeights.spread(new Weights(groups, Map.of(), Map.of("x", 0.0)), METRICS))
                .as("a suite without any weighed test leaves its share to the others")
                .containsExactly(0.25, 0.25, 0, 0, 0.5);
    }

    @Test
    void weightsThatDoNotAddUpAreScaled() {
        Map<String, Double> tenfold = Map.of("Processor", 170.0, "Graphics", 170.0);
        assertThat(PurposeWeights.spread(Weights.ofGroups(tenfold), METRICS))
                .containsExactly(0.125, 0.125, 0.125, 0.125, 0.5);
    }

    @Test
    void aPurposeThatWeighsNothingHereSaysSo() {
        List<MetricPlace> metrics = List.of(new MetricPlace("Processor", "s", "t"));
        assertThatThrownBy(() -> PurposeWeights.spread(Weights.ofGroups(Map.of("Storage", 1.0)), metrics))
                .hasMessageContaining("no weight");
        assertThatThrownBy(() -> Weights.ofGroups(Map.of("Processor", -1.0))).hasMessageContaining("Processor");
        assertThatThrownBy(() -> new Weights(Map.of(), Map.of("s", Double.NaN), Map.of()))
                .hasMessageContaining("suite s");
    }

    @Test
    void spreadOverAPartIsAsIfThereWereNothingElse() {
        Random random = new Random(4);
        for (int round = 0; round < 200; round++) {
            List<MetricPlace> metrics = IntStream.range(0, 1 + random.nextInt(20))
                    .mapToObj(i ->
                            new MetricPlace("g" + random.nextInt(3), "s" + random.nextInt(3), "t" + random.nextInt(5)))
                    .toList();
            Weights purpose = new Weights(
                    Map.of("g0", 1.0, "g1", 3.0), Map.of("s1", random.nextDouble()), Map.of("t2", 0.0, "t3", 2.0));
            int[] kept = IntStream.range(0, metrics.size())
                    .filter(i -> random.nextBoolean())
                    .toArray();
            List<MetricPlace> alone = IntStream.of(kept).mapToObj(metrics::get).toList();
            double[] part = new PurposeWeights(purpose, metrics).over(kept);
            if (part.length == 0) {
                assertThatThrownBy(() -> PurposeWeights.spread(purpose, alone)).hasMessageContaining("no weight");
            } else {
                assertThat(part).containsExactly(PurposeWeights.spread(purpose, alone), within(1e-15));
                assertThat(Arrays.stream(part).sum()).isCloseTo(1, within(1e-12));
            }
        }
    }
}
