package yarrowmark.runner.kernel;

/** Work was done that is not the work: its time says nothing. */
public final class WrongAnswer extends RuntimeException {
    private static final long serialVersionUID = 1;

    public WrongAnswer(String words) {
        super(words);
    }
}
