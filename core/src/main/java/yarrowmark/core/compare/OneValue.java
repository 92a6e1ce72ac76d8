package yarrowmark.core.compare;

import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Merit;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.stats.Centre;
import yarrowmark.core.stats.Noise;
import yarrowmark.core.stats.Sample;
import yarrowmark.core.stats.SessionNoise;

/**
 * The value of one sample by itself, in the metric's unit, with its 95 % interval: m ± t(ν) √v, on merits, with v = σᵤ² Σu² +
 * s̃² Σu²/n and Welch-Satterthwaite degrees of freedom, at least 1; the same v as a side of {@link PairComparison} has.
 *
 * <p>Edge case: where nobody measured how noisy a difference metric is, the ends are not known. Source: sections 3 and 11 of
 * the method.
 *
 * @param low  lower end, not a number where nothing is known
 * @param high upper end, not a number where nothing is known
 */
public record OneValue(double value, double low, double high, boolean assumed, boolean withinOneSession) {
    public static OneValue of(Sample sample, Noise noise, Direction direction, Scale scale) {
        Centre centre = scale == Scale.RATIO ? Centre.of(sample, noise) : Centre.ofDifference(sample, noise);
        double value = Merit.toValue(centre.merit(), direction, scale);
        if (centre.isAnywhere()) {
            return new OneValue(value, Double.NaN, Double.NaN, centre.assumed(), centre.withinOneSession());
        }
        double variance = centre.variance();
        double terms = Gap.square(centre.runVariance()) / centre.runDegrees();
        if (centre.sessionVariance() > 0) {
            SessionNoise days = noise.days().orElseThrow();
            terms += Gap.square(centre.sessionSquares() * (days.variance() + days.subtracted()))
                    / days.degreesOfFreedom();
        }
        double half = PairComparison.half(
                variance, Math.max(1, terms == 0 ? centre.runDegrees() : variance * variance / terms));
        double one = Merit.toValue(centre.merit() - half, direction, scale);
        double other = Merit.toValue(centre.merit() + half, direction, scale);
        return new OneValue(
                value, Math.min(one, other), Math.max(one, other), centre.assumed(), centre.withinOneSession());
    }
}
