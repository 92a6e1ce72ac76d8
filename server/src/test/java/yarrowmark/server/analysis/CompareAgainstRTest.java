package yarrowmark.server.analysis;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.TimeUnit;
import org.awaitility.Awaitility;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.Test;
import org.springframework.boot.test.web.server.LocalServerPort;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.ServerTest;

/** A ledger that was exported is read in again, compared, and held against R 4.2.2 on the same file; see compare.R. */
@ServerTest
class CompareAgainstRTest {
    private static final Path FOLDER = Path.of("src/test/resources/yarrowmark/server/analysis");
    private static final Path READINGS = FOLDER.resolve("compare-readings.csv");
    private static final Path EXPECTED = FOLDER.resolve("compare-expected.csv");
    private static final double NINE_DIGITS = 5e-10;

    @LocalServerPort
    private int port;

    private record Line(double ratio, double low, double high, String verdict) {}

    /** By configuration and test. */
    private static Map<List<String>, Line> lines(List<String> text) {
        Map<List<String>, Line> lines = new LinkedHashMap<>();
        text.stream()
                .skip(1)
                .map(l -> l.split(","))
                .forEach(c -> lines.put(
                        List.of(c[0], c[1]),
                        new Line(Double.parseDouble(c[2]), Double.parseDouble(c[3]), Double.parseDouble(c[4]), c[5])));
        return lines;
    }

    private static void same(Line found, Line expected, List<String> what) {
        assertThat(found.verdict()).as("verdict of %s", what).isEqualTo(expected.verdict());
        assertThat(found.ratio())
                .as("ratio of %s", what)
                .isCloseTo(expected.ratio(), within(NINE_DIGITS * expected.ratio()));
        assertThat(found.low()).as("low of %s", what).isCloseTo(expected.low(), within(NINE_DIGITS * expected.low()));
        assertThat(found.high())
                .as("high of %s", what)
                .isCloseTo(expected.high(), within(NINE_DIGITS * expected.high()));
    }

    private static Line line(JsonNode n) {
        return new Line(
                n.path("ratio").asDouble(),
                n.path("low").asDouble(),
                n.path("high").asDouble(),
                n.path("verdict").asString());
    }

    @Test
    void theProgramAgreesWithRToNineDigits() throws IOException {
        Client owner = Client.owner(port);
        Client.Answer begun = owner.postBytes("/api/ledger/import?make=true&store=true", Files.readAllBytes(READINGS));
        assertThat(begun.status()).as(begun.detail()).isEqualTo(200);
        Awaitility.await().atMost(Duration.ofMinutes(1)).until(() -> owner.get(
                        "/api/ledger/import/" + begun.body().path("id").asString())
                .body()
                .has("outcome"));
        Map<String, Long> byFirmware = new LinkedHashMap<>();
        for (JsonNode row : owner.get("/api/search?q=Cross-check").body().path("configurations")) {
            owner.get("/api/configurations/" + row.path("id").asLong())
                    .body()
                    .path("facts")
                    .valueStream()
                    .filter(f -> f.path("key").asString().equals("firmware.version"))
                    .forEach(f -> byFirmware.put(
                            f.path("value").asString(), row.path("id").asLong()));
        }
        Map<List<String>, Line> expected = lines(Files.readAllLines(EXPECTED));
        assertThat(expected).hasSizeGreaterThan(25);
        for (String other :
                expected.keySet().stream().map(k -> k.get(0)).distinct().toList()) {
            Client.Answer answer = owner.get("/api/compare?base=" + Objects.requireNonNull(byFirmware.get("1.00"))
                    + "&with=" + Objects.requireNonNull(byFirmware.get(other), "no configuration with " + other));
            assertThat(answer.status()).as(answer.detail()).isEqualTo(200);
            Map<List<String>, Line> found = new LinkedHashMap<>();
            answer.body()
                    .path("rows")
                    .valueStream()
                    .filter(r -> r.path("metric").path("scale").asString().equals("RATIO"))
                    .forEach(r -> found.put(
                            List.of(other, r.path("metric").path("test").asString()),
                            line(r.path("cells").get(0))));
            found.put(
                    List.of(other, "Overall"),
                    line(answer.body().path("sides").get(0).path("overall")));
            assertThat(found.keySet())
                    .containsExactlyInAnyOrderElementsOf(expected.keySet().stream()
                            .filter(k -> k.get(0).equals(other))
                            .toList());
            found.forEach((what, line) -> same(line, expected.get(what), what));
        }
    }

    /** Where R is installed it makes the kept file again. */
    @Test
    void theKeptFileIsWhatRSays() throws InterruptedException {
        Process r;
        try {
            r = new ProcessBuilder("Rscript", "src/test/r/compare.R", READINGS.toString())
                    .redirectErrorStream(true)
                    .start();
        } catch (IOException e) {
            Assumptions.abort("R is not installed here");
            return;
        }
        try {
            List<String> said = new String(r.getInputStream().readAllBytes(), java.nio.charset.StandardCharsets.UTF_8)
                    .lines()
                    .toList();
            assertThat(r.waitFor(1, TimeUnit.MINUTES)).isTrue();
            assertThat(r.exitValue()).as(String.join("\n", said)).isZero();
            Map<List<String>, Line> kept = lines(Files.readAllLines(EXPECTED));
            Map<List<String>, Line> now = lines(said);
            assertThat(now.keySet()).isEqualTo(kept.keySet());
            now.forEach((what, line) -> same(line, kept.get(what), what));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } finally {
            r.destroyForcibly();
        }
    }
}
