package yarrowmark.core.formula;

import java.util.List;
import java.util.function.ToDoubleFunction;
import java.util.stream.IntStream;

/**
 * How much each part adds to the difference of two of a suite's own totals. They add up to the difference.
 *
 * <ul>
 * <li>Sums and weighted arithmetic means are linear: each part's own change, exactly.
 * <li>Others, up to {@value #MOST_EXACT} parts: Shapley values, the mean over all orders in which the parts could change
 * one after the other (L. S. Shapley, "A value for n-person games", 1953, doi:10.1515/9781400881970-018).
 * <li>Others with more parts: all parts change together and evenly in the logarithm, which is what the Shapley value
 * tends to with many small parts (R. J. Aumann, L. S. Shapley, "Values of non-atomic games", 1974); for a geometric mean
 * it is a closed form, for a harmonic one it is integrated.
 * </ul>
 *
 * <p>Accuracy: exact to rounding for the first two; 1e-9 of the difference for the third. Source: section 4 of the method.
 *
 * @param base   total of the base
 * @param total  of the other
 * @param parts  contribution of each part in the total's unit, in order
 */
public record TotalContributions(double base, double total, List<Double> parts, How how) {
    /** How they were found. */
    public enum How {
        LINEAR,
        SHAPLEY,
        EVENLY
    }

    static final int MOST_EXACT = 10;
    /** Five-point Gauss-Legendre nodes and weights on (0, 1). */
    private static final double[] NODES = {
        0.046910077030668, 0.230765344947158, 0.5, 0.769234655052841, 0.953089922969332
    };

    private static final double[] WEIGHTS = {
        0.118463442528095, 0.239314335249683, 0.284444444444444, 0.239314335249683, 0.118463442528095
    };
    private static final int PIECES = 64;

    public TotalContributions {
        parts = List.copyOf(parts);
    }

    /**
     * @param weights above 0, one a part
     * @param from    parts of the base, above 0
     * @param to      parts of the other, above 0
     */
    public static TotalContributions of(SuiteTotal.Kind kind, double[] weights, double[] from, double[] to) {
        if (weights.length == 0 || from.length != weights.length || to.length != weights.length) {
            throw new IllegalArgumentException("each part has a weight and two values, not " + weights.length + ", "
                    + from.length + " and " + to.length);
        }
        for (int i = 0; i < weights.length; i++) {
            if (!(weights[i] > 0 && from[i] > 0 && to[i] > 0) || Double.isInfinite(weights[i] + from[i] + to[i])) {
                throw new IllegalArgumentException(
                        "weights and parts are above 0 and finite, not " + weights[i] + ", " + from[i] + ", " + to[i]);
            }
        }
        ToDoubleFunction<double[]> total = parts -> total(kind, weights, parts);
        double[] parts;
        How how;
        if (kind == SuiteTotal.Kind.SUM || kind == SuiteTotal.Kind.ARITHMETIC) {
            double scale = kind == SuiteTotal.Kind.SUM
                    ? 1
                    : 1
                            / IntStream.range(0, weights.length)
                                    .mapToDouble(i -> weights[i])
                                    .sum();
            parts = IntStream.range(0, weights.length)
                    .mapToDouble(i -> scale * weights[i] * (to[i] - from[i]))
                    .toArray();
            how = How.LINEAR;
        } else if (weights.length <= MOST_EXACT) {
            parts = shapley(total, from, to);
            how = How.SHAPLEY;
        } else {
            parts = evenly(kind, weights, from, to);
            how = How.EVENLY;
        }
        return new TotalContributions(
                total.applyAsDouble(from),
                total.applyAsDouble(to),
                IntStream.range(0, parts.length).mapToObj(i -> parts[i]).toList(),
                how);
    }

    /** The total itself, as {@link SuiteTotal#formula} writes it. */
    public static double total(SuiteTotal.Kind kind, double[] weights, double[] parts) {
        double sum = 0;
        double weight = 0;
        for (int i = 0; i < parts.length; i++) {
            weight += weights[i];
            sum += switch (kind) {
                case SUM, ARITHMETIC -> weights[i] * parts[i];
                case GEOMETRIC -> weights[i] * Math.log(parts[i]);
                case HARMONIC -> weights[i] / parts[i];
            };
        }
        return switch (kind) {
            case SUM -> sum;
            case ARITHMETIC -> sum / weight;
            case GEOMETRIC -> Math.exp(sum / weight);
            case HARMONIC -> weight / sum;
        };
    }

    private static double[] shapley(ToDoubleFunction<double[]> total, double[] from, double[] to) {
        int n = from.length;
        double[] ofSet = new double[1 << n];
        double[] mixed = new double[n];
        for (int set = 0; set < ofSet.length; set++) {
            for (int i = 0; i < n; i++) {
                mixed[i] = (set >> i & 1) == 1 ? to[i] : from[i];
            }
            ofSet[set] = total.applyAsDouble(mixed);
        }
        // The share of orders in which exactly k given parts come before one: k! (n − 1 − k)! / n!
        double[] share = new double[n];
        share[0] = 1.0 / n;
        for (int k = 1; k < n; k++) {
            share[k] = share[k - 1] * k / (n - k);
        }
        double[] parts = new double[n];
        for (int set = 0; set < ofSet.length; set++) {
            for (int i = 0; i < n; i++) {
                if ((set >> i & 1) == 0) {
                    parts[i] += share[Integer.bitCount(set)] * (ofSet[set | 1 << i] - ofSet[set]);
                }
            }
        }
        return parts;
    }

    /** Along x(t) = from · (to/from)^t the total changes by ∫ ∂total/∂ln xᵢ · ln(toᵢ/fromᵢ) dt for each part. */
    private static double[] evenly(SuiteTotal.Kind kind, double[] weights, double[] from, double[] to) {
        int n = from.length;
        double[] parts = new double[n];
        double[] at = new double[n];
        for (int piece = 0; piece < PIECES; piece++) {
            for (int node = 0; node < NODES.length; node++) {
                double t = (piece + NODES[node]) / PIECES;
                for (int i = 0; i < n; i++) {
                    at[i] = from[i] * Math.pow(to[i] / from[i], t);
                }
                double total = total(kind, weights, at);
                double weight = 0;
                for (double w : weights) {
                    weight += w;
                }
                for (int i = 0; i < n; i++) {
                    double slope = kind == SuiteTotal.Kind.GEOMETRIC
                            ? total * weights[i] / weight
                            : total * total * weights[i] / (weight * at[i]);
                    parts[i] += WEIGHTS[node] / PIECES * slope * Math.log(to[i] / from[i]);
                }
            }
        }
        return parts;
    }
}
