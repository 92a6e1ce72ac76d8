package yarrowmark.core.trend;

import java.util.OptionalInt;
import yarrowmark.core.compare.Materiality;

/** Steps along a quantity that costs something, such as a power limit: how far it is worth going. */
public final class Ladder {
    private Ladder() {}

    /** The best merit up to each step; NaN before the first that has one. */
    public static double[] bestSoFar(double[] merits) {
        double[] best = new double[merits.length];
        double most = Double.NaN;
        for (int i = 0; i < merits.length; i++) {
            if (!Double.isNaN(merits[i]) && !(merits[i] <= most)) {
                most = merits[i];
            }
            best[i] = most;
        }
        return best;
    }

    /**
     * The knee: the first step after which no further one brings as much as matters. Empty where every step up to the last
     * one does, or fewer than two have a result.
     *
     * @param merits one for each step, in rising order of the quantity; NaN where there is none
     */
    public static OptionalInt knee(double[] merits, Materiality materiality) {
        double[] best = bestSoFar(merits);
        int knee = -1;
        double before = Double.NaN;
        int last = -1;
        for (int i = 0; i < best.length; i++) {
            if (Double.isNaN(merits[i])) {
                continue;
            }
            if (Double.isNaN(before) || best[i] - before >= materiality.onMerits()) {
                knee = i;
            }
            before = best[i];
            last = i;
        }
        return knee < 0 || knee == last ? OptionalInt.empty() : OptionalInt.of(knee);
    }
}
