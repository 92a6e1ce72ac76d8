package yarrowmark.server.bench;

import static yarrowmark.server.platform.Require.require;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.measure.Measured;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.stats.EnoughRuns;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.TestRow;
import yarrowmark.server.ledger.record.Ledger;
import yarrowmark.server.ledger.record.NewSession;
import yarrowmark.server.ledger.record.SessionLifecycle;
import yarrowmark.server.ledger.record.SessionState;
import yarrowmark.server.ledger.record.TestByHand;
import yarrowmark.server.ledger.sample.KnownNoise;
import yarrowmark.server.ledger.sample.NoisePriorCache;
import yarrowmark.server.plan.PlanItem;
import yarrowmark.server.plan.PlanRow;
import yarrowmark.server.plan.Plans;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.Tokens;
import yarrowmark.server.platform.records.Locks;
import yarrowmark.server.shelf.Shelf;
import yarrowmark.server.shelf.ShelfPages;
import yarrowmark.server.shelf.configuration.Configurations;

/** The device's side of the bench: starting its session, telling progress, delivering runs, ending. */
@Service
class DeviceWork {
    /** Changes that a device makes carry this name in the change log. */
    private static final String DEVICE = "device at the bench";

    /** What the device is, as its page found out and its holder said. Exactly one of modelId and newModel. */
    record Start(
            @Nullable Long modelId,
            Shelf.@Nullable ModelFacts newModel,
            @Nullable Long unitId,
            List<ToldFact> facts,
            @Nullable Boolean onMains,
            @Nullable Double batteryLevel,
            List<Ledger.Check> checks) {}

    /** @param value in the base unit where the page detected it, else as somebody typed it */
    record ToldFact(String key, String value, boolean detected) {}

    /**
     * Everything the device needs to go on, also after a reload.
     *
     * @param enough where runs go on until the mean is known: by test, when that is
     * @param values of those tests, what was measured before: by run
     */
    record Work(
            Seat seat,
            PlanRow plan,
            List<TestRow> tests,
            List<Ledger.RunPart> runs,
            Map<Long, List<EnoughRuns.Limit>> enough,
            Map<Long, Map<Integer, Measured>> values,
            @Nullable SessionState sessionState) {}

    /** Runs that a device kept while nobody heard it still come after its end, but not for ever. */
    private static final Duration LONGEST_AFTER = Duration.ofDays(30);

    private final SeatRepository seats;
    private final Locks locks;
    private final Plans plans;
    private final Catalog catalog;
    private final Shelf shelf;
    private final ShelfPages pages;
    private final Configurations configurations;
    private final Ledger ledger;
    private final SessionLifecycle lifecycle;
    private final ByHandRuns byHand;
    private final NoisePriorCache lent;
    private final RunClock runClock;
    private final ApplicationEventPublisher events;
    private final Clock clock;

    DeviceWork(
            SeatRepository seats,
            Locks locks,
            Plans plans,
            Catalog catalog,
            Shelf shelf,
            ShelfPages pages,
            Configurations configurations,
            Ledger ledger,
            SessionLifecycle lifecycle,
            ByHandRuns byHand,
            NoisePriorCache lent,
            RunClock runClock,
            ApplicationEventPublisher events,
            Clock clock) {
        this.runClock = runClock;
        this.byHand = byHand;
        this.lent = lent;
        this.seats = seats;
        this.locks = locks;
        this.plans = plans;
        this.catalog = catalog;
        this.shelf = shelf;
        this.pages = pages;
        this.configurations = configurations;
        this.ledger = ledger;
        this.lifecycle = lifecycle;
        this.events = events;
        this.clock = clock;
    }

    /**
     * @param afterTheEnd whether what is asked for may be asked once the round is over
     * @throws Problem where the token is none, or no longer one
     */
    @Transactional(readOnly = true)
    public void letIn(@Nullable String authorization, boolean afterTheEnd) {
        Seat seat = seats.findById(seatOf(authorization)).orElseThrow(DeviceWork::noSeat);
        if (!seat.phase().isOver()) {
            return;
        }
        Instant heard = seat.lastHeardAt();
        if (!afterTheEnd || (heard != null && clock.instant().isAfter(heard.plus(LONGEST_AFTER)))) {
            throw noSeat();
        }
    }

    private static Problem noSeat() {
        return new Problem(
                HttpStatus.UNAUTHORIZED, "no-seat", "This device is not at the bench. Join with a code first.");
    }

    /** The seat this token belongs to. */
    @Transactional(readOnly = true)
    public long seatOf(@Nullable String authorization) {
        if (authorization != null && authorization.startsWith("Bearer ")) {
            var seat = seats.findByTokenHash(
                    Tokens.hash(authorization.substring("Bearer ".length()).strip()));
            if (seat.isPresent()) {
                return seat.get().id();
            }
        }
        throw noSeat();
    }

    @Transactional(readOnly = true)
    public Work work(long seatId) {
        Seat seat = seats.findById(seatId).orElseThrow(() -> Problem.notFound("seat", seatId));
        PlanRow plan = plans.plan(seat.planId());
        List<Long> ids =
                plan.items(seat.mustOnly()).stream().map(PlanItem::testId).toList();
        List<TestRow> tests = catalog.tests(ids).stream()
                .sorted(Comparator.comparingInt(t -> ids.indexOf(t.id())))
                .toList();
        return new Work(
                seat,
                plan,
                tests,
                seat.sessionId() == null ? List.of() : ledger.runs(List.of(seat.sessionId())),
                enough(plan, seat, tests),
                seat.sessionId() == null || plan.knownWithin() == null ? Map.of() : values(seat.sessionId(), tests),
                seat.sessionId() == null ? null : lifecycle.state(seat.sessionId()));
    }

    private Map<Long, Map<Integer, Measured>> values(long sessionId, List<TestRow> tests) {
        Map<Long, Map<Integer, Measured>> byMetric = ledger.measured(
                sessionId, tests.stream().map(t -> t.metrics().get(0).id()).toList());
        return tests.stream()
                .collect(Collectors.toMap(
                        TestRow::id,
                        t -> byMetric.getOrDefault(t.metrics().get(0).id(), Map.of())));
    }

    /** The device does not know such a score: it is found here, in what the command printed. */
    private static boolean readFromOutput(TestRow test) {
        return test.command() != null && test.command().output() != null;
    }

    private Map<Long, List<EnoughRuns.Limit>> enough(PlanRow plan, Seat seat, List<TestRow> tests) {
        if (plan.knownWithin() == null || plan.mostRuns() == null) {
            return Map.of();
        }
        Map<Long, PlanItem> items = plan.items().stream().collect(Collectors.toMap(PlanItem::testId, i -> i));
        List<MetricRow> metrics = tests.stream()
                .filter(t -> t.byItself() && !readFromOutput(t) && plan.asLongAsItTakes(require(items, t.id())))
                .map(t -> t.metrics().get(0))
                .filter(m -> m.scale() == Scale.RATIO)
                .toList();
        KnownNoise noise = lent.of(metrics, catalog.metrics());
        // A seat may be given fewer runs than the plan has; three are needed to look at a spread at all.
        int least = Math.max(3, seat.runs());
        Map<Long, List<EnoughRuns.Limit>> enough = new HashMap<>();
        metrics.forEach(m -> enough.put(
                m.testId(),
                new EnoughRuns(
                                least,
                                Math.max(least, plan.mostRuns()),
                                plan.knownWithin(),
                                noise.of(m).runs())
                        .limits()));
        return enough;
    }

    /** Starting twice gives the session that is there: the first answer may have been lost on the way. */
    @Transactional
    public void start(long seatId, Start start) {
        Seat seat = heard(seatId);
        if (seat.sessionId() != null) {
            return;
        }
        if (seat.phase().isOver()) {
            throw Problem.conflict("seat-over", "The reviewer took this device off the bench. Join with a new code.");
        }
        if ((start.modelId() == null) == (start.newModel() == null)) {
            throw Problem.invalid(
                    "which-model", "Say which model this is: one from the shelf, or a new one, not both.");
        }
        long model = start.modelId() != null
                ? pages.model(start.modelId()).model().id()
                : shelf.make(start.newModel(), DEVICE);
        if (start.unitId() != null) {
            shelf.checkUnit(start.unitId(), model);
        }
        long unit = start.unitId() != null ? start.unitId() : shelf.firstUnit(model, DEVICE);
        long configuration = configurations.configure(unit, DeviceFacts.read(start.facts()), null, DEVICE);
        PlanRow plan = plans.plan(seat.planId());
        List<PlanItem> items = plan.items(seat.mustOnly());
        Set<Long> byItself = catalog.tests(items.stream().map(PlanItem::testId).toList()).stream()
                .filter(TestRow::byItself)
                .map(TestRow::id)
                .collect(Collectors.toSet());
        List<TestByHand> byHand = items.stream()
                .filter(i -> !byItself.contains(i.testId()))
                .map(i -> new TestByHand(i.testId(), i.runs(), i.todo()))
                .toList();
        long session = lifecycle.open(new NewSession(
                configuration,
                plan.name(),
                seat.runs(),
                seat.timedMs(),
                start.onMains(),
                start.batteryLevel(),
                clock.instant(),
                start.checks(),
                seat.invitedBy() == null ? DEVICE : "at the device, with a code of " + seat.invitedBy(),
                new Ledger.ByHand(byHand, null, null, null, null),
                (int) items.stream().map(PlanItem::testId).distinct().count()));
        seat.start(session);
        events.publishEvent(new SeatChanged(seatId));
    }

    /** @param untilMs how long the phase is expected to last from now, in ms; null where it is not known */
    @Transactional
    public void progress(
            long seatId, Phase phase, @Nullable Long testId, @Nullable Integer run, @Nullable Long untilMs) {
        Seat seat = heard(seatId);
        if (!seat.phase().isOver() && seat.sessionId() != null) {
            if (phase == Phase.RUNNING && testId != null && run != null) {
                runClock.began(seatId, testId, run);
            } else {
                runClock.left(seatId);
            }
            seat.enter(
                    phase, testId, run, untilMs == null ? null : clock.instant().plusMillis(untilMs));
            if (phase == Phase.BY_HAND && testId != null && byHand.areDone(seat, testId)) {
                // The scores were typed before the device came to wait for them.
                seat.order(Command.GO);
            }
        }
        events.publishEvent(new SeatChanged(seatId));
    }

    @Transactional
    public void end(long seatId, SessionState how) {
        Seat seat = heard(seatId);
        if (seat.phase().isOver()) {
            return;
        }
        seat.enter(how == SessionState.DONE ? Phase.DONE : Phase.STOPPED, null, null, null);
        if (seat.sessionId() != null) {
            lifecycle.end(seat.sessionId(), how, clock.instant());
        }
        events.publishEvent(new SeatChanged(seatId));
    }

    /** Locked: two deliveries of one device are taken one after the other, so that a repeated one finds the first. */
    Seat heard(long seatId) {
        Seat seat = locks.lock(Seat.class, seatId).orElseThrow(() -> Problem.notFound("seat", seatId));
        // Its token ends a month after its round, however often it is used.
        if (!seat.phase().isOver()) {
            seat.heard(clock.instant());
        }
        return seat;
    }
}
