package yarrowmark.server.bench;

import java.time.Clock;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;
import yarrowmark.server.ledger.record.Ledger;
import yarrowmark.server.ledger.record.NewRun;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.records.Locks;

/**
 * What a device had finished when its session was ended from the bench without it. Such runs are real measurements, so
 * they are neither refused, which would strand them on the device, nor taken in unasked: the reviewer ended the session
 * for a reason.
 */
@Service
class LateRuns {
    private final LateRunRepository late;
    private final SeatRepository seats;
    private final Locks locks;
    private final DeliveryRepository deliveries;
    private final Ledger ledger;
    private final JsonMapper json;
    private final ApplicationEventPublisher events;
    private final Clock clock;

    LateRuns(
            LateRunRepository late,
            SeatRepository seats,
            Locks locks,
            DeliveryRepository deliveries,
            Ledger ledger,
            JsonMapper json,
            ApplicationEventPublisher events,
            Clock clock) {
        this.late = late;
        this.seats = seats;
        this.locks = locks;
        this.deliveries = deliveries;
        this.ledger = ledger;
        this.json = json;
        this.events = events;
        this.clock = clock;
    }

    /** Keeps a run as it was delivered, once. The caller holds the seat's lock. */
    @Transactional(propagation = Propagation.MANDATORY)
    void keep(long seatId, String key, String bodyHash, NewRun run) {
        if (late.findBySeatIdAndDeliveryKey(seatId, key).isEmpty()) {
            late.saveAndFlush(new LateRun(seatId, key, bodyHash, json.writeValueAsString(run), clock.instant()));
        }
    }

    /** How many wait, by seat; seats without any are left out. */
    @Transactional(readOnly = true)
    Map<Long, Integer> count(Collection<Long> seatIds) {
        return seatIds.isEmpty()
                ? Map.of()
                : late.count(seatIds).stream()
                        .collect(Collectors.toMap(r -> (Long) r[0], r -> ((Long) r[1]).intValue()));
    }

    /** What waits for a decision about a session, wherever that is looked at. */
    record Waiting(long seatId, int late) {}

    @Transactional(readOnly = true)
    List<Waiting> of(long session) {
        List<Long> ids = seats.withLateRuns(session).stream().map(Seat::id).toList();
        return count(ids).entrySet().stream()
                .map(e -> new Waiting(e.getKey(), e.getValue()))
                .toList();
    }

    /** All of a seat's late runs go into its session, or none where one of them cannot. */
    @Transactional
    void takeIn(long seatId) {
        Seat seat = locked(seatId);
        Long session = seat.sessionId();
        if (session == null) {
            throw Problem.conflict("not-started", "This device never had a session.");
        }
        List<LateRun> waiting = late.findBySeatIdOrderById(seatId);
        for (LateRun one : waiting) {
            long stored = ledger.recordLate(session, json.readValue(one.run(), NewRun.class));
            deliveries.save(new Delivery(new Delivery.Key(seatId, one.deliveryKey()), one.bodyHash(), stored));
        }
        late.deleteAll(waiting);
        events.publishEvent(new SeatChanged(seatId));
    }

    @Transactional
    void leaveOut(long seatId) {
        locked(seatId);
        late.deleteAll(late.findBySeatIdOrderById(seatId));
        events.publishEvent(new SeatChanged(seatId));
    }

    private Seat locked(long seatId) {
        return locks.lock(Seat.class, seatId).orElseThrow(() -> Problem.notFound("seat", seatId));
    }
}
