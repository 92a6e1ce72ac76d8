package yarrowmark.server.platform;

import java.time.Duration;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/** Work of one kind, a few at a time and in the order in which it came, instead of all of it at once. */
public final class Turns {
    private final Semaphore places;
    private final @Nullable Duration patience;

    /** @param patience after which one goes on without a place; null where one waits as long as it takes */
    public Turns(int atOnce, @Nullable Duration patience) {
        this.places = new Semaphore(atOnce, true);
        this.patience = patience;
    }

    public <T> T take(Supplier<T> work) {
        boolean placed = placed();
        try {
            return work.get();
        } finally {
            if (placed) {
                places.release();
            }
        }
    }

    private boolean placed() {
        if (patience == null) {
            places.acquireUninterruptibly();
            return true;
        }
        try {
            return places.tryAcquire(patience.toMillis(), TimeUnit.MILLISECONDS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return false;
        }
    }
}
