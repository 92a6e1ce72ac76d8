package yarrowmark.core.standing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import yarrowmark.core.standing.PurposeWeights.MetricPlace;

class PurposeWeightsTest {
    @Test
    void groupsSuitesTestsAndMetricsShareEqually() {
        List<MetricPlace> metrics = List.of(
            new MetricPlace("Processor", "s1", "one"), new MetricPlace("Processor", "s1", "all"),
            new MetricPlace("Processor", "s2", "x"), new MetricPlace("Processor", "s2", "x"),
            new MetricPlace("Graphics", "s1", "g"));
        assertThat(PurposeWeights.spread(Map.of("Processor", 1.0, "Graphics", 1.0, "Storage", 5.0), metrics))
            .containsExactly(0.125, 0.125, 0.125, 0.125, 0.5);
    }

    @Test
    void aPurposeThatWeighsNothingHereSaysSo() {
        List<MetricPlace> metrics = List.of(new MetricPlace("Processor", "s", "t"));
        assertThatThrownBy(() -> PurposeWeights.spread(Map.of("Storage", 1.0), metrics)).hasMessageContaining("no weight");
        assertThatThrownBy(() -> PurposeWeights.spread(Map.of("Processor", -1.0), metrics)).hasMessageContaining("Processor");
    }
}
