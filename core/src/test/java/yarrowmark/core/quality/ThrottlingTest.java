package yarrowmark.core.quality;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class ThrottlingTest {
    private static final double[] EXAMPLE = {1000, 1004, 998, 991, 975, 962, 950, 947, 944, 945, 941, 943};

    @Test
    void theExampleOfTheMethod() {
        Throttling t = Throttling.of(EXAMPLE);
        assertThat(t.slope()).isCloseTo(-6.375, within(1e-12));
        assertThat(t.s()).isEqualTo(-60);
        assertThat(t.p()).isCloseTo(5.214911582e-05, within(5e-15));
        assertThat(t.sustained()).isCloseTo(0.9392430279, within(5e-11));
        assertThat(t.throttled()).isTrue();
        // 95 % of 1004 is 953.8: the seventh loop is the first that stays below.
        assertThat(t.onset()).hasValue(6);
    }

    @Test
    void anotherUnitChangesNothingButTheSlope() {
        Throttling t = Throttling.of(EXAMPLE);
        Throttling scaled =
                Throttling.of(Arrays.stream(EXAMPLE).map(w -> w * 1e-3).toArray());
        assertThat(scaled.slope()).isCloseTo(t.slope() * 1e-3, within(1e-12));
        assertThat(scaled.s()).isEqualTo(t.s());
        assertThat(scaled.p()).isEqualTo(t.p());
        assertThat(scaled.sustained()).isCloseTo(t.sustained(), within(1e-12));
    }

    @Test
    void backwardsItRisesAndIsNoThrottling() {
        double[] rising = IntStream.range(0, EXAMPLE.length)
                .mapToDouble(i -> EXAMPLE[EXAMPLE.length - 1 - i])
                .toArray();
        Throttling t = Throttling.of(rising);
        assertThat(t.s()).isEqualTo(60);
        assertThat(t.slope()).isCloseTo(6.375, within(1e-12));
        assertThat(t.throttled()).isFalse();
    }

    @Test
    void fewLoopsOrASmallFallAreNone() {
        assertThat(Throttling.of(new double[] {1000, 980, 960, 940, 920, 900, 880})
                        .throttled())
                .isFalse();
        assertThat(Throttling.of(new double[] {1000, 999, 998, 997, 996, 995, 994, 993})
                        .throttled())
                .isFalse();
        assertThat(Throttling.of(new double[] {1000, 980, 960, 940, 920, 900, 880, 860})
                        .throttled())
                .isTrue();
    }

    @Test
    void equalLoopsHaveNoTrend() {
        Throttling t = Throttling.of(new double[] {5, 5, 5, 5, 5, 5, 5, 5});
        assertThat(t.p()).isEqualTo(1);
        assertThat(t.sustained()).isEqualTo(1);
        assertThat(t.throttled()).isFalse();
    }

    @Test
    void oneLoopOrNoWorkIsRefused() {
        assertThatThrownBy(() -> Throttling.of(new double[] {5})).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> Throttling.of(new double[] {5, 0})).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> Throttling.of(new double[] {5, Double.NaN}))
                .isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void thousandsOfLoopsSayWhatFewOfTheirMeansSay() {
        // 6 000 loops: three in a row are one, and each stands for the same moment.
        double[] few = IntStream.range(0, 2_000)
                .mapToDouble(i -> i < 500 ? 1000 + i % 7 : 900 + i % 5)
                .toArray();
        double[] many = IntStream.range(0, 6_000)
                .mapToDouble(i -> few[i / 3] + (i % 3 - 1) * 2)
                .toArray();
        Throttling one = Throttling.of(few);
        Throttling all = Throttling.ofMany(many);
        assertThat(all.loops()).isEqualTo(2_000);
        assertThat(all.sustained()).isCloseTo(one.sustained(), within(1e-12));
        assertThat(all.slope()).isCloseTo(one.slope(), within(1e-12));
        assertThat(one.onset()).hasValue(500);
        assertThat(all.onset()).hasValue(1_500);
        assertThat(Throttling.ofMany(few)).isEqualTo(one);
        // What is left over at the end is a mean of its own.
        assertThat(Throttling.ofMany(Arrays.copyOf(many, 5_999)).onset()).hasValue(1_500);
    }
}
