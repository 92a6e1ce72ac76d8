package yarrowmark.runner.command;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import yarrowmark.runner.NativeTest;
import yarrowmark.runner.protocol.Api;

class CommandsTest {
    @TempDir
    private Path folder;

    private final List<String> told = new ArrayList<>();
    private final NativeTest.Options options = new NativeTest.Options(10, 1, Path.of("."));

    private static Api.TimedCommand command(String... arguments) {
        return new Api.TimedCommand(
                new Api.Step(List.of(arguments), false), null, null, null, null, null, 0, 20, Api.Cache.AS_IT_IS, null);
    }

    private static Api.Test test(String key, Api.@Nullable TimedCommand command) {
        return new Api.Test(1, key, "Test " + key, "wall", 1, 0, null, null, false, null, null, command);
    }

    private Commands commands(Api.Test... tests) {
        return new Commands(Commands.Planned.of(List.of(tests)), new AgreedCommands(folder), told::add);
    }

    private static Map<String, NativeTest> tests(
            Commands asked, boolean none, @Nullable String number, Predicate<String> ask) {
        asked.ask(none, number, ask);
        return asked.tests(none, null);
    }

    private boolean runs(Map<String, NativeTest> tests, String key) {
        return tests.get(key).obstacle(options).isEmpty();
    }

    @Test
    void eachIsShownAndNoneRunsUntilSomebodyAgreed() {
        Commands asked = commands(test("plain", null), test("a", command("echo", "two words", "$(rm -rf x)")));
        asked.show();
        assertThat(told).anySatisfy(l -> assertThat(l).contains("timed: echo 'two words' '$(rm -rf x)'"));
        Map<String, NativeTest> refused = tests(asked, false, null, q -> false);
        assertThat(refused).containsOnlyKeys("a");
        assertThat(refused.get("a").obstacle(options).orElseThrow().words()).contains("not agreed");
        assertThat(runs(tests(asked, false, null, q -> true), "a")).isTrue();
    }

    @Test
    void whatWasAgreedToIsRememberedToTheLetter() {
        tests(commands(test("a", command("echo", "x"))), false, null, q -> true);
        Commands again = commands(test("a", command("echo", "x")), test("b", command("echo", "y")));
        Map<String, NativeTest> tests = tests(again, false, null, q -> false);
        assertThat(runs(tests, "a")).isTrue();
        assertThat(runs(tests, "b")).isFalse();
        assertThat(runs(tests(commands(test("a", command("echo", "x"))), true, null, q -> true), "a"))
                .as("with --no-commands")
                .isFalse();
    }

    @Test
    void aNumberAgreesToThatPlanAlone() {
        Api.Test a = test("a", command("echo", "x"));
        Api.Test b = test("b", command("echo", "y"));
        commands(a, b).show();
        String number = told.get(told.size() - 1).replaceAll(".* number ([0-9a-f]{64})\\.", "$1");
        assertThat(runs(tests(commands(a), false, number, q -> true), "a"))
                .as("the number of others, and nobody is asked beside it")
                .isFalse();
        assertThat(runs(tests(commands(b, a), false, number, q -> false), "b")).isTrue();
    }

    @Test
    void noTwoCommandsReadAlikeAndNoneCommandsATerminal() {
        assertThat(CommandWords.hash(command("a", "b c"))).isNotEqualTo(CommandWords.hash(command("a", "b", "c")));
        assertThat(CommandWords.hash(command("a", "b'c"))).isNotEqualTo(CommandWords.hash(command("a", "b\\'c")));
        assertThat(CommandWords.quoted("\u001b[2Jx\n\u202e")).isEqualTo("'\\u{1b}[2Jx\\n\\u{202e}'");
        Api.TimedCommand plain = command("a");
        Api.TimedCommand all = new Api.TimedCommand(
                new Api.Step(List.of("a"), true),
                new Api.Step(List.of("p"), false),
                new Api.Step(List.of("c"), false),
                new Api.Step(List.of("v"), false),
                "there",
                Map.of("K", "v"),
                1,
                30,
                Api.Cache.COLD,
                new Api.Marks("from", "to"));
        assertThat(CommandWords.of(all))
                .containsExactly(
                        "version: v",
                        "before: p",
                        "timed (by a shell): a",
                        "after: c",
                        "in folder there",
                        "with K=v",
                        "expects exit code 1, ends it after 30 s",
                        "drops what the system keeps of files in memory before each run",
                        "timed from a line with from to one with to");
        assertThat(CommandWords.hash(all)).isNotEqualTo(CommandWords.hash(plain));
    }
}
