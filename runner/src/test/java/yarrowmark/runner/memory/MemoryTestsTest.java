package yarrowmark.runner.memory;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashSet;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import yarrowmark.runner.measure.Measure;

class MemoryTestsTest {
    @Test
    void sizesArePowersOfTwoUpToHalfOfWhatThereIs() {
        assertThat(MemoryTests.sizes()).first().isEqualTo(16L << 10);
        assertThat(MemoryTests.sizes())
                .allMatch(
                        s -> Long.bitCount(s) == 1 && s <= Runtime.getRuntime().maxMemory() / 2);
    }

    @Test
    void theWalkComesToEveryLineBeforeItComesBack() {
        int[] next = Flow.ring(1000);
        Set<Integer> seen = new HashSet<>();
        int at = 0;
        for (int i = 0; i < 1000; i++) {
            seen.add(at);
            at = next[at];
        }
        assertThat(at).isZero();
        assertThat(seen).hasSize(1000);
    }

    @ParameterizedTest
    @EnumSource(Flow.class)
    void everyWayThroughMemoryHasARate(Flow flow) throws Exception {
        double rate = Measure.of(20)
                .run(flow.over(64 << 10), flow.perRound(64 << 10) / 1e9)
                .value();
        assertThat(rate).isPositive().isFinite();
    }

    @Test
    void everyFlowButTheWalkHasATestOnAllThreads() {
        assertThat(MemoryTests.all().keySet())
                .contains("native-memory-read", "native-memory-scaled-add-all", "native-memory-latency")
                .doesNotContain("native-memory-latency-all")
                .hasSize(10);
    }
}
