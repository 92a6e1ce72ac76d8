package yarrowmark.server.bench;

import jakarta.servlet.http.HttpServletResponse;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import java.security.Principal;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestAttribute;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;
import yarrowmark.server.platform.http.AccessEnded;

@RestController
@RequestMapping("/api/bench")
class BenchController {
    /**
     * @param cursor where to start reading events so that nothing is missed
     * @param now    the server's time, against which the others are shown
     */
    record Bench(List<Lane> lanes, String cursor, Instant now) {}

    record Invitation(
            @Min(1) long planId,
            @Min(value = 1, message = "must be 1 or more") @Max(50) int runs,
            @Min(value = 20, message = "must be at least 20 ms, or no clock can time it") @Max(60_000) int timedMs,
            @Min(0) @Max(3_600_000) int pauseMs,
            @Nullable Boolean mustOnly) {}

    record Order(@NotNull Command command) {}

    private final Seats seats;
    private final LateRuns late;
    private final LiveFeed feed;
    private final Clock clock;

    private final DueSessions due;
    private final RoundResults results;

    BenchController(Seats seats, LateRuns late, LiveFeed feed, Clock clock, DueSessions due, RoundResults results) {
        this.results = results;
        this.due = due;
        this.seats = seats;
        this.late = late;
        this.feed = feed;
        this.clock = clock;
    }

    /** What the round of a seat measured so far. */
    @GetMapping("/seats/{id}/results")
    RoundResults.RoundAnswer results(@PathVariable long id) {
        return results.of(id);
    }

    @GetMapping
    Bench bench() {
        // The cursor first: an event told in between is then read twice rather than never.
        String cursor = feed.cursor();
        return new Bench(seats.onBench(), cursor, clock.instant());
    }

    /** Devices that are to be measured on another day as well. */
    @GetMapping("/due")
    List<DueSessions.Due> due() {
        return due.all();
    }

    @PostMapping("/seats")
    Lane invite(@Valid @RequestBody Invitation body, Principal who) {
        return seats.invite(
                new Seats.Settings(
                        body.planId(),
                        body.runs(),
                        body.timedMs(),
                        body.pauseMs(),
                        Boolean.TRUE.equals(body.mustOnly())),
                who.getName());
    }

    @PostMapping("/seats/{id}/command")
    Lane order(@PathVariable long id, @Valid @RequestBody Order body) {
        return seats.order(id, body.command());
    }

    @PostMapping("/seats/{id}/end")
    Lane end(@PathVariable long id) {
        return seats.end(id);
    }

    /** Finished runs of a session that came after its end, for whoever looks at it. */
    @GetMapping("/late")
    List<LateRuns.Waiting> late(@RequestParam @Min(1) long session) {
        return late.of(session);
    }

    /** Finished runs that came after the session was ended go into it. */
    @PostMapping("/seats/{id}/late")
    Lane takeIn(@PathVariable long id) {
        late.takeIn(id);
        return seats.lane(id);
    }

    /** Finished runs that came after the session was ended are not wanted. */
    @DeleteMapping("/seats/{id}/late")
    Lane leaveOut(@PathVariable long id) {
        late.leaveOut(id);
        return seats.lane(id);
    }

    @DeleteMapping("/seats/{id}")
    Lane clear(@PathVariable long id) {
        return seats.clear(id);
    }

    @GetMapping(path = "/events", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
    SseEmitter events(
            @RequestParam(required = false) @Nullable String after,
            @RequestHeader(name = "Last-Event-ID", required = false) @Nullable String lastSeen,
            @RequestAttribute(name = AccessEnded.OPENER, required = false) AccessEnded.@Nullable Opener opener,
            HttpServletResponse response) {
        response.setHeader("X-Accel-Buffering", "no");
        return feed.read(lastSeen != null ? lastSeen : after, opener);
    }
}
