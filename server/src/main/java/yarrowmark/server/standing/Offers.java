package yarrowmark.server.standing;

import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import yarrowmark.core.standing.CommonUse;
import yarrowmark.server.catalog.MetricRow;

/** Where more could be placed: groups and suites that more of those ranked have run than what they are ranked over. */
final class Offers {
    private static final int MOST = 3;

    private Offers() {}

    /** @param taken columns that are ranked now. @return the best first */
    static List<Standings.Offer> of(StandingGrid grid, CommonUse.Weighing weighing, int[] taken) {
        int now = CommonUse.placed(grid.merits(), taken, weighing);
        if (now == grid.configurations().size()) {
            return List.of();
        }
        Map<String, String> names = new LinkedHashMap<>();
        for (MetricRow m : grid.metrics()) {
            names.putIfAbsent(m.partKeys().get(0), m.group().label());
            names.putIfAbsent(m.partKeys().get(1), m.suite() + " " + m.version());
        }
        return names.entrySet().stream()
                .map(e -> new Standings.Offer(
                        e.getKey(),
                        e.getValue(),
                        CommonUse.placed(
                                grid.merits(),
                                IntStream.range(0, grid.metrics().size())
                                        .filter(j ->
                                                grid.metrics().get(j).partKeys().contains(e.getKey()))
                                        .toArray(),
                                weighing)))
                .filter(o -> o.placed() > now)
                .sorted(Comparator.comparingInt(Standings.Offer::placed).reversed())
                .limit(MOST)
                .toList();
    }
}
