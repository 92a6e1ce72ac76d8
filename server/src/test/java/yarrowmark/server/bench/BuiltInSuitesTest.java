package yarrowmark.server.bench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.springframework.boot.test.web.server.LocalServerPort;
import tools.jackson.databind.JsonNode;
import yarrowmark.core.calibration.Calibration;
import yarrowmark.server.support.Bench;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.ServerTest;

/** What devices deliver of the built-in suites, and what comes of it. */
@ServerTest
class BuiltInSuitesTest {
    @LocalServerPort
    private int port;

    private static final Map<String, JsonNode> TESTS = new HashMap<>();
    private Bench bench;

    @BeforeAll
    static void tests(@LocalServerPort int port) {
        new Bench(port).owner().get("/api/tests").body().forEach(t -> {
            if (t.path("builtIn").asBoolean()) {
                TESTS.put(t.path("key").asString(), t);
            }
        });
    }

    private static long id(String key) {
        return TESTS.get(key).path("id").asLong();
    }

    /** A device with a plan of these tests, in this order. */
    private Client device(String model, Map<String, Object> more, List<String> keys) {
        bench = new Bench(port);
        Map<String, Object> plan = new LinkedHashMap<>(Map.of(
                "name",
                model + " " + UUID.randomUUID(),
                "runs",
                2,
                "timedMs",
                100,
                "pauseMs",
                0,
                "stopOnFailure",
                false,
                "items",
                keys.stream().map(k -> Map.of("testId", id(k), "nice", false)).toList()));
        plan.putAll(more);
        Client.Answer made = bench.owner().post("/api/plans", plan);
        assertThat(made.status()).as(made.detail()).isEqualTo(200);
        String code = bench.owner()
                .post(
                        "/api/bench/seats",
                        Map.of("planId", made.body().path("id").asLong(), "runs", 2, "timedMs", 100, "pauseMs", 0))
                .body()
                .path("code")
                .asString();
        String token = new Client(port)
                .post("/api/device/join", Map.of("code", code))
                .body()
                .path("token")
                .asString();
        Client device = new Client(port).header("Authorization", "Bearer " + token);
        assertThat(Bench.start(device, "TABLET", model + " " + UUID.randomUUID(), List.of())
                        .status())
                .isEqualTo(200);
        return device;
    }

    private Client.Answer deliver(Client device, String key, int run, Map<String, Object> more, Object... readings) {
        List<Map<String, Object>> all = new ArrayList<>();
        for (int i = 0; i < readings.length; i += 3) {
            all.add(Map.of(
                    "metric", readings[i], "value", readings[i + 1], "resolution", 0, "samples", readings[i + 2]));
        }
        Map<String, Object> body = new LinkedHashMap<>(Map.of(
                "testId",
                id(key),
                "runNumber",
                run,
                "attempt",
                1,
                "state",
                "OK",
                "durationMs",
                3_000,
                "readings",
                all));
        body.putAll(more);
        return device.header("Idempotency-Key", UUID.randomUUID().toString()).post("/api/device/runs", body);
    }

    /** Lines of the device's session in the ledger, of what counts. */
    private JsonNode rows(Client device) {
        return bench.owner()
                .get("/api/ledger?size=200&state=COUNTED&session="
                        + device.get("/api/device/seat")
                                .body()
                                .path("sessionId")
                                .asLong())
                .body()
                .path("rows");
    }

    /** Values of the device's session by the name of their metric, of what counts. */
    private Map<String, Double> values(Client device) {
        Map<String, Double> values = new HashMap<>();
        rows(device)
                .forEach(r ->
                        values.put(r.path("metric").asString(), r.path("value").asDouble()));
        return values;
    }

    @Test
    void everySuiteIsThereWithItsTests() {
        assertThat(TESTS.values().stream().map(t -> t.path("suite").asString()).distinct())
                .contains(
                        "Yarrow processor",
                        "Yarrow memory",
                        "Yarrow graphics",
                        "Yarrow storage",
                        "Yarrow browser",
                        "Yarrow video",
                        "Yarrow endurance");
        assertThat(TESTS.get("plot-matrix-simd-one").path("mode").asString()).isEqualTo("SIMD");
        assertThat(TESTS.keySet())
                .contains(
                        "weir-hash-one",
                        "memory-latency",
                        "graphics-reed-bed-1080",
                        "storage-random-write",
                        "desk-relay",
                        "video-play-av1",
                        "endurance-weir-hash-all");
    }

    @Test
    void theFirstRoundIsShortAndEverythingIsEverythingButLoops() {
        bench = new Bench(port);
        Map<String, JsonNode> plans = new HashMap<>();
        bench.owner()
                .get("/api/plans")
                .body()
                .forEach(p -> plans.put(p.path("name").asString(), p));
        assertThat(plans.get("First round").path("items")).hasSize(5);
        List<Long> everything = plans.get("Everything, short")
                .path("items")
                .valueStream()
                .map(i -> i.path("testId").asLong())
                .toList();
        assertThat(everything)
                .contains(id("memory-read"), id("graphics-dunes-720"))
                .doesNotContain(id("endurance-weir-hash-all"), id("network-walk"), id("battery-reading"), id("total"))
                .doesNotHaveDuplicates();
        assertThat(plans.get("Everything, long").path("runs").asInt())
                .isGreaterThan(plans.get("Everything, short").path("runs").asInt());
    }

    @Test
    void aCurveComesWithItsNumbersFromTheCore() {
        Client device = device("Curve", Map.of(), List.of("memory-read"));
        List<Double> points = List.of(16.0, 40.0, 32.0, 38.0, 64.0, 20.0, 128.0, 11.0);
        assertThat(deliver(device, "memory-read", 1, Map.of(), "peak", 99.0, points, "far", 11.0, List.of())
                        .status())
                .isEqualTo(200);
        Map<String, Double> values = values(device);
        // The peak is that of the points, whatever number the device put beside them.
        assertThat(values)
                .containsEntry("Weir read, peak", 40.0)
                .containsEntry("Weir read, from memory", 11.0)
                .containsEntry("Weir read, 90 % of the peak from", 16.0);
        assertThat(deliver(
                                device,
                                "memory-read",
                                2,
                                Map.of(),
                                "peak",
                                1.0,
                                List.of(16.0, -1.0, 32.0, 2.0),
                                "far",
                                1.0,
                                List.of())
                        .code())
                .isEqualTo("invalid-samples");
        assertThat(deliver(
                                device,
                                "memory-read",
                                2,
                                Map.of(),
                                "peak",
                                1.0,
                                List.of(16.0, 1.0, 16.0, 2.0),
                                "far",
                                1.0,
                                List.of())
                        .code())
                .isEqualTo("invalid-samples");
    }

    @Test
    void loopsSayWhatIsKeptUpAndFromWhenOn() {
        Client device = device("Loops", Map.of(), List.of("endurance-weir-hash-all"));
        double[] work = {1000, 1004, 998, 991, 975, 962, 950, 947, 944, 945, 941, 943};
        List<Double> points = new ArrayList<>();
        for (int i = 0; i < work.length; i++) {
            points.add(5.0 * (i + 1));
            points.add(work[i]);
        }
        Client.Answer stored = deliver(device, "endurance-weir-hash-all", 1, Map.of(), "peak", 1.0, points);
        assertThat(stored.status()).as(stored.detail()).isEqualTo(200);
        Map<String, Double> values = values(device);
        assertThat(values.get("Weir hash, in a loop, sustained")).isCloseTo(93.92430279, within(5e-9));
        assertThat(values.get("Weir hash, in a loop, slower from")).isEqualTo(35.0);
        JsonNode rows = rows(device);
        List<String> throttled = rows.valueStream()
                .filter(r -> r.path("marks").toString().contains("THROTTLED"))
                .map(r -> r.path("metric").asString())
                .toList();
        assertThat(throttled).containsExactly("Weir hash, in a loop, sustained");
    }

    private static List<Double> levels(double... minutesAndLevels) {
        return Arrays.stream(minutesAndLevels).boxed().toList();
    }

    @Test
    void levelsOfABatteryComeWithTheirNumbersAndWhatIsOddOfThem() {
        Client device = device("Battery", Map.of(), List.of("battery-reading", "battery-charge"));
        List<Double> points = levels(1 / 60.0, 100, 6, 99, 66, 89, 480, 21, 486, 20, 490, 20);
        assertThat(deliver(device, "battery-reading", 1, Map.of(), "peak", 1.0, points, "power", 6.5, List.of())
                        .status())
                .isEqualTo(200);
        Map<String, Double> values = values(device);
        assertThat(values.get("Reading on battery, an hour")).isCloseTo(79 / 8.0, within(1e-9));
        assertThat(values.get("Reading on battery, from full to 20 %")).isCloseTo(8.1, within(0.001));
        assertThat(values)
                .containsEntry("Reading on battery, by a meter", 6.5)
                .containsEntry("Reading on battery, level", 100.0)
                .doesNotContainKey("Reading on battery, from full to the end");
        assertThat(rows(device).toString())
                .contains("Nothing is known of 414 min")
                .contains("DISTURBED");
        assertThat(deliver(device, "battery-charge", 1, Map.of(), "peak", 1.0, levels(1, 15, 6, 20, 66, 80, 90, 100))
                        .status())
                .isEqualTo(200);
        assertThat(values(device)).containsEntry("Charging, from 20 to 80 %", 60.0);
        // A level that stood still, or is none, is refused with a reason and stores nothing.
        assertThat(deliver(device, "battery-reading", 2, Map.of(), "peak", 1.0, levels(1, 80, 2, 80))
                        .detail())
                .contains("did not fall");
        assertThat(deliver(device, "battery-reading", 2, Map.of(), "peak", 1.0, levels(1, 180, 2, 80))
                        .code())
                .isEqualTo("invalid-samples");
    }

    @Test
    void aWalkHasItsStepAndWhatCameAtEachDistance() {
        Client device = device("Walk", Map.of(), List.of("network-walk"));
        assertThat(deliver(
                                device,
                                "network-walk",
                                1,
                                Map.of(),
                                "step",
                                4.0,
                                List.of(),
                                "peak",
                                1.0,
                                List.of(1.0, 300.0, 3.0, 210.0, 5.0, 40.0, 7.0, 8.0))
                        .status())
                .isEqualTo(200);
        assertThat(values(device)).containsEntry("Walk away, peak", 300.0);
        assertThat(rows(device).toString()).contains("5 m");
    }

    @Test
    void workInALoopThatStaysAsItWasIsNotThrottled() {
        Client device = device("Steady", Map.of(), List.of("endurance-weir-hash-all"));
        List<Double> points = new ArrayList<>();
        for (int i = 0; i < 12; i++) {
            points.add(5.0 * (i + 1));
            points.add(1000.0 + i % 3);
        }
        assertThat(deliver(device, "endurance-weir-hash-all", 1, Map.of(), "peak", 1.0, points)
                        .status())
                .isEqualTo(200);
        assertThat(rows(device).toString()).doesNotContain("THROTTLED").doesNotContain("slower from");
    }

    /** A derived value that needs a fact of the configuration comes with the fact, and changes with its correction. */
    @Test
    void oneThreadPerGhzNeedsTheClockAndFollowsIt() {
        List<String> keys = TESTS.values().stream()
                .filter(t -> t.path("suite").asString().equals("Yarrow processor")
                        && t.path("mode").asString().isEmpty())
                .map(t -> t.path("key").asString())
                .filter(k -> k.endsWith("-one") || k.equals("map-tile-crush"))
                .sorted()
                .toList();
        assertThat(keys).hasSize(10);
        Client device = device("Clock", Map.of(), keys);
        keys.forEach(key -> deliver(
                device, key, 1, Map.of(), "rate", Calibration.load(1).values().get(key) * 3, List.of()));
        assertThat(values(device)).doesNotContainKey("One thread per GHz");
        long configuration = rows(device).get(0).path("configurationId").asLong();
        correctClock(configuration, "3 GHz");
        assertThat(values(device).get("One thread per GHz")).isCloseTo(1000, within(1e-9));
        correctClock(configuration, "1.5 GHz");
        assertThat(values(device).get("One thread per GHz")).isCloseTo(2000, within(1e-9));
    }

    private void correctClock(long configuration, String text) {
        String seen = bench.owner()
                .get("/api/configurations/" + configuration)
                .body()
                .path("fingerprint")
                .asString();
        Client.Answer corrected = bench.owner()
                .post(
                        "/api/configurations/" + configuration + "/corrections",
                        Map.of("seen", seen, "key", "processor.boost_clock", "text", text, "reason", "read again"));
        assertThat(corrected.status()).as(corrected.detail()).isEqualTo(200);
    }

    @Test
    void scalingAndTotalAreThereOnceEveryPartIs() {
        List<String> keys = TESTS.values().stream()
                .filter(t -> t.path("suite").asString().equals("Yarrow processor")
                        && t.path("mode").asString().isEmpty())
                .map(t -> t.path("key").asString())
                .filter(k -> !List.of("total", "scaling", "per-ghz").contains(k))
                .sorted()
                .toList();
        assertThat(keys).hasSize(20);
        Client device = device("Total", Map.of(), keys);
        for (String key : keys) {
            assertThat(values(device)).doesNotContainKey("Yarrow processor, total");
            boolean all = key.endsWith("-all");
            Client.Answer stored = all
                    ? deliver(device, key, 1, Map.of(), "rate", 60.0, List.of(), "per-thread", 15.0, List.of())
                    : deliver(device, key, 1, Map.of(), "rate", 20.0, List.of());
            assertThat(stored.status()).as(stored.detail()).isEqualTo(200);
        }
        Map<String, Double> values = values(device);
        assertThat(values.get("Scaling per logical processor")).isCloseTo(75, within(1e-9));
        assertThat(values.get("Yarrow processor, total")).isGreaterThan(0);
    }

    @Test
    void aDisturbedRunIsMarkedAndStillCounts() {
        Client device = device("Disturbed", Map.of(), List.of("weir-hash-one"));
        String words = "The page stood still for 0.7 s: something else was working.";
        deliver(device, "weir-hash-one", 1, Map.of("disturbed", words), "rate", 100.0, List.of(99.0, 101.0));
        deliver(device, "weir-hash-one", 2, Map.of(), "rate", 101.0, List.of(99.0, 101.0));
        long session = device.get("/api/device/seat").body().path("sessionId").asLong();
        JsonNode rows = bench.owner()
                .get("/api/ledger?state=COUNTED&session=" + session)
                .body()
                .path("rows");
        assertThat(rows).hasSize(2);
        for (JsonNode row : rows) {
            List<String> marks = row.path("marks")
                    .valueStream()
                    .map(m -> m.path("kind").asString() + ": " + m.path("words").asString())
                    .toList();
            if (row.path("runNumber").asInt() == 1) {
                assertThat(marks).contains("DISTURBED: " + words);
                assertThat(bench.owner()
                                .get("/api/readings/" + row.path("readingId").asLong())
                                .body()
                                .path("marks")
                                .toString())
                        .contains(words);
            } else {
                assertThat(marks).noneMatch(m -> m.startsWith("DISTURBED"));
            }
        }
    }

    @Test
    void aStepOfALadderAndACountOfDentsAreNotTooShort() {
        Client device = device("Steps", Map.of(), List.of("video-play-vp9", "memory-read", "weir-hash-one"));
        Map<String, Object> step = Map.of("metric", "step", "value", 3, "resolution", 1, "samples", List.of());
        Map<String, Object> body = new LinkedHashMap<>(Map.of(
                "testId",
                id("video-play-vp9"),
                "runNumber",
                1,
                "attempt",
                1,
                "state",
                "OK",
                "durationMs",
                3_000,
                "readings",
                List.of(step)));
        body.put("reasonWords", "1080p at 30 dropped 12 and was late with 3 of 101.");
        Client.Answer stored = new Bench(port).deliver(device, body);
        assertThat(stored.status()).as(stored.detail()).isEqualTo(200);
        deliver(
                device,
                "memory-read",
                1,
                Map.of(),
                "peak",
                9.0,
                List.of(16.0, 40.0, 32.0, 38.0),
                "far",
                38.0,
                List.of());
        Map<String, Object> coarse = Map.of("metric", "rate", "value", 30, "resolution", 1, "samples", List.of());
        new Bench(port)
                .deliver(
                        device,
                        Map.of(
                                "testId",
                                id("weir-hash-one"),
                                "runNumber",
                                1,
                                "attempt",
                                1,
                                "state",
                                "OK",
                                "durationMs",
                                3_000,
                                "readings",
                                List.of(coarse)));
        long session = device.get("/api/device/seat").body().path("sessionId").asLong();
        List<String> marked = bench.owner()
                .get("/api/ledger?size=200&state=COUNTED&session=" + session)
                .body()
                .path("rows")
                .valueStream()
                .filter(r -> r.path("marks").toString().contains("TOO_SHORT"))
                .map(r -> r.path("test").asString())
                .toList();
        assertThat(marked).containsExactly("Weir hash, one thread");
    }

    @Test
    void aShuffledPlanHasTheSameOrderForEveryDeviceAndAnotherForAnotherSeed() {
        List<String> keys = List.of(
                "weir-hash-one",
                "map-tile-crush",
                "species-list",
                "transect-sketch",
                "memory-read",
                "desk-relay",
                "storage-read",
                "graphics-mist-720");
        List<String> first = order(device("Shuffled", Map.of("shuffleSeed", 7), keys));
        assertThat(first).containsExactlyInAnyOrderElementsOf(keys).isNotEqualTo(keys);
        assertThat(order(device("Shuffled again", Map.of("shuffleSeed", 7), keys)))
                .isEqualTo(first);
        assertThat(order(device("Shuffled otherwise", Map.of("shuffleSeed", 8), keys)))
                .isNotEqualTo(first);
        assertThat(order(device("As written", Map.of("coolByProbe", true), keys)))
                .isEqualTo(keys);
    }

    private static List<String> order(Client device) {
        return device.get("/api/device/seat")
                .body()
                .path("tests")
                .valueStream()
                .map(t -> t.path("key").asString())
                .toList();
    }
}
