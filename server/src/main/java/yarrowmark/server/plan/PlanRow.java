package yarrowmark.server.plan;

import java.util.List;

/**
 * A plan with what it proposes.
 *
 * @param timedMs least timed part of a run, in ms
 * @param pauseMs between runs, in ms
 */
public record PlanRow(long id, String name, int runs, int timedMs, int pauseMs, List<Long> testIds) {
    static PlanRow of(Plan p) {
        return new PlanRow(p.id(), p.name(), p.runs(), p.timedMs(), p.pauseMs(), List.copyOf(p.testIds()));
    }
}
