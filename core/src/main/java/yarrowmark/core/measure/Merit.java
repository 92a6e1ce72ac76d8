package yarrowmark.core.measure;

/**
 * The natural logarithm of a reading, signed so that more is better: ln x, or −ln x where less is better.
 * A rate and its reciprocal time therefore have the same merit.
 *
 * <p>Input: a reading of a ratio metric, above 0 and finite. Accuracy: that of {@link Math#log}, one unit in the
 * last place. Source: section 1 of the method.
 */
public final class Merit {
    private Merit() {}

    /** @throws InvalidReadingException when the value is not above 0 and finite */
    public static double of(double value, Direction direction) {
        return direction.sign()
                * Math.log(Measured.exact(value).checkedFor(Scale.RATIO).value());
    }

    /** The same on either scale: for difference metrics the value itself, signed so that more is better. */
    public static double of(double value, Direction direction, Scale scale) {
        return scale == Scale.RATIO ? of(value, direction) : direction.sign() * value;
    }

    /** The inverse of {@link #of(double, Direction, Scale)}. */
    public static double toValue(double merit, Direction direction, Scale scale) {
        return scale == Scale.RATIO ? toValue(merit, direction) : direction.sign() * merit;
    }

    /** The reading that has this merit: the inverse of {@link #of}. */
    public static double toValue(double merit, Direction direction) {
        return Math.exp(direction.sign() * merit);
    }

    /** Merit for each unit of a cost (price, watts, grams): merit − ln(cost). */
    public static double per(double merit, double cost) {
        if (!(cost > 0 && cost < Double.POSITIVE_INFINITY)) {
            throw new IllegalArgumentException("cost must be above 0 and finite, not " + cost);
        }
        return merit - Math.log(cost);
    }
}
