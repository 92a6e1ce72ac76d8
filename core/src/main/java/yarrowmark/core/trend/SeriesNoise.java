package yarrowmark.core.trend;

import java.util.List;
import yarrowmark.core.stats.Centre;
import yarrowmark.core.stats.Noise;
import yarrowmark.core.stats.Sample;
import yarrowmark.core.stats.SampleMoments;
import yarrowmark.core.stats.WorkingVariance;

/**
 * How well the means of a series are known against one another. It is one device and one metric, so its runs are taken to be
 * as noisy at each step: a few runs that happen to agree would else weigh a step far too much, and a change of level be
 * seen where there is none.
 *
 * <p>s² = Σ sums of squares / Σ degrees of freedom over all steps where those are {@value #ENOUGH} or more, else together
 * with what is lent. vᵢ = s² Σu²/n + σᵤ² Σu², never below what rounding alone gives; ν by Satterthwaite over their means.
 * Source: sections 2, 7 and 11 of the method.
 *
 * @param variances of the means, in order
 * @param degrees   of freedom of their common scale
 */
record SeriesNoise(double[] variances, double degrees) {
    private static final int ENOUGH = 8;

    static SeriesNoise of(List<Sample> samples, List<Centre> centres, Noise noise) {
        if (centres.get(0).holdsRuns()) {
            return new SeriesNoise(
                    centres.stream().mapToDouble(Centre::variance).toArray(),
                    centres.get(0).dayDegrees());
        }
        // As if all runs were those of one sample, each held against the mean of its own session.
        int degrees = samples.stream().mapToInt(Sample::degreesOfFreedom).sum();
        SampleMoments shared = new SampleMoments(
                degrees + 1,
                0,
                samples.stream().mapToDouble(Sample::sumSquares).sum(),
                samples.stream()
                        .mapToDouble(Sample::resolutionVariance)
                        .average()
                        .orElseThrow());
        WorkingVariance runs = (degrees >= ENOUGH ? Noise.UNKNOWN : noise).working(shared);
        double[] variances = new double[samples.size()];
        double ofRuns = 0;
        double ofDays = 0;
        for (int i = 0; i < variances.length; i++) {
            Centre c = centres.get(i);
            double part = Math.max(
                    runs.variance() / samples.get(i).n(), samples.get(i).resolutionVariance() - c.sessionVariance());
            variances[i] = part + c.sessionVariance();
            ofRuns += part;
            ofDays += c.sessionVariance();
        }
        double daysDegrees = noise.days().map(d -> d.degreesOfFreedom()).orElse(Double.POSITIVE_INFINITY);
        double terms = ofRuns * ofRuns / runs.degreesOfFreedom() + ofDays * ofDays / daysDegrees;
        double whole = ofRuns + ofDays;
        return new SeriesNoise(variances, terms == 0 ? Double.POSITIVE_INFINITY : whole * whole / terms);
    }
}
