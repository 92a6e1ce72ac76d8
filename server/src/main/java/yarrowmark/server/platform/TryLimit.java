package yarrowmark.server.platform;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;

/**
 * Counts wrong tries an address over the last minute. In memory on purpose: a restart forgives, and the codes and
 * passwords it guards do not depend on it alone.
 */
public final class TryLimit {
    private static final Duration WINDOW = Duration.ofMinutes(1);
    private static final int MOST_ADDRESSES = 10_000;

    private final Map<String, Deque<Instant>> wrong = new ConcurrentHashMap<>();
    private final int most;
    private final String what;
    private final Clock clock;

    public TryLimit(int most, String what, Clock clock) {
        this.most = most;
        this.what = what;
        this.clock = clock;
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
        if (wrong.size() > MOST_ADDRESSES) {
            wrong.values().removeIf(tries -> {
                synchronized (tries) {
                    forgetOld(tries);
                    return tries.isEmpty();
                }
            });
        }
        Deque<Instant> tries = wrong.computeIfAbsent(address, a -> new ArrayDeque<>());
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

    private void forgetOld(Deque<Instant> tries) {
        Instant start = clock.instant().minus(WINDOW);
        while (!tries.isEmpty() && tries.peekFirst().isBefore(start)) {
            tries.removeFirst();
        }
    }
}
