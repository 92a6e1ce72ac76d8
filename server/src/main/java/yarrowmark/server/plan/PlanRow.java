package yarrowmark.server.plan;

import java.util.List;

/**
 * A plan with what it proposes.
 *
 * @param timedMs       least timed part of a run, in ms
 * @param pauseMs       between runs, in ms
 * @param stopOnFailure whether the first failed run ends the round
 * @param builtIn       there from the start, and not to be changed
 */
public record PlanRow(long id, String name, int runs, int timedMs, int pauseMs, boolean stopOnFailure, boolean builtIn, List<PlanItem> items) {
    static PlanRow of(Plan p) {
        return new PlanRow(p.id(), p.name(), p.runs(), p.timedMs(), p.pauseMs(), p.stopOnFailure(), p.madeBy() == null, List.copyOf(p.items()));
    }

    /** @param mustOnly without what is only nice to have */
    public List<PlanItem> items(boolean mustOnly) {
        return mustOnly ? items.stream().filter(i -> !i.nice()).toList() : items;
    }
}
