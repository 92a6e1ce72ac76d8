package yarrowmark.runner.facts;

import java.nio.file.Path;
import java.time.Duration;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.LongSupplier;
import java.util.function.Supplier;

/**
 * What other programs take of the processor. It is looked up before and after something is measured and not meanwhile, so that
 * looking disturbs nothing. Programs that came and went in between are not seen.
 */
public final class BackgroundLoad {
    /** One program that runs. @param cpuNanos of one core, since it began */
    record Program(String name, long cpuNanos) {}

    /** How things stood at a moment. */
    public record Moment(long nanos, Map<Long, Program> programs) {
        /** A program that is there only while the system is updated: it writes to the drive more than it computes. */
        public Optional<String> updating() {
            return programs.values().stream()
                    .map(Program::name)
                    .filter(UPDATERS::contains)
                    .sorted()
                    .findFirst();
        }
    }

    private static final Set<String> UPDATERS = Set.of(
            "apt",
            "apt-get",
            "dpkg",
            "unattended-upgr",
            "unattended-upgrade",
            "dnf",
            "dnf5",
            "yum",
            "rpm",
            "zypper",
            "pacman",
            "softwareupdate",
            "TiWorker.exe",
            "msiexec.exe");

    /**
     * @param cores     of the processor that others took, on average; 1 is one core all the time
     * @param most      the program that took most of it
     * @param mostCores what that one took
     */
    public record Taken(double cores, String most, double mostCores) {
        @Override
        public String toString() {
            return String.format(
                    Locale.ROOT,
                    "other programs took %.0f %% of a core%s",
                    100 * cores,
                    mostCores > 0 ? String.format(Locale.ROOT, ", %s %.0f %%", most, 100 * mostCores) : "");
        }
    }

    private final Supplier<Map<Long, Program>> programs;
    private final LongSupplier nanos;

    public BackgroundLoad() {
        this(BackgroundLoad::running, System::nanoTime);
    }

    BackgroundLoad(Supplier<Map<Long, Program>> programs, LongSupplier nanos) {
        this.programs = programs;
        this.nanos = nanos;
    }

    private static Map<Long, Program> running() {
        Map<Long, Program> all = new HashMap<>();
        long own = ProcessHandle.current().pid();
        ProcessHandle.allProcesses().filter(p -> p.pid() != own).forEach(p -> {
            ProcessHandle.Info info = p.info();
            info.totalCpuDuration()
                    .map(Duration::toNanos)
                    .ifPresent(cpu -> all.put(
                            p.pid(),
                            new Program(info.command().map(BackgroundLoad::name).orElse("another program"), cpu)));
        });
        return all;
    }

    private static String name(String command) {
        Path last = Path.of(command).getFileName();
        return last == null ? command : last.toString();
    }

    public Moment now() {
        return new Moment(nanos.getAsLong(), programs.get());
    }

    /** What others took since then. */
    public Taken since(Moment before) {
        Moment after = now();
        double wall = Math.max(1, after.nanos() - before.nanos());
        double sum = 0;
        double most = 0;
        String name = "";
        for (Map.Entry<Long, Program> one : after.programs().entrySet()) {
            Program then = before.programs().get(one.getKey());
            long took = one.getValue().cpuNanos() - (then == null ? 0 : then.cpuNanos());
            // One that is new may have taken its time before, where a system gives numbers again.
            double cores = then == null ? Math.min(1, took / wall) : took / wall;
            if (cores <= 0) {
                continue;
            }
            sum += cores;
            if (cores > most) {
                most = cores;
                name = one.getValue().name();
            }
        }
        return new Taken(sum, name, most);
    }
}
