package yarrowmark.core.quality;

import java.util.Collection;
import java.util.List;

/**
 * A metric whose first run of a sitting is a warm-up: run 1 is the worst in at least 80 % of the sessions with three or
 * more runs, and there are five or more of these.
 *
 * @param sessions   with three or more runs
 * @param firstWorst of them, those whose first run is worse than every other
 */
public record WarmUp(int sessions, int firstWorst) {
    private static final int FEWEST_RUNS = 3;
    private static final int FEWEST_SESSIONS = 5;
    private static final double SHARE = 0.8;

    /** @param merits for each session the merits of its runs in order */
    public static WarmUp of(Collection<List<Double>> merits) {
        List<List<Double>> enough =
                merits.stream().filter(m -> m.size() >= FEWEST_RUNS).toList();
        int worst = (int) enough.stream()
                .filter(m -> m.stream().skip(1).allMatch(later -> m.get(0) < later))
                .count();
        return new WarmUp(enough.size(), worst);
    }

    /** Whether first runs are marked. */
    public boolean applies() {
        return sessions >= FEWEST_SESSIONS && firstWorst >= SHARE * sessions;
    }
}
