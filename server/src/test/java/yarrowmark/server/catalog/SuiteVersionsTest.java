package yarrowmark.server.catalog;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static org.awaitility.Awaitility.await;

import java.time.Duration;
import java.util.ArrayList;
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
class SuiteVersionsTest {
    @LocalServerPort
    private int port;

    private Lab lab;

    @BeforeEach
    void lab() {
        lab = new Lab(port);
    }

    private Client.Answer compute(String name, String formula, Map<String, Long> inputs) {
        return lab.owner()
                .post(
                        "/api/suite-versions/" + lab.version() + "/computed",
                        Map.of(
                                "name",
                                name,
                                "unit",
                                "s",
                                "direction",
                                "LESS_IS_BETTER",
                                "scale",
                                "RATIO",
                                "group",
                                "EVERYDAY",
                                "main",
                                true,
                                "formula",
                                formula,
                                "inputs",
                                inputs));
    }

    /** The row of a computed test in the session's sheet. */
    private JsonNode computed(String name) {
        for (JsonNode test : lab.sheet().path("tests")) {
            if (test.path("name").asString().equals(name)) {
                return test.path("runs");
            }
        }
        throw new AssertionError("no row " + name);
    }

    @Test
    void aComputedValueFollowsItsInputs() {
        lab.suite("Started, s, less\nFirmware, s, less").session(3);
        Client.Answer made = compute(
                "System start", "started - firmware", Map.of("started", lab.metric(0), "firmware", lab.metric(1)));
        assertThat(made.status()).as(made.detail()).isEqualTo(200);
        lab.typed(0, "14.2", "14.6", "14.4");
        assertThat(computed("System start").get(0).path("words").asString()).contains("no value of firmware");

        lab.typed(1, "5.1");
        assertThat(computed("System start")).hasSize(3);
        assertThat(computed("System start").get(2).path("value").asDouble())
                .as("the one firmware time counts for every run")
                .isCloseTo(9.3, within(1e-9));
        assertThat(computed("System start").get(0).path("resolution").asDouble())
                .isCloseTo(Math.sqrt(0.02), within(1e-9));

        lab.type(0, 3, "15");
        assertThat(computed("System start").get(2).path("value").asDouble()).isCloseTo(9.9, within(1e-9));
        JsonNode asides = lab.owner()
                .get("/api/ledger?state=SET_ASIDE&session=" + lab.session())
                .body();
        assertThat(asides.path("total").asInt())
                .as("the input and the value computed from it, both kept")
                .isEqualTo(2);

        lab.owner()
                .post(
                        "/api/sessions/" + lab.session() + "/undo",
                        Map.of("testId", lab.tests().get(1), "run", 1));
        assertThat(computed("System start").get(0).path("value").isMissingNode()
                        || computed("System start").get(0).path("value").isNull())
                .isTrue();
        assertThat(lab.owner()
                        .get("/api/ledger?state=COUNTED&session=" + lab.session())
                        .body()
                        .path("total")
                        .asInt())
                .as("three start times, nothing computed")
                .isEqualTo(3);
    }

    @Test
    void aValueThatDividesByZeroOrIsNotAboveZeroIsNone() {
        lab.suite("Points, 1, more\nFull power, W, less, difference").session(1);
        assertThat(compute(
                                "Points per watt",
                                "points / (power - 20)",
                                Map.of("points", lab.metric(0), "power", lab.metric(1)))
                        .status())
                .isEqualTo(200);
        lab.typed(0, "1200").typed(1, "20");
        assertThat(computed("Points per watt").get(0).path("words").asString()).contains("divides by zero");
        lab.type(1, 1, "10");
        assertThat(computed("Points per watt").get(0).path("words").asString()).contains("not above 0");
        lab.type(1, 1, "30");
        assertThat(computed("Points per watt").get(0).path("value").asDouble()).isEqualTo(120);
        assertThat(lab.owner()
                        .post(
                                "/api/sessions/" + lab.session() + "/scores",
                                Map.of(
                                        "testId",
                                        computedTest("Points per watt"),
                                        "run",
                                        1,
                                        "text",
                                        "5",
                                        "byStopwatch",
                                        false))
                        .code())
                .as("nobody types what is computed")
                .isEqualTo("computed");
    }

    private long computedTest(String name) {
        for (JsonNode test : lab.owner().get("/api/tests").body()) {
            if (test.path("name").asString().equals(name)
                    && test.path("suiteVersionId").asLong() == lab.version()) {
                return test.path("id").asLong();
            }
        }
        throw new AssertionError(name);
    }

    @Test
    void oneComputedValueMayUseAnother() {
        lab.suite("A, s, less\nB, s, less").session(1);
        compute("Both", "a + b", Map.of("a", lab.metric(0), "b", lab.metric(1)));
        long both =
                lab.row(computedTest("Both")).path("metrics").get(0).path("id").asLong();
        compute("Twice both", "2 * both", Map.of("both", both));
        lab.typed(0, "3").typed(1, "4");
        assertThat(computed("Twice both").get(0).path("value").asDouble()).isEqualTo(14);
        lab.type(1, 1, "5");
        assertThat(computed("Twice both").get(0).path("value").asDouble()).isEqualTo(16);
    }

    @Test
    void formulasThatCannotBeAreRefusedWithTheReason() {
        lab.suite("A, s, less");
        assertThat(compute("X", "a +", Map.of("a", lab.metric(0))).code()).isEqualTo("not-a-formula");
        assertThat(compute("X", "a + b", Map.of("a", lab.metric(0))).detail()).contains("\"b\"");
        assertThat(compute("X", "a + x", Map.of("a", lab.metric(0), "x", 999_999_999L))
                        .code())
                .as("it cannot name itself: it is not there yet")
                .isEqualTo("input-missing");
        assertThat(compute("A", "2 * a", Map.of("a", lab.metric(0))).code()).isEqualTo("test-exists");
        long builtIn = lab.owner()
                .get("/api/suite-versions")
                .body()
                .valueStream()
                .filter(v -> v.path("builtIn").asBoolean())
                .findFirst()
                .orElseThrow()
                .path("id")
                .asLong();
        assertThat(lab.owner()
                        .post(
                                "/api/suite-versions/" + builtIn + "/computed",
                                Map.of(
                                        "name",
                                        "X",
                                        "unit",
                                        "s",
                                        "direction",
                                        "LESS_IS_BETTER",
                                        "scale",
                                        "RATIO",
                                        "group",
                                        "EVERYDAY",
                                        "main",
                                        true,
                                        "formula",
                                        "2 * a",
                                        "inputs",
                                        Map.of("a", lab.metric(0))))
                        .code())
                .isEqualTo("built-in-suite");
        assertThat(lab.owner()
                        .post("/api/formulas/read", Map.of("formula", "(b + a) / b"))
                        .body()
                        .path("inputs")
                        .valueStream()
                        .map(JsonNode::asString))
                .containsExactly("a", "b");
    }

    @Test
    void aSuiteHasItsOwnTotal() {
        lab.suite("One, 1, more\nTwo, 1, more\nThree, 1, more\nTime, s, less").session(1);
        Map<String, Double> weights = new HashMap<>();
        for (int i = 0; i < 3; i++) {
            weights.put(Long.toString(lab.metric(i)), 1.0);
        }
        String path = "/api/suite-versions/" + lab.version() + "/total";
        assertThat(lab.owner()
                        .post(
                                path,
                                Map.of(
                                        "kind",
                                        "HARMONIC",
                                        "unit",
                                        "1",
                                        "weights",
                                        Map.of(Long.toString(lab.metric(0)), 1.0, Long.toString(lab.metric(3)), 1.0)))
                        .code())
                .isEqualTo("not-a-part");
        assertThat(lab.owner()
                        .post(
                                path,
                                Map.of(
                                        "kind",
                                        "HARMONIC",
                                        "unit",
                                        "1",
                                        "weights",
                                        Map.of(Long.toString(lab.metric(0)), -1.0)))
                        .code())
                .isEqualTo("weight-not-positive");
        assertThat(lab.owner()
                        .post(path, Map.of("kind", "HARMONIC", "unit", "1", "weights", weights))
                        .status())
                .isEqualTo(200);
        assertThat(lab.owner()
                        .post(path, Map.of("kind", "SUM", "unit", "1", "weights", weights))
                        .code())
                .isEqualTo("test-exists");
        lab.typed(0, "1200").typed(1, "1850").typed(2, "2400");
        assertThat(computed("Total").get(0).path("value").asDouble())
                .as("example C of the method")
                .isCloseTo(1675.471698, within(1e-6));
        assertThat(lab.row(computedTest("Total"))
                        .path("metrics")
                        .get(0)
                        .path("main")
                        .asBoolean())
                .as("its parts are ranked, not the total again")
                .isFalse();
    }

    @Test
    void aTotalThatIsTypedNoLongerCountsBesideItsParts() {
        lab.suite("Sort, ops/s, more\nPack, ops/s, more\nTotal, 1, more").session(1);
        lab.typed(0, "100").typed(1, "400").typed(2, "200");
        String total = "/api/metrics/" + lab.metric(2) + "/total";
        Map<String, Object> geometric = Map.of(
                "kind",
                "GEOMETRIC",
                "weights",
                Map.of(Long.toString(lab.metric(0)), 1.0, Long.toString(lab.metric(1)), 1.0));
        assertThat(weighed()).contains("Sort", "Pack", "Total");
        Client.Answer itself =
                lab.owner().put(total, Map.of("kind", "SUM", "weights", Map.of(Long.toString(lab.metric(2)), 1.0)));
        assertThat(itself.code()).isEqualTo("not-a-part");
        assertThat(lab.owner().put(total, geometric).status()).isEqualTo(200);
        assertThat(weighed()).contains("Sort", "Pack").doesNotContain("Total");
        assertThat(lab.sheet().path("tests"))
                .filteredOn(t -> t.path("name").asString().equals("Total"))
                .as("it is typed as before")
                .allSatisfy(t -> {
                    assertThat(t.path("computed").asBoolean()).isFalse();
                    assertThat(t.path("runs").get(0).path("value").asDouble()).isEqualTo(200);
                });
        lab.type(2, 1, "210");
        assertThat(lab.owner()
                        .put(
                                "/api/metrics/" + lab.metric(0) + "/total",
                                Map.of("kind", "SUM", "weights", Map.of(Long.toString(lab.metric(2)), 1.0)))
                        .code())
                .as("a total is no part of another")
                .isEqualTo("not-a-part");
        assertThat(lab.owner().delete(total).status()).isEqualTo(200);
        assertThat(weighed()).contains("Total");
        assertThat(lab.owner().put("/api/metrics/987654/total", geometric).status())
                .isEqualTo(404);
    }

    private List<String> weighed() {
        List<String> names = new ArrayList<>();
        lab.owner()
                .get("/api/standings?suite=" + lab.version())
                .body()
                .path("metrics")
                .forEach(m -> names.add(m.path("test").asString()));
        return names;
    }

    @Test
    void aValueThatIsAddedLaterIsComputedForWhatIsThere() {
        lab.suite("Started, s, less\nFirmware, s, less")
                .session(1)
                .typed(0, "14.2")
                .typed(1, "5.1");
        assertThat(compute(
                                "System start",
                                "started - firmware",
                                Map.of("started", lab.metric(0), "firmware", lab.metric(1)))
                        .status())
                .isEqualTo(200);
        await().atMost(Duration.ofMinutes(1)).untilAsserted(() -> assertThat(
                        lab.owner().get("/api/ledger/backlog").body())
                .isEmpty());
        assertThat(computed("System start").get(0).path("value").asDouble()).isCloseTo(9.1, within(1e-9));
    }

    @Test
    void joinedVersionsAreRankedAsOneAndCanBeParted() {
        String name = "Tideway " + lab.number();
        lab.suite(name, "1", "Sort, ops/s, more\nPack, s, less").session(1).typed(0, "100");
        long first = lab.version();
        long metric = lab.metric(0);
        Lab other = new Lab(port)
                .suite(name, "1.0.1", "Sort, ops/s, more\nPack, min, less")
                .session(1)
                .typed(0, "130");
        assertThat(ranked(metric)).isEqualTo(1);
        String path = "/api/suite-versions/" + other.version() + "/join";
        assertThat(lab.owner().post(path, Map.of("into", first, "reason", " ")).status())
                .isEqualTo(400);
        assertThat(lab.owner()
                        .post(path, Map.of("into", other.version(), "reason", "same"))
                        .code())
                .isEqualTo("joined-already");
        assertThat(lab.owner()
                        .post(path, Map.of("into", first, "reason", "Only the window changed"))
                        .status())
                .isEqualTo(200);
        assertThat(ranked(metric)).isEqualTo(2);
        assertThat(ranked(other.metric(0))).as("asked for by either").isEqualTo(2);
        assertThat(lab.owner()
                        .post(
                                "/api/suite-versions/" + first + "/join",
                                Map.of("into", other.version(), "reason", "loop"))
                        .code())
                .isEqualTo("joined-already");
        JsonNode row = lab.owner()
                .get("/api/suite-versions")
                .body()
                .valueStream()
                .filter(v -> v.path("id").asLong() == other.version())
                .findFirst()
                .orElseThrow();
        assertThat(row.path("joined").path("reason").asString()).isEqualTo("Only the window changed");
        assertThat(row.path("joined").path("intoName").asString()).isEqualTo(name + " 1");

        assertThat(lab.owner().delete(path).status()).isEqualTo(200);
        assertThat(ranked(metric)).isEqualTo(1);
        assertThat(lab.owner().delete(path).code()).isEqualTo("not-joined");
    }

    @Test
    void versionsWithNothingInCommonAreNotJoined() {
        lab.suite("Sort, ops/s, more");
        Lab other = new Lab(port).suite("Sort, s, less");
        assertThat(lab.owner()
                        .post(
                                "/api/suite-versions/" + lab.version() + "/join",
                                Map.of("into", other.version(), "reason", "why not"))
                        .code())
                .isEqualTo("nothing-in-common");
    }

    private int ranked(long metric) {
        return lab.owner()
                .get("/api/standings?metric=" + metric)
                .body()
                .path("rows")
                .size();
    }

    @Test
    void aRetiredTestKeepsItsScoresAndIsNoLongerRanked() {
        lab.suite("Sort, ops/s, more\nPack, s, less").session(1).typed(0, "100");
        String path = "/api/tests/" + lab.tests().get(0) + "/retired";
        assertThat(lab.owner().post(path, Map.of("retired", true)).status()).isEqualTo(200);
        assertThat(lab.row(lab.tests().get(0)).path("retired").asBoolean()).isTrue();
        assertThat(lab.owner()
                        .get("/api/ledger?session=" + lab.session())
                        .body()
                        .path("total")
                        .asInt())
                .isEqualTo(1);
        assertThat(lab.owner().get("/api/standings?metric=" + lab.metric(0)).status())
                .isEqualTo(404);
        lab.owner().post(path, Map.of("retired", false));
        assertThat(ranked(lab.metric(0))).isEqualTo(1);
    }
}
