package yarrowmark.core.setup;

/**
 * The outer size of a closed device, in m.
 *
 * @throws IllegalArgumentException where a side is not above 0 and finite
 */
public record BodySize(double width, double depth, double height) {
    public BodySize {
        for (double side : new double[] {width, depth, height}) {
            if (!(side > 0 && side < Double.POSITIVE_INFINITY)) {
                throw new IllegalArgumentException("a side is above 0 and finite, not " + side);
            }
        }
    }

    /** The shortest side, in m: whichever way somebody called the sides. */
    public double thickness() {
        return Math.min(width, Math.min(depth, height));
    }

    /** Volume of the box around it, in litres. */
    public double litres() {
        return width * depth * height * 1000;
    }
}
