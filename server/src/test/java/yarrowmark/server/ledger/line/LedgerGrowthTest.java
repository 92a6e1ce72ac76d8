package yarrowmark.server.ledger.line;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.boot.test.web.server.LocalServerPort;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.support.Bench;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.Lab;
import yarrowmark.server.support.ServerTest;

@ServerTest
class LedgerGrowthTest {
    @LocalServerPort
    private int port;

    private Lab lab;

    @BeforeEach
    void lab() {
        lab = new Lab(port);
    }

    private JsonNode ledger(String filter) {
        Client.Answer answer = lab.owner().get("/api/ledger?" + filter);
        assertThat(answer.status()).as(answer.detail()).isEqualTo(200);
        return answer.body();
    }

    private int lines(String filter) {
        return ledger(filter).path("total").asInt();
    }

    private List<String> marks(String filter) {
        List<String> marks = new ArrayList<>();
        ledger(filter).path("rows").forEach(r -> r.path("marks")
                .forEach(m -> marks.add(
                        r.path("value").asDouble() + " " + m.path("kind").asString())));
        return marks;
    }

    @Test
    void aCorrectionIsANewReadingAndTheOldOneStays() {
        lab.suite("Export, s, less").session(2).typed(0, "41.2", "4.19");
        lab.owner().post("/api/sessions/" + lab.session() + "/end", Map.of());
        long wrong = ledger("session=" + lab.session())
                .path("rows")
                .valueStream()
                .filter(r -> r.path("value").asDouble() == 4.19)
                .findFirst()
                .orElseThrow()
                .path("readingId")
                .asLong();
        Client.Answer corrected = lab.owner()
                .post(
                        "/api/readings/" + wrong + "/correct",
                        Map.of("text", "41,9", "reason", "the decimal point slipped"));
        assertThat(corrected.status()).as(corrected.detail()).isEqualTo(200);
        JsonNode now = corrected.body();
        assertThat(now.path("value").asDouble()).isEqualTo(41.9);
        assertThat(now.path("person").asString()).isEqualTo(Client.NAME);
        assertThat(now.path("corrects").path("value").asDouble()).isEqualTo(4.19);
        assertThat(now.path("sample").path("n").asInt()).isEqualTo(2);
        JsonNode before = lab.owner().get("/api/readings/" + wrong).body();
        assertThat(before.path("asides").get(0).path("reason").asString()).contains("the decimal point slipped");
        assertThat(before.path("correctedBy").get(0).path("id").asLong())
                .isEqualTo(now.path("id").asLong());
        assertThat(lab.owner()
                        .post("/api/readings/" + wrong + "/correct", Map.of("text", "40", "reason", "again"))
                        .code())
                .isEqualTo("corrected-already");
        assertThat(lab.owner()
                        .get("/api/readings/" + now.path("id").asLong())
                        .body()
                        .path("asides"))
                .as("a refused correction changes nothing")
                .isEmpty();
        assertThat(lab.owner()
                        .post(
                                "/api/readings/" + now.path("id").asLong() + "/correct",
                                Map.of("text", "soon", "reason", "x"))
                        .code())
                .isEqualTo("not-understood");
        assertThat(lab.owner()
                        .post(
                                "/api/readings/" + now.path("id").asLong() + "/correct",
                                Map.of("text", "n/a", "reason", "x"))
                        .code())
                .isEqualTo("not-a-value");
        assertThat(lab.owner()
                        .post(
                                "/api/readings/" + now.path("id").asLong() + "/correct",
                                Map.of("text", "0", "reason", "x"))
                        .code())
                .isEqualTo("not-a-score");
    }

    @Test
    void aWholeViewIsSetAsideAndTakenBackAtOnce() {
        lab.suite("Read, MB/s, more\nWrite, MB/s, more")
                .session(3)
                .typed(0, "500", "510", "505")
                .typed(1, "300", "310", "305");
        String view = "session=" + lab.session() + "&test=" + lab.tests().get(1);
        assertThat(lab.owner()
                        .post("/api/ledger/set-aside?" + view, Map.of("reason", "wrong cable", "expected", 2))
                        .code())
                .as("it is not what the person saw")
                .isEqualTo("changed-meanwhile");
        Client.Answer done =
                lab.owner().post("/api/ledger/set-aside?" + view, Map.of("reason", "wrong cable", "expected", 3));
        assertThat(done.body().path("readings").asInt()).as(done.detail()).isEqualTo(3);
        assertThat(lines("state=COUNTED&session=" + lab.session())).isEqualTo(3);
        assertThat(lab.owner().get("/api/standings?metric=" + lab.metric(1)).code())
                .as("its sample is gone")
                .isEqualTo("nothing-tested");
        assertThat(lab.owner()
                        .post("/api/ledger/set-aside?" + view, Map.of("reason", "again", "expected", 0))
                        .code())
                .isEqualTo("none-counts");

        String batch = done.body().path("batch").asString();
        assertThat(lab.owner()
                        .delete("/api/ledger/set-aside/" + batch)
                        .body()
                        .path("readings")
                        .asInt())
                .isEqualTo(3);
        assertThat(lines("state=COUNTED&session=" + lab.session())).isEqualTo(6);
        assertThat(lab.owner()
                        .get("/api/standings?metric=" + lab.metric(1))
                        .body()
                        .path("rows")
                        .size())
                .isEqualTo(1);
        assertThat(lab.owner().delete("/api/ledger/set-aside/" + batch).code()).isEqualTo("nothing-to-take-back");
    }

    @Test
    void whatIsComputedFollowsABulkSetAside() {
        lab.suite("A, s, less").session(2);
        lab.owner()
                .post(
                        "/api/suite-versions/" + lab.version() + "/computed",
                        Map.of(
                                "name",
                                "Twice",
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
                                Map.of("a", lab.metric(0))));
        lab.typed(0, "3", "4");
        Client.Answer done = lab.owner()
                .post(
                        "/api/ledger/set-aside?session=" + lab.session() + "&test="
                                + lab.tests().get(0),
                        Map.of("reason", "battery", "expected", 2));
        assertThat(lines("state=COUNTED&session=" + lab.session())).isZero();
        lab.owner().delete("/api/ledger/set-aside/" + done.body().path("batch").asString());
        assertThat(lines("state=COUNTED&session=" + lab.session())).isEqualTo(4);
    }

    @Test
    void theLedgerIsFilteredByAnyFactSuitePersonAndDate() {
        lab.suite("Read, MB/s, more");
        long small = lab.configuration(Map.of("memory.size", "8 GB", "os.name", "Thistle"));
        long large = lab.configuration(Map.of("memory.size", "32 GB", "os.name", "Sedge"));
        lab.session(small, 2).typed(0, "500", "510");
        lab.session(large, 1).typed(0, "900");
        String own = "version=" + lab.version();
        assertThat(lines(own)).isEqualTo(3);
        assertThat(lines(own + "&fact=memory.size&relation=AT_LEAST&value=16%20GB"))
                .isEqualTo(1);
        assertThat(lines(own + "&fact=memory.size&relation=AT_MOST&value=16%20GB"))
                .isEqualTo(2);
        assertThat(lines(own + "&fact=os.name&relation=IS&value=Sedge")).isEqualTo(1);
        assertThat(lines(own + "&fact=os.name")).isEqualTo(3);
        assertThat(lines(own + "&fact=os.version")).isZero();
        assertThat(lines(own + "&person=" + Client.NAME)).isEqualTo(3);
        assertThat(lines(own + "&person=nobody")).isZero();
        LocalDate day = LocalDate.ofInstant(
                java.time.Instant.parse(
                        ledger(own).path("rows").get(0).path("finishedAt").asString()),
                ZoneOffset.UTC);
        assertThat(lines(own + "&from=" + day + "&to=" + day)).isEqualTo(3);
        assertThat(lines(own + "&from=" + day.plusDays(1))).isZero();
        assertThat(lines(own + "&to=" + day.minusDays(1))).isZero();
        assertThat(lab.owner().get("/api/ledger/people").body().valueStream().map(JsonNode::asString))
                .contains(Client.NAME);
        assertThat(lab.owner()
                        .get("/api/ledger?fact=os.name&relation=AT_LEAST&value=Sedge")
                        .code())
                .isEqualTo("not-a-quantity");
        assertThat(lab.owner()
                        .get("/api/ledger?fact=memory.size&relation=AT_LEAST&value=many")
                        .status())
                .isEqualTo(422);
        assertThat(lab.owner().get("/api/ledger?from=yesterday").status()).isEqualTo(400);
        assertThat(lab.owner()
                        .get("/api/ledger/csv?" + own + "&fact=memory.size&relation=AT_LEAST&value=16%20GB")
                        .raw()
                        .body()
                        .lines())
                .hasSize(2);
    }

    @Test
    void aStrayReadingIsMarkedAndStillCounts() {
        lab.suite("Read, MB/s, more").session(6).typed(0, "500.1", "501.2", "499.3", "500.4", "340.5", "500.6");
        assertThat(marks("session=" + lab.session())).containsExactly("340.5 STRAY");
        assertThat(lines("state=COUNTED&session=" + lab.session())).isEqualTo(6);
    }

    @Test
    void aTimeTooShortForItsClockIsMarked() {
        lab.suite("Open, s, less\nExport, s, less").session(1).typed(0, "12").typed(1, "140");
        assertThat(marks("session=" + lab.session())).containsExactly("12.0 TOO_SHORT");
    }

    @Test
    void soIsARateOfOurOwnTestsWhoseTimedPartHadFewStepsOfTheClock() {
        Bench bench = new Bench(port);
        Client device = bench.started("Clock " + lab.number(), 2, List.of());
        bench.deliver(device, Bench.ok(Bench.testId(device, "weir-hash-one"), 1, 0.9));
        bench.deliver(device, Bench.ok(Bench.testId(device, "weir-hash-one"), 2, 1.1));
        long session = device.get("/api/device/seat").body().path("sessionId").asLong();
        assertThat(marks("session=" + session))
                .as("0.9 is 90 steps of 0.01, 1.1 is 110")
                .containsExactly("0.9 TOO_SHORT");
    }

    @Test
    void ofThreeReadingsTheNoiseOfTheWholeVersionIsLentWhereTheTestItselfHasLittle() {
        lab.suite("Read, MB/s, more\nWrite, MB/s, more\nCopy, MB/s, more\nMove, MB/s, more")
                .session(4)
                .typed(0, "500.1", "501.2", "499.3", "500.4")
                .typed(1, "300.1", "301.2", "299.3", "300.4")
                .typed(2, "700.1", "701.2", "699.3", "700.4")
                .typed(3, "400.1", "400.6", "250.5");
        assertThat(marks("session=" + lab.session()))
                .as("three samples of other tests lend, one alone could not")
                .containsExactly("250.5 STRAY");
    }

    @Test
    void whatTheDisplayHoldsIsMarkedAndLeavesTheTotals() {
        lab.suite("Reed flight " + lab.number() + ", fps, more, capped, Graphics\nSlow flight " + lab.number()
                + ", fps, more, capped, Graphics");
        long configuration = lab.configuration(Map.of("display.refresh", "60 Hz"));
        lab.session(configuration, 3).typed(0, "59.9", "59.94", "59.92").typed(1, "31.1", "31.2", "31.15");
        assertThat(marks("session=" + lab.session()))
                .containsExactlyInAnyOrder("59.9 HELD", "59.94 HELD", "59.92 HELD");
        // A test that one alone has run says nothing of the others, so another one ran them too.
        long session = lab.session();
        lab.session(lab.configuration(Map.of("display.refresh", "75 Hz")), 1)
                .typed(0, "70.2")
                .typed(1, "33.3");
        JsonNode standings = lab.owner()
                .get("/api/standings?everyTest=true&base=" + configuration)
                .body();
        assertThat(standings
                        .path("leftOut")
                        .valueStream()
                        .filter(l -> l.path("test").asString().equals("Reed flight " + lab.number()))
                        .findFirst()
                        .orElseThrow()
                        .path("reason")
                        .asString())
                .contains("held at the display's rate on 1 configuration");
        assertThat(standings.path("metrics").valueStream().map(m -> m.path("test")
                        .asString()))
                .contains("Slow flight " + lab.number())
                .doesNotContain("Reed flight " + lab.number());
        assertThat(lab.owner()
                        .get("/api/standings?metric=" + lab.metric(0))
                        .body()
                        .path("rows")
                        .size())
                .as("alone it is shown")
                .isEqualTo(2);
        String counts = "/api/configurations/" + configuration + "/metrics/" + lab.metric(0) + "/held-counts";
        assertThat(lab.owner().put(counts, Map.of("reason", " ")).status()).isEqualTo(400);
        assertThat(lab.owner()
                        .put(counts, Map.of("reason", "The display was switched off"))
                        .status())
                .isEqualTo(200);
        assertThat(lab.owner().put(counts, Map.of("reason", "again")).code()).isEqualTo("overruled-already");
        assertThat(lab.owner()
                        .get("/api/standings?everyTest=true&base=" + configuration)
                        .body()
                        .path("metrics")
                        .valueStream()
                        .map(m -> m.path("test").asString()))
                .contains("Reed flight " + lab.number());
        assertThat(ledger("session=" + session).toString())
                .contains("Counts all the same: The display was switched off");
        assertThat(lab.owner().delete(counts).status()).isEqualTo(200);
        assertThat(lab.owner().delete(counts).code()).isEqualTo("not-overruled");
        assertThat(lab.owner()
                        .get("/api/standings?everyTest=true&base=" + configuration)
                        .body()
                        .path("metrics")
                        .valueStream()
                        .map(m -> m.path("test").asString()))
                .doesNotContain("Reed flight " + lab.number());
    }

    @Test
    void aWarmUpIsMarkedWhereFirstRunsAreMostlyWorst() {
        lab.suite("Sort, ops/s, more");
        for (int i = 0; i < 6; i++) {
            lab.session(3).typed(0, "80" + i, "90" + i, "91" + i);
        }
        long first = ledger("session=" + lab.session())
                .path("rows")
                .valueStream()
                .filter(r -> r.path("runNumber").asInt() == 1)
                .findFirst()
                .orElseThrow()
                .path("readingId")
                .asLong();
        assertThat(lab.owner()
                        .get("/api/readings/" + first)
                        .body()
                        .path("marks")
                        .valueStream()
                        .map(m -> m.path("kind").asString()))
                .contains("WARM_UP");
    }

    @Test
    void viewsAreSavedReplacedAndRemoved() {
        String name = "Stopped here " + lab.number();
        assertThat(lab.owner()
                        .post("/api/ledger/views", Map.of("name", name, "address", "state=STOPPED"))
                        .status())
                .isEqualTo(200);
        JsonNode views = lab.owner()
                .post(
                        "/api/ledger/views",
                        Map.of("name", name.toUpperCase(java.util.Locale.ROOT), "address", "state=FAILED"))
                .body();
        List<JsonNode> own = views.valueStream()
                .filter(v -> v.path("name").asString().equalsIgnoreCase(name))
                .toList();
        assertThat(own)
                .singleElement()
                .satisfies(v -> assertThat(v.path("address").asString()).isEqualTo("state=FAILED"));
        assertThat(lab.owner()
                        .post("/api/ledger/views", Map.of("name", name, "address", "//elsewhere/<script>"))
                        .status())
                .isEqualTo(400);
        assertThat(lab.owner()
                        .delete("/api/ledger/views/" + own.get(0).path("id").asLong())
                        .body()
                        .valueStream()
                        .filter(v -> v.path("name").asString().equalsIgnoreCase(name)))
                .isEmpty();
        assertThat(lab.owner().delete("/api/ledger/views/999999999").status()).isEqualTo(404);
    }

    @Test
    void theLedgerIsSortedByAnyColumnAndRowsCanBePicked() {
        lab.suite("Export, s, less\nSort, s, less")
                .session(3)
                .typed(0, "12", "9", "30")
                .typed(1, "4", "crashed", "5");
        String here = "session=" + lab.session();
        assertThat(values(here + "&sort=VALUE&falling=false")).startsWith(4.0, 5.0, 9.0, 12.0, 30.0);
        assertThat(values(here + "&sort=VALUE&falling=true")).startsWith(30.0, 12.0, 9.0, 5.0, 4.0);
        assertThat(ledger(here + "&sort=TEST&falling=true")
                        .path("rows")
                        .valueStream()
                        .map(r -> r.path("test").asString()))
                .startsWith("Sort", "Sort", "Sort", "Export");
        for (String sort : List.of("MODEL", "RUN", "PERSON", "STATE", "TIME")) {
            assertThat(ledger(here + "&sort=" + sort).path("rows")).as(sort).hasSize(6);
        }
        List<Long> picked = ledger(here + "&sort=VALUE&falling=false")
                .path("rows")
                .valueStream()
                .limit(2)
                .map(r -> r.path("readingId").asLong())
                .toList();
        String those = "readings=" + picked.get(0) + "&readings=" + picked.get(1);
        assertThat(values(those)).containsExactlyInAnyOrder(4.0, 5.0);
        Client.Answer done =
                lab.owner().post("/api/ledger/set-aside?" + those, Map.of("reason", "wrong cable", "expected", 2));
        assertThat(done.body().path("readings").asInt()).isEqualTo(2);
        assertThat(lines(here + "&state=SET_ASIDE")).isEqualTo(2);
        assertThat(values(here + "&state=COUNTED&sort=VALUE&falling=false")).containsExactly(9.0, 12.0, 30.0);
    }

    @Test
    void testsThatHaveResultsAreKnown() {
        lab.suite("Export, s, less\nSort, s, less").session(1);
        List<Long> tests = List.of(lab.test(0), lab.test(1));
        assertThat(measured()).doesNotContainAnyElementsOf(tests);
        lab.typed(0, "12");
        assertThat(measured()).contains(tests.get(0)).doesNotContain(tests.get(1));
    }

    private List<Long> measured() {
        return lab.owner()
                .get("/api/tests/measured")
                .body()
                .valueStream()
                .map(JsonNode::asLong)
                .toList();
    }

    private List<Double> values(String filter) {
        return ledger(filter)
                .path("rows")
                .valueStream()
                .filter(r -> r.hasNonNull("value"))
                .map(r -> r.path("value").asDouble())
                .toList();
    }

    @Test
    void checksAndChoicesAreTypedInWords() {
        lab.suite("Wakes, check\nSmoothest clip, choice 720p < 1080p < 2160p, Video")
                .session(2);
        lab.typed(0, "pass", "fail: screen stays dark").typed(1, "1080p", "not possible, no decoder");
        JsonNode sheet = lab.sheet();
        assertThat(sheet.path("tests").get(0).path("runs").get(1).path("value").asDouble())
                .isZero();
        assertThat(sheet.path("tests").get(0).path("runs").get(1).path("words").asString())
                .isEqualTo("screen stays dark");
        assertThat(sheet.path("tests").get(1).path("runs").get(0).path("value").asDouble())
                .isEqualTo(2);
        assertThat(sheet.path("tests").get(1).path("runs").get(1).path("state").asString())
                .isEqualTo("COULD_NOT_RUN");
        assertThat(lab.type(1, 1, "4320p").detail()).contains("720p, 1080p, 2160p");
        assertThat(lab.owner().get("/api/standings?metric=" + lab.metric(0)).code())
                .isEqualTo("not-ranked");
    }

    @Test
    void pointsBecomeTheNumbersOfACurveOrOfFrames() {
        lab.suite("Read over size, MB/s, more, curve over B\nFlight, fps, more, frame times")
                .session(1);
        Client.Answer curve = points(0, "4 KiB; 310\n64 KiB; 1930\n1 MiB; 2100\n16 MiB; 2080", false);
        assertThat(curve.status()).as(curve.detail()).isEqualTo(200);
        assertThat(curve.body()
                        .path("tests")
                        .get(0)
                        .path("runs")
                        .get(0)
                        .path("value")
                        .asDouble())
                .isEqualTo(2100);
        assertThat(curve.body()
                        .path("tests")
                        .get(0)
                        .path("others")
                        .valueStream()
                        .map(o -> o.path("value").asDouble()))
                .as("where the peak begins, and no dent: it only rises")
                .containsExactly(65536.0, 0.0);
        JsonNode frames = points(1, "16.6 ".repeat(180) + "17.1 ".repeat(15) + "25 33.4 41 50.2 66.9", false)
                .body();
        assertThat(frames.path("tests").get(1).path("runs").get(0).path("value").asDouble())
                .isCloseTo(57.78676683, org.assertj.core.data.Offset.offset(1e-8));
        long reading = frames.path("tests")
                .get(1)
                .path("runs")
                .get(0)
                .path("readingId")
                .asLong();
        assertThat(lab.owner()
                        .get("/api/readings/" + reading)
                        .body()
                        .path("timings")
                        .size())
                .isEqualTo(200);
        assertThat(points(1, "0 16 33 31", true).detail()).contains("timestamp 4");
        assertThat(lab.type(0, 1, "12").code()).isEqualTo("not-understood");
        assertThat(lab.owner()
                        .post("/api/readings/" + reading + "/correct", Map.of("text", "60", "reason", "x"))
                        .detail())
                .contains("many points");
    }

    private Client.Answer points(int test, String text, boolean timestamps) {
        return lab.owner()
                .post(
                        "/api/sessions/" + lab.session() + "/points",
                        Map.of("testId", lab.tests().get(test), "run", 1, "text", text, "timestamps", timestamps));
    }
}
