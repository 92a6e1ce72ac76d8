package yarrowmark.core.curve;

import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.OptionalDouble;
import java.util.stream.IntStream;

/**
 * A value over x, such as throughput over block size.
 *
 * <p>Input: two points or more, every x and y above 0 and finite, no x twice; in any order. Interpolation is linear in
 * ln x and ln y, inside the range only. Source: section 9 of the method.
 */
public final class Curve {
    /** Of the peak. */
    private static final double NEAR_PEAK = 0.9;
    /** Below what lies between the points on either side. */
    private static final double DENT = 0.15;

    private final double[] x;
    private final double[] y;

    /** @param x where the value is held against another one */
    public record Ratio(double x, double ratio) {}

    public record Point(double x, double y) {}

    public Curve(List<Point> points) {
        if (points.size() < 2) {
            throw new IllegalArgumentException("a curve needs two points or more, not " + points.size());
        }
        List<Point> sorted =
                points.stream().sorted(Comparator.comparingDouble(Point::x)).toList();
        x = sorted.stream().mapToDouble(Point::x).toArray();
        y = sorted.stream().mapToDouble(Point::y).toArray();
        for (int i = 0; i < x.length; i++) {
            if (!(x[i] > 0 && x[i] < Double.POSITIVE_INFINITY && y[i] > 0 && y[i] < Double.POSITIVE_INFINITY)) {
                throw new IllegalArgumentException(
                        "every x and y of a curve is above 0 and finite, not " + x[i] + ", " + y[i]);
            }
            if (i > 0 && x[i] == x[i - 1]) {
                throw new IllegalArgumentException("x " + x[i] + " is there twice");
            }
        }
    }

    /** In the order of x. */
    public List<Point> points() {
        return IntStream.range(0, x.length).mapToObj(i -> new Point(x[i], y[i])).toList();
    }

    /** The point with the largest y; of several, that with the smallest x. */
    public Point peak() {
        int best = 0;
        for (int i = 1; i < y.length; i++) {
            best = y[i] > y[best] ? i : best;
        }
        return new Point(x[best], y[best]);
    }

    /** The smallest measured x whose y reaches 90 % of the peak. */
    public double nearPeakFrom() {
        double wanted = NEAR_PEAK * peak().y();
        return IntStream.range(0, x.length)
                .filter(i -> y[i] >= wanted)
                .mapToDouble(i -> x[i])
                .findFirst()
                .orElseThrow();
    }

    /**
     * Inner points at least 15 % below what lies between the nearest points on either side that are no dents themselves,
     * found from the deepest one on. A point between its neighbours is on a rise or a fall, however steep.
     */
    public List<Point> dents() {
        boolean[] dent = new boolean[y.length];
        for (int deepest = deepest(dent); deepest >= 0; deepest = deepest(dent)) {
            dent[deepest] = true;
        }
        return IntStream.range(0, y.length)
                .filter(i -> dent[i])
                .mapToObj(i -> new Point(x[i], y[i]))
                .toList();
    }

    /** @return the deepest point that is a dent beside those found; -1 where there is none */
    private int deepest(boolean[] found) {
        int deepest = -1;
        double least = 1 - DENT;
        for (int i = 1; i < y.length - 1; i++) {
            if (found[i]) {
                continue;
            }
            int before = i - 1;
            while (found[before]) {
                before--;
            }
            int after = i + 1;
            while (found[after]) {
                after++;
            }
            double left = y[i] / between(before, after, x[i]);
            if (y[i] < Math.min(y[before], y[after]) && left <= least) {
                least = left;
                deepest = i;
            }
        }
        return deepest;
    }

    private double between(int before, int after, double at) {
        double share = Math.log(at / x[before]) / Math.log(x[after] / x[before]);
        return y[before] * Math.pow(y[after] / y[before], share);
    }

    /** y at any x inside the range; empty outside. */
    public OptionalDouble at(double wanted) {
        int i = Arrays.binarySearch(x, wanted);
        if (i >= 0) {
            return OptionalDouble.of(y[i]);
        }
        int above = -i - 1;
        if (above == 0 || above == x.length || Double.isNaN(wanted)) {
            return OptionalDouble.empty();
        }
        return OptionalDouble.of(between(above - 1, above, wanted));
    }

    /** This over the base, at every x that either has and both cover; equal x directly, others interpolated. */
    public List<Ratio> over(Curve base) {
        return IntStream.range(0, 2)
                .boxed()
                .flatMap(i -> Arrays.stream(i == 0 ? x : base.x).boxed())
                .distinct()
                .sorted()
                .filter(at -> at(at).isPresent() && base.at(at).isPresent())
                .map(at -> new Ratio(at, at(at).getAsDouble() / base.at(at).getAsDouble()))
                .toList();
    }
}
