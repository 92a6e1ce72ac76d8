package yarrowmark.core.rule;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * The shipped rules on what the tools of this very machine print. A tool that is not installed is passed over. The tools work
 * for seconds each; what they print is in the samples of ScoreReadingTest as well.
 */
@Tag("long")
class LiveToolsTest {
    @TempDir
    Path dir;

    private String output(String tool, String command) throws IOException, InterruptedException {
        assumeTrue(
                List.of("/usr/bin/", "/bin/", "/usr/local/bin/").stream()
                        .anyMatch(d -> Files.isExecutable(Path.of(d + tool))),
                tool + " is not installed");
        Path to = dir.resolve("out");
        Process process = new ProcessBuilder("bash", "-c", command)
                .directory(dir.toFile())
                .redirectErrorStream(true)
                .redirectOutput(to.toFile())
                .start();
        assertThat(process.waitFor(5, TimeUnit.MINUTES)).as(command).isTrue();
        String text = Files.readString(to, StandardCharsets.UTF_8);
        assumeTrue(process.exitValue() == 0, () -> command + " does not work here: " + text);
        return text;
    }

    private void notes() throws IOException {
        byte[] bytes = new byte[2_000_000];
        Random random = new Random(7);
        for (int i = 0; i < bytes.length; i++) {
            bytes[i] = (byte) ('a' + random.nextInt(6));
        }
        Files.write(dir.resolve("notes"), bytes);
    }

    private static List<ScoreReading.FoundScore> read(String key, String text) {
        ShippedRules.Tool tool = ShippedRules.all().stream()
                .filter(t -> t.key().equals(key))
                .findFirst()
                .orElseThrow();
        return ScoreReading.read(tool.patterns(), text).found();
    }

    private static void has(String key, String text, String test, int runs) {
        assertThat(read(key, text))
                .as(text)
                .filteredOn(f -> f.pattern().equals(test))
                .hasSize(runs)
                .allSatisfy(f -> assertThat(f.value()).isGreaterThan(0));
    }

    @Test
    void timeOfTheShellThreeRuns() throws Exception {
        has("time", output("bash", "for i in 1 2 3; do time sleep 0.02; done"), "Elapsed", 3);
    }

    @Test
    void usrBinTime() throws Exception {
        String text = output("time", "/usr/bin/time -v sleep 0.05");
        has("time-v", text, "Elapsed", 1);
        has("time-v", text, "Largest memory", 1);
    }

    @Test
    void opensslSpeed() throws Exception {
        has("openssl-speed", output("openssl", "openssl speed -seconds 1 sha256"), "SHA-256, 16384 bytes", 1);
        has("openssl-speed", output("openssl", "openssl speed -seconds 1 rsa2048"), "RSA 2048, signing", 1);
    }

    @Test
    void dd() throws Exception {
        has("dd", output("dd", "for i in 1 2; do dd if=/dev/zero of=zeros bs=64k count=100; done"), "Copying", 2);
    }

    @Test
    void xz() throws Exception {
        notes();
        has("xz", output("xz", "xz -9 -v -k -c notes > /dev/null"), "Ratio of sizes", 1);
    }

    @Test
    void zstd() throws Exception {
        notes();
        has("zstd", output("zstd", "zstd -b1 -e3 -i1 notes"), "Level 3, decompressing", 1);
    }

    @Test
    void ping() throws Exception {
        has("ping", output("ping", "ping -c 3 127.0.0.1"), "Round trip", 1);
    }

    @Test
    void systemdAnalyze() throws Exception {
        has("systemd-analyze", output("systemd-analyze", "systemd-analyze"), "Start to desktop or prompt", 1);
    }
}
