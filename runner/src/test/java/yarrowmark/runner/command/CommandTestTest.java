package yarrowmark.runner.command;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.condition.DisabledOnOs;
import org.junit.jupiter.api.condition.OS;
import org.junit.jupiter.api.io.TempDir;
import yarrowmark.runner.NativeTest;
import yarrowmark.runner.measure.Measurement;
import yarrowmark.runner.protocol.Api;

/** With what is on every Linux: commands that end well, badly, never, print too much, and leave others behind. */
@DisabledOnOs(OS.WINDOWS)
@Timeout(value = 10, unit = TimeUnit.MINUTES)
class CommandTestTest {
    @TempDir
    private Path folder;

    private NativeTest.Options options;

    @BeforeEach
    void options() {
        options = new NativeTest.Options(10, 1, folder);
    }

    private static Api.Step sh(String script) {
        return new Api.Step(List.of(script), true);
    }

    private static Api.TimedCommand command(Api.Step run) {
        return new Api.TimedCommand(run, null, null, null, null, null, 0, 20, Api.Cache.AS_IT_IS, null);
    }

    private Measurement run(Api.TimedCommand command) throws Exception {
        return new CommandTest(command).run(options);
    }

    private CommandFailed failed(Api.TimedCommand command) {
        return catchThrowableOfType(CommandFailed.class, () -> run(command));
    }

    private String file(String name) throws Exception {
        return Files.readString(folder.resolve(CommandTest.PLACE).resolve(name)).strip();
    }

    /** One that has ended and that nobody asked how is still in the list of processes, and does nothing any more. */
    private static boolean running(String pid) throws Exception {
        Path stat = Path.of("/proc", pid, "stat");
        try {
            return !Files.readString(stat).replaceFirst(".*\\) ", "").startsWith("Z");
        } catch (NoSuchFileException e) {
            return false;
        }
    }

    @Test
    void argumentsAreArgumentsAndNoShellLooksAtThem() throws Exception {
        Measurement m = run(command(new Api.Step(List.of("printf", "%s|", "a b", "$HOME", "; exit 3", "*"), false)));
        assertThat(m.output()).isEqualTo("a b|$HOME|; exit 3|*|");
        assertThat(m.value()).isPositive();
    }

    @Test
    void theTimeIsThatOfTheWholeAndItsProcessorTimeAndMemoryAreKept() throws Exception {
        Measurement m = run(
                command(
                        sh(
                                "dd if=/dev/zero of=/dev/null bs=64M count=40 2>/dev/null; i=0; while [ $i -lt 100000 ]; do i=$((i+1)); done; exec sleep 0.3")));
        assertThat(m.value()).isGreaterThan(0.3);
        assertThat(m.timedMs()).isEqualTo(1000 * m.value());
        assertThat(m.more()).anySatisfy(more -> {
            assertThat(more.metric()).isEqualTo("user");
            assertThat(more.value()).isBetween(0.001, m.value());
        });
        // dd holds its block of 64 MiB.
        assertThat(m.more()).anySatisfy(more -> {
            assertThat(more.metric()).isEqualTo("peak-memory");
            assertThat(more.value()).isBetween(64e6, 200e6);
        });
    }

    @Test
    void preparationAndCleanUpAreDoneEachTimeAndNotTimed() throws Exception {
        Api.TimedCommand command = new Api.TimedCommand(
                sh("cat before >> seen"),
                sh("sleep 3; echo $WORD > before"),
                sh("echo after >> seen"),
                sh("printf 'thing 1.4\\nmore'"),
                "inner",
                Map.of("WORD", "heron"),
                0,
                20,
                Api.Cache.AS_IT_IS,
                null);
        CommandTest test = new CommandTest(command);
        Measurement first = test.run(options);
        test.run(options);
        assertThat(file("inner/seen")).isEqualTo("heron\nafter\nheron\nafter");
        assertThat(first.value()).as("without its preparation").isLessThan(3);
        assertThat(first.note()).isEqualTo("thing 1.4");
    }

    @Test
    void warmIsOneUntimedRunBeforeTheFirst() throws Exception {
        CommandTest test = new CommandTest(
                new Api.TimedCommand(sh("echo x >> times"), null, null, null, null, null, 0, 20, Api.Cache.WARM, null));
        test.run(options);
        test.run(options);
        assertThat(file("times").lines()).hasSize(3);
    }

    @Test
    void marksTimeWhatIsBetweenThem() throws Exception {
        Api.TimedCommand command = new Api.TimedCommand(
                sh("sleep 2; echo now: begin; sleep 0.2; echo now: end; sleep 2"),
                null,
                null,
                null,
                null,
                null,
                0,
                20,
                Api.Cache.AS_IT_IS,
                new Api.Marks("begin", "end"));
        assertThat(run(command).value()).as("none of the long waits around it").isBetween(0.0, 2.0);
        CommandFailed none = failed(new Api.TimedCommand(
                sh("echo begin"), null, null, null, null, null, 0, 20, Api.Cache.AS_IT_IS, command.between()));
        assertThat(none).hasMessageContaining("“end”");
    }

    @Test
    void aMissingProgramCannotBeBegunHereWithAndWithoutAShell() throws Exception {
        for (Api.Step step :
                List.of(new Api.Step(List.of("no-such-program-here", "x"), false), sh("no-such-program-here x"))) {
            CommandFailed missing = failed(command(step));
            assertThat(missing.reason()).isEqualTo(Api.Reason.NOT_SUPPORTED);
            assertThat(missing).hasMessageContaining("cannot be begun here");
        }
        Api.TimedCommand wanted =
                new Api.TimedCommand(sh("exit 127"), null, null, null, null, null, 127, 20, Api.Cache.AS_IT_IS, null);
        assertThat(run(wanted).value())
                .as("where that is what it should end with")
                .isPositive();
    }

    @Test
    void aFolderOutsideOfItsOwnPlaceIsRefused() {
        for (String outside : List.of("../elsewhere", "/tmp/elsewhere", "a/../../b")) {
            CommandFailed refused = failed(
                    new Api.TimedCommand(sh("true"), null, null, null, outside, null, 0, 20, Api.Cache.AS_IT_IS, null));
            assertThat(refused).as(outside).hasMessageContaining("outside");
        }
    }

    @Test
    void whatIsNoTextIsReplacedAndCounted() throws Exception {
        assertThat(run(command(sh("printf 'a\\000\\007\\016b\\377'"))).output())
                .isEqualTo("[4 characters that are no text stand as \ufffd]\na\ufffd\ufffd\ufffdb\ufffd");
    }

    @Test
    void whatLeftItsFamilyWithoutAnEnvironmentIsEndedToo() throws Exception {
        run(command(sh("sh -c 'env -i setsid sleep 600 & echo $! > child; sleep 0.6'; true")));
        assertThat(running(file("child"))).isFalse();
    }

    @Test
    void anotherExitCodeThanExpectedIsAFailureWithWhatWasPrinted() {
        CommandFailed bad = failed(command(sh("echo no such voyage >&2; exit 3")));
        assertThat(bad).hasMessageContaining("exit code 3");
        assertThat(bad.output()).contains("no such voyage");
        assertThat(bad.reason()).isEqualTo(Api.Reason.ERROR);
    }

    @Test
    void whatCannotBeBegunSaysSo() {
        // Where sessions are made by a helper, it is that which finds nothing to begin.
        assertThat(failed(command(new Api.Step(List.of("no-such-program-anywhere"), false))))
                .satisfies(f -> assertThat(f.getMessage() + f.output()).contains("no-such-program-anywhere"));
        assertThat(failed(new Api.TimedCommand(
                        sh("true"), sh("exit 9"), null, null, null, null, 0, 20, Api.Cache.AS_IT_IS, null)))
                .hasMessageContaining("preparation", "9");
    }

    @Test
    void oneThatNeverEndsIsEndedWithEverythingItBegan() throws Exception {
        Api.TimedCommand endless = new Api.TimedCommand(
                sh("(setsid sleep 1000 & echo $! > away); sleep 1000 & echo $! > near; sleep 1000"),
                null,
                null,
                null,
                null,
                null,
                0,
                1,
                Api.Cache.AS_IT_IS,
                null);
        CommandFailed late = failed(endless);
        assertThat(late.reason()).isEqualTo(Api.Reason.TOO_SLOW);
        assertThat(late).hasMessageContaining("1 s");
        for (String name : List.of("near", "away")) {
            assertThat(running(file(name))).as(name).isFalse();
        }
    }

    @Test
    void oneThatLeavesAnotherBehindDoesNotWaitForIt() throws Exception {
        long from = System.nanoTime();
        run(command(sh("sleep 1000 & echo $! > left")));
        assertThat(System.nanoTime() - from)
                .as("it sleeps for a thousand seconds")
                .isLessThan(TimeUnit.MINUTES.toNanos(10));
        assertThat(running(file("left"))).isFalse();
    }

    @Test
    void aGigabyteThatIsPrintedTakesNoMemory() throws Exception {
        Measurement m = run(command(sh("yes | head -c 1000000000; echo; echo last words")));
        assertThat(m.output()).endsWith("last words\n").startsWith("[");
        assertThat(m.output().length()).isLessThan(60_000);
    }

    @Test
    void oneThatWantsATerminalFindsNone() {
        CommandFailed asks = failed(command(sh("read -r answer && exit 0; cat /dev/tty; exit 4")));
        assertThat(asks).hasMessageContaining("exit code");
    }

    @Test
    void oneThatIsStoppedEndsAtOnceAndStillCleansUp() throws Exception {
        CommandTest test = new CommandTest(new Api.TimedCommand(
                sh("echo $$ > pid; sleep 1000"),
                null,
                sh("echo gone > cleaned"),
                null,
                null,
                null,
                0,
                900,
                Api.Cache.AS_IT_IS,
                null));
        Thread running =
                new Thread(() -> assertThatThrownBy(() -> test.run(options)).isInstanceOf(InterruptedException.class));
        running.start();
        Path pid = folder.resolve(CommandTest.PLACE).resolve("pid");
        while (!Files.exists(pid) || Files.size(pid) == 0) {
            Thread.onSpinWait();
        }
        running.interrupt();
        running.join();
        assertThat(file("cleaned")).isEqualTo("gone");
        assertThat(running(file("pid"))).isFalse();
    }
}
