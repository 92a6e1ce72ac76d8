package yarrowmark.core.trend;

import java.util.ArrayList;
import java.util.List;
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
     * What a step brought for each unit of what it cost.
     *
     * @param from    the step before that has a result
     * @param to      the step
     * @param percent by how much more is done, in per cent of what was done at the step before; negative where it is less
     * @param perUnit percent for each unit of the quantity
     */
    public record Gain(int from, int to, double percent, double perUnit) {}

    /**
     * @param merits   one for each step; NaN where there is none
     * @param quantity of each step, rising; steps with the same quantity have no gain between them
     */
    public static List<Gain> gains(double[] merits, double[] quantity) {
        List<Gain> gains = new ArrayList<>();
        int before = -1;
        for (int i = 0; i < merits.length; i++) {
            if (Double.isNaN(merits[i])) {
                continue;
            }
            if (before >= 0 && quantity[i] > quantity[before]) {
                double percent = 100 * Math.expm1(merits[i] - merits[before]);
                gains.add(new Gain(before, i, percent, percent / (quantity[i] - quantity[before])));
            }
            before = i;
        }
        return gains;
    }

    /**
     * How much is done for each watt, as a ratio to the first step where both are known; NaN where one is not.
     *
     * @param merits of the work alone, without what the power itself is worth
     * @param watts  drawn at each step
     */
    public static double[] perWatt(double[] merits, double[] watts) {
        double[] ratios = new double[merits.length];
        double first = Double.NaN;
        for (int i = 0; i < merits.length; i++) {
            double each = watts[i] > 0 ? merits[i] - Math.log(watts[i]) : Double.NaN;
            first = Double.isNaN(first) ? each : first;
            ratios[i] = Math.exp(each - first);
        }
        return ratios;
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
