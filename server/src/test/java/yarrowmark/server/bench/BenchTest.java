package yarrowmark.server.bench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static yarrowmark.server.support.Bench.fact;
import static yarrowmark.server.support.Bench.notOk;
import static yarrowmark.server.support.Bench.ok;
import static yarrowmark.server.support.Bench.testId;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.CompletableFuture;
import java.util.stream.IntStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.jdbc.core.JdbcTemplate;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.support.Bench;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.MovableClock;
import yarrowmark.server.support.ServerTest;

@ServerTest
class BenchTest {
    @LocalServerPort
    private int port;

    @Autowired
    private MovableClock clock;

    @Autowired
    private JdbcTemplate sql;

    private Bench bench;

    @BeforeEach
    void signIn() {
        clock.letPass(Duration.ofMinutes(2));
        bench = new Bench(port);
    }

    private Client.Answer join(String code) {
        return new Client(port).post("/api/device/join", Map.of("code", code));
    }

    private JsonNode lane(Client device) {
        long seat = device.get("/api/device/seat").body().path("seatId").asLong();
        for (JsonNode lane : bench.owner().get("/api/bench").body().path("lanes")) {
            if (lane.path("seatId").asLong() == seat) {
                return lane;
            }
        }
        throw new AssertionError("seat " + seat + " is not on the bench");
    }

    @Test
    void aRunThatContradictsItselfCountsOnlyWhenTheReviewerSaysSo() {
        Client device = bench.started("Liar " + UUID.randomUUID(), 4, List.of());
        long test = Bench.testId(device, "weir-hash-one");
        Map<String, Object> huge = Bench.ok(test, 1, 3000);
        huge.put(
                "readings",
                List.of(Map.of(
                        "metric", "rate", "value", 9e9, "resolution", 0.01, "samples", List.of(2990, 3000, 3010))));
        assertThat(bench.deliver(device, huge).status()).isEqualTo(200);
        Map<String, Object> timed = Bench.ok(test, 2, 3000);
        timed.put("durationMs", 1);
        timed.put("timedMs", 3000);
        assertThat(bench.deliver(device, timed).status()).isEqualTo(200);
        device.post("/api/device/progress", Map.of("phase", "RUNNING", "testId", test, "run", 3));
        clock.letPass(Duration.ofSeconds(31));
        assertThat(bench.deliver(device, Bench.ok(test, 3, 3000)).status()).isEqualTo(200);
        device.post("/api/device/progress", Map.of("phase", "RUNNING", "testId", test, "run", 4));
        clock.letPass(Duration.ofSeconds(4));
        assertThat(bench.deliver(device, Bench.ok(test, 4, 3000)).status()).isEqualTo(200);

        JsonNode lines = bench.ledger(
                        "session=" + lane(device).path("sessionId").asLong())
                .path("rows");
        assertThat(lines).hasSize(4);
        List<String> reasons = new ArrayList<>();
        for (JsonNode line : lines) {
            JsonNode page = bench.owner()
                    .get("/api/readings/" + line.path("readingId").asLong())
                    .body();
            reasons.add(page.path("asides").path(0).path("reason").asString(""));
        }
        assertThat(reasons)
                .anyMatch(r -> r.startsWith("Inconsistent: Its score"))
                .anyMatch(r -> r.contains("3000 ms are said to be timed in a run of 1 ms"))
                .anyMatch(r -> r.contains("by the server's 31"))
                .containsOnlyOnce("");
        long doubted =
                lines.get(reasons.indexOf("") == 0 ? 1 : 0).path("readingId").asLong();
        assertThat(bench.owner()
                        .delete("/api/readings/" + doubted + "/set-aside")
                        .status())
                .isEqualTo(200);
    }

    @Test
    void aCodeIsReadableAndForgivesHowItIsTyped() {
        String code = bench.invite(3).body().path("code").asString();
        assertThat(code).matches("[A-Z]+-[2-9]{2}-[A-Z]+");
        assertThat(join(code.toLowerCase().replace('-', ' ')).status()).isEqualTo(200);
    }

    @Test
    void aWrongAUsedAndAnExpiredCodeAreToldApart() {
        Client.Answer wrong = join("TEAL-99-NOWHERE");
        assertThat(wrong.status()).isEqualTo(404);
        assertThat(wrong.code()).isEqualTo("code-unknown");

        String used = bench.invite(3).body().path("code").asString();
        assertThat(join(used).status()).isEqualTo(200);
        assertThat(join(used).code()).isEqualTo("code-used");

        String late = bench.invite(3).body().path("code").asString();
        clock.letPass(Duration.ofMinutes(10));
        Client.Answer expired = join(late);
        assertThat(expired.status()).isEqualTo(410);
        assertThat(expired.detail()).contains("10 minutes");
    }

    @Test
    void elevenWrongCodesInAMinuteMustWait() {
        for (int i = 0; i < 10; i++) {
            assertThat(join("NO-22-CODE").status()).isEqualTo(404);
        }
        String right = bench.invite(3).body().path("code").asString();
        Client.Answer told = join(right);
        assertThat(told.status()).isEqualTo(429);
        assertThat(told.detail()).contains("Wait");
        clock.letPass(Duration.ofSeconds(61));
        assertThat(join(right).status()).isEqualTo(200);
    }

    @Test
    void ofManyDevicesWithOneCodeExactlyOneGetsIn() {
        String code = bench.invite(3).body().path("code").asString();
        List<CompletableFuture<Integer>> tries = IntStream.range(0, 6)
                .mapToObj(i -> CompletableFuture.supplyAsync(() -> join(code).status()))
                .toList();
        assertThat(tries.stream().map(CompletableFuture::join).filter(s -> s == 200))
                .hasSize(1);
    }

    private static String secret(char of) {
        return String.valueOf(of).repeat(43);
    }

    private Client.Answer join(String code, String secret) {
        return new Client(port).post("/api/device/join", Map.of("code", code, "device", "a phone", "secret", secret));
    }

    @Test
    void aDeviceWhoseAnswerWasLostGetsTheSameSeatAgainWithItsSecretAndNobodyElseDoes() {
        String code = bench.invite(3).body().path("code").asString();
        Client.Answer first = join(code, secret('a'));
        assertThat(first.status()).isEqualTo(200);
        // Long after the code would have expired, and as it was typed otherwise.
        clock.letPass(Duration.ofHours(2));
        Client.Answer again = join(code.toLowerCase().replace('-', ' '), secret('a'));
        assertThat(again.body()).isEqualTo(first.body());
        assertThat(join(code, secret('b')).code()).isEqualTo("code-used");
        Client.Answer older = join(code);
        assertThat(older.code()).isEqualTo("code-used");
        assertThat(older.detail()).contains("older than the server");

        Client device = new Client(port)
                .header("Authorization", "Bearer " + first.body().path("token").asString());
        long seat = device.get("/api/device/seat").body().path("seatId").asLong();
        assertThat(bench.owner()
                        .post("/api/bench/seats/" + seat + "/end", Map.of())
                        .status())
                .isEqualTo(200);
        Client.Answer over = join(code, secret('a'));
        assertThat(over.code()).isEqualTo("seat-over");
        assertThat(over.detail()).contains("new code");
    }

    @Test
    void ofManyDevicesWithSecretsEveryTryOfOneGetsItsSeat() {
        String code = bench.invite(3).body().path("code").asString();
        List<CompletableFuture<Client.Answer>> tries = IntStream.range(0, 8)
                .mapToObj(i -> CompletableFuture.supplyAsync(() -> join(code, secret(i % 2 == 0 ? 'a' : 'b'))))
                .toList();
        List<Client.Answer> in = tries.stream()
                .map(CompletableFuture::join)
                .filter(a -> a.status() == 200)
                .toList();
        assertThat(in).hasSize(4);
        assertThat(in).extracting(Client.Answer::body).containsOnly(in.get(0).body());
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "short",
                "aaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaa",
                "aaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaa\n+"
            })
    void aSecretThatIsNoneIsRefusedAndTheCodeStaysGood(String secret) {
        String code = bench.invite(3).body().path("code").asString();
        Client.Answer refused = join(code, secret);
        assertThat(refused.status()).isEqualTo(400);
        assertThat(refused.detail()).contains("43 characters");
        assertThat(join(code, secret('a')).status()).isEqualTo(200);
    }

    @Test
    void aRepeatedDeliveryCountsOnce() {
        Client device = bench.started("Repeat", 3, List.of(fact("memory.size", "8589934592")));
        long test = testId(device, "weir-hash-one");
        String key = UUID.randomUUID().toString();
        Client.Answer first = bench.deliver(device, key, ok(test, 1, 388.1));
        List<CompletableFuture<Client.Answer>> again = IntStream.range(0, 4)
                .mapToObj(i -> CompletableFuture.supplyAsync(() -> bench.deliver(device, key, ok(test, 1, 388.1))))
                .toList();
        assertThat(first.status()).isEqualTo(200);
        assertThat(again.stream().map(CompletableFuture::join))
                .allMatch(a -> a.body().equals(first.body()));
        assertThat(bench.ledger("test=" + test + "&session="
                                + lane(device).path("sessionId").asLong())
                        .path("total")
                        .asInt())
                .isEqualTo(1);

        assertThat(bench.deliver(device, key, ok(test, 1, 999)).code()).isEqualTo("key-reused");
    }

    @ParameterizedTest
    @ValueSource(strings = {"0", "-388.1", "1e999", "\"NaN\"", "\"Infinity\"", "\"fast\"", "null", "[]"})
    void whatIsNoReadingIsRefusedAndNothingIsStored(String value) {
        Client device = bench.started("Bad " + Math.abs(value.hashCode()), 3, List.of());
        long test = testId(device, "weir-hash-one");
        String body = Client.JSON.writeValueAsString(ok(test, 1, "@")).replace("\"@\"", value);
        Client.Answer answer = bench.deliver(device, Client.JSON.readTree(body));
        assertThat(answer.status()).as(answer.detail()).isIn(400, 422);
        assertThat(answer.detail()).isNotBlank();
        assertThat(bench.ledger("session=" + lane(device).path("sessionId").asLong())
                        .path("total")
                        .asInt())
                .isZero();
    }

    @Test
    void anUnknownTestAnUnplannedRunAndAMissingReasonAreNamed() {
        Client device = bench.started("Unknown", 2, List.of());
        long test = testId(device, "weir-hash-one");
        assertThat(bench.deliver(device, ok(987_654, 1, 5)).code()).isEqualTo("unknown-test");
        assertThat(bench.deliver(device, ok(test, 3, 5)).detail()).contains("2 runs");
        Map<String, Object> silent = notOk(test, 1, "FAILED", "ERROR");
        silent.remove("reason");
        assertThat(bench.deliver(device, silent).code()).isEqualTo("reason-missing");
        Map<String, Object> other = ok(test, 1, 5);
        other.put("readings", List.of(Map.of("metric", "speed", "value", 5, "resolution", 0, "samples", List.of())));
        assertThat(bench.deliver(device, other).detail()).contains("rate");
    }

    @Test
    void aDeviceWithoutATokenIsNotAtTheBench() {
        assertThat(new Client(port).get("/api/device/seat").code()).isEqualTo("no-seat");
        assertThat(new Client(port)
                        .header("Authorization", "Bearer made-up")
                        .get("/api/device/seat")
                        .status())
                .isEqualTo(401);
    }

    @Test
    void namesThatAreTooLongAreRefusedAndMarkupIsOnlyText() {
        Client device = bench.joined(1);
        Client.Answer longName = Bench.start(device, "LAPTOP", "x".repeat(5_000), List.of());
        assertThat(longName.status()).isEqualTo(400);
        assertThat(longName.detail()).contains("newModel.name");
        String markup = "<img src=x onerror=alert(1)>";
        assertThat(Bench.start(device, "LAPTOP", markup, List.of()).status()).isEqualTo(200);
        assertThat(lane(device).path("configuration").path("model").asString()).isEqualTo(markup);
    }

    @Test
    void startingTwiceGivesOneSession() {
        Client device = bench.started("Twice", 1, List.of());
        long session = lane(device).path("sessionId").asLong();
        Client.Answer again = Bench.start(device, "LAPTOP", "Another name", List.of());
        assertThat(again.body().path("sessionId").asLong()).isEqualTo(session);
    }

    @Test
    void theLaneShowsRunsFailuresAndTheLastAttempt() {
        Client device = bench.started("Lane", 2, List.of());
        long hash = testId(device, "weir-hash-one");
        long sketch = testId(device, "transect-sketch");
        bench.deliver(device, notOk(hash, 1, "STOPPED", "HIDDEN"));
        Map<String, Object> second = ok(hash, 1, 388);
        second.put("attempt", 2);
        bench.deliver(device, second);
        bench.deliver(device, notOk(sketch, 1, "COULD_NOT_RUN", "NOT_SUPPORTED"));
        JsonNode tests = lane(device).path("tests");
        assertThat(tests.get(0).path("runs").get(0).path("state").asString()).isEqualTo("OK");
        assertThat(tests.get(0).path("runs").get(0).path("attempts").asInt()).isEqualTo(2);
        assertThat(tests.get(0).path("runs").get(1).has("state")).isFalse();
        assertThat(tests.get(4).path("runs").get(1).path("state").asString()).isEqualTo("COULD_NOT_RUN");
    }

    @Test
    void whenTheRoundIsOverItsScoresAreSaidAtTheBenchAndOnTheDevice() {
        // Two tests that differ little from run to run: enough for a place, whomever other tests put beside these two.
        Client other = bench.started("MINI", "Results before", 2, List.of());
        long hash = testId(other, "weir-hash-one");
        long list = testId(other, "species-list");
        for (int run = 1; run <= 2; run++) {
            bench.deliver(other, ok(hash, run, 300 + run));
            bench.deliver(other, ok(list, run, 90 + run));
        }
        Client device = bench.started("MINI", "Results", 2, List.of());
        Client.Answer nothing = device.get("/api/device/results");
        assertThat(nothing.status()).isEqualTo(200);
        assertThat(nothing.body().path("scores")).isEmpty();
        bench.deliver(device, ok(hash, 1, 399));
        bench.deliver(device, ok(hash, 2, 401));
        bench.deliver(device, ok(list, 1, 120));
        bench.deliver(device, ok(list, 2, 121));
        JsonNode own = device.get("/api/device/results").body();
        assertThat(own.path("scores").get(0).path("test").asString()).isEqualTo("Weir hash, one thread");
        assertThat(own.path("scores").get(0).path("value").asDouble())
                .as("the geometric mean")
                .isCloseTo(Math.sqrt(399 * 401), within(1e-6));
        assertThat(own.path("scores").get(0).path("runs").asInt()).isEqualTo(2);
        assertThat(own.path("place").path("best").asInt()).isPositive();
        assertThat(own.path("place").path("deviceClass").asString()).isEqualTo("MINI");
        assertThat(bench.owner()
                        .get("/api/bench/seats/" + lane(device).path("seatId").asLong() + "/results")
                        .body())
                .isEqualTo(own);
        assertThat(bench.joined(1).get("/api/device/results").code()).isEqualTo("not-started");
        assertThat(new Client(port).get("/api/device/results").status()).isEqualTo(401);
    }

    @Test
    void aDeviceOutsideOfItsUsualRangeIsSaid() {
        // The same laptop on six days; on the last one it is a tenth slower.
        JsonNode last = null;
        Client first = bench.started("Reference", 3, List.of());
        JsonNode model =
                bench.owner().get("/api/models?q=reference").body().path("rows").get(0);
        long unit = bench.owner()
                .get("/api/models/" + model.path("id").asLong())
                .body()
                .path("units")
                .get(0)
                .path("id")
                .asLong();
        for (int day = 0; day < 6; day++) {
            Client device = day == 0 ? first : bench.joined(3);
            if (day > 0) {
                device.post(
                        "/api/device/start",
                        Map.of("modelId", model.path("id").asLong(), "unitId", unit, "facts", List.of()));
            }
            long hash = testId(device, "weir-hash-one");
            for (int run = 1; run <= 3; run++) {
                bench.deliver(device, ok(hash, run, (day == 5 ? 360 : 400) + 0.4 * day + 0.3 * run));
            }
            device.post("/api/device/end", Map.of("how", "DONE"));
            last = device.get("/api/device/results").body().path("scores").get(0);
            assertThat(last.has("usual")).as("known from the third day on").isEqualTo(day >= 2);
        }
        assertThat(last.path("usual").path("outside").asBoolean()).isTrue();
        assertThat(last.path("usual").path("low").asDouble()).isBetween(390.0, 400.0);
    }

    @Test
    void aCommandReachesADeviceThatWaitsForIt() {
        Client device = bench.started("Waits", 1, List.of());
        long seat = lane(device).path("seatId").asLong();
        CompletableFuture<Client.Answer> waiting =
                CompletableFuture.supplyAsync(() -> device.get("/api/device/command?after=0"));
        bench.owner().post("/api/bench/seats/" + seat + "/command", Map.of("command", "PAUSE"));
        Client.Answer told =
                waiting.orTimeout(5, java.util.concurrent.TimeUnit.MINUTES).join();
        assertThat(told.body().path("command").asString()).isEqualTo("PAUSE");
        assertThat(told.body().path("revision").asInt()).isEqualTo(1);
    }

    /** Nine finished runs were refused and gone when a silent device was ended from the bench. */
    @Test
    void whatWasFinishedBeforeASilentDeviceWasEndedIsKeptUntilTheReviewerDecides() {
        Client device = bench.started("Over", 3, List.of());
        long test = testId(device, "weir-hash-one");
        bench.deliver(device, ok(test, 1, 388));
        JsonNode lane = lane(device);
        long seat = lane.path("seatId").asLong();
        bench.owner().post("/api/bench/seats/" + seat + "/end", Map.of());
        String key = java.util.UUID.randomUUID().toString();
        for (int time = 0; time < 2; time++) {
            Client.Answer late = bench.deliver(device, key, ok(test, 2, 390));
            assertThat(late.status()).as("delivered twice, kept once").isEqualTo(200);
            assertThat(late.body().path("late").asBoolean()).isTrue();
            assertThat(late.body().path("key").asString()).isEqualTo(key);
            assertThat(late.body().has("runId")).isFalse();
        }
        bench.deliver(device, ok(test, 3, 392));
        assertThat(readingsOf(lane)).as("nothing is taken in unasked").isEqualTo(1);
        assertThat(lane(device).path("late").asInt()).isEqualTo(2);
        assertThat(bench.owner().delete("/api/bench/seats/" + seat).code())
                .as("nor cleared away")
                .isEqualTo("late-runs");

        JsonNode taken = bench.owner()
                .post("/api/bench/seats/" + seat + "/late", Map.of())
                .body();
        assertThat(taken.path("late").asInt()).isZero();
        assertThat(readingsOf(lane)).isEqualTo(3);
        assertThat(bench.deliver(device, key, ok(test, 2, 390))
                        .body()
                        .path("runId")
                        .asLong())
                .as("the same delivery once more finds what was taken in")
                .isPositive();
        assertThat(readingsOf(lane)).isEqualTo(3);
    }

    @Test
    void aClearedLaneComesBackForWhatItsDeviceHadFinishedAndSaysSoAtTheSessionToo() {
        Client device = bench.started("Cleared", 3, List.of());
        long test = testId(device, "weir-hash-one");
        JsonNode lane = lane(device);
        String seat = "/api/bench/seats/" + lane.path("seatId").asLong();
        String session = "/api/bench/late?session=" + lane.path("sessionId").asLong();
        bench.owner().post(seat + "/end", Map.of());
        assertThat(bench.owner().delete(seat).status()).isEqualTo(200);
        assertThat(onBench(lane.path("seatId").asLong())).isFalse();
        assertThat(bench.owner().get(session).body()).isEmpty();

        bench.deliver(device, ok(test, 1, 388));
        assertThat(lane(device).path("phase").asString()).isEqualTo("STOPPED");
        assertThat(lane(device).path("late").asInt()).isEqualTo(1);
        JsonNode waiting = bench.owner().get(session).body().path(0);
        assertThat(waiting.path("seatId")).isEqualTo(lane.path("seatId"));
        assertThat(waiting.path("late").asInt()).isEqualTo(1);
        bench.owner().post(seat + "/late", Map.of());
        assertThat(bench.owner().get(session).body()).isEmpty();
        assertThat(readingsOf(lane)).isEqualTo(1);
    }

    @Test
    void aRunThatWasStoppedIsNoFinishedOneThatSomebodyMustDecideAbout() {
        Client device = bench.started("Cut off", 3, List.of());
        long test = testId(device, "weir-hash-one");
        JsonNode lane = lane(device);
        bench.owner().post("/api/bench/seats/" + lane.path("seatId").asLong() + "/end", Map.of());
        assertThat(bench.deliver(device, notOk(test, 1, "STOPPED", "HIDDEN"))
                        .body()
                        .path("late")
                        .asBoolean())
                .isFalse();
        assertThat(lane(device).path("late").asInt()).isZero();
    }

    @Test
    void aDeviceThatIsHeardIsOnTheBenchHoweverLongAgoItsRoundBegan() {
        Client device = bench.started("Long round", 3, List.of());
        long seat = lane(device).path("seatId").asLong();
        sql.update("update seat set created_at = ? where id = ?", "2026-01-01", seat);
        assertThat(onBench(seat)).isTrue();
        sql.update("update seat set last_heard_at = ? where id = ?", "2026-01-01", seat);
        assertThat(onBench(seat)).as("silent for months").isFalse();
        device.post("/api/device/progress", Map.of("phase", "RUNNING"));
        assertThat(onBench(seat)).as("heard again").isTrue();
    }

    private boolean onBench(long seat) {
        return bench.owner()
                .get("/api/bench")
                .body()
                .path("lanes")
                .valueStream()
                .anyMatch(l -> l.path("seatId").asLong() == seat);
    }

    @Test
    void lateRunsThatNobodyWantsAreLeftOut() {
        Client device = bench.started("Unwanted", 2, List.of());
        long test = testId(device, "weir-hash-one");
        JsonNode lane = lane(device);
        String seat = "/api/bench/seats/" + lane.path("seatId").asLong();
        bench.owner().post(seat + "/end", Map.of());
        bench.deliver(device, ok(test, 1, 388));
        assertThat(bench.owner().delete(seat + "/late").body().path("late").asInt())
                .isZero();
        assertThat(readingsOf(lane)).isZero();
        assertThat(bench.owner().delete(seat).status()).isEqualTo(200);
    }

    @Test
    void everyAnswerToADeviceSaysWhichShelfItComesFrom() {
        Client device = bench.joined(1);
        Client stranger = new Client(port);
        String shelf = device.get("/api/device/seat")
                .raw()
                .headers()
                .firstValue("Yarrowmark-Shelf")
                .orElseThrow();
        assertThat(shelf).hasSize(36);
        assertThat(stranger.get("/api/device/seat").raw().headers().firstValue("Yarrowmark-Shelf"))
                .as("a refusal too")
                .contains(shelf);
        assertThat(stranger.get("/api/access").raw().headers().firstValue("Yarrowmark-Shelf"))
                .isEmpty();
    }

    private int readingsOf(JsonNode lane) {
        return bench.ledger("session=" + lane.path("sessionId").asLong())
                .path("total")
                .asInt();
    }

    /** A poison value gets a worded refusal that will not change, and holds up no other run. */
    @Test
    void whatNoInstrumentShowsIsRefusedInWordsAndAnImpossibleFactIsNotKnown() {
        Client device =
                bench.started("Poison", 3, List.of(fact("memory.size", "9".repeat(400)), fact("os.name", "Fenland")));
        long test = testId(device, "weir-hash-one");
        assertThat(lane(device).path("configuration").path("id").asLong()).isPositive();
        for (double poison : new double[] {1e-320, 1e308}) {
            Client.Answer refused = bench.deliver(device, ok(test, 1, poison));
            assertThat(refused.status()).isEqualTo(422);
            assertThat(refused.detail()).contains("lies between");
        }
        Map<String, Object> steps = new java.util.HashMap<>(ok(test, 1, 388));
        steps.put(
                "readings", List.of(Map.of("metric", "rate", "value", 388, "resolution", 1e308, "samples", List.of())));
        assertThat(bench.deliver(device, steps).detail()).contains("resolution");
        assertThat(bench.deliver(device, ok(test, 1, 388)).status()).isEqualTo(200);
        assertThat(bench.owner()
                        .get("/api/models?q=poison")
                        .body()
                        .path("total")
                        .asInt())
                .as("and it is found")
                .isEqualTo(1);
    }

    @Test
    void equalFactsAreOneConfigurationAndAChangedOneIsItsChild() {
        List<Map<String, Object>> old = List.of(fact("firmware.version", "1.04"), fact("memory.size", "17179869184"));
        Client first = bench.started("Same", 1, old);
        long model = lane(first).path("configuration").path("modelId").asLong();
        long configuration = lane(first).path("configuration").path("id").asLong();

        Client second = bench.joined(1);
        second.post("/api/device/start", Map.of("modelId", model, "facts", List.of(old.get(1), old.get(0))));
        assertThat(lane(second).path("configuration").path("id").asLong()).isEqualTo(configuration);

        Client third = bench.joined(1);
        third.post(
                "/api/device/start",
                Map.of("modelId", model, "facts", List.of(fact("firmware.version", "1.11"), old.get(1))));
        JsonNode child = lane(third).path("configuration");
        assertThat(child.path("name").asString()).isEqualTo("firmware 1.11");
        JsonNode page = bench.owner()
                .get("/api/configurations/" + child.path("id").asLong())
                .body();
        assertThat(page.path("parentId").asLong()).isEqualTo(configuration);
        assertThat(page.path("changed").get(0).path("before").asString()).isEqualTo("1.04");
    }

    @Test
    void aDeviceIsOneUnitOfItsModel() {
        Client first = bench.started("Units", 1, List.of());
        long model = lane(first).path("configuration").path("modelId").asLong();
        JsonNode units = bench.owner()
                .post("/api/models/" + model + "/units", Map.of("label", "On loan"))
                .body()
                .path("units");
        Client second = bench.joined(1);
        second.post(
                "/api/device/start",
                Map.of("modelId", model, "unitId", units.get(1).path("id").asLong(), "facts", List.of()));
        assertThat(lane(second).path("configuration").path("unit").asString()).isEqualTo("On loan");

        Client stranger = bench.started("Units of another", 1, List.of());
        long other = lane(stranger).path("configuration").path("modelId").asLong();
        Client third = bench.joined(1);
        Client.Answer refused = third.post(
                "/api/device/start",
                Map.of("modelId", other, "unitId", units.get(1).path("id").asLong(), "facts", List.of()));
        assertThat(refused.code()).isEqualTo("unit-of-another-model");
        assertThat(third.post("/api/device/start", Map.of("facts", List.of())).code())
                .isEqualTo("which-model");
    }

    @Test
    void whoWatchesTheBenchMissesNothingAfterALostConnection() throws Exception {
        String cursor = bench.owner().get("/api/bench").body().path("cursor").asString();
        Client device = bench.started("Events", 1, List.of());
        bench.deliver(device, ok(testId(device, "weir-hash-one"), 1, 388));
        assertThat(events(cursor, "\"state\":\"OK\"")).contains("event:lane").contains("Events");
        assertThat(events("gone-5", "event:")).contains("event:reset");
    }

    /** Reads an event stream until these words have come. */
    private String events(String after, String words) throws Exception {
        StringBuilder text = new StringBuilder();
        try (var lines = new java.io.BufferedReader(
                new java.io.InputStreamReader(bench.owner().open("/api/bench/events?after=" + after)))) {
            while (text.indexOf(words) < 0) {
                text.append(lines.readLine()).append('\n');
            }
        }
        return text.toString();
    }
}
