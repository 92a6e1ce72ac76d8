package yarrowmark.core.curve;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.stream.DoubleStream;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class CurveTest {
    private static Curve curve(double... xy) {
        return new Curve(IntStream.range(0, xy.length / 2)
                .mapToObj(i -> new Curve.Point(xy[2 * i], xy[2 * i + 1]))
                .toList());
    }

    /** The frame times of section 9; expected values from R 4.2.2. */
    private static double[] exampleFrames() {
        return DoubleStream.concat(
                        DoubleStream.concat(
                                DoubleStream.generate(() -> 16.6).limit(180),
                                DoubleStream.generate(() -> 17.1).limit(15)),
                        DoubleStream.of(25, 33.4, 41, 50.2, 66.9))
                .toArray();
    }

    @Test
    void frameTimesOfTheExample() {
        FrameTimes f = FrameTimes.of(exampleFrames());
        assertThat(f.frames()).isEqualTo(200);
        assertThat(f.meanRate()).isCloseTo(57.78676683, within(5e-9));
        assertThat(f.lowMean()).isCloseTo(17.0794193, within(5e-8));
        assertThat(f.lowPercentile()).isCloseTo(24.33563711, within(5e-9));
        assertThat(f.stutters()).as("longer than 41.5 ms").isEqualTo(2);
    }

    @Test
    void orderOfFramesDoesNotMatterAndScaleDoes() {
        double[] frames = exampleFrames();
        List<Double> shuffled = new ArrayList<>(Arrays.stream(frames).boxed().toList());
        Collections.shuffle(shuffled, new Random(4));
        FrameTimes once = FrameTimes.of(frames);
        FrameTimes mixed =
                FrameTimes.of(shuffled.stream().mapToDouble(Double::doubleValue).toArray());
        assertThat(mixed.lowPercentile()).isEqualTo(once.lowPercentile());
        assertThat(mixed.meanRate()).isCloseTo(once.meanRate(), within(1e-9));
        FrameTimes twice = FrameTimes.of(Arrays.stream(frames).map(t -> 2 * t).toArray());
        assertThat(twice.meanRate()).isCloseTo(once.meanRate() / 2, within(1e-9));
        assertThat(twice.stutters()).isEqualTo(once.stutters());
    }

    @Test
    void oneFrameIsEnoughAndNoneIsNot() {
        assertThat(FrameTimes.of(new double[] {20}).lowMean()).isCloseTo(50, within(1e-12));
        assertThatIllegalArgumentException().isThrownBy(() -> FrameTimes.of(new double[0]));
        assertThatIllegalArgumentException().isThrownBy(() -> FrameTimes.of(new double[] {16, 0}));
        assertThatIllegalArgumentException().isThrownBy(() -> FrameTimes.of(new double[] {16, Double.NaN}));
    }

    @Test
    void timestampsGiveTheTimesBetween() {
        assertThat(FrameTimes.between(new double[] {100, 116, 133})).containsExactly(16, 17);
        assertThatIllegalArgumentException()
                .isThrownBy(() -> FrameTimes.between(new double[] {100, 116, 116}))
                .withMessageContaining("3");
    }

    @Test
    void peakAndWhereItsNinetyPercentBegin() {
        Curve c = curve(512, 40, 4096, 310, 65536, 1930, 1048576, 2100, 16777216, 2080);
        assertThat(c.peak()).isEqualTo(new Curve.Point(1048576, 2100));
        assertThat(c.nearPeakFrom()).isEqualTo(65536);
        assertThat(curve(1, 5, 2, 5).peak().x()).as("of two peaks the first").isEqualTo(1);
    }

    @Test
    void aDentIsBelowBothSidesAndARiseIsNone() {
        assertThat(curve(0.5, 21, 1, 42, 2, 83, 4, 160, 8, 300, 16, 210, 32, 700, 64, 740, 128, 745)
                        .dents())
                .as("the method's example")
                .containsExactly(new Curve.Point(16, 210));
        assertThat(curve(1, 10, 2, 20, 4, 40, 8, 80, 16, 160, 32, 161).dents())
                .as("the ends of a rising curve are far from their neighbours and no dents")
                .isEmpty();
        assertThat(curve(1, 100, 2, 60, 4, 62, 8, 104).dents())
                .as("a wide one")
                .containsExactly(new Curve.Point(2, 60), new Curve.Point(4, 62));
        assertThat(curve(1, 40, 2, 100, 4, 100, 8, 30).dents())
                .as("never an end")
                .isEmpty();
        assertThat(curve(1, 100, 10, 85.1, 100, 100).dents()).isEmpty();
        assertThat(curve(1, 100, 10, 84.9, 100, 100).dents()).hasSize(1);
        assertThat(curve(1, 100, 2, 101, 3, 99, 4, 70, 5, 100, 6, 102, 7, 99).dents())
                .containsExactly(new Curve.Point(4, 70));
        assertThat(curve(1, 100, 2, 108, 3, 95, 4, 100).dents()).isEmpty();
    }

    @Test
    void interpolatesInLogarithmsAndNeverOutside() {
        Curve power = curve(1, 1, 100, 10_000);
        assertThat(power.at(10).getAsDouble()).isCloseTo(100, within(1e-9));
        assertThat(power.at(100)).hasValue(10_000);
        assertThat(power.at(0.99)).isEmpty();
        assertThat(power.at(101)).isEmpty();
        assertThat(power.at(Double.NaN)).isEmpty();
    }

    @Test
    void twoCurvesAreHeldAgainstEachOtherInTheirCommonRange() {
        Curve a = curve(1, 10, 2, 20, 4, 40);
        Curve b = curve(2, 10, 3, 15, 8, 40);
        assertThat(a.over(b)).extracting(Curve.Ratio::x).containsExactly(2.0, 3.0, 4.0);
        assertThat(a.over(b)).allSatisfy(r -> assertThat(r.ratio()).isCloseTo(2, within(1e-9)));
        List<Double> product = IntStream.range(0, 3)
                .mapToObj(i -> a.over(b).get(i).ratio() * b.over(a).get(i).ratio())
                .toList();
        assertThat(product).as("swapping inverts").allSatisfy(p -> assertThat(p).isCloseTo(1, within(1e-12)));
        assertThat(a.over(curve(100, 1, 200, 1))).isEmpty();
    }

    @Test
    void readsPairsAsPeoplePasteThem() throws Exception {
        assertThat(SeriesText.points("block size; MB/s\n4 KiB; 128.5\n512; 40\n1M; 2100\n"))
                .containsExactly(
                        new Curve.Point(512, 40), new Curve.Point(4096, 128.5), new Curve.Point(1 << 20, 2100));
        assertThat(SeriesText.points("1,2\r\n3,4")).hasSize(2);
        assertThat(SeriesText.points("4 KiB 12\n64k 90\n1.5e6 95"))
                .extracting(Curve.Point::x)
                .containsExactly(4096.0, 65536.0, 1.5e6);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "1;2",
                "1;2\n1;3",
                "1;2\nfoo;3",
                "1;2;3\n2;3;4",
                "0;1\n1;2",
                "1;-2\n2;3",
                "1;2\n2;bar",
                "a\nb"
            })
    void refusesWhatIsNoCurve(String text) {
        assertThatThrownBy(() -> SeriesText.points(text)).isInstanceOf(SeriesText.NotReadable.class);
    }

    @Test
    void saysWhichLine() {
        assertThatThrownBy(() -> SeriesText.points("1;2\n2;x"))
                .hasMessageContaining("Line 2")
                .hasMessageContaining("\"x\"");
        assertThatThrownBy(() -> SeriesText.frames("16.6 17 fast", false))
                .hasMessageContaining("Number 3")
                .hasMessageContaining("fast");
        assertThatThrownBy(() -> SeriesText.frames("16.6 -17", false)).isInstanceOf(SeriesText.NotReadable.class);
    }

    @Test
    void readsFramesOrTimestamps() throws Exception {
        assertThat(SeriesText.frames("ms\n16.6\n16.7\n33.1", false)).containsExactly(16.6, 16.7, 33.1);
        assertThat(SeriesText.frames("0 16 33", true)).containsExactly(16, 17);
        assertThatThrownBy(() -> SeriesText.frames("1 ".repeat(SeriesText.MOST_POINTS + 1), false))
                .hasMessageContaining("At most");
    }

    @ParameterizedTest
    @ValueSource(doubles = {0, -1, Double.POSITIVE_INFINITY, Double.NaN})
    void whatIsNotAboveZeroAndFiniteIsNoPoint(double wrong) {
        assertThatIllegalArgumentException().isThrownBy(() -> curve(wrong, 1, 2, 1));
        assertThatIllegalArgumentException().isThrownBy(() -> curve(1, wrong, 2, 1));
        assertThatIllegalArgumentException().isThrownBy(() -> FrameTimes.of(new double[] {16, wrong}));
    }

    @Test
    void ninetyPerCentOfThePeakAreEnough() {
        assertThat(curve(1, 89.9, 2, 90, 4, 100).nearPeakFrom()).isEqualTo(2);
    }

    /** The deeper one is found first, and then the other one against what lies beyond it, on either side. */
    @Test
    void twoDentsBesideEachOtherAreBothFound() {
        assertThat(curve(1, 100, 2, 60, 4, 50, 8, 100).dents())
                .containsExactly(new Curve.Point(2, 60), new Curve.Point(4, 50));
        assertThat(curve(1, 100, 2, 50, 4, 60, 8, 100).dents())
                .containsExactly(new Curve.Point(2, 50), new Curve.Point(4, 60));
    }

    @Test
    void twoCurvesAreHeldAgainstEachOtherWhereBothReach() {
        assertThat(curve(1, 10, 4, 10).over(curve(2, 5, 8, 5)))
                .containsExactly(new Curve.Ratio(2, 2), new Curve.Ratio(4, 2));
        assertThat(curve(1, 10, 2, 10).over(curve(4, 5, 8, 5))).isEmpty();
    }

    @Test
    void timestampsThatStandStillAreNoFrames() {
        assertThatIllegalArgumentException().isThrownBy(() -> FrameTimes.between(new double[] {1, 2, 2}));
        assertThat(FrameTimes.between(new double[] {1, 3})).containsExactly(2);
    }
}
