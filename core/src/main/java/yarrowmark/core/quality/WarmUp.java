package yarrowmark.core.quality;

import java.util.Collection;
import java.util.List;
import yarrowmark.core.compare.Materiality;

/**
 * A metric whose first run of a sitting is a warm-up: over the sessions with three or more runs, of which there are six or
 * more, run 1 is the worst in at least 80 %, and on average at least half as much worse than the mean of the others as
 * matters. Section 6.
 *
 * @param sessions   with three or more runs
 * @param firstWorst of them, those whose first run is worse than every other
 * @param behind     by how much run 1 is worse than the mean of the others, on average, on merits
 */
public record WarmUp(int sessions, int firstWorst, double behind) {
    private static final int FEWEST_RUNS = 3;
    private static final int FEWEST_SESSIONS = 6;
    private static final double SHARE = 0.8;

    /** @param merits for each session the merits of its runs in order */
    public static WarmUp of(Collection<List<Double>> merits) {
        List<List<Double>> enough =
                merits.stream().filter(m -> m.size() >= FEWEST_RUNS).toList();
        int worst = (int) enough.stream()
                .filter(m -> m.stream().skip(1).allMatch(later -> m.get(0) < later))
                .count();
        double behind = enough.stream()
                .mapToDouble(m -> m.stream()
                                .skip(1)
                                .mapToDouble(Double::doubleValue)
                                .average()
                                .orElseThrow()
                        - m.get(0))
                .average()
                .orElse(0);
        return new WarmUp(enough.size(), worst, behind);
    }

    /** Whether first runs are marked. */
    public boolean applies() {
        return sessions >= FEWEST_SESSIONS
                && firstWorst >= SHARE * sessions
                && behind >= Materiality.USUAL.onMerits() / 2;
    }
}
