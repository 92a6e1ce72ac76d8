package yarrowmark.core.compare;

import java.util.OptionalInt;

/**
 * Which part of an overall moves it so far that the overall alone would mislead: without it, the overall is another one by
 * more than twice what matters, and by more than half of what it says.
 */
public final class Sway {
    private static final double TIMES_WHAT_MATTERS = 2;
    private static final double SHARE = 0.5;

    private Sway() {}

    /**
     * @param overall ln of the overall ratio
     * @param without ln of the overall without each part; NaN where nothing would be left
     * @return the position of the part that moves it most, where one moves it so far
     */
    public static OptionalInt of(double overall, double[] without, Materiality materiality) {
        double least = Math.max(TIMES_WHAT_MATTERS * materiality.onMerits(), SHARE * Math.abs(overall));
        int most = -1;
        double furthest = least;
        for (int i = 0; i < without.length; i++) {
            double moved = Math.abs(without[i] - overall);
            if (moved > furthest) {
                furthest = moved;
                most = i;
            }
        }
        return most < 0 ? OptionalInt.empty() : OptionalInt.of(most);
    }
}
