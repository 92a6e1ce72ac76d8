package yarrowmark.server.plan;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import org.jspecify.annotations.Nullable;

/**
 * A plan with what it proposes.
 *
 * @param timedMs       least timed part of a run, in ms
 * @param pauseMs       between runs, in ms
 * @param stopOnFailure whether the first failed run ends the round
 * @param builtIn       there from the start, and not to be changed
 * @param shuffleSeed   present where the tests come in a random order, the same for each device
 * @param mostRuns      where runs go on until the mean is known: as many at most
 * @param knownWithin   in per cent: how well the mean has to be known; absent where the runs are counted
 * @param days          on how many days each device is measured; absent for one
 * @param coolByProbe   whether a pause lasts until the device is as fast as it was cold
 */
public record PlanRow(
        long id,
        String name,
        int runs,
        int timedMs,
        int pauseMs,
        boolean stopOnFailure,
        boolean builtIn,
        @Nullable Long shuffleSeed,
        boolean coolByProbe,
        @Nullable Integer mostRuns,
        @Nullable Double knownWithin,
        @Nullable Integer days,
        List<PlanItem> items) {
    static PlanRow of(Plan p) {
        return new PlanRow(
                p.id(),
                p.name(),
                p.runs(),
                p.timedMs(),
                p.pauseMs(),
                p.stopOnFailure(),
                p.madeBy() == null,
                p.shuffleSeed(),
                p.coolByProbe(),
                p.mostRuns(),
                p.knownWithin(),
                p.days(),
                List.copyOf(p.items()));
    }

    /** How often a test is run at most. */
    public int most(PlanItem item, int least) {
        return item.runs() != null
                ? item.runs()
                : knownWithin == null || mostRuns == null ? least : Math.max(least, mostRuns);
    }

    /** Whether its runs go on until the mean is known. */
    public boolean asLongAsItTakes(PlanItem item) {
        return item.runs() == null && knownWithin != null && mostRuns != null;
    }

    /** In the order they are carried out. @param mustOnly without what is only nice to have */
    public List<PlanItem> items(boolean mustOnly) {
        List<PlanItem> order = new ArrayList<>(items);
        if (shuffleSeed != null) {
            Collections.shuffle(order, new Random(shuffleSeed));
        }
        return mustOnly ? order.stream().filter(i -> !i.nice()).toList() : order;
    }
}
