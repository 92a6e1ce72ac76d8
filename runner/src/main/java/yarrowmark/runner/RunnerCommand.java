package yarrowmark.runner;

import java.io.Console;
import java.io.IOException;
import java.io.PrintWriter;
import java.net.URI;
import java.net.URISyntaxException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.OptionalInt;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Spec;
import yarrowmark.runner.bench.BenchClient;
import yarrowmark.runner.bench.Control;
import yarrowmark.runner.bench.Joining;
import yarrowmark.runner.bench.Outbox;
import yarrowmark.runner.bench.PinnedCertificate;
import yarrowmark.runner.bench.Refused;
import yarrowmark.runner.bench.Round;
import yarrowmark.runner.bench.Unreachable;
import yarrowmark.runner.command.AgreedCommands;
import yarrowmark.runner.command.Commands;
import yarrowmark.runner.command.VisibleText;
import yarrowmark.runner.facts.BackgroundLoad;
import yarrowmark.runner.facts.HardwareFacts;
import yarrowmark.runner.kernel.ProcessorTests;
import yarrowmark.runner.memory.MemoryTests;
import yarrowmark.runner.protocol.Api;
import yarrowmark.runner.sensor.LinuxSensors;
import yarrowmark.runner.sensor.Sensors;
import yarrowmark.runner.storage.Place;
import yarrowmark.runner.storage.PlannedWrites;
import yarrowmark.runner.storage.StorageTests;
import yarrowmark.runner.storage.WriteBudget;

/** The command line: joins a bench with its code and carries out the plan. */
@Command(
        name = "yarrow-runner",
        mixinStandardHelpOptions = true,
        versionProvider = RunnerCommand.Version.class,
        description = "Joins a Yarrowmark bench with its code and carries out the plan on this computer.",
        exitCodeListHeading = "Exit codes:%n",
        exitCodeList = {
            "0:done, and everything that was measured is at the bench",
            "1:it could not be done; the last line says why",
            "2:the command line cannot be read",
            "3:stopped before its end; what was measured is at the bench",
            "4:over, but runs are not at the bench; the last line says where they are kept"
        })
public final class RunnerCommand implements Callable<Integer> {
    private static final int GIB = 30;
    private static final long FILE_BYTES = 1L << GIB;
    private static final int DONE = 0;
    private static final int STOPPED = 3;
    private static final int FAILED = 1;
    /** Over, and something that was measured is not at the bench. */
    private static final int MISSING = 4;

    static final class Version implements CommandLine.IVersionProvider {
        @Override
        public String[] getVersion() {
            String version = RunnerCommand.class.getPackage().getImplementationVersion();
            return new String[] {"Yarrowmark runner " + (version == null ? "of this checkout" : version)};
        }
    }

    @Mixin
    private RunnerOptions given = new RunnerOptions();

    private final WriteBudget budget = new WriteBudget(0);

    @Spec
    @SuppressWarnings("NullAway.Init")
    private CommandSpec spec;

    public static void main(String[] arguments) {
        OptionalInt again = Utf8Start.again();
        if (again.isPresent()) {
            System.exit(again.getAsInt());
        }
        System.exit(new CommandLine(new RunnerCommand())
                .setCaseInsensitiveEnumValuesAllowed(true)
                .execute(arguments));
    }

    @Override
    public Integer call() throws Exception {
        PrintWriter out = spec.commandLine().getOut();
        PrintWriter err = spec.commandLine().getErr();
        Path tested = given.folder.toAbsolutePath();
        HardwareFacts hardware = new HardwareFacts(given.serials);
        if (given.facts) {
            hardware.read(tested).forEach((key, value) -> out.println(VisibleText.of(HardwareFacts.shown(key, value))));
            out.flush();
            return DONE;
        }
        if (given.listTests) {
            tests(storage()).keySet().forEach(out::println);
            out.flush();
            return DONE;
        }
        if (given.offline != null) {
            return offline(given.offline, tested, hardware, out, err);
        }
        URI bench = given.address == null ? null : parsed(given.address);
        if (bench == null || given.code == null) {
            throw new CommandLine.ParameterException(
                    spec.commandLine(),
                    "Give the address of the bench, such as https://192.168.0.4:8443, and the code that it shows.");
        }
        if (given.threads < 1 || given.writeLimit != null && given.writeLimit < 0 || given.longWrite < 0) {
            throw new CommandLine.ParameterException(
                    spec.commandLine(), "Threads are 1 or more; a write limit is 0 GiB or more.");
        }
        try (StateLock alone = StateLock.of(given.state);
                StorageTests storage = storage()) {
            return join(bench, given.code, tested, hardware, tests(storage), out);
        } catch (StateLock.Taken | Refused | Unreachable e) {
            err.println(VisibleText.of(String.valueOf(e.getMessage())));
            err.flush();
            return FAILED;
        }
    }

    private Map<String, NativeTest> tests(StorageTests storage) {
        Map<String, NativeTest> tests = new LinkedHashMap<>(ProcessorTests.all());
        tests.putAll(MemoryTests.all());
        tests.putAll(storage.all());
        return tests;
    }

    private StorageTests storage() {
        return new StorageTests(budget, FILE_BYTES, (long) given.longWrite << GIB);
    }

    /** What a plan would write, and no more than that or the limit that was given may be. */
    private PlannedWrites allow(List<PlannedWrites.Planned> plan) {
        PlannedWrites writes = PlannedWrites.of(plan, FILE_BYTES, (long) given.longWrite << GIB);
        budget.allow(limit(writes) << GIB);
        return writes;
    }

    private long limit(PlannedWrites writes) {
        return given.writeLimit == null ? writes.gib() : given.writeLimit;
    }

    private int offline(Path plan, Path tested, HardwareFacts hardware, PrintWriter said, PrintWriter err)
            throws InterruptedException, IOException {
        Path own = given.state.resolve("offline");
        try {
            Files.createDirectories(own);
        } catch (IOException e) {
            err.println("The runner needs a folder of its own, and cannot make " + own + " ("
                    + e.getClass().getSimpleName() + "). Say another with --state.");
            err.flush();
            return FAILED;
        }
        try (StateLock alone = StateLock.of(given.state);
                StorageTests storage = storage()) {
            return new OfflineCommand(
                                    tests(storage),
                                    new NativeTest.Options(1, given.threads, tested),
                                    new AgreedCommands(own),
                                    line -> say(said, line),
                                    new OfflineCommand.Asked(
                                            planned -> {
                                                PlannedWrites writes = allow(planned);
                                                return writes.any()
                                                        ? writes.words(tested.toString(), limit(writes))
                                                        : null;
                                            },
                                            given.noCommands,
                                            given.commands,
                                            given.planOnly,
                                            this::agreed,
                                            this::byPerson))
                            .run(plan, given.out, hardware)
                    ? DONE
                    : STOPPED;
        } catch (StateLock.Taken | OfflineCommand.Cannot e) {
            err.println(VisibleText.of(String.valueOf(e.getMessage())));
            err.flush();
            return FAILED;
        }
    }

    /** Nothing where it is no address of a bench. */
    private static @Nullable URI parsed(String typed) {
        try {
            URI read = new URI(typed.strip());
            boolean known = "http".equals(read.getScheme()) || "https".equals(read.getScheme());
            return known && read.getHost() != null ? read : null;
        } catch (URISyntaxException e) {
            return null;
        }
    }

    private int join(
            URI bench,
            String withCode,
            Path tested,
            HardwareFacts hardware,
            Map<String, NativeTest> tests,
            PrintWriter out)
            throws Exception {
        Path place = given.state.resolve(plain(bench.getHost() + "-" + bench.getPort()));
        Outbox outbox = new Outbox(place.resolve(plain(withCode)));
        PinnedCertificate pin = AskedCertificate.pin(bench, place, given.fingerprint, line -> say(out, line));
        BenchClient client = new BenchClient(bench, pin);
        if (new Joining(client, outbox).join(bench.toString(), withCode, hardware.computer())) {
            say(out, "Goes on with the round that was begun here.");
        }
        Api.Seat seat = client.seat();
        int timedMs = seat.timedMs();
        PlannedWrites writes = allow(seat.tests().stream()
                .filter(t -> tests.containsKey(t.key()))
                .map(t -> new PlannedWrites.Planned(t.key(), t.runs(), t.timedMs() == null ? timedMs : t.timedMs()))
                .toList());
        describe(seat, tests, out);
        if (writes.any()) {
            say(out, writes.words(tested.toString(), limit(writes)));
        }
        Sensors sensors = LinuxSensors.find();
        sensors.unreadable().forEach(words -> say(out, words));
        if (Boolean.FALSE.equals(hardware.onMains())) {
            say(out, "This computer runs on its battery, on which many are slower; the session says so.");
        }
        Commands asked =
                new Commands(Commands.Planned.of(seat.tests()), new AgreedCommands(place), line -> say(out, line));
        asked.show();
        if (given.planOnly) {
            return DONE;
        }
        // Asked before anything is begun: whoever reads them may take a while, or go away.
        asked.ask(given.noCommands, given.commands, this::byPerson);
        if (seat.sessionId() == null) {
            if (writes.any() && !agreed("Go on?")) {
                say(out, "Nothing was done. The code stays good for this computer.");
                return STOPPED;
            }
            seat = client.start(new ComputerIdentity(
                            client,
                            hardware,
                            new ComputerIdentity.Said(given.model, given.newModel, given.unit, given.typed, given.yes),
                            line -> say(out, line))
                    .start(tested));
        }
        try (Place own = asked.any() && Files.isWritable(tested) ? Place.in(tested) : null;
                Control control = new Control(client, seat.command(), seat.commandRevision())) {
            tests.putAll(asked.tests(given.noCommands, own == null ? null : own.folder()));
            Thread round = Thread.currentThread();
            Thread stop = new Thread(() -> {
                control.stopHere();
                try {
                    round.join(10_000);
                } catch (InterruptedException e) {
                    Thread.currentThread().interrupt();
                }
            });
            Runtime.getRuntime().addShutdownHook(stop);
            Api.Ending how = new Round(
                            client,
                            outbox,
                            tests,
                            new NativeTest.Options(seat.timedMs(), given.threads, tested),
                            line -> say(out, line),
                            new BackgroundLoad(),
                            sensors,
                            1000L * Math.max(0, given.quietWait))
                    .run(seat, control);
            try {
                Runtime.getRuntime().removeShutdownHook(stop);
            } catch (IllegalStateException e) {
                // It is what ends the round.
            }
            long missing = outbox.refused();
            outbox.over();
            String over = how == Api.Ending.DONE ? "Done." : "Stopped.";
            if (missing > 0) {
                say(
                        out,
                        over + " " + missing + (missing == 1 ? " run is" : " runs are")
                                + " NOT at the bench: the server did not take "
                                + (missing == 1 ? "it" : "them") + ". Kept in " + outbox.place()
                                + ", each with the reason in a file beside it.");
                return MISSING;
            }
            say(
                    out,
                    how == Api.Ending.DONE
                            ? "Done. The scores are at the bench."
                            : "Stopped. What was measured is at the bench.");
            return how == Api.Ending.DONE ? DONE : STOPPED;
        }
    }

    private static String plain(String name) {
        return name.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9.-]+", "-");
    }

    private static void say(PrintWriter out, String line) {
        out.println(VisibleText.of(line));
        out.flush();
    }

    private void describe(Api.Seat seat, Map<String, NativeTest> tests, PrintWriter out) {
        say(
                out,
                seat.planName() + ": " + seat.tests().size() + (seat.tests().size() == 1 ? " test, " : " tests, ")
                        + seat.timedMs() / 1000.0 + " s timed in each run");
        for (Api.Test test : seat.tests()) {
            String how = test.byHand()
                    ? "by hand"
                    : tests.containsKey(test.key()) || test.command() != null
                            ? test.runs() + (test.runs() == 1 ? " run" : " runs")
                            : "in a browser only";
            say(out, "  " + test.name() + ": " + how);
        }
    }

    /** What --yes does not agree to. */
    private boolean byPerson(String question) {
        return !given.yes && agreed(question);
    }

    private boolean agreed(String question) {
        Console console = System.console();
        if (given.yes || console == null) {
            return given.yes;
        }
        String answer = console.readLine("%s [y/N] ", question);
        return answer != null && answer.strip().equalsIgnoreCase("y");
    }
}
