package yarrowmark.core.capture;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledOnOs;
import org.junit.jupiter.api.condition.OS;

/** What the machine that runs the tests says of itself, held against other ways of asking. */
@EnabledOnOs(OS.LINUX)
class LiveCaptureTest {
    @Test
    void theProcessorsOfThisMachine() throws IOException {
        Map<String, String> facts = values(Files.readString(Path.of("/proc/cpuinfo")));
        long processors = Files.readString(Path.of("/proc/cpuinfo"))
                .lines()
                .filter(l -> l.matches("processor\\s*:.*"))
                .count();
        assertThat(facts).containsEntry("processor.threads", Long.toString(processors));
        printed("lscpu").ifPresent(text -> assertThat(values(text))
                .containsKey("processor.architecture")
                .containsKey("processor.cores"));
    }

    @Test
    void itsMemory() throws IOException {
        String text = Files.readString(Path.of("/proc/meminfo"));
        long kibibytes = Long.parseLong(text.lines()
                .filter(l -> l.startsWith("MemTotal:"))
                .findFirst()
                .orElseThrow()
                .replaceAll("\\D", ""));
        assertThat(values(text)).containsEntry("memory.usable", Long.toString(kibibytes * 1024));
    }

    @Test
    void itsSystem() throws IOException {
        Path file = Path.of("/etc/os-release");
        Assumptions.assumeTrue(Files.exists(file));
        assertThat(values(Files.readString(file))).containsKey("os.name");
        String uname = printed("uname", "-a").orElseThrow();
        assertThat(values(uname))
                .containsEntry(
                        "os.kernel",
                        Files.readString(Path.of("/proc/sys/kernel/osrelease")).strip())
                .containsKey("processor.architecture");
    }

    @Test
    void itsDrives() {
        Optional<String> text = printed("lsblk", "-J", "-b", "-o", "NAME,SIZE,TYPE,MODEL,ROTA,TRAN,FSTYPE,MOUNTPOINT");
        Assumptions.assumeTrue(text.isPresent() && text.get().contains("\"disk\""));
        assertThat(values(text.get())).containsKeys("storage.size", "storage.kind");
    }

    private static Map<String, String> values(String text) {
        return FactCapture.read(text).facts().stream()
                .collect(Collectors.toMap(FactCapture.Found::key, FactCapture.Found::value));
    }

    /** Empty where this machine has no such tool, or it does not work here. */
    private static Optional<String> printed(String... command) {
        try {
            Process process = new ProcessBuilder(command)
                    .redirectError(ProcessBuilder.Redirect.DISCARD)
                    .start();
            String text = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
            return process.waitFor() == 0 && !text.isBlank() ? Optional.of(text) : Optional.empty();
        } catch (IOException e) {
            return Optional.empty();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return Optional.empty();
        }
    }
}
