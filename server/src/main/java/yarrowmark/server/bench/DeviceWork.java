package yarrowmark.server.bench;

import static yarrowmark.server.platform.Require.require;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.measure.Measured;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.setup.FactKey;
import yarrowmark.core.setup.FactReader;
import yarrowmark.core.setup.FactVocabulary;
import yarrowmark.core.stats.EnoughRuns;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.CatalogCache;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.TestRow;
import yarrowmark.server.ledger.record.Ledger;
import yarrowmark.server.ledger.record.NewRun;
import yarrowmark.server.ledger.record.NewSession;
import yarrowmark.server.ledger.record.RunState;
import yarrowmark.server.ledger.record.SessionState;
import yarrowmark.server.ledger.record.TestByHand;
import yarrowmark.server.ledger.sample.KnownNoise;
import yarrowmark.server.ledger.sample.NoisePriorCache;
import yarrowmark.server.plan.PlanItem;
import yarrowmark.server.plan.PlanRow;
import yarrowmark.server.plan.Plans;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.Tokens;
import yarrowmark.server.platform.records.AfterCommit;
import yarrowmark.server.platform.records.Locks;
import yarrowmark.server.shelf.Configurations;
import yarrowmark.server.shelf.FactSource;
import yarrowmark.server.shelf.GivenFact;
import yarrowmark.server.shelf.Shelf;

/** The device's side of the bench: starting its session, telling progress, delivering runs, ending. */
@Service
class DeviceWork {
    private static final Logger LOG = LoggerFactory.getLogger(DeviceWork.class);

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

    /** @param runId absent where the run came after the session's end. @param late whether it waits for the reviewer */
    record Delivered(@Nullable Long runId, boolean late) {}

    /** Runs that a device kept while nobody heard it still come after its end, but not for ever. */
    private static final Duration LONGEST_AFTER = Duration.ofDays(30);

    /** A device tries a failed run again a few times; more is somebody who fills the ledger. */
    private static final int MOST_ATTEMPTS = 50;

    private final SeatRepository seats;
    private final Locks locks;
    private final DeliveryRepository deliveries;
    private final Plans plans;
    private final Catalog catalog;
    private final CatalogCache catalogCache;
    private final Shelf shelf;
    private final Configurations configurations;
    private final Ledger ledger;
    private final ByHandRuns byHand;
    private final LateRuns late;
    private final NoisePriorCache lent;
    private final RunClock runClock;
    private final ApplicationEventPublisher events;
    private final Clock clock;

    DeviceWork(
            SeatRepository seats,
            Locks locks,
            DeliveryRepository deliveries,
            Plans plans,
            Catalog catalog,
            CatalogCache catalogCache,
            Shelf shelf,
            Configurations configurations,
            Ledger ledger,
            ByHandRuns byHand,
            LateRuns late,
            NoisePriorCache lent,
            RunClock runClock,
            ApplicationEventPublisher events,
            Clock clock) {
        this.runClock = runClock;
        this.byHand = byHand;
        this.late = late;
        this.lent = lent;
        this.seats = seats;
        this.locks = locks;
        this.deliveries = deliveries;
        this.plans = plans;
        this.catalog = catalog;
        this.catalogCache = catalogCache;
        this.shelf = shelf;
        this.configurations = configurations;
        this.ledger = ledger;
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
                seat.sessionId() == null ? null : ledger.state(seat.sessionId()));
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
                ? shelf.model(start.modelId()).model().id()
                : shelf.make(start.newModel(), DEVICE);
        if (start.unitId() != null) {
            shelf.checkUnit(start.unitId(), model);
        }
        long unit = start.unitId() != null ? start.unitId() : shelf.firstUnit(model, DEVICE);
        long configuration = configurations.configure(unit, facts(start.facts()), null, DEVICE);
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
        long session = ledger.open(new NewSession(
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

    /** Typed facts are read like those of any form; a detected choice is kept under the name the vocabulary has for it. */
    private static List<GivenFact> facts(List<ToldFact> told) {
        List<Problem.Refused> refused = new ArrayList<>();
        List<GivenFact> facts = new ArrayList<>();
        for (ToldFact t : told) {
            FactKey key = FactVocabulary.entry(t.key());
            FactReader.Reading reading =
                    t.detected() && key.type() != FactKey.Type.CHOICE ? null : FactReader.read(key, t.value());
            if (reading instanceof FactReader.Understood u) {
                facts.add(new GivenFact(t.key(), u.value(), t.detected() ? FactSource.DETECTED : FactSource.TYPED));
            } else if (t.detected() && FactReader.unfit(key, t.value()).isPresent()) {
                // What no device can be is not known rather than a reason not to test it.
                LOG.warn("A device detected an impossible {} and goes on without it", key.key());
            } else if (t.detected()) {
                facts.add(new GivenFact(t.key(), t.value(), FactSource.DETECTED));
            } else {
                refused.add(new Problem.Refused(t.key(), ((FactReader.NotUnderstood) require(reading)).reason()));
            }
        }
        if (!refused.isEmpty()) {
            throw Problem.refused("facts-refused", refused);
        }
        return facts;
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

    /**
     * Stores a delivered run once, however often it is delivered under the same key.
     *
     * @param bodyHash of what was delivered; another body under the same key is refused
     * @return where it is now: in the ledger, or kept for the reviewer because its session was ended without the device
     */
    @Transactional
    public Delivered deliver(long seatId, String key, String bodyHash, NewRun given) {
        Seat seat = heard(seatId);
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
        boolean ended = ledger.state(seat.sessionId()) != SessionState.OPEN;
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
            ledger.setRunAside(stored, String.join(" ", doubts), DoubtedRuns.BY);
        }
        deliveries.saveAndFlush(new Delivery(new Delivery.Key(seatId, key), bodyHash, stored));
        events.publishEvent(new SeatChanged(seatId));
        return new Delivered(stored, false);
    }

    @Transactional
    public void end(long seatId, SessionState how) {
        Seat seat = heard(seatId);
        if (seat.phase().isOver()) {
            return;
        }
        seat.enter(how == SessionState.DONE ? Phase.DONE : Phase.STOPPED, null, null, null);
        if (seat.sessionId() != null) {
            ledger.end(seat.sessionId(), how, clock.instant());
        }
        events.publishEvent(new SeatChanged(seatId));
    }

    /** Locked: two deliveries of one device are taken one after the other, so that a repeated one finds the first. */
    private Seat heard(long seatId) {
        Seat seat = locks.lock(Seat.class, seatId).orElseThrow(() -> Problem.notFound("seat", seatId));
        // Its token ends a month after its round, however often it is used.
        if (!seat.phase().isOver()) {
            seat.heard(clock.instant());
        }
        return seat;
    }
}
