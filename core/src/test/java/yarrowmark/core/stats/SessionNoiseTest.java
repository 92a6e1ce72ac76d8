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
import yarrowmark.core.compare.RunsNeeded;
import yarrowmark.core.compare.Verdict;

/** Expected values: the method's examples F to F4, R 4.2.2, to the digits shown there. */
class SessionNoiseTest {
    private static final NoisePrior WITHIN = NoisePrior.fit(ExampleSamples.F).orElseThrow();
    private static final Noise RUNS = Noise.ofRuns(Optional.of(WITHIN));
    private static final Noise USUAL = Noise.of(new UsualSpread(2), Noise.Source.USUAL);

    private static List<SessionNoise.Cell> cells(List<Sample> samples, int metric) {
        return IntStream.range(0, samples.size())
                .mapToObj(i -> new SessionNoise.Cell(i, metric, samples.get(i)))
                .toList();
    }

    /** What is known of the sessions of a metric that is alone in its suite. */
    private static SessionNoise alone(List<Sample> samples, Noise runs) {
        return SessionNoise.fit(cells(samples, 0), List.of(runs)).noise().get(0).orElseThrow();
    }

    private static Noise noise(List<Sample> samples, Noise runs) {
        return runs.withDays(alone(samples, runs));
    }

    private static void pair(Sample a, Sample base, Noise noise, double ratio, double low, double high, double df) {
        PairComparison c = PairComparison.of(a, base, noise, Materiality.USUAL);
        assertThat(c.ratio()).isCloseTo(ratio, within(ratio * 5e-10));
        assertThat(c.interval().low()).isCloseTo(low, within(5e-10));
        assertThat(c.interval().high()).isCloseTo(high, within(5e-10));
        if (df > 0) {
            assertThat(c.interval().degreesOfFreedom()).isCloseTo(df, within(5e-8));
        }
    }

    @Test
    void exampleFWithinSessions() {
        assertThat(ExampleSamples.F).extracting(Sample::degreesOfFreedom).containsExactly(4, 2, 6, 3, 3, 0);
        assertThat(WITHIN.degreesOfFreedom()).isCloseTo(6, within(1e-9));
        assertThat(WITHIN.variance()).isCloseTo(3.661716465e-05, within(5e-15));
    }

    @Test
    void exampleF() {
        List<Sample> f = ExampleSamples.F;
        SessionNoise days = alone(f, RUNS);
        assertThat(days.repeated()).isEqualTo(4);
        assertThat(days.degreesOfFreedom()).isEqualTo(8);
        assertThat(days.variance()).isCloseTo(8.001725416e-05, within(5e-15));
        assertThat(days.subtracted()).isCloseTo(7.421384282e-06, within(5e-16));
        double[] own = {
            8.997580034e-05, 8.001725416e-05, 8.300335911e-05, 8.001725416e-05, 8.602974227e-05, 8.001725416e-05
        };
        double[] centre = {385.2119341, 403.8639437, 505.9462922, 610.0976011, 293.2465994, 297};
        double[] variance = {
            5.069823263e-05, 9.085606369e-05, 3.37801784e-05, 8.699423619e-05, 4.862676572e-05, 0.0001166344188
        };
        for (int i = 0; i < centre.length; i++) {
            Centre c = Centre.of(f.get(i), RUNS.withDays(days));
            assertThat(c.sessionVariance() / c.sessionSquares()).isCloseTo(own[i], within(5e-14));
            assertThat(Math.exp(c.merit())).isCloseTo(centre[i], within(5e-8));
            assertThat(c.variance()).isCloseTo(variance[i], within(5e-14));
        }
        Noise noise = RUNS.withDays(days);
        pair(f.get(1), f.get(0), noise, 1.048420124, 1.020374052, 1.077237071, 8.582840299);
        pair(f.get(2), f.get(3), noise, 0.8292874637, 0.8087036799, 0.8503951628, 8.399141909);
        pair(f.get(4), f.get(5), noise, 0.9873622876, 0.9595225658, 1.016009755, 10.11057986);
        assertThat(SessionNoise.fit(cells(f, 0), List.of(RUNS)).odd().get(0)).isEmpty();
    }

    /** One session of E went wrong by a fifth: it is bounded for all others, and E keeps what it showed. */
    @Test
    void exampleF2() {
        List<Sample> f = new ArrayList<>(ExampleSamples.F);
        f.set(4, sessions(new double[][] {{291.3, 290.1}, {236.7, 237.1, 235.8}}));
        assertThat(SessionNoise.Spread.of(f.get(4)).variance()).isCloseTo(0.02125987537, within(5e-12));
        Noise runs = Noise.ofRuns(NoisePrior.fit(f));
        SessionNoise.Found found = SessionNoise.fit(cells(f, 0), List.of(runs));
        SessionNoise days = found.noise().get(0).orElseThrow();
        assertThat(days.variance()).isCloseTo(0.000192941851, within(5e-13));
        assertThat(found.odd().get(0))
                .extracting(SessionNoise.Cell::configuration)
                .containsExactly(4L);
        Noise noise = runs.withDays(days);
        Centre e = Centre.of(f.get(4), noise);
        assertThat(e.sessionVariance() / e.sessionSquares()).isCloseTo(0.002532455753, within(5e-12));
        pair(f.get(1), f.get(0), noise, 1.048420124, 1.007207954, 1.091318581, 0);
        pair(f.get(2), f.get(3), noise, 0.8292874637, 0.7985510961, 0.8612068794, 0);
        pair(f.get(4), f.get(0), noise, 0.6806566798, 0.6249445003, 0.7413354554, 0);
    }

    /** One run a session: the spread between sessions holds runs and days together. */
    @Test
    void exampleF3() {
        List<Sample> all = List.of(
                sessions(new double[][] {{258.6}, {257.7}, {259.3}}),
                sessions(new double[][] {{232.7}, {222.7}, {226.8}}),
                sessions(new double[][] {{310}, {305.5}}),
                sessions(new double[][] {{190.2}}));
        SessionNoise days = alone(all, USUAL);
        assertThat(days.holdsRuns()).isTrue();
        assertThat(days.variance()).isCloseTo(0.0002965161568, within(5e-14));
        assertThat(days.degreesOfFreedom()).isEqualTo(9);
        Noise noise = USUAL.withDays(days);
        pair(all.get(1), all.get(0), noise, 0.8794369961, 0.8519062552, 0.9078574379, 9);
        pair(all.get(2), all.get(0), noise, 1.190340752, 1.148756504, 1.233430324, 9);
        pair(all.get(3), all.get(0), noise, 0.7356908602, 0.7033329041, 0.7695374959, 9);
        assertThat(PairComparison.of(all.get(3), all.get(0), noise, Materiality.USUAL)
                        .verdict())
                .as("measured, as five further sessions were")
                .isEqualTo(Verdict.CLEAR_LOSS);
    }

    @Test
    void exampleF4() {
        List<Sample> all = List.of(
                sessions(new double[][] {{100}}), sessions(new double[][] {{112}}), sessions(new double[][] {{104}}));
        SessionNoise days = alone(all, USUAL);
        assertThat(days.variance()).isCloseTo(0.0003921440478, within(5e-14));
        assertThat(days.degreesOfFreedom()).isEqualTo(4);
        Noise noise = USUAL.withDays(days);
        pair(all.get(1), all.get(0), noise, 1.12, 1.036214263, 1.210560446, 4);
        pair(all.get(2), all.get(0), noise, 1.04, 0.9621989585, 1.124091842, 4);
        PairComparison gain = PairComparison.of(all.get(1), all.get(0), noise, Materiality.USUAL);
        assertThat(gain.verdict()).isEqualTo(Verdict.PROBABLY_GAIN);
        PairComparison close = PairComparison.of(all.get(2), all.get(0), noise, Materiality.USUAL);
        assertThat(close.verdict()).isEqualTo(Verdict.CANNOT_TELL);
        assertThat(close.runsNeeded()).isEqualTo(new RunsNeeded.ThreeEach());
    }

    /** By hand: the second metric, measured on one day only, takes ρ s₀² with H = 4 from the first, and the belief of 4. */
    @Test
    void anotherTestOfTheSuiteLendsWhatItKnows() {
        List<SessionNoise.Cell> all = new ArrayList<>(cells(ExampleSamples.F, 0));
        all.add(new SessionNoise.Cell(0, 1, sessions(new double[][] {{10, 10.1}})));
        Noise second = Noise.ofRuns(Optional.of(new NoisePrior(3, 4e-4)));
        List<Optional<SessionNoise>> found =
                SessionNoise.fit(all, List.of(RUNS, second)).noise();
        double rho = 0.0001234173437 / WITHIN.variance();
        assertThat(found.get(1).orElseThrow().variance()).isCloseTo((4 * rho + 4) * 4e-4 / 8, within(1e-9));
        assertThat(found.get(1).orElseThrow().degreesOfFreedom()).isEqualTo(8);
        assertThat(found.get(1).orElseThrow().subtracted()).isZero();
        assertThat(found.get(0).orElseThrow().variance())
                .as("nothing is lent to the first: no other was measured again")
                .isCloseTo(8.001725416e-05, within(5e-15));
        assertThat(found.get(0).orElseThrow().degreesOfFreedom()).isEqualTo(8);
    }

    @Test
    void withoutASecondSessionDaysAreTakenToDifferAsRunsDo() {
        List<Sample> once = List.of(ExampleSamples.F.get(1), ExampleSamples.F.get(3), ExampleSamples.F.get(5));
        SessionNoise days = alone(once, RUNS);
        assertThat(days.variance()).isCloseTo(WITHIN.variance(), within(1e-18));
        assertThat(days.degreesOfFreedom()).isEqualTo(4);
        assertThat(days.isMeasured()).isFalse();
        assertThat(SharedDay.fit(cells(once, 0), List.of(RUNS.withDays(days)))).isEqualTo(SharedDay.UNKNOWN);
    }

    /** Only sessions that repeat the same metric count: two sessions, each with tests of its own, say nothing about days. */
    @Test
    void sessionsWithTestsOfTheirOwnRepeatNothing() {
        List<SessionNoise.Cell> apart = List.of(
                new SessionNoise.Cell(1, 0, Sample.ofOneSession(1, more(5, 5.1))),
                new SessionNoise.Cell(1, 1, Sample.ofOneSession(2, more(7, 7.2))));
        assertThat(SessionNoise.fit(apart, List.of(RUNS, RUNS)).noise())
                .allMatch(d -> d.orElseThrow().degreesOfFreedom() == 4);
        assertThat(SharedDay.fit(apart, List.of(RUNS, RUNS))).isEqualTo(SharedDay.UNKNOWN);
    }

    @Test
    void theOrderOfConfigurationsAndTheUnitDoNotMatter() {
        List<SessionNoise.Cell> shuffled = new ArrayList<>(
                cells(ExampleSamples.F.stream().map(s -> s.per(1e-6)).toList(), 0));
        Collections.shuffle(shuffled, new Random(3));
        SessionNoise there = alone(ExampleSamples.F, RUNS);
        SessionNoise again =
                SessionNoise.fit(shuffled, List.of(RUNS)).noise().get(0).orElseThrow();
        assertThat(again.variance()).isCloseTo(there.variance(), within(1e-14));
        assertThat(again.subtracted()).isCloseTo(there.subtracted(), within(1e-16));
    }

    /** Means that are nearer to each other than their runs allow are no noise below nothing. */
    @Test
    void sessionsThatAreMoreAlikeThanTheirRunsAddNothing() {
        List<Sample> alike = new ArrayList<>();
        for (int i = 0; i < 30; i++) {
            alike.add(sessions(new double[][] {{100, 103, 97}, {100, 103, 97}}));
        }
        Noise runs = Noise.ofRuns(NoisePrior.fit(alike));
        assertThat(alone(alike, runs).variance()).isZero();
        Centre c = Centre.of(alike.get(0), noise(alike, runs));
        assertThat(c.variance()).isCloseTo(runs.working(alike.get(0)).variance() / 6, within(1e-15));
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
        SessionNoise days = alone(List.of(sample), USUAL);
        assertThat(days.degreesOfFreedom()).isEqualTo(203);
        assertThat(Math.sqrt(days.variance())).isCloseTo(0.02, within(0.003));
        assertThat(Centre.of(sample, USUAL.withDays(days)).sessionSquares()).isCloseTo(1.0 / 200, within(1e-12));
    }

    /** A day that moves all tests alike is seen as such, and one that moves each by itself as the other. */
    @Test
    void howFarADayMovesTestsTogetherIsFound() {
        for (boolean alike : new boolean[] {true, false}) {
            Random random = new Random(alike ? 1 : 2);
            List<SessionNoise.Cell> cells = new ArrayList<>();
            List<Noise> noise = Collections.nCopies(
                    8,
                    Noise.ofRuns(Optional.of(new NoisePrior(30, 4e-6)))
                            .withDays(new SessionNoise(1e-4, 120, 0, 120, false)));
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
            SharedDay day = SharedDay.fit(cells, noise);
            assertThat(day.furtherSessions()).isEqualTo(120);
            assertThat(day.degreesOfFreedom()).isEqualTo(124);
            assertThat(day.devices()).isEqualTo(DayBasis.of(60));
            assertThat(day.together()).isCloseTo(alike ? 1 : 0, within(0.15));
        }
    }

    /** A temperature: no usual spread is one in degrees, so what is known is what was measured. */
    @Test
    void ofADifferenceMetricNothingIsAssumed() {
        Sample single = sessions(new double[][] {{60}});
        Noise runs = Noise.UNKNOWN;
        assertThat(SessionNoise.fit(cells(List.of(single), 0), List.of(runs)).noise())
                .containsExactly(Optional.empty());
        assertThat(Centre.of(single, runs).isAnywhere()).isTrue();
        Sample again = sessions(new double[][] {{60}, {61}});
        SessionNoise days = alone(List.of(single, again), runs);
        assertThat(days.degreesOfFreedom()).isEqualTo(1);
        assertThat(Centre.of(single, runs.withDays(days)).isAnywhere()).isFalse();
        Sample three = sessions(new double[][] {{60, 61, 62}});
        SessionNoise ofRuns = alone(List.of(three), runs);
        assertThat(ofRuns.variance())
                .as("days differ as the three runs do")
                .isCloseTo(three.sumSquares() / 2, within(1e-12));
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
    void aUsualSpreadIsHalfOfRunsAndHalfOfDays() {
        NoisePrior two = new UsualSpread(2).runs();
        assertThat(two.variance()).isCloseTo(Math.pow(Math.log(1.02), 2) / 2, within(1e-15));
        assertThat(two.degreesOfFreedom()).isEqualTo(4);
        for (double bad : new double[] {0, 1e-320, -1, Double.NaN, 1001}) {
            assertThatThrownBy(() -> new UsualSpread(bad)).hasMessageContaining("0.0001 to 1000");
        }
        assertThat(new UsualSpread(500).variance()).isCloseTo(Math.pow(Math.log(6), 2), within(1e-12));
        assertThat(USUAL.isUnmeasured(more(5))).isTrue();
        assertThat(USUAL.isUnmeasured(more(5, 6))).isFalse();
        assertThat(RUNS.isUnmeasured(more(5))).isFalse();
    }
}
