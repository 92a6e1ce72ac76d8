package yarrowmark.server.ledger;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import org.awaitility.Awaitility;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.boot.test.web.server.LocalServerPort;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.Lab;
import yarrowmark.server.support.ServerTest;

/** Sessions under another condition: what counts by default, what can be asked for, and the two held against each other. */
@ServerTest
class ConditionsTest {
    private static final List<String> USUAL_LIST = List.of("RECORDED", "ON_BATTERY", "OTHER_WORK");

    @LocalServerPort
    private int port;

    private Lab lab;
    private long base;
    private long other;

    @BeforeEach
    void measured() {
        lab = new Lab(port).suite("Weir, 1, more");
        base = lab.configuration(Map.of("firmware.version", "1.04"));
        other = lab.configuration(Map.of("firmware.version", "1.11"));
        session(base, Map.of("onMains", true), "100", "101", "99");
        session(other, Map.of("onMains", true), "120", "121", "119");
    }

    @AfterEach
    void theUsualListAgain() {
        assertThat(lab.owner()
                        .put("/api/conditions", Map.of("notCounted", USUAL_LIST))
                        .status())
                .isEqualTo(200);
    }

    private void session(long of, Map<String, Object> conditions, String... texts) {
        Map<String, Object> body = new java.util.HashMap<>(conditions);
        body.putAll(Map.of("configurationId", of, "name", "Lab", "testIds", lab.tests(), "runs", texts.length));
        Client.Answer made = lab.owner().post("/api/sessions", body);
        assertThat(made.status()).as(made.detail()).isEqualTo(200);
        long id = made.body().path("session").path("id").asLong();
        for (int run = 1; run <= texts.length; run++) {
            assertThat(lab.owner()
                            .post(
                                    "/api/sessions/" + id + "/scores",
                                    Map.of(
                                            "testId",
                                            lab.tests().get(0),
                                            "run",
                                            run,
                                            "text",
                                            texts[run - 1],
                                            "byStopwatch",
                                            false))
                            .status())
                    .isEqualTo(200);
        }
    }

    private JsonNode compared(long with, String more) {
        Client.Answer answer = lab.owner().get("/api/compare?base=" + base + "&with=" + with + more);
        assertThat(answer.status()).as(answer.detail()).isEqualTo(200);
        return answer.body();
    }

    private double ratio(long with, String more) {
        return compared(with, more)
                .path("rows")
                .get(0)
                .path("cells")
                .get(0)
                .path("ratio")
                .asDouble();
    }

    @Test
    void aRecordedSessionDoesNotCountUntilItIsAskedFor() {
        session(other, Map.of("recording", true), "60", "61", "59");
        assertThat(ratio(other, "")).isCloseTo(1.2, within(0.01));
        assertThat(compared(other, "").path("notCounted").asInt()).isEqualTo(1);
        assertThat(compared(other, "").path("take").asString()).isEqualTo("USUAL");
        assertThat(compared(other, "").path("sides").get(0).path("conditions").toString())
                .as("what is not taken changed nothing")
                .doesNotContain("RECORDING");
        session(base, Map.of("recording", false), "100", "101", "99");
        assertThat(compared(other, "").path("sides").get(0).path("conditions").toString())
                .doesNotContain("RECORDING");
        assertThat(ratio(other, "&take=ALL")).isBetween(0.8, 0.9);
        assertThat(ratio(other, "&take=RECORDED&baseTake=USUAL")).isCloseTo(0.6, within(0.01));
        assertThat(compared(other, "&take=RECORDED")
                        .path("rows")
                        .get(0)
                        .path("value")
                        .isMissingNode())
                .as("the base was never recorded")
                .isTrue();

        JsonNode standing = lab.owner()
                .get("/api/standings?suite=" + lab.version() + "&base=" + base)
                .body();
        assertThat(standing.path("rows").get(0).path("index").asDouble()).isCloseTo(120, within(1.0));
        assertThat(standing.path("notCounted").asInt()).isEqualTo(1);
        JsonNode recorded = lab.owner()
                .get("/api/standings?suite=" + lab.version() + "&take=RECORDED")
                .body();
        assertThat(recorded.path("rows")).hasSize(1);
        assertThat(recorded.path("take").asString()).isEqualTo("RECORDED");
    }

    /** The same configuration, with and without recording: no fact had to be invented for it. */
    @Test
    void withAndWithoutOfOneConfiguration() {
        session(base, Map.of("recording", false), "100", "101", "99");
        session(base, Map.of("recording", true), "90", "91", "89");
        assertThat(ratio(base, "&take=RECORDED&baseTake=USUAL")).isCloseTo(0.9, within(0.01));
        String takes = "&take=RECORDED&baseTake=USUAL";
        assertThat(compared(base, takes).path("sides").get(0).path("conditions").toString())
                .contains("RECORDING");
        assertThat(lab.sentence("base=" + base + "&with=" + base + takes, 0, 0))
                .contains("while the screen was recorded")
                .contains("in usual sessions");
        JsonNode sides = lab.owner()
                .get("/api/compare/metrics/" + lab.metric(0) + "?ids=" + base + "," + base + takes)
                .body()
                .path("sides");
        assertThat(sides).hasSize(2);
        assertThat(sides.get(0).path("sessions").get(0).path("mean").asDouble()).isCloseTo(100, within(0.1));
        assertThat(sides.get(1).path("sessions").get(0).path("mean").asDouble()).isCloseTo(90, within(0.1));
        assertThat(sides.get(1).path("sessions").get(0).path("conditions").toString())
                .contains("recording");
        assertThat(sides.get(1).path("readings")).hasSize(3);
        Client.Answer same = lab.owner().get("/api/compare?base=" + base + "&with=" + base);
        assertThat(same.code()).isEqualTo("not-two");
    }

    @Test
    void onBatteryIsUnusualOnlyWhereMainsWasMeasuredToo() {
        long phone = lab.configuration(Map.of("firmware.version", "5.0"));
        session(phone, Map.of("onMains", false), "50", "51", "49");
        assertThat(ratio(phone, "")).isCloseTo(0.5, within(0.01));
        session(other, Map.of("onMains", false), "70", "71", "69");
        assertThat(ratio(other, "")).isCloseTo(1.2, within(0.01));
        session(phone, Map.of("onMains", true), "80", "81", "79");
        assertThat(ratio(phone, "")).as("now it was on mains as well").isCloseTo(0.8, within(0.01));
    }

    @Test
    void theLabChangesItsList() {
        session(other, Map.of("otherWork", true), "60", "61", "59");
        assertThat(ratio(other, "")).isCloseTo(1.2, within(0.01));
        assertThat(lab.owner()
                        .put("/api/conditions", Map.of("notCounted", List.of()))
                        .status())
                .isEqualTo(200);
        assertThat(ratio(other, "")).isBetween(0.8, 0.9);
        assertThat(lab.owner().get("/api/conditions").body().path("notCounted")).isEmpty();
        assertThat(lab.owner()
                        .put("/api/conditions", Map.of("notCounted", List.of("ALL")))
                        .code())
                .isEqualTo("not-a-condition");
        assertThat(lab.owner()
                        .put("/api/conditions", Map.of("notCounted", List.of("SNOW")))
                        .status())
                .isEqualTo(400);
    }

    /** Nothing is left of one side: a sentence, no error. */
    @Test
    void everySessionExcludedIsSaid() {
        long only = lab.configuration(Map.of("firmware.version", "6.0"));
        session(only, Map.of("recording", true), "60", "61", "59");
        JsonNode side = compared(only, "").path("sides").get(0);
        assertThat(side.path("noOverall").asString()).isEqualTo("No test was run on both.");
        assertThat(compared(only, "").path("notCounted").asInt()).isEqualTo(1);
    }

    @Test
    void aFileCarriesConditions() throws java.io.IOException {
        String head =
                "maker,model,class,suite,version,test,measure unit,direction,started,run,state,value,fact:firmware.version,session,power,recording,other work\n";
        String line = "Ostler,Condition " + lab.number()
                + ",board,Skerry,1,Weir,MB/s,more,2026-11-0%dT10:00:00Z,%d,ok,%d,1.0,round,%s,%s,\n";
        String file = head
                + line.formatted(1, 1, 100, "mains", "no")
                + line.formatted(1, 2, 102, "mains", "no")
                + line.formatted(2, 1, 50, "mains", "yes");
        Client owner = lab.owner();
        Client.Answer begun =
                owner.postBytes("/api/ledger/import?make=true&store=true", file.getBytes(StandardCharsets.UTF_8));
        JsonNode outcome = outcome(begun);
        assertThat(outcome.path("refused")).as(outcome.toString()).isEmpty();
        String back = new String(owner.open("/api/ledger/csv").readAllBytes(), StandardCharsets.UTF_8);
        assertThat(back.lines().findFirst().orElseThrow()).endsWith("power,recording,other work,computed");
        assertThat(back).contains(",mains,yes,");

        JsonNode refused = outcome(owner.postBytes(
                "/api/ledger/import?make=true&store=false",
                (head
                                + line.formatted(3, 1, 100, "mains", "no")
                                + line.formatted(3, 2, 100, "battery", "no")
                                + line.formatted(4, 1, 100, "steam", "no"))
                        .getBytes(StandardCharsets.UTF_8)));
        assertThat(refused.path("refused").toString())
                .contains("Another line of this session has other conditions")
                .contains("Write mains, battery, or nothing");
    }

    private JsonNode outcome(Client.Answer begun) {
        assertThat(begun.status()).as(begun.detail()).isEqualTo(200);
        String job = "/api/ledger/import/" + begun.body().path("id").asString();
        JsonNode[] last = new JsonNode[1];
        Awaitility.await().atMost(Duration.ofMinutes(1)).until(() -> {
            last[0] = lab.owner().get(job).body();
            return last[0].has("outcome") || last[0].has("problem");
        });
        assertThat(last[0].has("outcome")).as(last[0].toString()).isTrue();
        return last[0].path("outcome");
    }
}
