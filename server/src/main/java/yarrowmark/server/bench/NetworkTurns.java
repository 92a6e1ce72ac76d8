package yarrowmark.server.bench;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.Tokens;

/**
 * Who measures the network now: one device at a time unless told otherwise, because each would measure the others. Whoever
 * waits is let in in the order of asking. A device that goes away without a word loses its turn, or its place, in seconds.
 */
@Component
class NetworkTurns {
    /** Of one device. */
    static final int MOST_STREAMS = 8;

    private static final Duration IDLE = Duration.ofSeconds(15);
    private static final Duration ASKS_AGAIN = Duration.ofSeconds(10);

    /** @param ticket where it is this device's turn. @param before how many are let in earlier, those at it included */
    record Turn(@Nullable String ticket, int before) {}

    private static final class Held {
        private final String ticket;
        private Instant used;
        private int streams;

        private Held(String ticket, Instant used) {
            this.ticket = ticket;
            this.used = used;
        }
    }

    private final int atOnce;
    private final Clock clock;
    private final Map<Long, Held> held = new HashMap<>();
    /** When each last asked, in the order in which they came. */
    private final Map<Long, Instant> waiting = new LinkedHashMap<>();

    NetworkTurns(@Value("${yarrowmark.network.at-once:1}") int atOnce, Clock clock) {
        this.atOnce = Math.max(1, atOnce);
        this.clock = clock;
    }

    synchronized Turn ask(long seat) {
        Instant now = clock.instant();
        held.values().removeIf(h -> h.streams == 0 && now.isAfter(h.used.plus(IDLE)));
        waiting.values().removeIf(asked -> now.isAfter(asked.plus(ASKS_AGAIN)));
        Held own = held.get(seat);
        if (own != null) {
            own.used = now;
            return new Turn(own.ticket, 0);
        }
        waiting.put(seat, now);
        int place = new ArrayList<>(waiting.keySet()).indexOf(seat);
        if (held.size() + place >= atOnce) {
            return new Turn(null, Math.max(1, held.size() + place - atOnce + 1));
        }
        waiting.remove(seat);
        Held got = new Held(Tokens.fresh(), now);
        held.put(seat, got);
        return new Turn(got.ticket, 0);
    }

    synchronized void giveBack(long seat) {
        held.remove(seat);
        waiting.remove(seat);
    }

    /** Whose turn it is by this ticket; each use keeps it. */
    synchronized boolean admits(@Nullable String ticket) {
        for (Held h : held.values()) {
            if (h.ticket.equals(ticket)) {
                h.used = clock.instant();
                return true;
            }
        }
        return false;
    }

    /** One stream of a device whose turn it is; ends with it. */
    synchronized Stream open(long seat) {
        Held own = held.get(seat);
        if (own == null) {
            throw Problem.conflict(
                    "not-your-turn", "It is not this device's turn to measure the network. Ask for one first.");
        }
        if (own.streams >= MOST_STREAMS) {
            throw new Problem(
                    HttpStatus.TOO_MANY_REQUESTS,
                    "too-many-streams",
                    "A device has at most " + MOST_STREAMS + " streams at once.");
        }
        own.streams++;
        own.used = clock.instant();
        return new Stream(own);
    }

    final class Stream implements AutoCloseable {
        private final Held of;

        private Stream(Held of) {
            this.of = of;
        }

        @Override
        public void close() {
            synchronized (NetworkTurns.this) {
                of.streams--;
                of.used = clock.instant();
            }
        }
    }

    synchronized List<Long> measuring() {
        return List.copyOf(held.keySet());
    }
}
