package yarrowmark.runner.storage;

import java.util.concurrent.atomic.AtomicLong;

/** How much may still be written to the drive: writing wears it, so somebody has to have said how much. */
public final class WriteBudget {
    /** Nothing more may be written. */
    public static final class Spent extends RuntimeException {
        private static final long serialVersionUID = 1;

        Spent(long limit) {
            super("The write limit of " + (limit >> 30)
                    + " GiB was reached, so this was not measured. A larger --write-limit allows it.");
        }
    }

    private volatile long limit;
    private final AtomicLong written = new AtomicLong();

    public WriteBudget(long limit) {
        this.limit = limit;
    }

    /** Says how much may be written in all. */
    public void allow(long bytes) {
        limit = bytes;
    }

    void take(long bytes) {
        if (written.addAndGet(bytes) > limit) {
            written.addAndGet(-bytes);
            throw new Spent(limit);
        }
    }

    public long written() {
        return written.get();
    }

    long left() {
        return Math.max(0, limit - written.get());
    }
}
