package yarrowmark.runner;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import picocli.CommandLine;

class RunnerCommandTest {
    @TempDir
    private Path folder;

    private final StringWriter err = new StringWriter();

    private int run(String... words) {
        return new CommandLine(new RunnerCommand())
                .setErr(new PrintWriter(err))
                .setOut(new PrintWriter(new StringWriter()))
                .execute(words);
    }

    @Test
    void aStateFolderThatCannotBeMadeIsSaidInASentence() throws IOException {
        Path plan = Files.writeString(folder.resolve("plan.json"), "{}");
        Path file = Files.writeString(folder.resolve("file"), "no folder");
        assertThat(run(
                        "--offline",
                        plan.toString(),
                        "--state",
                        file.resolve("below").toString()))
                .isNotZero();
        assertThat(err.toString())
                .contains("cannot make")
                .contains("--state")
                .doesNotContain("\tat ")
                .hasLineCount(1);
    }

    @Test
    void aSecondRunnerInTheSameFolderIsToldSo() throws Exception {
        Path plan = Files.writeString(folder.resolve("plan.json"), "{}");
        Path own = folder.resolve("own");
        Files.createDirectories(own.resolve("offline"));
        try (StateLock first = StateLock.of(own)) {
            assertThat(run("--offline", plan.toString(), "--state", own.toString()))
                    .isEqualTo(1);
        }
        assertThat(err.toString()).contains("Another runner is at work").hasLineCount(1);
    }

    @Test
    void aPlanThatIsNoneIsSaidInASentence() throws IOException {
        Path plan = Files.writeString(folder.resolve("plan.json"), "{\"maker\":7");
        assertThat(run(
                        "--offline",
                        plan.toString(),
                        "--state",
                        folder.resolve("own").toString()))
                .isNotZero();
        assertThat(err.toString()).contains("is no plan").doesNotContain("\tat ");
    }
}
