package yarrowmark.server.bench;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.catalog.CatalogCache;
import yarrowmark.server.catalog.TestRow;
import yarrowmark.server.ledger.record.Ledger;
import yarrowmark.server.ledger.record.NewRun;
import yarrowmark.server.ledger.record.ReadingCorrections;
import yarrowmark.server.ledger.record.RunState;
import yarrowmark.server.ledger.record.SessionLifecycle;
import yarrowmark.server.ledger.record.SessionState;
import yarrowmark.server.plan.PlanItem;
import yarrowmark.server.plan.PlanRow;
import yarrowmark.server.plan.Plans;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.records.AfterCommit;

/** Takes the runs that a device delivers: each once, whatever the line between them did. */
@Service
class RunDelivery {
    private final DeliveryRepository deliveries;
    private final Plans plans;
    private final CatalogCache catalogCache;
    private final Ledger ledger;
    private final SessionLifecycle lifecycle;
    private final ReadingCorrections corrections;
    private final LateRuns late;
    private final RunClock runClock;
    private final ApplicationEventPublisher events;
    private final DeviceWork deviceWork;

    RunDelivery(
            DeliveryRepository deliveries,
            Plans plans,
            CatalogCache catalogCache,
            Ledger ledger,
            SessionLifecycle lifecycle,
            ReadingCorrections corrections,
            LateRuns late,
            RunClock runClock,
            ApplicationEventPublisher events,
            DeviceWork deviceWork) {
        this.deliveries = deliveries;
        this.plans = plans;
        this.catalogCache = catalogCache;
        this.ledger = ledger;
        this.lifecycle = lifecycle;
        this.corrections = corrections;
        this.late = late;
        this.runClock = runClock;
        this.events = events;
        this.deviceWork = deviceWork;
    }

    /** @param runId absent where the run came after the session's end. @param late whether it waits for the reviewer */
    record Delivered(@Nullable Long runId, boolean late) {}

    /** A device tries a failed run again a few times; more is somebody who fills the ledger. */
    private static final int MOST_ATTEMPTS = 50;

    /**
     * Stores a delivered run once, however often it is delivered under the same key.
     *
     * @param bodyHash of what was delivered; another body under the same key is refused
     * @return where it is now: in the ledger, or kept for the reviewer because its session was ended without the device
     */
    @Transactional
    public Delivered deliver(long seatId, String key, String bodyHash, NewRun given) {
        Seat seat = deviceWork.heard(seatId);
        var known = deliveries.findById(new Delivery.Key(seatId, key));
        if (known.isPresent()) {
            if (!known.get().bodyHash().equals(bodyHash)) {
                throw Problem.invalid("key-reused", "Something else was delivered under this idempotency key before.");
            }
            return new Delivered(known.get().runId(), false);
        }
        if (seat.sessionId() == null) {
            throw Problem.conflict("not-started", "This device has no session yet. Start it first.");
        }
        TestRow test =
                catalogCache.tests(List.of(given.testId())).stream().findFirst().orElse(null);
        NewRun told = CommandOutput.completed(test, given);
        List<String> doubts = DoubtedRuns.doubts(
                test, told, runClock.sinceBegan(seatId, told.testId(), told.runNumber(), told.finishedAt()));
        NewRun run = told.withDisturbance(doubts);
        PlanRow plan = plans.plan(seat.planId());
        PlanItem item = plan.items(seat.mustOnly()).stream()
                .filter(i -> i.testId() == run.testId())
                .findFirst()
                .orElseThrow(() ->
                        Problem.invalid("unknown-test", "Test " + run.testId() + " is not in this device's plan."));
        int planned = plan.most(item, seat.runs());
        if (run.runNumber() > planned) {
            throw Problem.invalid(
                    "run-not-planned",
                    "The plan has " + planned + " runs of each test, so there is no run " + run.runNumber() + ".");
        }
        if (run.attempt() > MOST_ATTEMPTS) {
            throw Problem.invalid(
                    "too-many-attempts",
                    "Run " + run.runNumber() + " was tried " + MOST_ATTEMPTS
                            + " times; that is the most that is kept.");
        }
        boolean ended = lifecycle.state(seat.sessionId()) != SessionState.OPEN;
        // A run that was stopped has no score that somebody would have to want.
        if (ended && run.state() != RunState.STOPPED) {
            late.keep(seatId, key, bodyHash, run);
            seat.comeBack();
            events.publishEvent(new SeatChanged(seatId));
            return new Delivered(null, true);
        }
        long stored = ended ? ledger.recordLate(seat.sessionId(), run) : ledger.record(seat.sessionId(), run);
        // Not before it is stored for good: a transaction that lost is done once more, and asks again.
        AfterCommit.run(() -> runClock.left(seatId));
        if (!doubts.isEmpty()) {
            corrections.setRunAside(stored, String.join(" ", doubts), DoubtedRuns.BY);
        }
        deliveries.saveAndFlush(new Delivery(new Delivery.Key(seatId, key), bodyHash, stored));
        events.publishEvent(new SeatChanged(seatId));
        return new Delivered(stored, false);
    }
}
