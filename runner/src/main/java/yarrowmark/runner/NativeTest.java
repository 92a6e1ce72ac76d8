package yarrowmark.runner;

import java.nio.file.Path;
import java.util.Optional;
import yarrowmark.runner.measure.Measurement;

/** A test that the runner carries out. */
public interface NativeTest {
    /**
     * What a run is given.
     *
     * @param timedMs of the part that is timed
     * @param threads as many as are used together
     * @param folder  on the drive that is tested
     */
    record Options(double timedMs, int threads, Path folder) {}

    /** Why a test cannot be carried out here. @param reason as the server calls it */
    record Obstacle(String reason, String words) {}

    default Optional<Obstacle> obstacle(Options options) {
        return Optional.empty();
    }

    /** A run that takes longer is stuck. Filling a file and writing on and on take longer than what is timed. */
    default long longestMs(Options options) {
        return (long) (15 * 60_000 + 10 * options.timedMs());
    }

    /** Runs once. Interrupted, it ends at once and leaves nothing behind. */
    Measurement run(Options options) throws Exception;
}
