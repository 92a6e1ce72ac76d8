package yarrowmark.runner.offline;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import yarrowmark.core.rule.ScorePattern;
import yarrowmark.runner.command.Commands;
import yarrowmark.runner.protocol.Api;

/**
 * What to carry out without a bench; docs/formats.md describes the file.
 *
 * @param name        of the session
 * @param deviceClass needed where the shelf does not have the model yet
 * @param tests       in their order
 */
public record OfflinePlan(
        String name,
        String maker,
        String model,
        @Nullable String deviceClass,
        @Nullable String unit,
        int runs,
        int timedMs,
        int pauseMs,
        List<Planned> tests) {
    private static final JsonMapper JSON = JsonMapper.builder()
            .enable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
            .build();
    private static final JsonMapper LENIENT = JsonMapper.builder()
            .disable(DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES)
            .build();
    private static final Map<String, String> DIRECTIONS =
            new TreeMap<>(Map.of("MORE_IS_BETTER", "more", "LESS_IS_BETTER", "less"));
    private static final int LONGEST_S = 86_400;
    private static final int MOST_RUNS = 50;
    private static final int LONGEST_TIMED_MS = 7_200_000;
    private static final Set<String> CLASSES = Set.of("laptop", "desktop", "mini", "tablet", "phone", "board");

    /** @param key of a native test, or one of its own for a command */
    public record Planned(String key, @Nullable TimedTest command) {}

    /**
     * A command of a suite: where its scores belong, and what is carried out.
     *
     * @param output how its score stands in what it prints; absent where its time is the score
     */
    public record TimedTest(
            String suite,
            String version,
            String mode,
            String name,
            Api.TimedCommand command,
            @Nullable Output output) {}

    /** @param direction "more" or "less", as rows of a ledger say it */
    public record Output(ScorePattern pattern, String direction) {}

    /** The commands among its tests, each to be agreed to. */
    public List<Commands.Planned> commands() {
        return tests.stream()
                .flatMap(t -> t.command() == null
                        ? Stream.of()
                        : Stream.of(new Commands.Planned(
                                t.key(), t.command().name(), t.command().command())))
                .toList();
    }

    /** Says what is wrong with a plan, where, and why. */
    public static final class Wrong extends RuntimeException {
        private static final long serialVersionUID = 1;

        Wrong(String words) {
            super(words);
        }
    }

    /** The file as it is, before anything of it is believed. */
    record Typed(
            @Nullable String name,
            @Nullable String maker,
            @Nullable String model,
            @Nullable String deviceClass,
            @Nullable String unit,
            @Nullable Integer runs,
            @Nullable Integer timedMs,
            @Nullable Integer pauseMs,
            @Nullable List<@Nullable JsonNode> tests) {}

    /** A command among the tests, as the suites' view writes it. */
    record TypedCommand(
            @Nullable String suite,
            @Nullable String version,
            @Nullable String mode,
            @Nullable String test,
            @Nullable JsonNode command) {}

    /** How a score stands in what is printed, as the suites' view writes it. */
    record TypedOutput(
            ScorePattern.@Nullable Kind kind,
            @Nullable String expression,
            @Nullable String unit,
            @Nullable String direction) {}

    /** @param known keys that the runner can carry out */
    public static OfflinePlan read(Path file, Set<String> known) throws IOException {
        Typed typed;
        try {
            typed = JSON.readValue(Files.readString(file, StandardCharsets.UTF_8), Typed.class);
        } catch (JacksonException e) {
            throw new Wrong(file + " is no plan: " + e.getOriginalMessage()
                    + (e.getLocation() == null
                            ? ""
                            : " (line " + e.getLocation().getLineNr() + ")"));
        } catch (java.nio.charset.CharacterCodingException e) {
            throw new Wrong(file + " is no text in UTF-8.");
        }
        if (typed == null) {
            throw new Wrong(file + " is empty.");
        }
        List<Planned> tests = new ArrayList<>();
        for (JsonNode test : typed.tests() == null ? List.<@Nullable JsonNode>of() : typed.tests()) {
            if (test != null && test.isObject()) {
                tests.add(new Planned("command-" + (tests.size() + 1), command(test, tests.size() + 1)));
                continue;
            }
            String key = test == null || !test.isString() ? String.valueOf(test) : test.asString();
            if (!known.contains(key)) {
                throw new Wrong("The runner has no test “" + key + "”; --tests lists those that it has.");
            }
            if (tests.stream().noneMatch(t -> t.key().equals(key))) {
                tests.add(new Planned(key, null));
            }
        }
        if (tests.isEmpty()) {
            throw new Wrong("The plan has no tests.");
        }
        String deviceClass =
                typed.deviceClass() == null ? null : typed.deviceClass().toLowerCase(Locale.ROOT);
        if (deviceClass != null && !CLASSES.contains(deviceClass)) {
            throw new Wrong(
                    "deviceClass is one of laptop, desktop, mini, tablet, phone and board, not “" + deviceClass + "”.");
        }
        return new OfflinePlan(
                typed.name() == null || typed.name().isBlank()
                        ? "Without a bench"
                        : typed.name().strip(),
                words(typed.maker(), "maker"),
                words(typed.model(), "model"),
                deviceClass,
                typed.unit(),
                within(typed.runs(), "runs", 3, 1, MOST_RUNS),
                within(typed.timedMs(), "timedMs", 3_000, 10, LONGEST_TIMED_MS),
                within(typed.pauseMs(), "pauseMs", 0, 0, LONGEST_TIMED_MS),
                tests);
    }

    private static TimedTest command(JsonNode node, int number) {
        String where = "Test " + number + " of the plan, a command, ";
        try {
            TypedCommand typed = JSON.treeToValue(node, TypedCommand.class);
            if (typed.command() == null || !typed.command().isObject()) {
                throw new Wrong(where + "does not say its command.");
            }
            Api.TimedCommand command = LENIENT.treeToValue(typed.command(), Api.TimedCommand.class);
            List<Api.@Nullable Step> steps =
                    Arrays.asList(command.run(), command.prepare(), command.cleanUp(), command.version());
            if (command.run() == null
                    || steps.stream()
                            .anyMatch(s -> s != null
                                    && (s.arguments() == null
                                            || s.arguments().isEmpty()
                                            || s.arguments().stream().anyMatch(a -> a == null || a.indexOf(0) >= 0)
                                            || s.shell() && s.arguments().size() != 1))) {
                throw new Wrong(where + "needs what it runs: a list of arguments, or one script for a shell.");
            }
            if (command.limitSeconds() < 1 || command.limitSeconds() > LONGEST_S) {
                throw new Wrong(
                        where + "has a limitSeconds of 1 to " + LONGEST_S + ", not " + command.limitSeconds() + ".");
            }
            return new TimedTest(
                    named(typed.suite(), where, "suite"),
                    named(typed.version(), where, "version"),
                    typed.mode() == null ? "" : typed.mode().strip(),
                    named(typed.test(), where, "test"),
                    command.cache() == null ? command.with(Api.Cache.AS_IT_IS) : command,
                    typed.command().hasNonNull("output")
                            ? output(JSON.treeToValue(typed.command().get("output"), TypedOutput.class), where)
                            : null);
        } catch (JacksonException e) {
            throw new Wrong(where + "cannot be read: " + e.getOriginalMessage());
        }
    }

    private static Output output(TypedOutput typed, String where) {
        String direction = typed.direction() == null ? null : DIRECTIONS.get(typed.direction());
        if (typed.kind() == null || direction == null) {
            throw new Wrong(where + "says of its output in which way the score is found (kind: LINE, KEY, COLUMN or"
                    + " POINTER) and what is better (direction: " + String.join(" or ", DIRECTIONS.keySet()) + ").");
        }
        try {
            return new Output(
                    new ScorePattern(
                            "Output",
                            typed.kind(),
                            named(typed.expression(), where, "output's expression"),
                            named(typed.unit(), where, "output's unit"),
                            ScorePattern.LAST),
                    direction);
        } catch (IllegalArgumentException e) {
            throw new Wrong(where + "cannot be read: " + e.getMessage());
        }
    }

    private static String named(@Nullable String value, String where, String name) {
        if (value == null || value.isBlank()) {
            throw new Wrong(where + "does not say its " + name + ".");
        }
        return value.strip();
    }

    private static String words(@Nullable String value, String name) {
        if (value == null || value.isBlank()) {
            throw new Wrong("The plan does not say the " + name + " of this computer.");
        }
        return value.strip();
    }

    private static int within(@Nullable Integer value, String name, int otherwise, int least, int most) {
        int is = value == null ? otherwise : value;
        if (is < least || is > most) {
            throw new Wrong(name + " is " + least + " to " + most + ", not " + is + ".");
        }
        return is;
    }
}
