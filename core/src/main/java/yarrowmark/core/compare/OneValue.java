package yarrowmark.core.compare;

import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Merit;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.stats.Centre;
import yarrowmark.core.stats.Noise;
import yarrowmark.core.stats.Sample;

/**
 * The value of one sample by itself, in the metric's unit, with its 95 % interval: m ± t(ν) √v, on merits, with v = σᵤᵢ² Σu² +
 * s̃² Σu²/n and Welch-Satterthwaite degrees of freedom, at least 1; the same v as a side of {@link PairComparison} has.
 *
 * <p>Edge case: where nothing says how noisy a difference metric is, the ends are not known. Source: sections 3 and 11 of
 * the method.
 *
 * @param low        lower end, not a number where nothing is known
 * @param high       upper end, not a number where nothing is known
 * @param unmeasured whether it rests on a stated or usual spread, which nobody measured here
 */
public record OneValue(double value, double low, double high, boolean unmeasured) {
    public static OneValue of(Sample sample, Noise noise, Direction direction, Scale scale) {
        Centre centre = Centre.of(sample, noise);
        double value = Merit.toValue(centre.merit(), direction, scale);
        if (centre.isAnywhere()) {
            return new OneValue(value, Double.NaN, Double.NaN, true);
        }
        double half = PairComparison.half(centre.variance(), centre.degreesOfFreedom());
        double one = Merit.toValue(centre.merit() - half, direction, scale);
        double other = Merit.toValue(centre.merit() + half, direction, scale);
        return new OneValue(value, Math.min(one, other), Math.max(one, other), centre.unmeasured());
    }
}
