package yarrowmark.core.trend;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.apache.commons.rng.UniformRandomProvider;
import org.apache.commons.rng.sampling.distribution.ZigguratSampler;
import org.apache.commons.rng.simple.RandomSource;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.compare.Materiality;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Measured;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.stats.Noise;
import yarrowmark.core.stats.NoisePrior;
import yarrowmark.core.stats.Sample;
import yarrowmark.core.stats.SampleMoments;
import yarrowmark.core.stats.SharedDay;

/** How often a level is said to have changed that did not, and how often a jump is found. Run by bin/bench. */
public final class LevelChangesTruth {
    private static final boolean SMALLEST = Boolean.getBoolean("yarrowmark.smallest");
    private static final int SERIES = SMALLEST ? 20 : 2_000;
    private static final int STEPS = 12;
    private static final int RUNS = 3;
    private static final double NOISE = 0.01;

    private LevelChangesTruth() {}

    public static void main(String[] arguments) {
        UniformRandomProvider random = RandomSource.XO_RO_SHI_RO_128_PP.create(11);
        ZigguratSampler.NormalizedGaussian normal = ZigguratSampler.NormalizedGaussian.of(random);
        // Of a mean of three runs.
        double error = NOISE / Math.sqrt(RUNS);
        for (double jump : new double[] {0, 2, 4, 6}) {
            int marked = 0;
            for (int s = 0; s < SERIES; s++) {
                marked += TrendLines.ofOne(series(jump * error, normal), Materiality.USUAL)
                                .changes()
                                .isEmpty()
                        ? 0
                        : 1;
            }
            System.out.printf(
                    Locale.ROOT,
                    "%d steps of %d runs, a jump of %.0f standard errors: %.1f %% of %d series have a change%n",
                    STEPS,
                    RUNS,
                    jump,
                    100.0 * marked / SERIES,
                    SERIES);
        }
    }

    private static TrendMetric series(double jump, ZigguratSampler.NormalizedGaussian normal) {
        List<@Nullable Sample> samples = new ArrayList<>();
        List<SampleMoments> all = new ArrayList<>();
        for (int i = 0; i < STEPS; i++) {
            List<Measured> runs = new ArrayList<>();
            for (int r = 0; r < RUNS; r++) {
                runs.add(Measured.exact(100 * Math.exp((i < STEPS / 2 ? 0 : jump) + NOISE * normal.sample())));
            }
            SampleMoments moments = SampleMoments.of(runs, Direction.MORE_IS_BETTER, Scale.RATIO);
            all.add(moments);
            samples.add(Sample.ofOneSession(i, moments));
        }
        Optional<NoisePrior> lent = NoisePrior.fit(all);
        return new TrendMetric(samples, new Noise(lent, Optional.empty(), Noise.Source.METRIC), SharedDay.UNKNOWN, 1);
    }
}
