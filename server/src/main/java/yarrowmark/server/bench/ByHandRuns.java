package yarrowmark.server.bench;

import java.util.List;
import org.springframework.stereotype.Component;
import yarrowmark.server.ledger.record.Ledger;
import yarrowmark.server.plan.Plans;

/** Whether a test that the reviewer carries out has a score, or a reason, for each of its runs. */
@Component
class ByHandRuns {
    private final Plans plans;
    private final Ledger ledger;

    ByHandRuns(Plans plans, Ledger ledger) {
        this.plans = plans;
        this.ledger = ledger;
    }

    boolean areDone(Seat seat, long testId) {
        int planned = plans.plan(seat.planId()).items().stream()
                .filter(i -> i.testId() == testId)
                .findFirst()
                .map(i -> i.runs() == null ? seat.runs() : i.runs())
                .orElse(seat.runs());
        return ledger.runs(List.of(seat.sessionId())).stream()
                        .filter(r -> r.testId() == testId)
                        .map(Ledger.RunPart::runNumber)
                        .distinct()
                        .count()
                >= planned;
    }
}
