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
                List.copyOf(p.items()));
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
