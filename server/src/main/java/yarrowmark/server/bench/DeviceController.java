package yarrowmark.server.bench;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.dao.DataAccessException;
import org.springframework.http.HttpHeaders;
import org.springframework.transaction.TransactionException;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.context.request.async.DeferredResult;
import tools.jackson.databind.json.JsonMapper;
import yarrowmark.server.bench.DeviceMessages.DeviceJoinBody;
import yarrowmark.server.bench.DeviceMessages.DeviceModel;
import yarrowmark.server.bench.DeviceMessages.DeviceModelUnits;
import yarrowmark.server.bench.DeviceMessages.DeviceSeat;
import yarrowmark.server.bench.DeviceMessages.DeviceUnit;
import yarrowmark.server.bench.DeviceMessages.EndBody;
import yarrowmark.server.bench.DeviceMessages.JoinAnswer;
import yarrowmark.server.bench.DeviceMessages.NewModelBody;
import yarrowmark.server.bench.DeviceMessages.ProgressBody;
import yarrowmark.server.bench.DeviceMessages.RunBody;
import yarrowmark.server.bench.DeviceMessages.StartBody;
import yarrowmark.server.bench.DeviceMessages.Stored;
import yarrowmark.server.ledger.record.Ledger;
import yarrowmark.server.ledger.record.NewReading;
import yarrowmark.server.ledger.record.NewRun;
import yarrowmark.server.ledger.record.SessionState;
import yarrowmark.server.platform.Page;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.Tokens;
import yarrowmark.server.platform.TryLimit;
import yarrowmark.server.platform.Turns;
import yarrowmark.server.shelf.Checklists;
import yarrowmark.server.shelf.ModelPage;
import yarrowmark.server.shelf.Shelf;
import yarrowmark.server.shelf.ShelfPages;
import yarrowmark.server.shelf.model.DeviceClass;
import yarrowmark.server.shelf.model.ModelRow;
import yarrowmark.server.shelf.search.ShelfIndex;

/** What the page on a device under test talks to. No sign-in: a code lets it in, a token keeps it at its seat. */
@RestController
@RequestMapping("/api/device")
class DeviceController {
    private static final int MOST_WRONG_CODES = 10;

    private static final int MODELS_SHOWN = 30;
    private static final int DELIVERIES_AT_ONCE = 2 + 2 * Runtime.getRuntime().availableProcessors();
    /** One whose configuration somebody else holds keeps its place for so long; then others go on without one. */
    private static final Duration DELIVERY_PATIENCE = Duration.ofSeconds(3);

    private static final Duration OLDEST_RUN = Duration.ofDays(30);

    private final Seats seats;
    private final DeviceWork work;
    private final RunDelivery runDelivery;
    private final ShelfPages shelf;
    private final Checklists checklists;
    private final CommandPolls waiters;
    private final JsonMapper json;
    private final Clock clock;
    private final TryLimit limit;
    /** Sixty devices that deliver at once would all wait at every step, some of them twice as long as the others. */
    private final Turns deliveries = new Turns(DELIVERIES_AT_ONCE, DELIVERY_PATIENCE);

    private final RoundResults results;
    private final LiveSensors sensors;

    DeviceController(
            RoundResults results,
            LiveSensors sensors,
            Seats seats,
            DeviceWork work,
            RunDelivery runDelivery,
            ShelfPages shelf,
            Checklists checklists,
            CommandPolls waiters,
            JsonMapper json,
            Clock clock) {
        this.results = results;
        this.sensors = sensors;
        this.seats = seats;
        this.work = work;
        this.runDelivery = runDelivery;
        this.shelf = shelf;
        this.checklists = checklists;
        this.waiters = waiters;
        this.json = json;
        this.clock = clock;
        this.limit = new TryLimit(MOST_WRONG_CODES, "codes", clock);
    }

    @PostMapping("/join")
    JoinAnswer join(@Valid @RequestBody DeviceJoinBody body, HttpServletRequest request) {
        TryLimit.Try attempt = limit.begin(request.getRemoteAddr());
        try {
            JoinAnswer let = new JoinAnswer(
                    seats.join(body.code(), body.device(), body.secret()).token());
            attempt.wasRight();
            return let;
        } catch (DataAccessException | TransactionException e) {
            // The records are out of reach: that says nothing about the code.
            attempt.wasRight();
            throw e;
        }
    }

    @GetMapping("/seat")
    DeviceSeat seat(@RequestHeader(name = HttpHeaders.AUTHORIZATION, required = false) @Nullable String authorization) {
        return answer(work.seatOf(authorization));
    }

    @GetMapping("/models")
    Page<DeviceModel> models(
            @RequestHeader(name = HttpHeaders.AUTHORIZATION, required = false) @Nullable String authorization,
            @RequestParam(defaultValue = "") @Size(max = 120) String q) {
        work.seatOf(authorization);
        Page<ModelRow> found = shelf.search(ShelfIndex.Question.words(q), 0, MODELS_SHOWN);
        return new Page<>(
                found.rows().stream()
                        .map(m -> new DeviceModel(m.id(), m.maker(), m.name(), m.deviceClass()))
                        .toList(),
                found.page(),
                found.size(),
                found.total());
    }

    @GetMapping("/models/{id}")
    DeviceModelUnits model(
            @RequestHeader(name = HttpHeaders.AUTHORIZATION, required = false) @Nullable String authorization,
            @PathVariable long id) {
        work.seatOf(authorization);
        ModelPage page = shelf.model(id);
        return new DeviceModelUnits(
                page.model().id(),
                page.units().stream()
                        .filter(u -> !u.retired())
                        .map(u -> new DeviceUnit(u.id(), u.label()))
                        .toList());
    }

    /** What to do before the first run, for this class of device. */
    @GetMapping("/checklist")
    List<String> checklist(
            @RequestHeader(name = HttpHeaders.AUTHORIZATION, required = false) @Nullable String authorization,
            @RequestParam DeviceClass deviceClass) {
        work.seatOf(authorization);
        return checklists.items(deviceClass);
    }

    @PostMapping("/start")
    DeviceSeat start(
            @RequestHeader(name = HttpHeaders.AUTHORIZATION, required = false) @Nullable String authorization,
            @Valid @RequestBody StartBody body) {
        long seat = work.seatOf(authorization);
        NewModelBody made = body.newModel();
        work.start(
                seat,
                new DeviceWork.Start(
                        body.modelId(),
                        made == null
                                ? null
                                : new Shelf.ModelFacts(made.maker(), made.name(), made.deviceClass(), null, null, null),
                        body.unitId(),
                        body.facts().stream()
                                .map(f -> new DeviceWork.ToldFact(f.key(), f.value(), f.detected()))
                                .toList(),
                        body.onMains(),
                        body.batteryLevel(),
                        body.checks() == null
                                ? List.of()
                                : body.checks().stream()
                                        .map(c -> new Ledger.Check(c.text(), c.ticked()))
                                        .toList()));
        return answer(seat);
    }

    @PostMapping("/progress")
    CommandPolls.CommandState progress(
            @RequestHeader(name = HttpHeaders.AUTHORIZATION, required = false) @Nullable String authorization,
            @Valid @RequestBody ProgressBody body) {
        long seat = work.seatOf(authorization);
        if (body.phase().isOver() || body.phase() == Phase.WAITING) {
            throw Problem.invalid(
                    "not-a-progress", "A device ends by /end, not by telling the phase " + body.phase() + ".");
        }
        if (body.sensors() != null) {
            sensors.heard(
                    seat,
                    body.sensors().stream()
                            .map(x -> new LiveSensors.Now(x.name(), x.unit(), x.value()))
                            .toList());
        }
        work.progress(seat, body.phase(), body.testId(), body.run(), body.untilMs());
        return command(seat);
    }

    @PostMapping("/runs")
    Stored deliver(
            @RequestHeader(name = HttpHeaders.AUTHORIZATION, required = false) @Nullable String authorization,
            @RequestHeader(name = "Idempotency-Key") @Pattern(regexp = "[0-9a-f-]{36}", message = "must be a UUID")
                    String key,
            @RequestHeader(name = "Age-Ms", defaultValue = "0") @Min(0) long ageMs,
            @Valid @RequestBody RunBody body) {
        return deliveries.take(() -> delivered(authorization, key, ageMs, body));
    }

    private Stored delivered(@Nullable String authorization, String key, long ageMs, RunBody body) {
        long seat = work.seatOf(authorization);
        List<NewReading> readings = body.readings().stream()
                .map(r -> new NewReading(r.metric(), r.value(), r.resolution(), r.samples()))
                .toList();
        // The device says how long ago the run ended: its date need not be right, but its seconds are.
        Instant finished = clock.instant().minusMillis(Math.min(ageMs, OLDEST_RUN.toMillis()));
        RunDelivery.Delivered delivered = runDelivery.deliver(
                seat,
                key,
                Tokens.hash(json.writeValueAsString(body)),
                new NewRun(
                        body.testId(),
                        body.runNumber(),
                        body.attempt(),
                        body.state(),
                        body.reason(),
                        body.reasonWords(),
                        body.durationMs(),
                        finished,
                        readings,
                        null,
                        body.disturbed(),
                        body.timedMs(),
                        DeviceAnswers.beside(body)));
        return new Stored(delivered.runId(), key, delivered.late());
    }

    @PostMapping("/end")
    DeviceSeat end(
            @RequestHeader(name = HttpHeaders.AUTHORIZATION, required = false) @Nullable String authorization,
            @Valid @RequestBody EndBody body) {
        long seat = work.seatOf(authorization);
        if (body.how() == SessionState.OPEN) {
            throw Problem.invalid("not-an-end", "A session ends as DONE or STOPPED.");
        }
        work.end(seat, body.how());
        return answer(seat);
    }

    /** What its round measured. */
    @GetMapping("/results")
    RoundResults.RoundAnswer results(
            @RequestHeader(name = HttpHeaders.AUTHORIZATION, required = false) @Nullable String authorization) {
        return results.of(work.seatOf(authorization));
    }

    /** Answers at once where the device does not know the newest command, else as soon as there is one. */
    @GetMapping("/command")
    DeferredResult<CommandPolls.CommandState> command(
            @RequestHeader(name = HttpHeaders.AUTHORIZATION, required = false) @Nullable String authorization,
            @RequestParam int after) {
        long seat = work.seatOf(authorization);
        DeferredResult<CommandPolls.CommandState> answer = waiters.wait(seat, after, command(seat));
        // Asked after joining the waiters: a command given in between is then answered now or told later, never lost.
        CommandPolls.CommandState now = command(seat);
        if (now.revision() > after) {
            answer.setResult(now);
        }
        return answer;
    }

    CommandPolls.CommandState command(long seatId) {
        Seat seat = work.work(seatId).seat();
        return new CommandPolls.CommandState(seat.command(), seat.commandRevision());
    }

    private DeviceSeat answer(long seatId) {
        DeviceWork.Work w = work.work(seatId);
        Seat s = w.seat();
        return new DeviceSeat(
                seatId,
                w.plan().name(),
                s.runs(),
                s.timedMs(),
                s.pauseMs(),
                w.plan().stopOnFailure(),
                w.plan().coolByProbe(),
                w.tests().stream()
                        .map(t -> DeviceAnswers.test(t, s, w.plan(), w.enough().get(t.id())))
                        .toList(),
                s.sessionId(),
                w.sessionState(),
                w.runs().stream()
                        .map(r -> DeviceAnswers.done(r, w.values().getOrDefault(r.testId(), Map.of())))
                        .toList(),
                s.phase(),
                s.command(),
                s.commandRevision());
    }
}
