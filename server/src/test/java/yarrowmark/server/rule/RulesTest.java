package yarrowmark.server.rule;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.boot.test.web.server.LocalServerPort;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.Lab;
import yarrowmark.server.support.ServerTest;

@ServerTest
class RulesTest {
    private static final String SAMPLE = "Export of 40 photos took 73.2 s\nWrite speed: 0.4 GB/s\n";

    @LocalServerPort
    private int port;

    private Lab lab;

    @BeforeEach
    void lab() {
        lab = new Lab(port).suite("Export, s, less\nWrite, MB/s, more\nWakes, check");
    }

    private Map<String, Object> pattern(String name, String kind, String expression, String unit, int test) {
        return Map.of(
                "name",
                name,
                "kind",
                kind,
                "expression",
                expression,
                "unit",
                unit,
                "occurrence",
                0,
                "metricId",
                lab.metric(test));
    }

    private Client.Answer make(List<Map<String, Object>> patterns, String sample) {
        return lab.owner()
                .post(
                        "/api/suite-versions/" + lab.version() + "/rules",
                        Map.of("patterns", patterns, "sample", sample));
    }

    private Client.Answer paste(String text, boolean store) {
        return lab.owner().post("/api/sessions/" + lab.session() + "/text?store=" + store, Map.of("text", text));
    }

    @Test
    void aRuleIsMadeByMarkingAndPastingIsThenEnough() {
        int at = SAMPLE.indexOf("73.2");
        JsonNode marked = lab.owner()
                .post("/api/rules/mark", Map.of("text", SAMPLE, "start", at, "end", at + 4))
                .body();
        assertThat(marked.path("unit").asString()).isEqualTo("s");
        Client.Answer made = make(
                List.of(
                        pattern("Export", "LINE", marked.path("expression").asString(), "s", 0),
                        pattern("Write", "LINE", "Write speed: ([\\d.]+) (?P<unit>[kMG]B/s)", "MB/s", 1)),
                SAMPLE);
        assertThat(made.status()).as(made.detail()).isEqualTo(200);

        lab.session(3);
        String output =
                "Export of 40 photos took 70.1 s\nWrite speed: 0.4 GB/s\nExport of 40 photos took 71.3 s\nWrite speed: 390 MB/s\n";
        JsonNode look = paste(output, false).body();
        assertThat(look.path("taken")
                        .valueStream()
                        .map(t -> t.path("test").asString() + " "
                                + t.path("run").asInt() + " " + t.path("value").asDouble()))
                .containsExactly("Export 1 70.1", "Export 2 71.3", "Write 1 400.0", "Write 2 390.0");
        assertThat(lab.sheet()
                        .path("tests")
                        .get(0)
                        .path("runs")
                        .get(0)
                        .path("state")
                        .isMissingNode())
                .as("looking stores nothing")
                .isTrue();

        assertThat(paste(output, true).status()).isEqualTo(200);
        paste("Export of 40 photos took 72.5 s", true);
        JsonNode runs = lab.sheet().path("tests").get(0).path("runs");
        assertThat(runs.valueStream().map(r -> r.path("value").asDouble()))
                .as("the next text goes on with the next run")
                .containsExactly(70.1, 71.3, 72.5);
        assertThat(lab.sheet()
                        .path("tests")
                        .get(1)
                        .path("runs")
                        .get(0)
                        .path("resolution")
                        .asDouble())
                .as("0.4 GB/s is known to 100 MB/s")
                .isCloseTo(100, within(1e-9));
        assertThat(lab.owner()
                        .get("/api/sessions/" + lab.session() + "/evidence")
                        .body())
                .as("the texts are kept")
                .hasSize(2);
        assertThat(paste("nothing of interest", true).code()).isEqualTo("nothing-read");
    }

    @Test
    void anAverageAndItsLowOutOfOneTextAreOneRun() {
        lab = new Lab(port)
                .suite("Reed flight, fps, more\n+ 1 % low, fps, more")
                .session(2);
        long low = lab.row(lab.tests().get(0)).path("metrics").get(1).path("id").asLong();
        Map<String, Object> ofLow = new HashMap<>(pattern("Low", "LINE", "low (\\d+\\.\\d)", "fps", 0));
        ofLow.put("metricId", low);
        Client.Answer made = make(
                List.of(pattern("Average", "LINE", "average (\\d+\\.\\d)", "fps", 0), ofLow),
                "average 62.4 fps\nlow 41.0 fps\n");
        assertThat(made.status()).as(made.detail()).isEqualTo(200);
        assertThat(paste("average 61.8 fps\nlow 40.2 fps\n", true).status()).isEqualTo(200);
        JsonNode test = lab.sheet().path("tests").get(0);
        assertThat(test.path("runs").get(0).path("value").asDouble()).isEqualTo(61.8);
        assertThat(test.path("others"))
                .extracting(o -> o.path("value").asDouble())
                .containsExactly(40.2);
        JsonNode alone = paste("low 39.9 fps\n", false).body();
        assertThat(alone.path("taken")).isEmpty();
        assertThat(alone.path("refused").get(0).asString()).contains("has no value of Reed flight");
    }

    @Test
    void aMismatchOfUnitsIsSaidWhileTheRuleIsMade() {
        String printed = "Write speed: 100 MiB/s\nCopied in 12 s\n";
        JsonNode tried = lab.owner()
                .post(
                        "/api/rules/try",
                        Map.of(
                                "patterns",
                                List.of(
                                        pattern("W", "LINE", "speed: (\\d+)", "MB/s", 1),
                                        pattern("C", "LINE", "in (\\d+)", "MB/s", 1)),
                                "sample",
                                printed))
                .body();
        JsonNode write = tried.path("found").get(0);
        assertThat(write.path("unit").asString()).isEqualTo("MiB/s");
        assertThat(write.path("forTest").asDouble()).isCloseTo(104.8576, within(1e-9));
        assertThat(tried.path("missed")
                        .valueStream()
                        .map(m -> m.path("pattern").asString() + ": "
                                + m.path("reason").asString()))
                .singleElement()
                .asString()
                .isEqualTo("C: \"12\" in line 2 is printed in s, which does not turn into MB/s.");
    }

    @Test
    void aRuleThatCannotWorkIsRefusedWithEveryReason() {
        Client.Answer refused = make(
                List.of(
                        pattern("A", "LINE", "Export of (\\d+)", "fps", 0),
                        pattern("B", "LINE", "absent ([\\d.]+)", "MB/s", 1),
                        pattern("C", "KEY", "Write speed", "1", 2)),
                SAMPLE);
        assertThat(refused.code()).isEqualTo("rule-refused");
        assertThat(refused.body().path("refused").valueStream().map(r -> r.path("field")
                        .asString()))
                .contains("A", "B", "C");
        assertThat(make(List.of(pattern("A", "LINE", "(took", "s", 0)), SAMPLE).code())
                .isEqualTo("not-a-pattern");
        assertThat(make(List.of(pattern("A", "LINE", "(a+)+\\1", "s", 0)), SAMPLE)
                        .detail())
                .contains("could run for ever");
        assertThat(make(
                                List.of(
                                        pattern("A", "LINE", "took ([\\d.]+)", "s", 0),
                                        pattern("A", "KEY", "x", "s", 1)),
                                SAMPLE)
                        .code())
                .isEqualTo("name-twice");
        assertThat(lab.owner()
                        .post("/api/rules/mark", Map.of("text", SAMPLE, "start", 0, "end", 6))
                        .code())
                .isEqualTo("no-number-marked");
        assertThat(lab.owner()
                        .get("/api/rules")
                        .body()
                        .valueStream()
                        .filter(r -> r.path("suiteVersionId").asLong() == lab.version()))
                .isEmpty();
    }

    @Test
    void aRetiredRuleReadsNoMore() {
        long id = make(List.of(pattern("Export", "LINE", "took ([\\d.]+) s", "s", 0)), SAMPLE)
                .body()
                .valueStream()
                .filter(r -> r.path("suiteVersionId").asLong() == lab.version())
                .findFirst()
                .orElseThrow()
                .path("id")
                .asLong();
        lab.session(1);
        assertThat(paste(SAMPLE, false).body().path("taken")).hasSize(1);
        assertThat(lab.owner().delete("/api/rules/" + id).status()).isEqualTo(200);
        assertThat(paste(SAMPLE, false).body().path("rules").asInt()).isZero();
        assertThat(lab.owner().delete("/api/rules/" + id).status()).isEqualTo(404);
    }

    @Test
    void aSuiteIsMadeFromWhatAToolPrints() {
        JsonNode tools = lab.owner().get("/api/rules/tools").body();
        assertThat(tools.valueStream().map(t -> t.path("key").asString())).contains("time", "dd", "openssl-speed");
        String sample = tools.valueStream()
                .filter(t -> t.path("key").asString().equals("openssl-speed"))
                .findFirst()
                .orElseThrow()
                .path("sample")
                .asString();
        String name = "Ciphers " + lab.number();
        Client.Answer made = lab.owner()
                .post("/api/rules/tools/openssl-speed/suite", Map.of("name", name, "version", "3.0", "sample", sample));
        assertThat(made.status()).as(made.detail()).isEqualTo(200);
        List<String> tests = lab.owner()
                .get("/api/tests")
                .body()
                .valueStream()
                .filter(t -> t.path("suite").asString().equals(name))
                .map(t -> t.path("name").asString())
                .toList();
        assertThat(tests)
                .as("only what the sample has")
                .contains("SHA-256, 16384 bytes", "RSA 2048, signing")
                .doesNotContain("SHA-512, 16384 bytes");
        assertThat(lab.owner()
                        .post(
                                "/api/rules/tools/openssl-speed/suite",
                                Map.of("name", name + " b", "version", "1", "sample", "hello"))
                        .code())
                .isEqualTo("nothing-read");
        assertThat(lab.owner()
                        .post(
                                "/api/rules/tools/none/suite",
                                Map.of("name", name + " b", "version", "1", "sample", "hello"))
                        .status())
                .isEqualTo(404);
    }
}
