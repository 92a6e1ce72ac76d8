package yarrowmark.server.bench;

import org.springframework.context.ApplicationEventPublisher;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;
import yarrowmark.server.ledger.record.RunStored;
import yarrowmark.server.platform.records.AfterCommitQueue;
import yarrowmark.server.platform.records.Locks;

/** A device that waits for a test carried out by hand goes on as soon as its last score is typed. */
@Component
class ByHandWatch {
    private final SeatRepository seats;
    private final Locks locks;
    private final ByHandRuns runs;
    private final ApplicationEventPublisher events;
    private final AfterCommitQueue later;
    private final TransactionTemplate transaction;

    ByHandWatch(
            SeatRepository seats,
            Locks locks,
            ByHandRuns runs,
            ApplicationEventPublisher events,
            AfterCommitQueue later,
            PlatformTransactionManager transactions) {
        this.seats = seats;
        this.locks = locks;
        this.runs = runs;
        this.events = events;
        this.later = later;
        this.transaction = new TransactionTemplate(transactions);
    }

    @EventListener
    void stored(RunStored run) {
        later.afterCommit(run, () -> transaction.executeWithoutResult(t -> goOn(run)));
    }

    private void goOn(RunStored run) {
        seats.findBySessionId(run.sessionId())
                .filter(s -> s.phase() == Phase.BY_HAND)
                .flatMap(s -> locks.lock(Seat.class, s.id()))
                .ifPresent(seat -> {
                    if (seat.phase() == Phase.BY_HAND
                            && seat.phaseTestId() != null
                            && seat.phaseTestId() == run.testId()
                            && runs.areDone(seat, run.testId())) {
                        seat.order(Command.GO);
                    }
                    events.publishEvent(new SeatChanged(seat.id()));
                });
    }
}
