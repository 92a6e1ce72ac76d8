package yarrowmark.server.bench;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.support.Bench;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.Lab;
import yarrowmark.server.support.MovableClock;
import yarrowmark.server.support.ServerTest;

/** Plans that go on until a mean is known, and plans of several days, from the form to the device. */
@ServerTest
class AsManyAsItTakesTest {
    @LocalServerPort
    private int port;

    @Autowired
    private MovableClock clock;

    private Lab lab;
    private Client owner;
    private long weir;

    @BeforeEach
    void lab() {
        lab = new Lab(port);
        owner = lab.owner();
        weir = owner.get("/api/tests")
                .body()
                .valueStream()
                .filter(t -> t.path("key").asString().equals("weir-hash-one"))
                .findFirst()
                .orElseThrow()
                .path("id")
                .asLong();
    }

    private Client.Answer make(Map<String, Object> more) {
        Map<String, Object> plan = new HashMap<>(Map.of(
                "name",
                "Known " + lab.number() + " " + more.hashCode(),
                "runs",
                3,
                "timedMs",
                100,
                "pauseMs",
                0,
                "stopOnFailure",
                false,
                "items",
                List.of(Map.of("testId", weir, "nice", false))));
        plan.putAll(more);
        return owner.post("/api/plans", plan);
    }

    private Client seated(JsonNode plan) {
        String code = owner.post(
                        "/api/bench/seats",
                        Map.of("planId", plan.path("id").asLong(), "runs", 3, "timedMs", 100, "pauseMs", 0))
                .body()
                .path("code")
                .asString();
        Client device = new Client(port);
        device.header(
                "Authorization",
                "Bearer "
                        + device.post("/api/device/join", Map.of("code", code))
                                .body()
                                .path("token")
                                .asString());
        assertThat(device.post("/api/device/start", Map.of("modelId", lab.model(), "facts", List.of()))
                        .status())
                .isEqualTo(200);
        return device;
    }

    @Test
    void theDeviceIsToldWhenItIsEnough() {
        JsonNode plan = make(Map.of("mostRuns", 8, "knownWithin", 1.0)).body();
        Client device = seated(plan);
        JsonNode seat = device.get("/api/device/seat").body();
        JsonNode test = seat.path("tests").get(0);
        assertThat(test.path("runs").asInt()).isEqualTo(8);
        assertThat(test.path("enough").size()).isPositive();
        JsonNode last = test.path("enough").get(test.path("enough").size() - 1);
        assertThat(last.path("runs").asInt()).isEqualTo(8);
        assertThat(last.path("spread").asDouble()).isBetween(0.001, 0.02);

        Bench bench = new Bench(port);
        bench.deliver(device, Bench.ok(weir, 1, 100));
        bench.deliver(device, Bench.ok(weir, 2, 101));
        JsonNode done = device.get("/api/device/seat").body().path("done");
        assertThat(done.get(1).path("value").asDouble()).isEqualTo(101);
        assertThat(bench.deliver(device, Bench.ok(weir, 8, 99)).status()).isEqualTo(200);
        assertThat(bench.deliver(device, Bench.ok(weir, 9, 99)).code()).isEqualTo("run-not-planned");
    }

    @Test
    void halfAnAimIsRefused() {
        assertThat(make(Map.of("mostRuns", 8)).code()).isEqualTo("half-an-aim");
        assertThat(make(Map.of("knownWithin", 1)).code()).isEqualTo("half-an-aim");
        assertThat(make(Map.of("mostRuns", 8, "knownWithin", 1, "runs", 2)).code())
                .isEqualTo("not-enough-runs");
        assertThat(make(Map.of("mostRuns", 4, "knownWithin", 1, "runs", 5)).code())
                .isEqualTo("not-enough-runs");
        for (Object bad : new Object[] {0, -1, 21, "much"}) {
            assertThat(make(Map.of("mostRuns", 8, "knownWithin", bad)).status()).isEqualTo(400);
        }
        assertThat(make(Map.of("days", 1)).status()).isEqualTo(400);
        assertThat(make(Map.of("days", 31)).status()).isEqualTo(400);
    }

    @Test
    void theBenchSaysWhoIsDue() {
        JsonNode plan = make(Map.of("days", 2)).body();
        Client device = seated(plan);
        Bench bench = new Bench(port);
        bench.deliver(device, Bench.ok(weir, 1, 100));
        device.post("/api/device/end", Map.of("how", "DONE"));
        JsonNode due = due(plan);
        assertThat(due.path("days").asInt()).isEqualTo(1);
        assertThat(due.path("of").asInt()).isEqualTo(2);
        assertThat(due.path("today").asBoolean()).isTrue();
        clock.letPass(Duration.ofDays(1));
        // Nobody stays signed in over a day without a request.
        owner = Client.owner(port);
        due = due(plan);
        assertThat(due.path("days").asInt()).isEqualTo(1);
        assertThat(due.path("today").asBoolean()).isFalse();
        Client again = seated(plan);
        bench.deliver(again, Bench.ok(weir, 1, 100));
        again.post("/api/device/end", Map.of("how", "DONE"));
        assertThat(due(plan).isMissingNode()).as("measured on both days").isTrue();
    }

    private JsonNode due(JsonNode plan) {
        Client.Answer asked = owner.get("/api/bench/due");
        assertThat(asked.status()).isEqualTo(200);
        for (JsonNode d : asked.body()) {
            if (d.path("planId").asLong() == plan.path("id").asLong()) {
                return d;
            }
        }
        return lab.owner().get("/api/bench/due").body().path("none");
    }

    @Test
    void theSheetSaysHowManyMoreRunsWouldTell() {
        lab.suite("Weir, 1, more").session(lab.configuration(Map.of("firmware.version", "1.0")), 8);
        assertThat(moreRuns(1, "100").isMissingNode())
                .as("one run says nothing of its spread")
                .isTrue();
        lab.typed(0, "100", "100.4");
        assertThat(moreRuns(3, "100.2").asInt()).isZero();
        assertThat(moreRuns(3, "104").asInt()).isBetween(1, 12);
    }

    private JsonNode moreRuns(int run, String text) {
        return lab.owner()
                .post(
                        "/api/sessions/" + lab.session() + "/look",
                        Map.of("testId", lab.tests().get(0), "run", run, "text", text, "byStopwatch", false))
                .body()
                .path("moreRuns");
    }
}
