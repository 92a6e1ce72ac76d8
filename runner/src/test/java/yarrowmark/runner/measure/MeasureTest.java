package yarrowmark.runner.measure;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.Test;

class MeasureTest {
    /** A clock that only work moves. */
    private long nanos;

    private Measure measure(double timedMs, double clockMs) {
        return new Measure(timedMs, clockMs, () -> nanos);
    }

    @Test
    void aSteadyWorkHasItsRate() throws Exception {
        Measurement measured = measure(1_000, 0.001).run(n -> nanos += n * 50_000, 2);
        assertThat(measured.value()).isCloseTo(40_000, within(1e-6));
        assertThat(measured.timedMs()).isGreaterThanOrEqualTo(1_000);
        assertThat(measured.samples()).hasSizeBetween(40, 60);
        assertThat(measured.resolution()).isPositive();
    }

    @Test
    void burstsOfOthersDoNotMoveTheMedian() throws Exception {
        long[] calls = {0};
        Measurement measured = measure(1_000, 0.001).run(n -> nanos += n * 50_000 * (++calls[0] % 7 == 0 ? 3 : 1), 2);
        assertThat(measured.value()).isCloseTo(40_000, within(1e-6));
    }

    @Test
    void aCoarseClockHasLongerSamples() throws Exception {
        Measurement measured = measure(1_000, 1).run(n -> nanos += n * 50_000, 2);
        assertThat(measured.samples().size()).isLessThanOrEqualTo(11);
        assertThat(measured.samples().size()).isGreaterThanOrEqualTo(5);
    }

    @Test
    void whoIsInterruptedEndsAtOnce() {
        Thread.currentThread().interrupt();
        assertThatThrownBy(() -> measure(1_000, 0.001).run(n -> nanos += n * 50_000, 2))
                .isInstanceOf(InterruptedException.class);
        assertThat(Thread.interrupted()).isFalse();
    }

    @Test
    void warmIsWhatDoesNotBecomeFaster() {
        assertThat(Measure.isWarm(List.of(5.0, 4.0))).isFalse();
        assertThat(Measure.isWarm(List.of(5.0, 4.0, 3.0))).isFalse();
        assertThat(Measure.isWarm(List.of(5.0, 3.0, 3.01, 3.02))).isTrue();
        assertThat(Measure.isWarm(List.of(3.0, 9.0, 3.1, 8.0, 3.0, 9.0, 3.1, 8.0)))
                .isTrue();
        assertThat(Measure.median(List.of(4.0, 1.0, 3.0, 2.0))).isEqualTo(2.5);
    }

    @Test
    void whatSlowsDownInALoopIsSeenWhereItDoes() throws Exception {
        long[] done = {0};
        Measurement loops = new Endure(16_000, () -> nanos)
                .run(
                        n -> {
                            for (long i = 0; i < n; i++) {
                                nanos += ++done[0] > 8_000 ? 2_000_000 : 1_000_000;
                            }
                        },
                        1);
        List<Double> xy = loops.samples();
        assertThat(xy.get(1)).isCloseTo(1_000, within(1.0));
        assertThat(xy.get(xy.size() - 1)).isCloseTo(500, within(1.0));
        assertThat(xy.get(xy.size() - 2)).isGreaterThanOrEqualTo(14);
        Thread.currentThread().interrupt();
        assertThatThrownBy(() -> new Endure(1_000, () -> nanos).run(n -> nanos += n * 50_000, 1))
                .isInstanceOf(InterruptedException.class);
    }

    @Test
    void severalThreadsDoEachRoundOnce() throws Exception {
        AtomicLong done = new AtomicLong();
        Set<Thread> threads = ConcurrentHashMap.newKeySet();
        try (Together together = new Together(4, i -> n -> {
            threads.add(Thread.currentThread());
            done.addAndGet(n);
        })) {
            together.rounds(10_000);
            assertThat(done.get()).isEqualTo(10_000);
            together.rounds(1);
            assertThat(done.get()).isEqualTo(10_001);
        }
        assertThat(threads).allMatch(t -> !t.isAlive() || t.isDaemon());
    }

    @Test
    void whatOneThreadFindsWrongEndsAll() throws Exception {
        try (Together together = new Together(3, i -> n -> {
            if (i == 1) {
                throw new IllegalStateException("wrong in one");
            }
        })) {
            assertThatThrownBy(() -> together.rounds(Long.MAX_VALUE)).hasMessage("wrong in one");
        }
    }
}
