package yarrowmark.server.bench;

import java.time.Clock;
import java.time.Duration;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.ledger.record.SessionLifecycle;
import yarrowmark.server.ledger.record.SessionState;
import yarrowmark.server.plan.Plans;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.Tokens;
import yarrowmark.server.platform.records.Locks;

/** The reviewer's side of the bench: codes, commands, and the list of seats; and letting a device in. */
@Service
class Seats {
    static final Duration CODE_VALID = Duration.ofMinutes(10);
    private static final Duration SHOWN_FOR = Duration.ofHours(24);

    /** What a round is to be like on one device. */
    record Settings(long planId, int runs, int timedMs, int pauseMs, boolean mustOnly) {}

    /** A device that was let in. The token is told once and kept only as a hash. */
    record Joined(long seatId, String token) {}

    private final SeatRepository seats;
    private final Locks locks;
    private final Lanes lanes;
    private final Plans plans;
    private final SessionLifecycle lifecycle;
    private final ApplicationEventPublisher events;
    private final Clock clock;

    Seats(
            SeatRepository seats,
            Locks locks,
            Lanes lanes,
            Plans plans,
            SessionLifecycle lifecycle,
            ApplicationEventPublisher events,
            Clock clock) {
        this.seats = seats;
        this.locks = locks;
        this.lanes = lanes;
        this.plans = plans;
        this.lifecycle = lifecycle;
        this.events = events;
        this.clock = clock;
    }

    @Transactional(readOnly = true)
    public List<Lane> onBench() {
        return lanes.of(seats.findOnBench(clock.instant().minus(SHOWN_FOR), clock.instant()));
    }

    @Transactional
    public Lane invite(Settings settings, String person) {
        plans.plan(settings.planId());
        String code = PairingCode.next();
        while (seats.existsByCode(code)) {
            code = PairingCode.next();
        }
        Seat seat = seats.saveAndFlush(new Seat(code, settings, person, clock.instant(), CODE_VALID));
        return told(seat);
    }

    /**
     * Lets a device in. With a secret of its own the device may ask again, also after its code has expired: it gets the same
     * seat and the same token, because an answer can be lost on the way or the device be killed before it has kept it.
     *
     * @param secret made by the device and kept there before it asked; null for devices of earlier versions, which get in once
     */
    @Transactional
    public Joined join(String typedCode, @Nullable String device, @Nullable String secret) {
        Seat seat = seats.lockNewestByCode(PairingCode.normalised(typedCode))
                .orElseThrow(() -> new Problem(
                        HttpStatus.NOT_FOUND,
                        "code-unknown",
                        "No device is expected under this code. Check the words and the two digits on the bench."));
        if (seat.joinedAt() != null) {
            return joinedBefore(seat, secret);
        }
        if (seat.phase() != Phase.WAITING || !clock.instant().isBefore(seat.expiresAt())) {
            throw new Problem(
                    HttpStatus.GONE,
                    "code-expired",
                    "This code is no longer valid. A code works for 10 minutes: ask for a new one at the bench.");
        }
        String token = secret == null ? Tokens.fresh() : tokenFrom(secret, seat);
        seat.join(Tokens.hash(token), device, clock.instant());
        told(seat);
        return new Joined(seat.id(), token);
    }

    private static Joined joinedBefore(Seat seat, @Nullable String secret) {
        String token = secret == null ? null : tokenFrom(secret, seat);
        if (token == null || !Tokens.hash(token).equals(seat.tokenHash())) {
            throw Problem.conflict(
                    "code-used",
                    "This code was used already. Each code lets in one device: ask for a new one at the bench."
                            + (secret == null
                                    ? " This page or runner is older than the server, so it cannot come back with a code that it used."
                                    : ""));
        }
        if (seat.phase().isOver()) {
            throw Problem.conflict("seat-over", "The round under this code is over. Ask for a new code at the bench.");
        }
        return new Joined(seat.id(), token);
    }

    /** The same for every try, so that nothing but its hash need be stored. */
    private static String tokenFrom(String secret, Seat seat) {
        return Tokens.hash("seat " + seat.id() + " " + secret);
    }

    @Transactional
    public Lane order(long seatId, Command command) {
        Seat seat = locked(seatId);
        if (seat.phase().isOver()) {
            throw Problem.conflict("seat-over", "This device has finished already.");
        }
        seat.order(command);
        if (command == Command.STOP && seat.sessionId() == null) {
            seat.enter(Phase.STOPPED, null, null, null);
        }
        return told(seat);
    }

    /** For a device that is silent: ends its session from this side. */
    @Transactional
    public Lane end(long seatId) {
        Seat seat = locked(seatId);
        if (!seat.phase().isOver()) {
            seat.order(Command.STOP);
            seat.enter(Phase.STOPPED, null, null, null);
            if (seat.sessionId() != null) {
                lifecycle.end(seat.sessionId(), SessionState.STOPPED, clock.instant());
            }
        }
        return told(seat);
    }

    /** Takes a seat that is over, or a code that nobody used, off the list. */
    @Transactional
    public Lane clear(long seatId) {
        Seat seat = locked(seatId);
        if (!seat.phase().isOver() && seat.phase() != Phase.WAITING) {
            throw Problem.conflict("seat-busy", "This device is still at work. Stop it first.");
        }
        if (lanes.of(List.of(seat)).get(0).late() > 0) {
            throw Problem.conflict(
                    "late-runs", "Finished runs of this device wait for you. Take them in or leave them out first.");
        }
        seat.enter(Phase.CLEARED, null, null, null);
        return told(seat);
    }

    @Transactional(readOnly = true)
    public Lane lane(long seatId) {
        return lanes.of(List.of(seats.findById(seatId).orElseThrow(() -> Problem.notFound("seat", seatId))))
                .get(0);
    }

    private Seat locked(long seatId) {
        return locks.lock(Seat.class, seatId).orElseThrow(() -> Problem.notFound("seat", seatId));
    }

    private Lane told(Seat seat) {
        seats.flush();
        events.publishEvent(new SeatChanged(seat.id()));
        return lanes.of(List.of(seat)).get(0);
    }
}
