package yarrowmark.runner.command;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.jspecify.annotations.Nullable;

/**
 * How long all processes that this one began, and has seen the end of, were at work: the system adds up their times and those of
 * theirs. One command runs at a time, so the difference of two looks is that of the command.
 *
 * @param user   in s. @param system in s
 */
record ChildTimes(double user, double system) {
    /** Linux tells times to programs in hundredths of a second, whatever its own clock is. */
    static final double STEP = 0.01;

    private static final Path OWN = Path.of("/proc/self/stat");
    private static final int CUTIME = 13;
    private static final int CSTIME = 14;

    /** Null where the system does not tell. */
    static @Nullable ChildTimes now() {
        try {
            String stat = Files.readString(OWN);
            // The name may have blanks; what follows its bracket begins with the third field.
            String[] fields = stat.substring(stat.lastIndexOf(')') + 2).split(" ");
            return new ChildTimes(Long.parseLong(fields[CUTIME]) * STEP, Long.parseLong(fields[CSTIME].strip()) * STEP);
        } catch (IOException | RuntimeException e) {
            return null;
        }
    }

    ChildTimes since(ChildTimes before) {
        return new ChildTimes(user - before.user, system - before.system);
    }
}
