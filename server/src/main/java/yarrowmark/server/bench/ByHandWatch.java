package yarrowmark.server.bench;

import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.event.TransactionPhase;
import org.springframework.transaction.event.TransactionalEventListener;
import yarrowmark.server.ledger.record.RunStored;

/** A device that waits for a test carried out by hand goes on as soon as its last score is typed. */
@Component
class ByHandWatch {
    private final SeatRepository seats;
    private final ByHandRuns runs;
    private final ApplicationEventPublisher events;

    ByHandWatch(SeatRepository seats, ByHandRuns runs, ApplicationEventPublisher events) {
        this.seats = seats;
        this.runs = runs;
        this.events = events;
    }

    @TransactionalEventListener(phase = TransactionPhase.AFTER_COMMIT)
    @Transactional(propagation = Propagation.REQUIRES_NEW)
    public void stored(RunStored run) {
        seats.findBySessionId(run.sessionId())
                .filter(s -> s.phase() == Phase.BY_HAND)
                .flatMap(s -> seats.lockById(s.id()))
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
