package yarrowmark.runner.bench;

import java.util.Set;

/** The bench answered, and said no. */
public final class Refused extends RuntimeException {
    private static final long serialVersionUID = 1;
    /** Answers that are no verdict on what was sent: it is tried again later. */
    private static final Set<Integer> LATER = Set.of(408, 421, 425, 429);

    private final int status;

    /** @param status of the answer; 0 where nobody was asked */
    public Refused(int status, String words) {
        super(words);
        this.status = status;
    }

    public int status() {
        return status;
    }

    boolean isForLater() {
        return LATER.contains(status);
    }
}
