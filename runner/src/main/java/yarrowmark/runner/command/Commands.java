package yarrowmark.runner.command;

import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Predicate;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import yarrowmark.runner.NativeTest;
import yarrowmark.runner.measure.Measurement;
import yarrowmark.runner.protocol.Api;

/**
 * The commands of a plan. They come from the bench, so that whoever owns this device reads each of them first and agrees, to the
 * letter: one that changed is asked about again.
 */
public final class Commands {
    /** @param key of its test. @param command whatever it is that would run here */
    public record Planned(String key, String name, Api.TimedCommand command) {
        /** Those of a bench's plan. */
        public static List<Planned> of(List<Api.Test> plan) {
            return plan.stream()
                    .flatMap(t ->
                            t.command() == null ? Stream.of() : Stream.of(new Planned(t.key(), t.name(), t.command())))
                    .toList();
        }
    }

    private final List<Planned> tests;
    private final AgreedCommands agreed;
    private final Consumer<String> tell;

    public Commands(List<Planned> planned, AgreedCommands agreed, Consumer<String> tell) {
        this.tests = List.copyOf(planned);
        this.agreed = agreed;
        this.tell = tell;
    }

    /** Every word of those that nobody agreed to yet, and the number for all of them. */
    public void show() {
        for (Planned test : tests) {
            if (agreed.to(test.command())) {
                continue;
            }
            tell.accept(test.name() + " is a command of the plan's:");
            CommandWords.of(test.command()).forEach(line -> tell.accept("    " + line));
        }
        if (!tests.isEmpty()) {
            tell.accept("All " + tests.size() + " commands of this plan together have the number " + together() + ".");
        }
    }

    private String together() {
        return CommandWords.together(tests.stream().map(Planned::command).toList());
    }

    public boolean any() {
        return !tests.isEmpty();
    }

    /**
     * Asks about those that nobody agreed to yet.
     *
     * @param none   whether none may be carried out
     * @param number by which somebody agreed to all of them on the command line
     * @param ask    a question that whoever sits here answers
     */
    public void ask(boolean none, @Nullable String number, Predicate<String> ask) {
        List<Api.TimedCommand> fresh = tests.stream()
                .map(Planned::command)
                .filter(c -> !agreed.to(c))
                .distinct()
                .toList();
        boolean byNumber = number != null && number.strip().equalsIgnoreCase(together());
        if (number != null && !byNumber && !tests.isEmpty()) {
            tell.accept("The commands are not those that --commands agrees to: their number is another one.");
        }
        if (!none
                && !fresh.isEmpty()
                && (byNumber
                        || number == null
                                && ask.test(
                                        "These commands would run here as you, and could do whatever you can. Carry out the "
                                                + fresh.size() + " shown above?"))) {
            agreed.agree(fresh);
        }
    }

    /**
     * What may be carried out, and for the others why not.
     *
     * @param none whether none may be
     * @param own  folder in which they run
     */
    public Map<String, NativeTest> tests(boolean none, @Nullable Path own) {
        Map<String, NativeTest> all = new LinkedHashMap<>();
        for (Planned test : tests) {
            all.put(
                    test.key(),
                    none
                            ? new Refused("Commands are refused here (--no-commands).")
                            : agreed.to(test.command())
                                    ? new CommandTest(test.command(), own)
                                    : new Refused(
                                            "Whoever owns this device has not agreed to its command. They agree when asked, or with --commands and the number that is shown for all of them."));
        }
        return all;
    }

    private record Refused(String words) implements NativeTest {
        @Override
        public Optional<Obstacle> obstacle(Options options) {
            return Optional.of(new Obstacle("NOT_SUPPORTED", words));
        }

        @Override
        public Measurement run(Options options) {
            throw new IllegalStateException(words);
        }
    }
}
