package yarrowmark.runner;

import java.io.IOException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import yarrowmark.runner.command.AgreedCommands;
import yarrowmark.runner.command.Commands;
import yarrowmark.runner.facts.HardwareFacts;
import yarrowmark.runner.offline.OfflinePlan;
import yarrowmark.runner.offline.OfflineRound;
import yarrowmark.runner.storage.Place;
import yarrowmark.runner.storage.PlannedWrites;

/** Carries out a plan in a file, into a file, where there is no bench. */
final class OfflineCommand {
    private static final int STOP_MS = 10_000;

    /**
     * What may be done.
     *
     * @param writes     says what would be written, and allows it; absent where nothing would be
     * @param number     by which the commands were agreed to on the command line
     * @param showOnly   whether nothing is carried out
     * @param ask        a question, to which the command line may have agreed already
     * @param askPerson  a question that only a person answers
     */
    record Asked(
            Function<List<PlannedWrites.Planned>, @Nullable String> writes,
            boolean noCommands,
            @Nullable String number,
            boolean showOnly,
            Predicate<String> ask,
            Predicate<String> askPerson) {}

    /** Why it could not be done, in words. */
    static final class Cannot extends Exception {
        private static final long serialVersionUID = 1L;

        Cannot(String words) {
            super(words);
        }
    }

    private final Map<String, NativeTest> tests;
    private final NativeTest.Options options;
    private final AgreedCommands agreed;
    private final Consumer<String> tell;
    private final Asked asked;

    /** @param options threads and folder; the timed part is the plan's */
    OfflineCommand(
            Map<String, NativeTest> tests,
            NativeTest.Options options,
            AgreedCommands agreed,
            Consumer<String> tell,
            Asked asked) {
        this.tests = tests;
        this.options = options;
        this.agreed = agreed;
        this.tell = tell;
        this.asked = asked;
    }

    /** @param out file that is made; absent: one beside the plan. @return whether it was carried out */
    boolean run(Path file, @Nullable Path out, HardwareFacts hardware) throws Cannot, InterruptedException {
        try {
            OfflinePlan plan = OfflinePlan.read(file, tests.keySet());
            Commands commands = new Commands(plan.commands(), agreed, tell);
            commands.show();
            String writes = asked.writes()
                    .apply(plan.tests().stream()
                            .map(t -> new PlannedWrites.Planned(t.key(), plan.runs(), plan.timedMs()))
                            .toList());
            if (writes != null) {
                tell.accept(writes);
            }
            if (asked.showOnly()) {
                tell.accept(plan.name() + ": " + plan.tests().size()
                        + (plan.tests().size() == 1 ? " test, " : " tests, ") + plan.runs()
                        + (plan.runs() == 1 ? " run of each." : " runs of each."));
                return true;
            }
            commands.ask(asked.noCommands(), asked.number(), asked.askPerson());
            if (writes != null && !asked.ask().test("Go on?")) {
                tell.accept("Nothing was done; --yes agrees to it.");
                return false;
            }
            Path into = out == null ? OfflineRound.begunBeside(file).orElse(beside(file)) : out;
            carryOut(plan, commands, into, hardware.read(options.folder()));
            tell.accept("Done. “Import” in the ledger reads " + into + ".");
            return true;
        } catch (OfflinePlan.Wrong e) {
            throw new Cannot(String.valueOf(e.getMessage()));
        } catch (FileAlreadyExistsException e) {
            throw new Cannot(e.getFile()
                    + " is there already; what was measured is never written over. Say another with --out.");
        } catch (NoSuchFileException e) {
            throw new Cannot("There is no file " + e.getFile() + ".");
        } catch (FileSystemException e) {
            throw new Cannot(e.getFile() + " cannot be used: "
                    + (e.getReason() == null ? e.getClass().getSimpleName() : e.getReason()) + ".");
        } catch (IOException e) {
            throw new Cannot("The plan could not be read, or its scores not be written: " + e.getMessage());
        }
    }

    private void carryOut(OfflinePlan plan, Commands commands, Path into, Map<String, String> facts)
            throws IOException, InterruptedException {
        Path tested = options.folder();
        Thread round = Thread.currentThread();
        // A command that is running is ended with everything it began, also where the runner is told to end.
        Thread stop = new Thread(() -> {
            round.interrupt();
            try {
                round.join(STOP_MS);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        });
        Runtime.getRuntime().addShutdownHook(stop);
        try (Place own = commands.any() && Files.isWritable(tested) ? Place.in(tested) : null) {
            tests.putAll(commands.tests(asked.noCommands(), own == null ? null : own.folder()));
            new OfflineRound(plan, facts, tests, options, tell).run(into);
        } finally {
            try {
                Runtime.getRuntime().removeShutdownHook(stop);
            } catch (IllegalStateException e) {
                // It is what ends the round.
            }
        }
    }

    private static Path beside(Path plan) {
        String name = OfflineRound.nameOf(plan);
        String at = Instant.now().truncatedTo(ChronoUnit.SECONDS).toString().replaceAll("[^0-9TZ]", "");
        return plan.resolveSibling(name + "-" + at + ".csv");
    }
}
