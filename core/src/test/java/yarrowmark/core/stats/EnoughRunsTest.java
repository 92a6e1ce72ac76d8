package yarrowmark.core.stats;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Optional;
import java.util.SplittableRandom;
import org.apache.commons.statistics.distribution.TDistribution;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class EnoughRunsTest {
    /** At the limit itself the half-width of the 97.5 % interval is the aim. */
    @Test
    void aLimitIsWhereTheHalfWidthIsTheAim() {
        NoisePrior lent = new NoisePrior(4, 1e-4);
        for (Optional<NoisePrior> prior : List.of(Optional.<NoisePrior>empty(), Optional.of(lent))) {
            List<EnoughRuns.Limit> limits = new EnoughRuns(3, 12, 1, prior).limits();
            assertThat(limits).isNotEmpty();
            for (EnoughRuns.Limit l : limits) {
                SampleMoments at = new SampleMoments(l.runs(), 1, l.spread() * l.spread() * (l.runs() - 1), 0);
                WorkingVariance work = NoisePrior.workingVariance(at, prior).orElseThrow();
                double half = TDistribution.of(work.degreesOfFreedom()).inverseSurvivalProbability(0.0125)
                        * Math.sqrt(work.ofMean(at));
                assertThat(half).isCloseTo(Math.log(1.01), within(1e-12));
            }
        }
    }

    @Test
    void aQuietTestEndsEarlyAndANoisyOneGoesOn() {
        EnoughRuns aim = new EnoughRuns(3, 12, 1, Optional.empty());
        assertThat(aim.isEnough(new SampleMoments(2, 0, 0, 0))).isFalse();
        assertThat(aim.isEnough(moments(3, 0.001))).isTrue();
        assertThat(aim.isEnough(moments(3, 0.01))).isFalse();
        assertThat(aim.more(moments(3, 0.001))).contains(0);
        int more = aim.more(moments(3, 0.01)).orElseThrow();
        assertThat(more).isBetween(4, 9);
        assertThat(aim.isEnough(moments(3 + more, 0.01))).isTrue();
        assertThat(aim.isEnough(moments(2 + more, 0.01))).isFalse();
        assertThat(aim.more(moments(3, 0.2))).as("not even twelve").isEmpty();
    }

    /** Whole seconds of ten: no number of runs makes their mean known within a tenth of a per cent. */
    @Test
    void roundingDoesNotAverageOut() {
        double rounding = 0.1 * 0.1 / 12;
        assertThat(new EnoughRuns(3, 12, 0.1, Optional.empty()).more(new SampleMoments(3, 0, 0, rounding)))
                .isEmpty();
    }

    @Test
    void lentNoiseHoldsBackALuckyThree() {
        EnoughRuns alone = new EnoughRuns(3, 12, 1, Optional.empty());
        EnoughRuns lent = new EnoughRuns(3, 12, 1, Optional.of(new NoisePrior(20, 4e-4)));
        assertThat(alone.isEnough(moments(3, 0.0005))).isTrue();
        assertThat(lent.isEnough(moments(3, 0.0005))).isFalse();
    }

    @Test
    void whatMakesNoSenseIsRefused() {
        assertThatThrownBy(() -> new EnoughRuns(2, 12, 1, Optional.empty())).hasMessageContaining("2 to 12");
        assertThatThrownBy(() -> new EnoughRuns(5, 4, 1, Optional.empty())).hasMessageContaining("5 to 4");
        for (double percent : new double[] {0, -1, 101, Double.NaN}) {
            assertThatThrownBy(() -> new EnoughRuns(3, 12, percent, Optional.empty()))
                    .hasMessageContaining("known within");
        }
    }

    /** The 95 % interval of the mean at the end, with fixed seeds: the bound leaves room for chance of 4,000 sessions. */
    @ParameterizedTest
    @CsvSource({
        "0.005, false",
        "0.0075, false",
        "0.01, false",
        "0.015, false",
        "0.02, false",
        "0.05, false",
        "0.005, true",
        "0.01, true",
        "0.05, true"
    })
    void lookingAgainAndAgainCostsLittle(double noise, boolean withLent) {
        Optional<NoisePrior> prior = withLent ? Optional.of(new NoisePrior(8, noise * noise)) : Optional.empty();
        double held = coverage(noise, prior, 4_000);
        // Without lent noise three lucky runs end it too early where the noise is near the aim: 91 % there, 94 %
        // elsewhere.
        assertThat(held).isGreaterThan(withLent ? 0.945 : 0.895);
    }

    static double coverage(double noise, Optional<NoisePrior> prior, int sessions) {
        EnoughRuns aim = new EnoughRuns(3, 12, 1, prior);
        SplittableRandom random = new SplittableRandom(Math.round(noise * 1e6) + (prior.isPresent() ? 1 : 0));
        int held = 0;
        for (int i = 0; i < sessions; i++) {
            double[] x = new double[12];
            int n = 0;
            SampleMoments m;
            do {
                x[n++] = noise * random.nextGaussian();
                m = of(x, n);
            } while (n < 12 && !aim.isEnough(m));
            WorkingVariance work = NoisePrior.workingVariance(m, prior).orElseThrow();
            double half = StudentT.upper(work.degreesOfFreedom()) * Math.sqrt(work.ofMean(m));
            held += Math.abs(m.mean()) <= half ? 1 : 0;
        }
        return (double) held / sessions;
    }

    private static SampleMoments of(double[] x, int n) {
        double mean = 0;
        for (int i = 0; i < n; i++) {
            mean += x[i] / n;
        }
        double squares = 0;
        for (int i = 0; i < n; i++) {
            squares += (x[i] - mean) * (x[i] - mean);
        }
        return new SampleMoments(n, mean, squares, 0);
    }

    private static SampleMoments moments(int n, double deviation) {
        return new SampleMoments(n, 0, deviation * deviation * (n - 1), 0);
    }
}
