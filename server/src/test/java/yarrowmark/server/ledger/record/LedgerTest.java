package yarrowmark.server.ledger.record;

import static org.assertj.core.api.Assertions.assertThat;
import static yarrowmark.server.support.Bench.notOk;
import static yarrowmark.server.support.Bench.ok;
import static yarrowmark.server.support.Bench.testId;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.ledger.sample.Samples;
import yarrowmark.server.support.Bench;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.ServerTest;

@ServerTest
class LedgerTest {
    private static int devices;

    @LocalServerPort
    private int port;

    @Autowired
    private Samples samples;

    private Bench bench;
    private Client device;
    private long session;
    private long test;

    @BeforeEach
    void aSessionWithThreeReadingsAndAFailure() {
        bench = new Bench(port);
        device = bench.started("Ledger " + ++devices, 5, List.of());
        session = device.get("/api/device/seat").body().path("sessionId").asLong();
        test = testId(device, "map-tile-crush");
        bench.deliver(device, ok(test, 1, 100.0));
        bench.deliver(device, ok(test, 2, 110.0));
        bench.deliver(device, ok(test, 3, 121.0));
        bench.deliver(device, notOk(test, 4, "FAILED", "WRONG_ANSWER"));
    }

    private JsonNode sample(long reading) {
        return bench.owner().get("/api/readings/" + reading).body().path("sample");
    }

    @Test
    void newestFirstPagedAndFiltered() {
        JsonNode page = bench.ledger("session=" + session + "&size=2");
        assertThat(page.path("total").asInt()).isEqualTo(4);
        assertThat(page.path("rows")).hasSize(2);
        assertThat(page.path("rows").get(0).path("state").asString()).isEqualTo("FAILED");
        assertThat(page.path("rows").get(0).has("value")).isFalse();
        assertThat(page.path("rows").get(1).path("value").asDouble()).isEqualTo(121.0);
        assertThat(bench.ledger("session=" + session + "&state=FAILED")
                        .path("total")
                        .asInt())
                .isEqualTo(1);
        assertThat(bench.ledger("session=" + session + "&state=COUNTED")
                        .path("total")
                        .asInt())
                .isEqualTo(3);
        assertThat(bench.ledger("session=" + session + "&page=1&size=2")
                        .path("rows")
                        .get(1)
                        .path("value")
                        .asDouble())
                .isEqualTo(100.0);
        long model = page.path("rows").get(0).path("modelId").asLong();
        assertThat(bench.ledger("model=" + model + "&test=" + test)
                        .path("total")
                        .asInt())
                .isEqualTo(4);
        assertThat(bench.owner().get("/api/ledger?state=NONSENSE").status()).isEqualTo(400);
        assertThat(bench.owner().get("/api/ledger?size=100000").status()).isEqualTo(400);
    }

    @Test
    void settingAsideTakesAReadingOutOfTheSampleAndBackIn() {
        long reading = bench.ledger("session=" + session + "&state=COUNTED")
                .path("rows")
                .get(0)
                .path("readingId")
                .asLong();
        assertThat(sample(reading).path("centre").asDouble())
                .isCloseTo(110, org.assertj.core.api.Assertions.within(1e-9));

        Client.Answer aside =
                bench.owner().post("/api/readings/" + reading + "/set-aside", Map.of("reason", "screen slept"));
        assertThat(aside.body().path("sample").path("n").asInt()).isEqualTo(2);
        assertThat(aside.body().path("asides").get(0).path("person").asString()).isEqualTo(Client.NAME);
        assertThat(bench.ledger("session=" + session + "&state=SET_ASIDE")
                        .path("rows")
                        .get(0)
                        .path("asideReason")
                        .asString())
                .isEqualTo("screen slept");
        assertThat(bench.owner()
                        .post("/api/readings/" + reading + "/set-aside", Map.of("reason", "again"))
                        .code())
                .isEqualTo("set-aside-already");

        JsonNode back =
                bench.owner().delete("/api/readings/" + reading + "/set-aside").body();
        assertThat(back.path("sample").path("n").asInt()).isEqualTo(3);
        assertThat(back.path("asides").get(0).path("takenBackBy").asString()).isEqualTo(Client.NAME);
        assertThat(bench.owner()
                        .delete("/api/readings/" + reading + "/set-aside")
                        .code())
                .isEqualTo("not-set-aside");
    }

    @Test
    void theStoredSampleIsWhatItsReadingsSay() {
        long configuration = bench.ledger("session=" + session)
                .path("rows")
                .get(0)
                .path("configurationId")
                .asLong();
        long metric = bench.owner()
                .get("/api/readings/"
                        + bench.ledger("session=" + session + "&state=COUNTED")
                                .path("rows")
                                .get(0)
                                .path("readingId")
                                .asLong())
                .body()
                .path("metric")
                .path("id")
                .asLong();
        var row = samples.ofMetrics(List.of(metric)).stream()
                .filter(s -> s.configurationId() == configuration)
                .findFirst()
                .orElseThrow();
        assertThat(row.sample().n()).isEqualTo(3);
        assertThat(row.sample().mean()).isCloseTo(Math.log(110), org.assertj.core.api.Assertions.within(1e-12));
        assertThat(row.sample().sumSquares())
                .isCloseTo(2 * Math.pow(Math.log(1.1), 2), org.assertj.core.api.Assertions.within(1e-12));
    }

    @Test
    void aSampleWithNothingCountedIsGone() {
        long only = testId(device, "species-list");
        bench.deliver(device, ok(only, 1, 50));
        long reading = bench.ledger("session=" + session + "&test=" + only)
                .path("rows")
                .get(0)
                .path("readingId")
                .asLong();
        bench.owner().post("/api/readings/" + reading + "/set-aside", Map.of("reason", "wrong power mode"));
        assertThat(sample(reading).isMissingNode()).isTrue();
    }

    @Test
    void theTimingSamplesComeBackAsTheyWere() {
        long reading = bench.ledger("session=" + session + "&state=COUNTED")
                .path("rows")
                .get(0)
                .path("readingId")
                .asLong();
        JsonNode page = bench.owner().get("/api/readings/" + reading).body();
        double value = page.path("value").asDouble();
        assertThat(page.path("timings").get(0).asDouble()).isEqualTo(value - value / 200);
        assertThat(page.path("timings").get(1).asDouble()).isEqualTo(value + value / 200);
    }

    @Test
    void whatIsNotThereIsNamed() {
        assertThat(bench.owner().get("/api/readings/987654").detail()).isEqualTo("There is no reading 987654.");
        assertThat(bench.owner().get("/api/sessions/987654").status()).isEqualTo(404);
        assertThat(bench.owner()
                        .post("/api/readings/1/set-aside", Map.of("reason", " "))
                        .status())
                .isEqualTo(400);
    }
}
