package yarrowmark.server.bench;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.OptionalLong;
import org.springframework.stereotype.Component;

/**
 * When devices said that their runs began, by the server's clock, against which their own is held. Kept in memory alone: what
 * a restart forgets is not held against anything.
 */
@Component
class RunClock {
    private static final int MOST_SEATS = 10_000;
    /** A run that is delivered later than this after its end waited somewhere, and says nothing about a clock. */
    private static final Duration AT_ONCE = Duration.ofSeconds(2);

    private record Begun(long testId, int run, Instant at) {}

    private final Cache<Long, Begun> begun =
            Caffeine.newBuilder().maximumSize(MOST_SEATS).build();
    private final Clock clock;

    RunClock(Clock clock) {
        this.clock = clock;
    }

    void began(long seatId, long testId, int run) {
        begun.asMap()
                .compute(
                        seatId,
                        (seat, before) -> before != null && before.testId() == testId && before.run() == run
                                ? before
                                : new Begun(testId, run, clock.instant()));
    }

    /** It does something else now, or its run was stored: another attempt at it begins anew. */
    void left(long seatId) {
        begun.invalidate(seatId);
    }

    /** How long ago a run that is delivered now began. @param finished when it ended, as the device says */
    OptionalLong sinceBegan(long seatId, long testId, int run, Instant finished) {
        Begun of = begun.getIfPresent(seatId);
        Instant now = clock.instant();
        return of == null
                        || of.testId() != testId
                        || of.run() != run
                        || finished.plus(AT_ONCE).isBefore(now)
                ? OptionalLong.empty()
                : OptionalLong.of(Duration.between(of.at(), now).toMillis());
    }
}
