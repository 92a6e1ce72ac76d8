package yarrowmark.server.catalog;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.security.Principal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.json.JsonMapper;
import yarrowmark.core.entry.TestLines;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Scale;
import yarrowmark.server.platform.PlainLine;
import yarrowmark.server.platform.Problem;

/** Suites of the reviewer's own whose tests are commands that the runner times. */
@RestController
@RequestMapping("/api/suites/commands")
class CommandSuiteController {
    private static final String EXAMPLES = "/yarrowmark/workloads/command-examples.json";
    private static final int LONGEST_SUMMARY = 200;

    record CommandTestBody(
            @NotBlank @PlainLine @Size(max = 120) String name,
            @NotNull TestGroup group,
            @NotNull @Valid TimedCommand command) {}

    record CommandSuiteBody(
            @NotBlank @PlainLine @Size(max = 120) String name,
            @NotBlank @PlainLine @Size(max = 40) String version,
            @Nullable @PlainLine @Size(max = 120) String mode,
            @NotEmpty(message = "must have at least one command") @Size(max = 100)
                    List<@Valid @NotNull CommandTestBody> tests) {}

    /** @param needs what must be installed for it */
    record CommandExample(String name, TestGroup group, String needs, TimedCommand command) {}

    private record ExamplesFile(List<CommandExample> examples) {}

    private final Catalog catalog;
    private final List<CommandExample> examples;

    CommandSuiteController(Catalog catalog, JsonMapper json) {
        this.catalog = catalog;
        try (InputStream in = Objects.requireNonNull(
                CommandSuiteController.class.getResourceAsStream(EXAMPLES), "the server was built without examples")) {
            this.examples = json.readValue(in, ExamplesFile.class).examples();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Commands of general-purpose programs, to begin a suite with. */
    @GetMapping("/examples")
    List<CommandExample> examples() {
        return examples;
    }

    /** @return the ids of its tests, in order */
    @PostMapping
    List<Long> make(@Valid @RequestBody CommandSuiteBody body, Principal who) {
        List<Catalog.NewTest> tests = new ArrayList<>();
        List<Problem.Refused> refused = new ArrayList<>();
        for (CommandTestBody test : body.tests()) {
            int number = tests.size() + refused.size() + 1;
            try {
                tests.add(test(test, number));
            } catch (IllegalArgumentException e) {
                refused.add(new Problem.Refused("command " + number, test.name() + ": " + Problem.words(e)));
            }
        }
        if (!refused.isEmpty()) {
            throw Problem.refused("commands-refused", refused);
        }
        return catalog.makeOwn(
                body.name().strip(),
                body.version().strip(),
                body.mode() == null ? "" : body.mode().strip(),
                tests,
                who.getName());
    }

    private static Catalog.NewTest test(CommandTestBody test, int number) {
        TimedCommand command = test.command();
        for (TimedCommand.Step step : steps(command)) {
            if (step.shell() && step.arguments().size() != 1) {
                throw new IllegalArgumentException("what a shell carries out is one script, not a list of arguments.");
            }
        }
        String name = test.name().strip();
        TimedCommand.Output output = command.output();
        List<Catalog.NewMetric> metrics = new ArrayList<>();
        if (output != null) {
            output.pattern();
            if (TestLines.scale(output.unit()) != Scale.RATIO) {
                throw new IllegalArgumentException("a score in " + output.unit()
                        + " may be 0 or less, and is typed by hand; a command's is above 0.");
            }
            metrics.add(new Catalog.NewMetric(
                    TimedCommand.VALUE, name, output.unit(), output.direction(), Scale.RATIO, true));
        }
        metrics.add(less(TimedCommand.WALL, output == null ? name : name + ", time", "s", output == null));
        metrics.add(less("user", name + ", user time", "s", false));
        metrics.add(less("system", name + ", system time", "s", false));
        metrics.add(less("peak-memory", name + ", peak memory", "B", false));
        metrics.addAll(SensorMetrics.of(name, output == null ? "s" : output.unit()));
        String words = command.run().toString();
        String plain =
                name.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "-").replaceAll("^-|-$", "");
        return new Catalog.NewTest(
                BuiltInSuites.RUNNER + "command-" + (plain.length() > 40 ? plain.substring(0, 40) : plain) + "-"
                        + number,
                name,
                words.length() > LONGEST_SUMMARY ? words.substring(0, LONGEST_SUMMARY) : words,
                test.group(),
                metrics,
                command);
    }

    private static List<TimedCommand.Step> steps(TimedCommand command) {
        List<TimedCommand.Step> steps = new ArrayList<>();
        steps.add(command.run());
        for (TimedCommand.Step more : Arrays.asList(command.prepare(), command.cleanUp(), command.version())) {
            if (more != null) {
                steps.add(more);
            }
        }
        return steps;
    }

    private static Catalog.NewMetric less(String key, String name, String unit, boolean main) {
        return new Catalog.NewMetric(key, name, unit, Direction.LESS_IS_BETTER, Scale.RATIO, main);
    }
}
