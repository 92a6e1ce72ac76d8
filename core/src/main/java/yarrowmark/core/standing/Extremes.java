package yarrowmark.core.standing;

import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;

/**
 * The tests in which one configuration does best and worst among others. None is both: the best are those in which it beats
 * more than half of the others, the worst those in which it beats less than half.
 *
 * @param best  positions, the best first
 * @param worst positions, the worst first
 */
public record Extremes(List<Integer> best, List<Integer> worst) {
    private static final double HALF = 0.5;

    /**
     * @param beaten by test, the share of the others that it beats, 0 to 1; NaN where it has no place. Equal ones keep their order
     * @param most   of each kind
     */
    public static Extremes of(double[] beaten, int most) {
        List<Integer> rising = IntStream.range(0, beaten.length)
                .filter(i -> !Double.isNaN(beaten[i]))
                .boxed()
                .sorted(Comparator.comparingDouble(i -> beaten[i]))
                .toList();
        return new Extremes(
                rising.stream()
                        .filter(i -> beaten[i] > HALF)
                        .sorted(Comparator.comparingDouble(i -> -beaten[i]))
                        .limit(most)
                        .toList(),
                rising.stream().filter(i -> beaten[i] < HALF).limit(most).toList());
    }
}
