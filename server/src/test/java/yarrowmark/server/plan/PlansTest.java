package yarrowmark.server.plan;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.stream.IntStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.boot.test.web.server.LocalServerPort;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.Lab;
import yarrowmark.server.support.ServerTest;

@ServerTest
class PlansTest {
    @LocalServerPort
    private int port;

    private Lab lab;

    @BeforeEach
    void lab() {
        lab = new Lab(port).suite("Export, s, less\nNoise, dB(A), less, Body");
    }

    private static Map<String, Object> item(long testId, Map<String, Object> more) {
        Map<String, Object> item = new HashMap<>(Map.of("testId", testId, "nice", false));
        item.putAll(more);
        return item;
    }

    private Map<String, Object> plan(String name, List<Map<String, Object>> items) {
        return Map.of(
                "name",
                name + " " + lab.number(),
                "runs",
                3,
                "timedMs",
                100,
                "pauseMs",
                2_000,
                "stopOnFailure",
                true,
                "items",
                items);
    }

    private long builtIn(String key) {
        return lab.owner()
                .get("/api/tests")
                .body()
                .valueStream()
                .filter(t -> t.path("key").asString().equals(key))
                .findFirst()
                .orElseThrow()
                .path("id")
                .asLong();
    }

    private JsonNode made(Map<String, Object> plan) {
        Client.Answer answer = lab.owner().post("/api/plans", plan);
        assertThat(answer.status()).as(answer.detail()).isEqualTo(200);
        return answer.body();
    }

    private List<String> names() {
        return lab.owner()
                .get("/api/plans")
                .body()
                .valueStream()
                .map(p -> p.path("name").asString())
                .toList();
    }

    @Test
    void ofManyPlansOfOneNameMadeAtOnceOneIsMade() {
        Map<String, Object> plan =
                plan("Crowded " + System.nanoTime(), List.of(item(lab.tests().get(0), Map.of())));
        List<CompletableFuture<Client.Answer>> tries = IntStream.range(0, 24)
                .mapToObj(i -> CompletableFuture.supplyAsync(() -> lab.owner().post("/api/plans", plan)))
                .toList();
        List<Client.Answer> answers =
                tries.stream().map(CompletableFuture::join).toList();
        assertThat(answers).filteredOn(a -> a.status() == 200).hasSize(1);
        assertThat(answers).filteredOn(a -> a.status() != 200).hasSize(23).allMatch(a -> a.code()
                .equals("plan-exists"));
        assertThat(names()).filteredOn(plan.get("name")::equals).hasSize(1);
    }

    @Test
    void aPlanIsMadeChangedAndRetired() {
        JsonNode plan = made(plan(
                "Field day",
                List.of(
                        item(builtIn("weir-hash-one"), Map.of("runs", 5)),
                        item(lab.tests().get(0), Map.of("todo", "Export the plot book", "pauseUntil", 38.5)))));
        assertThat(plan.path("items").get(1).path("pauseUntil").asDouble()).isEqualTo(38.5);
        assertThat(lab.owner()
                        .post(
                                "/api/plans",
                                plan("Field day", List.of(item(lab.tests().get(0), Map.of()))))
                        .code())
                .isEqualTo("plan-exists");
        JsonNode changed = lab.owner()
                .put(
                        "/api/plans/" + plan.path("id").asLong(),
                        plan("Field week", List.of(item(lab.tests().get(1), Map.of()))))
                .body();
        assertThat(changed.path("id").asLong())
                .as("what runs goes on with the plan it began with")
                .isNotEqualTo(plan.path("id").asLong());
        assertThat(names()).contains("Field week " + lab.number()).doesNotContain("Field day " + lab.number());
        assertThat(lab.owner()
                        .delete("/api/plans/" + changed.path("id").asLong())
                        .status())
                .isEqualTo(200);
        assertThat(names()).doesNotContain("Field week " + lab.number());
        long first = lab.owner()
                .get("/api/plans")
                .body()
                .valueStream()
                .filter(p -> p.path("builtIn").asBoolean())
                .findFirst()
                .orElseThrow()
                .path("id")
                .asLong();
        assertThat(lab.owner().delete("/api/plans/" + first).code()).isEqualTo("built-in-plan");
    }

    @Test
    void aPlanThatMakesNoSenseIsRefusedAndAChangeThatFailsLosesNothing() {
        assertThat(lab.owner()
                        .post(
                                "/api/plans",
                                plan(
                                        "X",
                                        List.of(
                                                item(lab.tests().get(0), Map.of()),
                                                item(lab.tests().get(0), Map.of()))))
                        .code())
                .isEqualTo("twice");
        assertThat(lab.owner()
                        .post("/api/plans", plan("X", List.of(item(999_999_999L, Map.of()))))
                        .code())
                .isEqualTo("unknown-test");
        assertThat(lab.owner()
                        .post("/api/plans", plan("X", List.of(item(lab.tests().get(0), Map.of("nice", true)))))
                        .code())
                .isEqualTo("nothing-must");
        assertThat(lab.owner()
                        .post("/api/plans", plan("X", List.of(item(lab.tests().get(0), Map.of("runs", 0)))))
                        .status())
                .isEqualTo(400);
        assertThat(lab.owner().post("/api/plans", plan("X", List.of())).status())
                .isEqualTo(400);
        JsonNode kept = made(plan("Kept", List.of(item(lab.tests().get(0), Map.of()))));
        assertThat(lab.owner()
                        .put(
                                "/api/plans/" + kept.path("id").asLong(),
                                plan("Kept", List.of(item(999_999_999L, Map.of()))))
                        .code())
                .isEqualTo("unknown-test");
        assertThat(names()).contains("Kept " + lab.number());
    }

    @Test
    void theTimeComesFromTheLedgerWhereItKnowsAny() {
        JsonNode plan = made(plan(
                "Timed",
                List.of(
                        item(lab.tests().get(0), Map.of()),
                        item(lab.tests().get(1), Map.of("runs", 1, "nice", true, "pauseMs", 10_000)))));
        String path = "/api/plans/" + plan.path("id").asLong() + "/time";
        JsonNode guess = lab.owner().get(path).body();
        assertThat(guess.path("guessed").asInt()).isEqualTo(2);
        lab.session(3).typed(0, "40", "50", "60");
        JsonNode known = lab.owner().get(path + "?deviceClass=BOARD").body();
        assertThat(known.path("tests").get(0).path("runMs").asDouble()).isEqualTo(50_000);
        assertThat(known.path("tests").get(0).path("known").asInt()).isEqualTo(3);
        assertThat(known.path("mustMs").asLong())
                .as("three runs and the two pauses between")
                .isEqualTo(3 * 50_000 + 2 * 2_000);
        assertThat(known.path("wholeMs").asLong())
                .as("and a guess of two minutes with its pause")
                .isEqualTo(3 * 50_000 + 2 * 2_000 + 10_000 + 120_000);
        assertThat(lab.owner()
                        .get(path + "?deviceClass=PHONE")
                        .body()
                        .path("guessed")
                        .asInt())
                .as("nothing is known of phones")
                .isEqualTo(2);
    }

    @Test
    void aDeviceWaitsForWhatIsCarriedOutByHand() {
        JsonNode plan = made(plan(
                "Mixed",
                List.of(
                        item(builtIn("weir-hash-one"), Map.of("runs", 1, "allowedMs", 30_000)),
                        item(lab.tests().get(0), Map.of("runs", 2, "todo", "Export the plot book")),
                        item(lab.tests().get(1), Map.of("nice", true)))));
        JsonNode lane = lab.owner()
                .post(
                        "/api/bench/seats",
                        Map.of(
                                "planId",
                                plan.path("id").asLong(),
                                "runs",
                                3,
                                "timedMs",
                                100,
                                "pauseMs",
                                0,
                                "mustOnly",
                                true))
                .body();
        Client device = new Client(port);
        String token = device.post(
                        "/api/device/join", Map.of("code", lane.path("code").asString()))
                .body()
                .path("token")
                .asString();
        device.header("Authorization", "Bearer " + token);
        JsonNode seat = device.post("/api/device/start", Map.of("modelId", lab.model(), "facts", List.of()))
                .body();
        assertThat(seat.path("stopOnFailure").asBoolean()).isTrue();
        assertThat(seat.path("tests")
                        .valueStream()
                        .map(t -> t.path("byHand").asBoolean() + " "
                                + t.path("runs").asInt()))
                .as("without what is nice to have")
                .containsExactly("false 1", "true 2");
        assertThat(seat.path("tests").get(0).path("allowedMs").asInt()).isEqualTo(30_000);
        long session = seat.path("sessionId").asLong();
        JsonNode sheet = lab.owner().get("/api/sessions/" + session + "/sheet").body();
        assertThat(sheet.path("tests")).hasSize(1);
        assertThat(sheet.path("tests").get(0).path("summary").asString()).isEqualTo("Export the plot book");
        assertThat(sheet.path("tests").get(0).path("runs")).hasSize(2);

        device.post(
                "/api/device/progress",
                Map.of("phase", "BY_HAND", "testId", lab.tests().get(0), "run", 1));
        int before =
                device.get("/api/device/seat").body().path("commandRevision").asInt();
        type(session, 1, "41.2");
        assertThat(device.get("/api/device/seat").body().path("commandRevision").asInt())
                .as("one run is left")
                .isEqualTo(before);
        type(session, 2, "n/a the window froze");
        // As a device learns of it: a question that is answered when there is something to say.
        assertThat(device.get("/api/device/command?after=" + before)
                        .body()
                        .path("command")
                        .asString())
                .isEqualTo("GO");
        JsonNode after = device.get("/api/device/seat").body();
        assertThat(after.path("commandRevision").asInt()).as("told to go on").isEqualTo(before + 1);
        assertThat(after.path("command").asString()).isEqualTo("GO");
        assertThat(after.path("done").valueStream().map(d -> d.path("state").asString()))
                .containsExactly("OK", "FAILED");
    }

    private void type(long session, int run, String text) {
        Client.Answer stored = lab.owner()
                .post(
                        "/api/sessions/" + session + "/scores",
                        Map.of("testId", lab.tests().get(0), "run", run, "text", text, "byStopwatch", false));
        assertThat(stored.status()).as(stored.detail()).isEqualTo(200);
    }
}
