package yarrowmark.server.bench;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** The server's side of the network suite: turns, bytes to a device and bytes from it. Answers are in {@link NetworkEcho}. */
@RestController
@RequestMapping("/api/device/network")
class NetworkController {
    /** The time in which what came is counted together. */
    private static final int STEP_MS = 100;

    private static final int BUFFER = 1 << 16;

    /**
     * @param ticket    for the echo, where it is this device's turn; absent where it waits
     * @param before    how many devices are let in earlier
     * @param limitMbit what this server can give at most, in Mbit/s; absent where that is not known
     * @param limitBy   what sets it
     * @param here      whether the device is this server's own machine
     */
    record TurnAnswer(
            @Nullable String ticket, int before, @Nullable Double limitMbit, @Nullable String limitBy, boolean here) {}

    /**
     * @param firstMs when the first byte came, on a steady clock of the server, in ms
     * @param stepMs  of the counts, which follow each other from the first byte on
     * @param counts  bytes that came in each step
     */
    record UpAnswer(long bytes, double firstMs, int stepMs, List<Long> counts) {}

    private final NetworkTurns turns;
    private final ServerLink link;
    private final DeviceWork work;

    NetworkController(NetworkTurns turns, ServerLink link, DeviceWork work) {
        this.turns = turns;
        this.link = link;
        this.work = work;
    }

    @PostMapping("/turn")
    TurnAnswer turn(
            @RequestHeader(name = HttpHeaders.AUTHORIZATION, required = false) @Nullable String authorization,
            HttpServletRequest request) {
        NetworkTurns.Turn turn = turns.ask(work.seatOf(authorization));
        boolean here = ServerLink.isHere(request.getRemoteAddr());
        if (turn.ticket() == null || authorization == null) {
            return new TurnAnswer(null, turn.before(), null, null, here);
        }
        ServerLink.Limit limit = link.limit(
                request.getScheme(),
                request.getLocalAddr(),
                request.getLocalPort(),
                authorization.substring("Bearer ".length()).strip());
        return new TurnAnswer(
                turn.ticket(), 0, limit == null ? null : limit.mbit(), limit == null ? null : limit.by(), here);
    }

    @DeleteMapping("/turn")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void giveBack(@RequestHeader(name = HttpHeaders.AUTHORIZATION, required = false) @Nullable String authorization) {
        turns.giveBack(work.seatOf(authorization));
    }

    @GetMapping(path = "/down", produces = MediaType.APPLICATION_OCTET_STREAM_VALUE)
    void down(
            @RequestHeader(name = HttpHeaders.AUTHORIZATION, required = false) @Nullable String authorization,
            @RequestParam @Min(1) @Max(NetworkBlock.MOST_BYTES) long bytes,
            HttpServletResponse response) {
        try (NetworkTurns.Stream open = turns.open(work.seatOf(authorization))) {
            response.setContentType(MediaType.APPLICATION_OCTET_STREAM_VALUE);
            response.setHeader(HttpHeaders.CACHE_CONTROL, "no-store");
            response.setContentLengthLong(bytes);
            response.setBufferSize(BUFFER);
            NetworkBlock.write(response.getOutputStream(), bytes);
        } catch (IOException gone) {
            // The device went away or had enough: both are usual here, and there is nobody left to tell.
        }
    }

    @PostMapping("/up")
    UpAnswer up(
            @RequestHeader(name = HttpHeaders.AUTHORIZATION, required = false) @Nullable String authorization,
            HttpServletRequest request)
            throws IOException {
        try (NetworkTurns.Stream open = turns.open(work.seatOf(authorization))) {
            InputStream in = request.getInputStream();
            byte[] buffer = new byte[BUFFER];
            List<Long> counts = new ArrayList<>();
            long bytes = 0;
            long first = 0;
            for (int n = in.read(buffer); n >= 0; n = in.read(buffer)) {
                long now = System.nanoTime();
                first = bytes == 0 ? now : first;
                int step = (int) ((now - first) / 1_000_000 / STEP_MS);
                while (counts.size() <= step) {
                    counts.add(0L);
                }
                counts.set(step, counts.get(step) + n);
                bytes += n;
            }
            return new UpAnswer(bytes, first / 1e6, STEP_MS, counts);
        }
    }
}
