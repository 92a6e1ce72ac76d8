package yarrowmark.server.platform.http;

import static org.assertj.core.api.Assertions.assertThat;
import static yarrowmark.server.platform.Require.require;

import java.io.BufferedReader;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.TestFactory;
import org.springframework.boot.test.web.server.LocalServerPort;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.Lab;
import yarrowmark.server.support.ServerTest;

/** Every input of hostile.txt at its door: what must happen happens, soon, and no answer speaks of classes or libraries. */
@ServerTest
class HostileInputsTest {
    private static final Pattern REPEATED = Pattern.compile("⟪(.*?)×(\\d+)⟫", Pattern.DOTALL);
    private static final Pattern INSIDE = Pattern.compile(
            "java\\.|javax\\.|jakarta|hibernate|springframework|jackson|Exception|SQLSTATE|\\bat \\w+\\.\\w+\\(");
    private static final Duration SOON = Duration.ofSeconds(5);

    @LocalServerPort
    private int port;

    private Lab lab;
    private Client owner;

    private record Input(String door, String must, String text, String what) {
        static Input of(String line) {
            String[] parts = line.split(" \\| ", 3);
            int end = parts[2].lastIndexOf(" | ");
            Matcher repeated = REPEATED.matcher(Client.JSON.readValue(parts[2].substring(0, end), String.class));
            String text =
                    repeated.replaceAll(m -> Matcher.quoteReplacement(m.group(1).repeat(Integer.parseInt(m.group(2)))));
            return new Input(parts[0], parts[1], text, parts[2].substring(end + 3));
        }
    }

    private static List<Input> corpus() throws Exception {
        List<Input> inputs = new ArrayList<>();
        try (BufferedReader lines = new BufferedReader(new InputStreamReader(
                require(HostileInputsTest.class.getResourceAsStream("hostile.txt")), StandardCharsets.UTF_8))) {
            lines.lines().filter(line -> !line.startsWith("#")).map(Input::of).forEach(inputs::add);
        }
        return inputs;
    }

    @BeforeEach
    void lab() {
        lab = new Lab(port);
        owner = lab.owner();
    }

    @TestFactory
    List<DynamicTest> everyDoor() throws Exception {
        lab.suite("Depth, m, more").session(1);
        return corpus().stream()
                .map(input -> DynamicTest.dynamicTest(input.door + ": " + input.what, () -> isHarmless(input)))
                .toList();
    }

    private void isHarmless(Input input) {
        Instant began = Instant.now();
        Client.Answer answer = sent(input);
        assertThat(Duration.between(began, Instant.now())).isLessThan(SOON);
        assertThat(answer.status()).as(answer.raw().body()).isLessThan(500);
        assertThat(INSIDE.matcher(answer.detail()).find()).as(answer.detail()).isFalse();
        switch (input.must) {
            case "kept" -> {
                assertThat(answer.status()).as(answer.detail()).isEqualTo(200);
                long id = answer.body().path("model").path("id").asLong();
                assertThat(owner.get("/api/models/" + id)
                                .body()
                                .path("model")
                                .path("name")
                                .asString())
                        .isEqualTo(input.text);
            }
            case "refused" -> {
                assertThat(answer.status()).as(answer.raw().body()).isBetween(400, 499);
                assertThat(answer.code()).isNotEmpty();
                assertThat(answer.detail()).isNotEmpty();
            }
            default -> {
                if (answer.status() >= 400) {
                    assertThat(answer.code()).as(answer.raw().body()).isNotEmpty();
                }
            }
        }
    }

    private Client.Answer sent(Input input) {
        String text = input.text;
        return switch (input.door) {
            case "name" ->
                owner.post(
                        "/api/models",
                        Map.of("maker", "Hostile " + lab.number(), "name", text, "deviceClass", "LAPTOP"));
            case "body" -> owner.postText("/api/models", text);
            case "formula" -> owner.post("/api/formulas/read", Map.of("formula", text));
            case "rule" -> {
                String[] both = text.split("\u001f", 2);
                yield owner.post(
                        "/api/rules/try",
                        Map.of(
                                "sample",
                                both[1],
                                "patterns",
                                List.of(Map.of(
                                        "metricId",
                                        lab.metric(0),
                                        "kind",
                                        "LINE",
                                        "expression",
                                        both[0],
                                        "name",
                                        "",
                                        "occurrence",
                                        0,
                                        "unit",
                                        ""))));
            }
            case "score" ->
                owner.post(
                        "/api/sessions/" + lab.session() + "/look",
                        Map.of("testId", lab.test(0), "run", 1, "text", text, "byStopwatch", false));
            case "csv" ->
                owner.postBytes("/api/ledger/import?make=true&store=false", text.getBytes(StandardCharsets.UTF_8));
            case "list" -> owner.post("/api/suites/read", Map.of("group", "STORAGE", "text", text));
            case "facts" -> owner.post("/api/facts/read", Map.of("text", text));
            case "ledger" -> owner.get("/api/ledger?" + text);
            case "search" -> owner.get("/api/search?" + text);
            default -> throw new AssertionError("no such door: " + input.door);
        };
    }
}
