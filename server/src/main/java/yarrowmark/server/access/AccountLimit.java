package yarrowmark.server.access;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import yarrowmark.server.platform.TooManyTries;

/**
 * Wrong passwords for one account, from wherever: after five, each next try waits twice as long as the one before, up to a
 * quarter of an hour. Whoever sits at the machine itself never waits for what others did.
 */
final class AccountLimit {
    private static final int FREE = 5;
    private static final Duration LONGEST = Duration.ofMinutes(15);
    private static final int MOST = 10_000;

    private record Wrong(int times, Instant until) {}

    private final Map<String, Wrong> wrong = new ConcurrentHashMap<>();
    private final Clock clock;

    AccountLimit(Clock clock) {
        this.clock = clock;
    }

    /** Counts the try as a wrong one until {@link #wasRight} says otherwise. */
    void begin(String name) {
        Instant now = clock.instant();
        if (wrong.size() > MOST) {
            wrong.values().removeIf(w -> now.isAfter(w.until().plus(LONGEST)));
        }
        Instant[] wait = new Instant[1];
        wrong.compute(key(name), (n, before) -> {
            if (before != null && now.isBefore(before.until())) {
                wait[0] = before.until();
                return before;
            }
            // A quiet quarter of an hour forgives.
            int times = before == null || now.isAfter(before.until().plus(LONGEST)) ? 1 : before.times() + 1;
            return new Wrong(times, now.plus(times <= FREE ? Duration.ZERO : delay(times - FREE)));
        });
        if (wait[0] != null) {
            throw new TooManyTries("passwords for this name", Duration.between(now, wait[0]));
        }
    }

    void wasRight(String name) {
        wrong.remove(key(name));
    }

    private static Duration delay(int beyond) {
        Duration delay = Duration.ofSeconds(1L << Math.min(beyond, 10));
        return delay.compareTo(LONGEST) > 0 ? LONGEST : delay;
    }

    private static String key(String name) {
        return name.strip().toLowerCase(Locale.ROOT);
    }
}
