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
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.MissingNode;
import yarrowmark.server.ledger.sample.CountedSessions;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.Lab;
import yarrowmark.server.support.MovableClock;
import yarrowmark.server.support.ServerTest;

/** Sessions under another condition: what counts by default, what can be asked for, and the two held against each other. */
@ServerTest
class ConditionsTest {
    private static final List<String> USUAL_LIST = List.of("RECORDED", "ON_BATTERY", "OTHER_WORK", "UNFINISHED");

    @LocalServerPort
    private int port;

    @Autowired
    private MovableClock clock;

    @Autowired
    private CountedSessions counted;

    private Lab lab;
    private Client owner;
    private long firstTest;
    private long base;
    private long other;

    @BeforeEach
    void measured() {
        lab = new Lab(port).suite("Weir, 1, more");
        owner = lab.owner();
        firstTest = lab.tests().get(0);
        base = lab.configuration(Map.of("firmware.version", "1.04"));
        other = lab.configuration(Map.of("firmware.version", "1.11"));
        session(base, Map.of("onMains", true), "100", "101", "99");
        session(other, Map.of("onMains", true), "120", "121", "119");
    }

    @AfterEach
    void theUsualListAgain() {
        assertThat(owner.put("/api/conditions", Map.of("notCounted", USUAL_LIST))
                        .status())
                .isEqualTo(200);
    }

    /** @return its id */
    private long session(long of, Map<String, Object> conditions, String... texts) {
        return session(of, conditions, List.of(firstTest), texts);
    }

    private long session(long of, List<Long> tests, String... texts) {
        return session(of, Map.of("onMains", true), tests, texts);
    }

    private long session(long of, Map<String, Object> conditions, List<Long> tests, String... texts) {
        Map<String, Object> body = new java.util.HashMap<>(conditions);
        body.putAll(Map.of("configurationId", of, "name", "Lab", "testIds", tests, "runs", 3));
        Client.Answer made = owner.post("/api/sessions", body);
        assertThat(made.status()).as(made.detail()).isEqualTo(200);
        long id = made.body().path("session").path("id").asLong();
        for (int run = 1; run <= texts.length; run++) {
            type(id, tests.get(0), run, texts[run - 1]);
        }
        return id;
    }

    private void type(long session, long test, int run, String text) {
        assertThat(owner.post(
                                "/api/sessions/" + session + "/scores",
                                Map.of("testId", test, "run", run, "text", text, "byStopwatch", false))
                        .status())
                .isEqualTo(200);
    }

    private JsonNode compared(long with, String more) {
        Client.Answer answer = owner.get("/api/compare?base=" + base + "&with=" + with + more);
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

        JsonNode standing = owner.get("/api/standings?suite=" + lab.version() + "&base=" + base)
                .body();
        assertThat(standing.path("rows").get(0).path("index").asDouble()).isCloseTo(120, within(1.0));
        assertThat(standing.path("notCounted").asInt()).isEqualTo(1);
        JsonNode recorded = owner.get("/api/standings?suite=" + lab.version() + "&take=RECORDED")
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
        JsonNode sides = owner.get("/api/compare/metrics/" + lab.metric(0) + "?ids=" + base + "," + base + takes)
                .body()
                .path("sides");
        assertThat(sides).hasSize(2);
        assertThat(sides.get(0).path("sessions").get(0).path("mean").asDouble()).isCloseTo(100, within(0.1));
        assertThat(sides.get(1).path("sessions").get(0).path("mean").asDouble()).isCloseTo(90, within(0.1));
        assertThat(sides.get(1).path("sessions").get(0).path("conditions").toString())
                .contains("recording");
        assertThat(sides.get(1).path("readings")).hasSize(3);
        Client.Answer same = owner.get("/api/compare?base=" + base + "&with=" + base);
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
        assertThat(owner.put("/api/conditions", Map.of("notCounted", List.of())).status())
                .isEqualTo(200);
        assertThat(ratio(other, "")).isBetween(0.8, 0.9);
        assertThat(owner.get("/api/conditions").body().path("notCounted")).isEmpty();
        assertThat(owner.put("/api/conditions", Map.of("notCounted", List.of("ALL")))
                        .code())
                .isEqualTo("not-a-condition");
        assertThat(owner.put("/api/conditions", Map.of("notCounted", List.of("SNOW")))
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

    private JsonNode unfinishedOf(long configuration) {
        List<JsonNode> found = new java.util.ArrayList<>();
        owner.get("/api/sessions/unfinished").body().forEach(one -> {
            if (one.path("configuration").path("id").asLong() == configuration) {
                found.add(one);
            }
        });
        assertThat(found).hasSizeLessThan(2);
        return found.isEmpty() ? MissingNode.getInstance() : found.get(0);
    }

    /** An abandoned session with one of two tests had moved a comparison without anybody noticing. */
    @Test
    void aSessionThatWasLeftOffDoesNotCountUntilSomebodySaysSo() {
        long whole = session(other, Map.of("onMains", true), "120", "121", "119");
        lab.suite("Sluice " + lab.number(), "1", "Sluice, 1, more");
        List<Long> both = List.of(firstTest, lab.tests().get(0));
        long left = session(other, both, "60", "61", "59");
        assertThat(ratio(other, "")).as("somebody is at work on it").isBetween(0.8, 1.1);
        aDayPasses();
        assertThat(ratio(other, "")).isCloseTo(1.2, within(0.01));
        assertThat(compared(other, "").path("notCounted").asInt()).isEqualTo(1);
        JsonNode named = unfinishedOf(other);
        assertThat(named.path("id").asLong())
                .as("and not the whole one, %d", whole)
                .isEqualTo(left);
        assertThat(named.path("measured").asInt()).isEqualTo(1);
        assertThat(named.path("planned").asInt()).isEqualTo(2);
        assertThat(ratio(other, "&take=UNFINISHED&baseTake=USUAL")).isCloseTo(0.6, within(0.01));

        count(left, true);
        assertThat(ratio(other, "")).isBetween(0.8, 1.1);
        assertThat(unfinishedOf(other).isMissingNode()).isTrue();
        count(left, false);
        assertThat(ratio(other, "")).isCloseTo(1.2, within(0.01));
        assertThat(owner.post("/api/sessions/" + left + "/end", Map.of()).status())
                .isEqualTo(200);
        assertThat(ratio(other, "")).as("it was finished after all").isBetween(0.8, 1.1);
    }

    /** The missing run comes after all: then nothing is missing, and nobody has to say anything. */
    @Test
    void theLastMissingRunMakesItCount() {
        lab.suite("Sluice " + lab.number(), "1", "Sluice, 1, more");
        List<Long> both = List.of(firstTest, lab.tests().get(0));
        long only = lab.configuration(Map.of("firmware.version", "7.0"));
        long left = session(only, both, "60", "61", "59");
        aDayPasses();
        assertThat(compared(only, "").path("sides").get(0).path("noOverall").asString())
                .isEqualTo("No test was run on both.");
        assertThat(unfinishedOf(only).path("id").asLong())
                .as("named, though nothing else of it is there")
                .isEqualTo(left);
        type(left, both.get(1), 1, "5");
        assertThat(unfinishedOf(only).isMissingNode()).isTrue();
        assertThat(ratio(only, "")).isCloseTo(0.6, within(0.01));
    }

    @Test
    void aSessionWithARunOfEachTestCountsHoweverItEnded() {
        session(other, List.of(firstTest), "60");
        aDayPasses();
        assertThat(ratio(other, "")).isBetween(0.8, 1.15);
        assertThat(unfinishedOf(other).isMissingNode()).isTrue();
    }

    /** Nobody stays signed in for so long. */
    private void aDayPasses() {
        clock.letPass(Duration.ofHours(25));
        counted.lookForLeftOff();
        owner = Client.owner(port);
    }

    private void count(long session, boolean counts) {
        assertThat(owner.put("/api/sessions/" + session + "/counted", Map.of("counts", counts))
                        .status())
                .isEqualTo(200);
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
            last[0] = owner.get(job).body();
            return last[0].has("outcome") || last[0].has("problem");
        });
        assertThat(last[0].has("outcome")).as(last[0].toString()).isTrue();
        return last[0].path("outcome");
    }
}
