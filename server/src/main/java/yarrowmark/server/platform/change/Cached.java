package yarrowmark.server.platform.change;

import java.util.Optional;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.BooleanSupplier;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * One thing that is made from records, kept until it is forgotten. What was begun before it was forgotten is of before, and
 * is not kept for after.
 */
public final class Cached<T> {
    private record Kept<T>(long change, T value) {}

    private final AtomicLong changes = new AtomicLong();
    private volatile @Nullable Kept<T> kept;

    public T get(Supplier<T> read) {
        return get(read, () -> true);
    }

    /** @param mayBeKept asked after it was read: what a transaction itself put in may yet be rolled back */
    public T get(Supplier<T> read, BooleanSupplier mayBeKept) {
        Kept<T> there = kept;
        long change = changes.get();
        if (there != null && there.change() == change) {
            return there.value();
        }
        T made = read.get();
        if (mayBeKept.getAsBoolean()) {
            kept = new Kept<>(change, made);
        }
        return made;
    }

    /** What is kept now, without reading. */
    public Optional<T> now() {
        Kept<T> there = kept;
        return there != null && there.change() == changes.get() ? Optional.of(there.value()) : Optional.empty();
    }

    public void forget() {
        changes.incrementAndGet();
    }
}
