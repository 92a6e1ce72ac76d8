package yarrowmark.server.bench;

import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.function.Supplier;

/**
 * Takes deliveries in the order in which they came, a few at a time. Sixty devices that deliver at once would otherwise
 * all wait for connections and processors at every step, and some of them twice as long as the others.
 */
class DeliveryLimiter {
    private static final int AT_ONCE = 2 + 2 * Runtime.getRuntime().availableProcessors();

    private static final long PATIENCE_SECONDS = 3;

    private final Semaphore places = new Semaphore(AT_ONCE, true);

    <T> T take(Supplier<T> work) {
        boolean placed = placed();
        try {
            return work.get();
        } finally {
            if (placed) {
                places.release();
            }
        }
    }

    /** One whose configuration somebody else holds keeps its place; after a while others go on without one. */
    private boolean placed() {
        try {
            return places.tryAcquire(PATIENCE_SECONDS, TimeUnit.SECONDS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return false;
        }
    }
}
