package yarrowmark.core.stats;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.apache.commons.numbers.gamma.Digamma;
import org.apache.commons.numbers.gamma.Trigamma;
import org.junit.jupiter.api.Test;
import yarrowmark.core.ExampleSamples;
import yarrowmark.core.measure.Direction;

/** Expected values: the method's examples A and A2, R 4.2.2. */
class NoisePriorTest {
    @Test
    void exampleA() {
        NoisePrior prior = NoisePrior.fit(ExampleSamples.A).orElseThrow();
        assertThat(prior.degreesOfFreedom()).isCloseTo(10.0 / 3, within(1e-12));
        assertThat(prior.variance()).isCloseTo(5.144374983e-05, within(5e-15));
        double[] expected = {0.006897952278, 0.006303386098, 0.009904635607, 0.005660772654, 0.006445020367};
        for (int i = 0; i < expected.length; i++) {
            assertThat(prior.workingVariance(ExampleSamples.A.get(i)).deviation())
                    .isCloseTo(expected[i], within(5e-13));
        }
    }

    @Test
    void exampleA2() {
        NoisePrior prior = NoisePrior.fit(ExampleSamples.A2).orElseThrow();
        assertThat(prior.degreesOfFreedom()).isCloseTo(1.064314407, within(5e-10));
        assertThat(prior.variance()).isCloseTo(6.791044358e-05, within(5e-15));
    }

    @Test
    void aSingleReadingWorksWithWhatIsLent() {
        NoisePrior prior = NoisePrior.fit(ExampleSamples.A).orElseThrow();
        WorkingVariance lent = prior.workingVariance(ExampleSamples.more(297));
        assertThat(lent.variance()).isCloseTo(prior.variance(), within(1e-18));
        assertThat(lent.degreesOfFreedom())
                .as("it may come from a noisy device")
                .isEqualTo(prior.degreesOfFreedom() / 2);
    }

    @Test
    void theOrderOfSamplesAndTheUnitDoNotMatter() {
        NoisePrior prior = NoisePrior.fit(ExampleSamples.A2).orElseThrow();
        List<SampleMoments> shuffled = new ArrayList<>(ExampleSamples.A2.stream()
                .map(s -> new SampleMoments(s.n(), s.mean() + Math.log(1e6), s.sumSquares(), s.resolutionVariance()))
                .toList());
        Collections.shuffle(shuffled, new Random(4));
        NoisePrior other = NoisePrior.fit(shuffled).orElseThrow();
        assertThat(other.degreesOfFreedom()).isCloseTo(prior.degreesOfFreedom(), within(1e-10));
        assertThat(other.variance()).isCloseTo(prior.variance(), within(1e-15));
    }

    @Test
    void twoSamplesLendNothingAndTheSuiteVersionHelpsOut() {
        List<SampleMoments> two = ExampleSamples.A.subList(0, 2);
        assertThat(NoisePrior.fit(two)).isEmpty();
        assertThat(NoisePrior.fitWithin(two, ExampleSamples.A)).isEqualTo(NoisePrior.fit(ExampleSamples.A));
        assertThat(NoisePrior.fitWithin(two, two)).isEmpty();
        assertThat(NoisePrior.workingVariance(ExampleSamples.more(297), Optional.empty()))
                .isEmpty();
        assertThat(NoisePrior.workingVariance(two.get(0), Optional.empty())
                        .orElseThrow()
                        .lentDegreesOfFreedom())
                .isZero();
    }

    /** Equal whole seconds are as noisy as their rounding, so they lend that and not nothing. */
    @Test
    void roundingIsTheLeastNoiseThatIsLent() {
        List<SampleMoments> equal = List.of(
                ExampleSamples.sample(Direction.LESS_IS_BETTER, 1, 12, 12, 12),
                ExampleSamples.sample(Direction.LESS_IS_BETTER, 1, 12, 12, 12),
                ExampleSamples.sample(Direction.LESS_IS_BETTER, 1, 12, 12, 12));
        NoisePrior prior = NoisePrior.fit(equal).orElseThrow();
        assertThat(prior.variance()).isCloseTo(1.0 / 12 / 12 / 12, within(1e-15));
    }

    @Test
    void equalReadingsWithoutAResolutionSayNothingAboutNoise() {
        List<SampleMoments> withEqual = new ArrayList<>(ExampleSamples.A);
        withEqual.add(ExampleSamples.more(5, 5, 5));
        assertThat(NoisePrior.fit(withEqual)).isEqualTo(NoisePrior.fit(ExampleSamples.A));
    }

    @Test
    void manySamplesLendAtMostThirtyDegreesOfFreedom() {
        Random random = new Random(11);
        List<SampleMoments> many = new ArrayList<>();
        for (int i = 0; i < 400; i++) {
            many.add(ExampleSamples.more(gauss(random), gauss(random), gauss(random)));
        }
        NoisePrior prior = NoisePrior.fit(many).orElseThrow();
        assertThat(prior.degreesOfFreedom()).isEqualTo(30);
        assertThat(Math.sqrt(prior.variance())).isCloseTo(0.01, within(0.001));
    }

    /** ψ′(d₀/2) is the excess spread of the spreads: found again from the answer, with few runs and with very many. */
    @Test
    void whatIsLentFitsTheSpreadOfTheSpreads() {
        for (int runs : new int[] {3, 20, 64, 65, 66, 200}) {
            for (double apart : new double[] {0.35, 0.9, 2.5}) {
                Random random = new Random(runs);
                List<SampleMoments> samples = new ArrayList<>();
                for (int i = 0; i < 60; i++) {
                    double own = 1e-4 * Math.exp(apart * random.nextGaussian());
                    samples.add(new SampleMoments(runs, 1, own * (runs - 1), 0));
                }
                double d = (runs - 1) / 2.0;
                double[] e = samples.stream()
                        .mapToDouble(s -> Math.log(s.sumSquares() / (s.n() - 1)) - Digamma.value(d) + Math.log(d))
                        .toArray();
                double mean = Arrays.stream(e).average().orElseThrow();
                double excess =
                        Arrays.stream(e).map(x -> (x - mean) * (x - mean)).sum() / (e.length - 1) - Trigamma.value(d);
                double cap = Math.min(30, 60 * (runs - 1) / 3.0);
                NoisePrior prior = NoisePrior.fit(samples).orElseThrow();
                if (excess > 0 && 2 * root(excess) < cap) {
                    assertThat(Trigamma.value(prior.degreesOfFreedom() / 2))
                            .as("%d runs, spreads apart by %s", runs, apart)
                            .isCloseTo(excess, within(1e-9 * excess));
                    double half = prior.degreesOfFreedom() / 2;
                    assertThat(Math.log(prior.variance()))
                            .isCloseTo(mean + Digamma.value(half) - Math.log(half), within(1e-9));
                } else {
                    assertThat(prior.degreesOfFreedom()).isEqualTo(cap);
                }
            }
        }
    }

    /** Where ψ′ is y, by halving: slow and plain. */
    private static double root(double y) {
        double low = 1e-3;
        double high = 1e6;
        for (int i = 0; i < 200; i++) {
            double middle = Math.sqrt(low * high);
            if (Trigamma.value(middle) > y) {
                low = middle;
            } else {
                high = middle;
            }
        }
        return low;
    }

    @Test
    void threeSamplesAreEnoughToLend() {
        assertThat(NoisePrior.fit(ExampleSamples.A.subList(0, 3))).isPresent();
    }

    private static double gauss(Random random) {
        return 100 * Math.exp(0.01 * random.nextGaussian());
    }
}
