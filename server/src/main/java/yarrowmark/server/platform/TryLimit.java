package yarrowmark.server.platform;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.concurrent.TimeUnit;

/**
 * Counts wrong tries an address over the last minute. In memory on purpose: a restart forgives, and the codes and
 * passwords it guards do not depend on it alone.
 */
public final class TryLimit {
    private static final Duration WINDOW = Duration.ofMinutes(1);
    private static final int MOST_ADDRESSES = 100_000;

    /** Each address for a minute after its last try; in a flood of addresses the longest unheard go first. */
    private final Cache<String, Deque<Instant>> wrong;

    private final int most;
    private final String what;
    private final Clock clock;

    public TryLimit(int most, String what, Clock clock) {
        this.most = most;
        this.what = what;
        this.clock = clock;
        this.wrong = Caffeine.newBuilder()
                .ticker(() -> TimeUnit.MILLISECONDS.toNanos(clock.millis()))
                .expireAfterAccess(WINDOW.plusSeconds(1))
                .maximumSize(MOST_ADDRESSES)
                .build();
    }

    /** A try that counts as wrong until it turns out to be right: many at once cannot all pass before the first failed. */
    public final class Try {
        private final Deque<Instant> tries;
        private final Instant at;

        private Try(Deque<Instant> tries, Instant at) {
            this.tries = tries;
            this.at = at;
        }

        public void wasRight() {
            synchronized (tries) {
                tries.removeLastOccurrence(at);
            }
        }
    }

    /** @throws TooManyTries when this address has used up its wrong tries */
    public Try begin(String address) {
        Deque<Instant> tries = wrong.get(address, a -> new ArrayDeque<>());
        synchronized (tries) {
            forgetOld(tries);
            if (tries.size() >= most) {
                throw new TooManyTries(
                        what,
                        Duration.between(clock.instant(), tries.peekFirst().plus(WINDOW)));
            }
            Instant now = clock.instant();
            tries.addLast(now);
            return new Try(tries, now);
        }
    }

    /** How many addresses are remembered; a test's. */
    long addresses() {
        wrong.cleanUp();
        return wrong.estimatedSize();
    }

    private void forgetOld(Deque<Instant> tries) {
        Instant start = clock.instant().minus(WINDOW);
        while (!tries.isEmpty() && tries.peekFirst().isBefore(start)) {
            tries.removeFirst();
        }
    }
}
