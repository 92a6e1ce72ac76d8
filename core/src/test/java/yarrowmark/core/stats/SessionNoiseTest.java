package yarrowmark.core.stats;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;
import static yarrowmark.core.ExampleSamples.more;
import static yarrowmark.core.ExampleSamples.sessions;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import yarrowmark.core.ExampleSamples;
import yarrowmark.core.compare.Materiality;
import yarrowmark.core.compare.PairComparison;

/** Expected values: the method's example F, R 4.2.2, to the digits shown there. */
class SessionNoiseTest {
    private static final NoisePrior WITHIN = NoisePrior.fit(ExampleSamples.F).orElseThrow();

    private static List<SessionNoise.Cell> cells(List<Sample> samples, int metric) {
        return IntStream.range(0, samples.size())
                .mapToObj(i -> new SessionNoise.Cell(i, metric, samples.get(i)))
                .toList();
    }

    /** Nothing lent from other tests, as the example is computed. */
    private static Noise noise() {
        return new Noise(
                Optional.of(WITHIN),
                SessionNoise.fit(cells(ExampleSamples.F, 0), List.of(Optional.of(WITHIN)), 0)
                        .get(0),
                Noise.Source.METRIC);
    }

    @Test
    void exampleFWithinSessions() {
        assertThat(ExampleSamples.F).extracting(Sample::degreesOfFreedom).containsExactly(4, 2, 6, 3, 3, 0);
        assertThat(WITHIN.degreesOfFreedom()).isCloseTo(6, within(1e-9));
        assertThat(WITHIN.variance()).isCloseTo(3.661716465e-05, within(5e-15));
        double[] deviation = {
            0.005853374648, 0.005702317826, 0.007416975683, 0.005282795483, 0.005202166583, 0.006051211833
        };
        for (int i = 0; i < deviation.length; i++) {
            assertThat(WITHIN.workingVariance(ExampleSamples.F.get(i)).deviation())
                    .isCloseTo(deviation[i], within(5e-13));
        }
    }

    @Test
    void exampleFBetweenSessions() {
        SessionNoise days = noise().days().orElseThrow();
        assertThat(days.degreesOfFreedom()).isEqualTo(4);
        assertThat(days.subtracted()).isCloseTo(1.484276856e-05, within(5e-15));
        assertThat(days.variance()).isCloseTo(0.0001234173437, within(5e-14));
        double[] centre = {385.2119341, 403.8639437, 505.9462922, 610.0976011, 293.2305142, 297};
        double[] variance = {
            6.74190043e-05, 0.0001342561532, 4.725150659e-05, 0.0001303943257, 6.732782058e-05, 0.0001600345083
        };
        for (int i = 0; i < centre.length; i++) {
            Centre c = Centre.of(ExampleSamples.F.get(i), noise());
            assertThat(Math.exp(c.merit())).isCloseTo(centre[i], within(5e-8));
            assertThat(c.variance()).isCloseTo(variance[i], within(5e-13));
            assertThat(c.withinOneSession()).isFalse();
        }
    }

    @Test
    void exampleFAsPairs() {
        PairComparison b =
                PairComparison.of(ExampleSamples.F.get(1), ExampleSamples.F.get(0), noise(), Materiality.USUAL);
        assertThat(b.ratio()).isCloseTo(1.048420124, within(5e-10));
        assertThat(b.interval().low()).isCloseTo(1.006940865, within(5e-10));
        assertThat(b.interval().high()).isCloseTo(1.091608052, within(5e-10));
        PairComparison c =
                PairComparison.of(ExampleSamples.F.get(2), ExampleSamples.F.get(3), noise(), Materiality.USUAL);
        assertThat(c.ratio()).isCloseTo(0.8292874637, within(5e-11));
        assertThat(c.interval().low()).isCloseTo(0.7982290145, within(5e-11));
        assertThat(c.interval().high()).isCloseTo(0.8615543723, within(5e-11));
        assertThat(c.withinOneSession()).isFalse();
    }

    /** By hand: the second metric, measured on one day only, takes ρ s₀² with Dₗ = 4 from the first. */
    @Test
    void anotherTestOfTheSuiteLendsWhatItKnows() {
        List<SessionNoise.Cell> all = new ArrayList<>(cells(ExampleSamples.F, 0));
        all.add(new SessionNoise.Cell(0, 1, sessions(new double[][] {{10, 10.1}})));
        NoisePrior second = new NoisePrior(3, 4e-4);
        List<Optional<SessionNoise>> found = SessionNoise.fit(all, List.of(Optional.of(WITHIN), Optional.of(second)));
        double raw = 0.0001234173437;
        assertThat(found.get(1).orElseThrow().variance()).isCloseTo(raw / WITHIN.variance() * 4e-4, within(1e-9));
        assertThat(found.get(1).orElseThrow().degreesOfFreedom()).isEqualTo(4);
        assertThat(found.get(1).orElseThrow().subtracted()).isZero();
        assertThat(found.get(0).orElseThrow().variance())
                .as("(4 raw + 4 ρ s₀²)/8")
                .isCloseTo(raw, within(5e-13));
        assertThat(found.get(0).orElseThrow().degreesOfFreedom()).isEqualTo(8);
    }

    @Test
    void withoutASecondSessionNothingIsKnown() {
        List<Sample> once = List.of(ExampleSamples.F.get(1), ExampleSamples.F.get(3), ExampleSamples.F.get(5));
        assertThat(SessionNoise.fit(cells(once, 0), List.of(Optional.of(WITHIN))))
                .containsExactly(Optional.empty());
        assertThat(SharedDay.fit(cells(once, 0), new double[] {Double.NaN})).isEqualTo(SharedDay.UNKNOWN);
        Centre c = Centre.of(once.get(0), Noise.ofRuns(Optional.of(WITHIN)));
        assertThat(c.withinOneSession()).isTrue();
        assertThat(c.sessionVariance()).isZero();
        // Two sessions, each with tests of its own, say nothing about days either.
        List<SessionNoise.Cell> apart = List.of(
                new SessionNoise.Cell(1, 0, Sample.ofOneSession(1, more(5, 5.1))),
                new SessionNoise.Cell(1, 1, Sample.ofOneSession(2, more(7, 7.2))));
        assertThat(SessionNoise.fit(apart, List.of(Optional.of(WITHIN), Optional.of(WITHIN))))
                .allMatch(Optional::isEmpty);
    }

    @Test
    void theOrderOfConfigurationsAndTheUnitDoNotMatter() {
        List<SessionNoise.Cell> shuffled = new ArrayList<>(
                cells(ExampleSamples.F.stream().map(s -> s.per(1e-6)).toList(), 0));
        Collections.shuffle(shuffled, new Random(3));
        SessionNoise there = noise().days().orElseThrow();
        SessionNoise again = SessionNoise.fit(shuffled, List.of(Optional.of(WITHIN)), 0)
                .get(0)
                .orElseThrow();
        assertThat(again.variance()).isCloseTo(there.variance(), within(1e-14));
        assertThat(again.subtracted()).isCloseTo(there.subtracted(), within(1e-16));
    }

    /** Means that are nearer to each other than their runs allow are no noise below nothing. */
    @Test
    void sessionsThatAreMoreAlikeThanTheirRunsAddNothing() {
        List<Sample> alike = new ArrayList<>();
        for (int i = 0; i < 6; i++) {
            alike.add(sessions(new double[][] {{100, 103, 97}, {100, 103, 97}}));
        }
        NoisePrior runs = NoisePrior.fit(alike).orElseThrow();
        SessionNoise days = SessionNoise.fit(cells(alike, 0), List.of(Optional.of(runs)))
                .get(0)
                .orElseThrow();
        assertThat(days.variance()).isZero();
        Centre c = Centre.of(alike.get(0), new Noise(Optional.of(runs), Optional.of(days), Noise.Source.METRIC));
        assertThat(c.variance()).isCloseTo(runs.workingVariance(alike.get(0)).variance() / 6, within(1e-15));
        assertThat(c.withinOneSession()).isFalse();
    }

    @Test
    void twoHundredSessionsOfOneConfigurationAndRunsThatAreAllEqual() {
        Random random = new Random(5);
        List<Sample.OfSession> many = new ArrayList<>();
        for (int s = 0; s < 200; s++) {
            double day = 0.02 * random.nextGaussian();
            many.add(new Sample.OfSession(s, new SampleMoments(3, day, 0, 0)));
        }
        Sample sample = Sample.of(many);
        List<SessionNoise.Cell> cells = List.of(new SessionNoise.Cell(1, 0, sample));
        SessionNoise days =
                SessionNoise.fit(cells, List.of(Optional.empty())).get(0).orElseThrow();
        assertThat(days.degreesOfFreedom()).isEqualTo(199);
        assertThat(Math.sqrt(days.variance())).isCloseTo(0.02, within(0.003));
        assertThat(Centre.of(sample, new Noise(Optional.empty(), Optional.of(days), Noise.Source.NOTHING))
                        .sessionSquares())
                .isCloseTo(1.0 / 200, within(1e-12));
    }

    /** A day that moves all tests alike is seen as such, and one that moves each by itself as the other. */
    @Test
    void howFarADayMovesTestsTogetherIsFound() {
        for (boolean alike : new boolean[] {true, false}) {
            Random random = new Random(alike ? 1 : 2);
            List<SessionNoise.Cell> cells = new ArrayList<>();
            double[] variance = new double[8];
            java.util.Arrays.fill(variance, 1e-4);
            for (int c = 0; c < 60; c++) {
                double[] day = {random.nextGaussian(), random.nextGaussian(), random.nextGaussian()};
                for (int j = 0; j < 8; j++) {
                    double[][] readings = new double[3][3];
                    for (int s = 0; s < 3; s++) {
                        double moved = 0.01 * (alike ? day[s] : random.nextGaussian());
                        for (int r = 0; r < 3; r++) {
                            readings[s][r] = 100 * Math.exp(moved + 0.002 * random.nextGaussian());
                        }
                    }
                    cells.add(new SessionNoise.Cell(c, j, sessions(readings)));
                }
            }
            SharedDay day = SharedDay.fit(cells, variance);
            assertThat(day.furtherSessions()).isEqualTo(120);
            assertThat(day.together()).isCloseTo(alike ? 1 : 0, within(0.15));
        }
    }

    @Test
    void aSampleKnowsItsSessions() {
        Sample two = ExampleSamples.F.get(0);
        assertThat(two.n()).isEqualTo(6);
        assertThat(two.joined(two).n()).isEqualTo(12);
        assertThat(two.joined(two).sessions()).hasSize(2);
        assertThat(two.joined(Sample.ofOneSession(9, more(1))).sessions()).hasSize(3);
        assertThat(two.together().mean()).isCloseTo(two.mean(), within(1e-12));
        assertThat(two)
                .isEqualTo(
                        Sample.of(List.of(two.sessions().get(1), two.sessions().get(0))));
        assertThatThrownBy(() -> Sample.of(List.of())).hasMessageContaining("at least one session");
        assertThatThrownBy(() ->
                        Sample.of(List.of(two.sessions().get(0), two.sessions().get(0))))
                .hasMessageContaining("given twice");
    }

    @Test
    void aStatedRepeatabilityIsAPrior() {
        NoisePrior two = Noise.stated(2);
        assertThat(Math.sqrt(two.variance())).isCloseTo(Math.log(1.02), within(1e-15));
        assertThat(two.degreesOfFreedom()).isEqualTo(4);
        for (double bad : new double[] {0, -1, Double.NaN, 1001}) {
            assertThatThrownBy(() -> Noise.stated(bad)).hasMessageContaining("above 0");
        }
        assertThat(Noise.UNKNOWN.assumed(more(5))).isTrue();
        assertThat(Noise.UNKNOWN.assumed(more(5, 6))).isFalse();
        assertThat(Noise.ofRuns(Optional.of(two)).assumed(more(5))).isFalse();
    }
}
