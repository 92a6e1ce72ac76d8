package yarrowmark.runner.measure;

/** A piece of work that can be done any number of times. */
@FunctionalInterface
public interface Work {
    /** Does so many rounds, and checks what each came to. */
    void rounds(long count) throws Exception;
}
