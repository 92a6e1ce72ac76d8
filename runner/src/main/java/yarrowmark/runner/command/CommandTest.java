package yarrowmark.runner.command;

import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import yarrowmark.runner.NativeTest;
import yarrowmark.runner.measure.Measurement;
import yarrowmark.runner.protocol.Api;

/**
 * Carries out a command and times it. It gets nothing to read and no terminal, what it prints is read as it comes, and when it
 * is over, or its time is, everything that it began is ended.
 */
public final class CommandTest implements NativeTest {
    /** The metric of the time, whatever else is scored. */
    public static final String WALL = "wall";

    /** Where commands run, below the tested folder. */
    public static final String PLACE = "yarrow-commands";

    /** A millisecond is about what it takes to begin a process. */
    private static final double RESOLUTION_S = 0.001;

    private static final double NS = 1e9;
    private static final long LAST_WORDS_MS = 2_000;
    private static final long STOPPED_CLEAN_UP_S = 5;
    private static final long VERSION_S = 20;
    private static final long EXTRA_MS = 15 * 60_000;
    private static final int SETTLE_MS = 250;
    private static final int NOT_EXECUTABLE = 126;
    private static final int NOT_FOUND = 127;
    private static final Path SETSID = Path.of("/usr/bin/setsid");

    private final Api.TimedCommand command;
    private final @Nullable Path own;
    /** Whether the untimed run before the first was made. */
    private boolean warm;

    private @Nullable String version;

    public CommandTest(Api.TimedCommand command) {
        this(command, null);
    }

    /** @param own folder in which it runs; absent: one below the tested folder */
    CommandTest(Api.TimedCommand command, @Nullable Path own) {
        this.command = command;
        this.own = own;
    }

    @Override
    public Optional<Obstacle> obstacle(Options options) {
        if (command.cache() == Api.Cache.COLD && !FileCache.mayDrop()) {
            return Optional.of(
                    new Obstacle(
                            "NOT_SUPPORTED",
                            "It is to begin with nothing of its files in memory, and only an administrator may drop what the system keeps of them. Run the runner as root, or make the test one that begins warm."));
        }
        return Optional.empty();
    }

    @Override
    public long longestMs(Options options) {
        return EXTRA_MS + 4_000L * command.limitSeconds();
    }

    @Override
    public Measurement run(Options options) throws Exception {
        Path folder = folder(options);
        if (version == null && command.version() != null) {
            version = OutputTail.firstLine(
                    once(command.version(), folder, VERSION_S, null).output());
        }
        try {
            prepare(folder);
            if (command.cache() == Api.Cache.WARM && !warm) {
                checked(once(command.run(), folder, command.limitSeconds(), command.between()));
                warm = true;
                prepare(folder);
            }
            if (command.cache() == Api.Cache.COLD) {
                FileCache.drop();
            }
            return measured(once(command.run(), folder, command.limitSeconds(), command.between()));
        } finally {
            cleanUp(folder);
        }
    }

    private Path folder(Options options) throws CommandFailed {
        Path place = (own == null ? options.folder().resolve(PLACE) : own)
                .toAbsolutePath()
                .normalize();
        Path folder = command.folder() == null
                ? place
                : place.resolve(command.folder()).normalize();
        if (!folder.startsWith(place)) {
            throw new CommandFailed(
                    Api.Reason.NOT_SUPPORTED,
                    "Its folder “" + command.folder() + "” lies outside of the place where commands may run.",
                    "");
        }
        try {
            return Files.createDirectories(folder);
        } catch (IOException e) {
            throw new CommandFailed(
                    Api.Reason.ERROR, "The folder " + folder + " cannot be made: " + e.getMessage() + ".", "");
        }
    }

    private void prepare(Path folder) throws CommandFailed, InterruptedException {
        if (command.prepare() == null) {
            return;
        }
        Ended ended = once(command.prepare(), folder, command.limitSeconds(), null);
        if (ended.exit() != 0) {
            throw new CommandFailed(
                    Api.Reason.ERROR, "Its preparation ended with the exit code " + ended.exit() + ".", ended.output());
        }
    }

    /** However the run ended; a run that was stopped leaves it a moment. What it comes to changes nothing of the score. */
    private void cleanUp(Path folder) {
        if (command.cleanUp() == null) {
            return;
        }
        boolean stopped = Thread.interrupted();
        try {
            once(command.cleanUp(), folder, stopped ? STOPPED_CLEAN_UP_S : command.limitSeconds(), null);
        } catch (CommandFailed e) {
            // The next run's preparation finds what is left.
        } catch (InterruptedException e) {
            stopped = true;
        }
        if (stopped) {
            Thread.currentThread().interrupt();
        }
    }

    /** @param peak of memory, in bytes. @param times of it and all it began */
    record Ended(
            int exit,
            long wallNs,
            OptionalLong betweenNs,
            boolean marked,
            OptionalLong peak,
            @Nullable ChildTimes times,
            String output) {}

    private Ended checked(Ended ended) throws CommandFailed {
        if (ended.exit() != command.expectedExit()) {
            throw new CommandFailed(
                    Api.Reason.ERROR,
                    "It ended with the exit code " + ended.exit() + " where " + command.expectedExit()
                            + " was expected.",
                    ended.output());
        }
        if (command.between() != null && ended.betweenNs().isEmpty()) {
            throw new CommandFailed(
                    Api.Reason.ERROR,
                    "It printed no line with “"
                            + (ended.marked()
                                    ? command.between().to() + "” after the one with “"
                                            + command.between().from()
                                    : command.between().from())
                            + "”, from which to time.",
                    ended.output());
        }
        return ended;
    }

    private Measurement measured(Ended ended) throws CommandFailed {
        checked(ended);
        double seconds = ended.betweenNs().orElse(ended.wallNs()) / NS;
        List<Measurement.More> more = new ArrayList<>();
        ChildTimes times = ended.times();
        // A time below the step of the system's clock is not known rather than nothing.
        if (times != null && times.user() > 0) {
            more.add(new Measurement.More("user", times.user(), ChildTimes.STEP));
        }
        if (times != null && times.system() > 0) {
            more.add(new Measurement.More("system", times.system(), ChildTimes.STEP));
        }
        ended.peak().ifPresent(bytes -> more.add(new Measurement.More("peak-memory", bytes, 1024)));
        return new Measurement(seconds, RESOLUTION_S, List.of(), 1000 * seconds, more, version == null ? null : version)
                .withOutput(ended.output());
    }

    private Ended once(Api.Step step, Path folder, long limitS, Api.@Nullable Marks marks)
            throws CommandFailed, InterruptedException {
        String mark = UUID.randomUUID().toString();
        ProcessBuilder builder = new ProcessBuilder(arguments(step))
                .directory(folder.toFile())
                .redirectErrorStream(true)
                .redirectInput(ProcessBuilder.Redirect.from(new File(nothing())));
        if (command.environment() != null) {
            builder.environment().putAll(command.environment());
        }
        builder.environment().put(Descendants.MARK, mark);
        ChildTimes before = ChildTimes.now();
        long from = System.nanoTime();
        Process process;
        try {
            process = builder.start();
        } catch (IOException e) {
            throw new CommandFailed(
                    Api.Reason.NOT_SUPPORTED,
                    "“" + step.arguments().get(0) + "” cannot be begun here: " + e.getMessage() + ".",
                    "");
        }
        OutputTail tail = new OutputTail(process.getInputStream(), marks);
        Thread reading = daemon(tail, "output");
        PeakWatch peak = new PeakWatch(process.pid());
        Thread watching = daemon(peak, "peak memory");
        boolean inTime = false;
        long wall;
        try {
            inTime = process.waitFor(limitS, TimeUnit.SECONDS);
            wall = System.nanoTime() - from;
        } finally {
            watching.interrupt();
            Descendants.end(process.toHandle(), mark, peak.seen());
        }
        reading.join(LAST_WORDS_MS);
        if (!inTime) {
            throw new CommandFailed(
                    Api.Reason.TOO_SLOW, "It was not done after " + limitS + " s and was ended.", tail.text());
        }
        notBegun(step, process.exitValue(), tail.text());
        ChildTimes after = ChildTimes.now();
        return new Ended(
                process.exitValue(),
                wall,
                tail.betweenMarks(),
                tail.begun(),
                peak.highest(),
                before == null || after == null ? null : after.since(before),
                tail.text());
    }

    /** What a shell, or what puts a command in a session of its own, says where there is no such program, or none that may run. */
    private void notBegun(Api.Step step, int exit, String output) throws CommandFailed {
        if (exit == command.expectedExit() || exit != NOT_FOUND && exit != NOT_EXECUTABLE) {
            return;
        }
        String name = step.shell() ? "A program of it" : "“" + step.arguments().get(0) + "”";
        throw new CommandFailed(
                Api.Reason.NOT_SUPPORTED,
                name + " cannot be begun here: "
                        + (exit == NOT_FOUND ? "it was not found" : "it may not be executed") + " (exit code " + exit
                        + ").",
                output);
    }

    /** In a session of its own, so that it finds no terminal to ask at. */
    private static List<String> arguments(Api.Step step) {
        List<String> arguments = new ArrayList<>();
        if (Files.isExecutable(SETSID)) {
            arguments.add(SETSID.toString());
        }
        if (step.shell()) {
            arguments.addAll(
                    File.separatorChar == '/' ? List.of("/bin/sh", "-c") : List.of("cmd.exe", "/d", "/s", "/c"));
        }
        arguments.addAll(step.arguments());
        return arguments;
    }

    private static String nothing() {
        return File.separatorChar == '/' ? "/dev/null" : "NUL";
    }

    private static Thread daemon(Runnable work, String name) {
        Thread thread = new Thread(work, name);
        thread.setDaemon(true);
        thread.start();
        return thread;
    }

    /** Looks how much memory a command ever held: often at first, because short ones end soon. */
    private static final class PeakWatch implements Runnable {
        private final long pid;
        private volatile long highest;
        /** Everybody of the family that was ever seen: one that left it without the mark is known from before. */
        private final Set<ProcessHandle> seen = ConcurrentHashMap.newKeySet();

        PeakWatch(long pid) {
            this.pid = pid;
        }

        @Override
        public void run() {
            int pause = 4;
            try {
                while (true) {
                    Thread.sleep(pause);
                    highest = Math.max(highest, Descendants.peak(pid).orElse(0));
                    ProcessHandle.of(pid).ifPresent(main -> main.descendants().forEach(seen::add));
                    pause = Math.min(SETTLE_MS, 2 * pause);
                }
            } catch (InterruptedException e) {
                // The command is over.
            }
        }

        Set<ProcessHandle> seen() {
            return seen;
        }

        OptionalLong highest() {
            return highest > 0 ? OptionalLong.of(highest) : OptionalLong.empty();
        }
    }
}
