package yarrowmark.server.ledger.sheet;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicInteger;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.boot.test.web.server.LocalServerPort;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.ServerTest;

@ServerTest
class ScoreSheetTest {
    private static final AtomicInteger NUMBER = new AtomicInteger();

    @LocalServerPort
    private int port;

    private Client owner;
    private long configuration;
    private List<Long> tests;
    private long session;

    @BeforeEach
    void aSuiteOfTwoTestsAndASession() {
        owner = Client.owner(port);
        int number = NUMBER.incrementAndGet();
        Client.Answer suite = owner.post(
                "/api/suites",
                Map.of(
                        "name",
                        "Tidegauge " + number,
                        "version",
                        "2.1",
                        "mode",
                        "64 bit",
                        "group",
                        "STORAGE",
                        "text",
                        "Sequential read, MB/s, more\nReport export, s, less, Everyday"));
        assertThat(suite.status()).as(suite.detail()).isEqualTo(200);
        tests = List.of(suite.body().get(0).asLong(), suite.body().get(1).asLong());
        long model = owner.post(
                        "/api/models", Map.of("maker", "Ostler", "name", "Fell s" + number, "deviceClass", "MINI"))
                .body()
                .path("model")
                .path("id")
                .asLong();
        long unit = owner.post("/api/models/" + model + "/units", Map.of("label", "Unit 1"))
                .body()
                .path("units")
                .get(0)
                .path("id")
                .asLong();
        configuration = owner.post("/api/units/" + unit + "/configurations", Map.of("facts", List.of()))
                .body()
                .path("configuration")
                .path("id")
                .asLong();
        session = open().body().path("session").path("id").asLong();
    }

    private Client.Answer open() {
        return owner.post(
                "/api/sessions",
                Map.of(
                        "configurationId",
                        configuration,
                        "name",
                        "Tidegauge",
                        "testIds",
                        tests,
                        "runs",
                        3,
                        "onMains",
                        true,
                        "roomTemperature",
                        "21,5 °C",
                        "recording",
                        false,
                        "remarks",
                        "lid closed",
                        "ticked",
                        List.of("Nothing else is open")));
    }

    private Client.Answer type(int test, int run, String text) {
        return owner.post(
                "/api/sessions/" + session + "/scores",
                Map.of("testId", tests.get(test), "run", run, "text", text, "byStopwatch", false));
    }

    private JsonNode look(int test, int run, String text) {
        return owner.post(
                        "/api/sessions/" + session + "/look",
                        Map.of("testId", tests.get(test), "run", run, "text", text, "byStopwatch", false))
                .body();
    }

    private static JsonNode place(JsonNode sheet, int test, int run) {
        return sheet.path("tests").get(test).path("runs").get(run - 1);
    }

    @Test
    void scoresAreTypedCorrectedAndTakenBackAndNothingIsOverwritten() {
        type(0, 1, "1 310,5");
        type(0, 2, "1312");
        JsonNode typed = place(type(0, 1, "1301.5").body(), 0, 1);
        assertThat(typed.path("value").asDouble()).isEqualTo(1301.5);
        assertThat(typed.path("resolution").asDouble()).isEqualTo(0.1);
        JsonNode ledger = owner.get("/api/ledger?session=" + session).body();
        assertThat(ledger.path("total").asInt())
                .as("the first value stays in the ledger")
                .isEqualTo(3);
        assertThat(owner.get("/api/ledger?state=SET_ASIDE&session=" + session)
                        .body()
                        .path("total")
                        .asInt())
                .isEqualTo(1);

        JsonNode back = place(
                owner.post("/api/sessions/" + session + "/undo", Map.of("testId", tests.get(0), "run", 1))
                        .body(),
                0,
                1);
        assertThat(back.path("aside").asBoolean()).isTrue();
        long reading = owner.get("/api/ledger?state=COUNTED&session=" + session)
                .body()
                .path("rows")
                .get(0)
                .path("readingId")
                .asLong();
        assertThat(owner.get("/api/readings/" + reading)
                        .body()
                        .path("sample")
                        .path("n")
                        .asInt())
                .as("the first value counts again")
                .isEqualTo(2);
        assertThat(owner.post("/api/sessions/" + session + "/undo", Map.of("testId", tests.get(1), "run", 1))
                        .code())
                .isEqualTo("nothing-typed");
    }

    @Test
    void aFailureIsAResultWithItsReason() {
        JsonNode sheet = type(1, 1, "n/a crashed on start").body();
        assertThat(place(sheet, 1, 1).path("state").asString()).isEqualTo("FAILED");
        assertThat(place(sheet, 1, 1).path("words").asString()).isEqualTo("crashed on start");
        assertThat(place(type(1, 2, "not supported").body(), 1, 2).path("state").asString())
                .isEqualTo("COULD_NOT_RUN");
        assertThat(place(type(1, 1, "4m07").body(), 1, 1).path("value").asDouble())
                .isEqualTo(247);
        assertThat(owner.get("/api/ledger?state=FAILED&session=" + session)
                        .body()
                        .path("total")
                        .asInt())
                .as("the failed try stays")
                .isEqualTo(1);
    }

    @Test
    void whatIsTypedIsUnderstoodAtOnceAndSlipsAreNamedWithoutStopping() {
        type(0, 1, "1310");
        JsonNode look = look(0, 2, "1 297,4");
        assertThat(look.path("value").asDouble()).isEqualTo(1297.4);
        assertThat(look.path("perOthers").asDouble()).isCloseTo(0.99, Offset.offset(0.001));
        assertThat(look.path("doubts")).isEmpty();
        assertThat(look(0, 2, "131").path("doubts").get(0).path("kind").asString())
                .isEqualTo("DECIMAL_POINT");
        assertThat(look(0, 2, "fast").path("reason").asString()).contains("no score");
        assertThat(look(0, 2, "0").path("reason").asString()).contains("above 0");
        assertThat(type(0, 2, "131").status()).as("doubts stop nobody").isEqualTo(200);
        assertThat(type(0, 3, "0").code()).isEqualTo("not-a-score");
        assertThat(type(0, 99, "5").code()).isEqualTo("run-out-of-range");
    }

    @Test
    void aStopwatchStopsNothingThatIsNoTime() {
        Client.Answer answer = owner.post(
                "/api/sessions/" + session + "/scores",
                Map.of("testId", tests.get(0), "run", 1, "text", "64.27", "byStopwatch", true));
        assertThat(answer.status()).isEqualTo(422);
        assertThat(answer.code()).isEqualTo("no-time");
    }

    @Test
    void aTimeStoppedByHandIsKnownToAFifthOfASecond() {
        JsonNode sheet = owner.post(
                        "/api/sessions/" + session + "/scores",
                        Map.of("testId", tests.get(1), "run", 1, "text", "64.27", "byStopwatch", true))
                .body();
        assertThat(place(sheet, 1, 1).path("value").asDouble()).isEqualTo(64.27);
        assertThat(place(sheet, 1, 1).path("resolution").asDouble()).isEqualTo(0.2);
    }

    @Test
    void aSessionKeepsItsConditionsAndGoesOnAnotherDay() {
        JsonNode page = owner.get("/api/sessions/" + session).body();
        assertThat(page.path("roomTemperature").asDouble()).isEqualTo(21.5);
        assertThat(page.path("remarks").asString()).isEqualTo("lid closed");
        assertThat(page.path("byHand").asBoolean()).isTrue();
        assertThat(page.path("checks").toString())
                .contains("\"Nothing else is open\",\"ticked\":true,\"person\":\"" + Client.NAME + "\"");
        owner.post("/api/sessions/" + session + "/end", Map.of());
        assertThat(type(0, 1, "1310").code()).isEqualTo("session-over");
        assertThat(owner.post("/api/sessions/" + session + "/resume", Map.of())
                        .body()
                        .path("session")
                        .path("state")
                        .asString())
                .isEqualTo("OPEN");
        assertThat(type(0, 1, "1310").status()).isEqualTo(200);
    }

    @Test
    void aTypedScoreIsRankedLikeAnyOther() {
        type(0, 1, "1310");
        type(0, 2, "1320");
        long metric = owner.get("/api/sessions/" + session + "/sheet")
                .body()
                .path("tests")
                .get(0)
                .path("metric")
                .path("id")
                .asLong();
        JsonNode rows = owner.get("/api/standings?metric=" + metric).body().path("rows");
        assertThat(rows).hasSize(1);
        assertThat(rows.get(0).path("configuration").path("id").asLong()).isEqualTo(configuration);
        long first = session;
        session = open().body().path("session").path("id").asLong();
        assertThat(look(0, 1, "1400").has("place"))
                .as("only others are counted")
                .isFalse();
        session = first;
    }

    @Test
    void anyViewOfTheLedgerIsAFileWithEveryFactAndNoFormula() throws IOException {
        type(0, 1, "1 310,5");
        type(1, 1, "n/a crashed, =1+1");
        type(1, 2, "n/a =HYPERLINK(\"x\")");
        String text = owner.get("/api/ledger/csv?session=" + session).raw().body();
        assertThat(text).contains("\r\n");
        try (CSVParser csv = CSVParser.parse(
                text,
                CSVFormat.RFC4180
                        .builder()
                        .setHeader()
                        .setSkipHeaderRecord(true)
                        .get())) {
            List<CSVRecord> rows = csv.getRecords();
            assertThat(rows).hasSize(3);
            assertThat(csv.getHeaderNames())
                    .startsWith("maker", "model", "class", "unit", "configuration")
                    .endsWith("counted", "note", "power", "recording", "other work", "computed");
            assertThat(rows.get(0).get("value")).isEqualTo("1310.5");
            assertThat(rows.get(0).get("version")
                            + rows.get(0).get("mode")
                            + rows.get(0).get("direction")
                            + rows.get(0).get("measure unit"))
                    .isEqualTo("2.164 bitmoreMB/s");
            assertThat(rows.get(1).get("state")
                            + rows.get(1).get("note")
                            + rows.get(1).get("value"))
                    .isEqualTo("failedcrashed, =1+1");
            assertThat(rows.get(2).get("note")).isEqualTo("'=HYPERLINK(\"x\")");
        }
        assertThat(new Client(port).get("/api/ledger/csv").status()).isEqualTo(401);
    }

    @Test
    void listsThatCannotBeReadAndSuitesThatAreThereAreRefused() {
        Map<String, Object> suite = new HashMap<>(Map.of(
                "name",
                "Kelpline " + NUMBER.incrementAndGet(),
                "version",
                "3",
                "group",
                "EVERYDAY",
                "text",
                "Export, s, less\nRead, MB/s, fast\nSize, MB, less, Kitchen"));
        Client.Answer refused = owner.post("/api/suites", suite);
        assertThat(refused.code()).isEqualTo("lines-refused");
        assertThat(refused.detail()).contains("Line 2").contains("Line 3").contains("Kitchen");
        suite.put("text", "Export, s, less");
        assertThat(owner.post("/api/suites", suite).status()).isEqualTo(200);
        assertThat(owner.post("/api/suites", suite).code()).isEqualTo("version-exists");
        suite.put("mode", "32 bit");
        assertThat(owner.post("/api/suites", suite).status())
                .as("another mode is another thing")
                .isEqualTo(200);
        suite.put("name", "Yarrow processor");
        assertThat(owner.post("/api/suites", suite).code()).isEqualTo("built-in-suite");
        suite.putAll(Map.of("name", "Empty one", "text", " \n "));
        assertThat(owner.post("/api/suites", suite).code()).isEqualTo("no-tests");
    }

    @Test
    void twoWhoTypeIntoTheSameSessionBothStay() throws InterruptedException {
        List<Thread> both = List.of(new Thread(() -> type(0, 1, "1310")), new Thread(() -> Client.owner(port)
                .post(
                        "/api/sessions/" + session + "/scores",
                        Map.of("testId", tests.get(0), "run", 1, "text", "1311", "byStopwatch", false))));
        both.forEach(Thread::start);
        for (Thread t : both) {
            t.join();
        }
        assertThat(owner.get("/api/ledger?session=" + session)
                        .body()
                        .path("total")
                        .asInt())
                .isEqualTo(2);
        assertThat(owner.get("/api/ledger?state=COUNTED&session=" + session)
                        .body()
                        .path("total")
                        .asInt())
                .as("exactly one of them counts")
                .isEqualTo(1);
    }
}
