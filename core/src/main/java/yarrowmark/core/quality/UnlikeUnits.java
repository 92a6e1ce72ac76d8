package yarrowmark.core.quality;

import java.util.ArrayList;
import java.util.List;
import yarrowmark.core.compare.Materiality;
import yarrowmark.core.compare.PairComparison;
import yarrowmark.core.stats.Noise;
import yarrowmark.core.stats.Sample;

/**
 * Two units that should be alike and are not: the same metric on the same configuration of facts differs by a clear gain
 * or loss. Section 6.
 *
 * @param one   index of a unit
 * @param other index of a later one
 */
public record UnlikeUnits(int one, int other, PairComparison difference) {
    /** @param units samples of one metric, one for each unit with the same facts; every pair is looked at */
    public static List<UnlikeUnits> among(List<Sample> units, Noise noise, Materiality materiality) {
        List<UnlikeUnits> found = new ArrayList<>();
        for (int one = 0; one < units.size(); one++) {
            for (int other = one + 1; other < units.size(); other++) {
                PairComparison pair = PairComparison.of(units.get(other), units.get(one), noise, materiality);
                if (pair.verdict().isClear()) {
                    found.add(new UnlikeUnits(one, other, pair));
                }
            }
        }
        return found;
    }
}
