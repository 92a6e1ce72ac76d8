package yarrowmark.runner.bench;

/** The bench did not answer: it may be restarting, or the connection is gone. What was not sent is kept. */
public final class Unreachable extends RuntimeException {
    private static final long serialVersionUID = 1;

    Unreachable(String words) {
        super(words);
    }
}
