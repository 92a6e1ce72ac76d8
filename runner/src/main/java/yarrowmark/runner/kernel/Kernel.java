package yarrowmark.runner.kernel;

/** A piece of work that is the same everywhere, and says by its answer that all of it was done. */
public interface Kernel {
    /** Lays everything out from a seed: the same on every device. */
    void prepare(int seed);

    /** One round. What it answers depends on all of it. */
    int operate();

    /** Looks at more than a round can afford to; called once after the run. */
    default int digest(int of) {
        return of;
    }
}
