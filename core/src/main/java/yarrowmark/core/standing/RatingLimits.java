package yarrowmark.core.standing;

import yarrowmark.core.measure.Direction;

/**
 * From where on a value of a test is good, and from where on poor, both in the test's unit and both included.
 *
 * @param direction which of two values is better
 */
public record RatingLimits(Direction direction, double good, double poor) {
    /** @throws IllegalArgumentException where a limit is no number, or good does not lie on the better side of poor */
    public RatingLimits {
        if (!Double.isFinite(good) || !Double.isFinite(poor)) {
            throw new IllegalArgumentException("a limit must be a number");
        }
        if (direction == Direction.MORE_IS_BETTER ? good <= poor : good >= poor) {
            throw new IllegalArgumentException(
                    direction == Direction.MORE_IS_BETTER
                            ? "more is better, so good begins above poor"
                            : "less is better, so good begins below poor");
        }
    }

    public Rating of(double value) {
        boolean more = direction == Direction.MORE_IS_BETTER;
        if (more ? value >= good : value <= good) {
            return Rating.GOOD;
        }
        return (more ? value <= poor : value >= poor) ? Rating.POOR : Rating.AVERAGE;
    }
}
