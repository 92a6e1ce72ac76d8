package yarrowmark.runner;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.condition.DisabledOnOs;
import org.junit.jupiter.api.condition.OS;
import org.junit.jupiter.api.io.TempDir;

@DisabledOnOs(OS.WINDOWS)
@Timeout(value = 5, unit = TimeUnit.MINUTES)
class Utf8StartTest {
    @TempDir
    private Path folder;

    @Test
    void argumentsAreQuotedByteForByte() {
        byte[] given = "java\0-jar\0\0a \"b\" \\c\0prüf\nung\0".getBytes(StandardCharsets.UTF_8);
        assertThat(new String(Utf8Start.quoted(given), StandardCharsets.UTF_8))
                .isEqualTo("\"-jar\"\n\"\"\n\"a \\\"b\\\" \\\\c\"\n\"prüf\\nung\"\n");
    }

    @Test
    void aPathThatIsNoAsciiIsFoundWhereTheSystemNamesNoLanguage() throws Exception {
        Path own = Files.createDirectory(folder.resolve("own"));
        ProcessBuilder builder = new ProcessBuilder(List.of(
                        "/bin/sh",
                        "-c",
                        "d=$(printf 'pr\\303\\274fung'); mkdir -p \"$d\"; echo '{' > \"$d/plan.json\"; exec \"$0\" -cp \"$1\" yarrowmark.runner.RunnerCommand --state \"$2\" --offline \"$d/plan.json\"",
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        System.getProperty("java.class.path"),
                        own.toString()))
                .directory(folder.toFile())
                .redirectErrorStream(true);
        List.of("LANG", "LC_ALL", "LC_CTYPE").forEach(builder.environment()::remove);
        Process process = builder.start();
        String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(process.waitFor()).as(said).isEqualTo(1);
        assertThat(said).contains("is no plan").doesNotContain("cannot convert");
    }
}
