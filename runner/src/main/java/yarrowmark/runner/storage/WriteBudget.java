package yarrowmark.runner.storage;

import java.util.concurrent.atomic.AtomicLong;

/** How much may still be written to the drive: writing wears it, so somebody has to have said how much. */
public final class WriteBudget {
    /** Nothing more may be written. */
    static final class Spent extends RuntimeException {
        private static final long serialVersionUID = 1;

        Spent(long limit) {
            super("It would write more than " + (limit >> 30)
                    + " GiB to this drive. A larger --write-limit allows it.");
        }
    }

    private final long limit;
    private final AtomicLong written = new AtomicLong();

    public WriteBudget(long limit) {
        this.limit = limit;
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
