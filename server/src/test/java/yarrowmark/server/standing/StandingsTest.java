package yarrowmark.server.standing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static yarrowmark.server.support.Bench.ok;
import static yarrowmark.server.support.Bench.testId;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import org.springframework.boot.test.web.server.LocalServerPort;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.support.Bench;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.ServerTest;

@ServerTest
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class StandingsTest {
    /** The other tests of this server bring laptops. */
    private static final String DESKTOPS = "/api/standings?deviceClass=DESKTOP";

    @LocalServerPort
    private int port;

    private Bench bench;
    private long hash;

    @BeforeAll
    void threeDevices() {
        bench = new Bench(port);
        assertThat(bench.owner().get(DESKTOPS).code()).isEqualTo("nothing-tested");
        for (Map.Entry<String, Double> device :
                Map.of("Slow", 100.0, "Middle", 150.0, "Fast", 225.0).entrySet()) {
            Client seat = bench.started("DESKTOP", device.getKey(), 3, List.of());
            hash = testId(seat, "weir-hash-one");
            for (int run = 1; run <= 3; run++) {
                bench.deliver(seat, ok(hash, run, device.getValue() * (1 + run * 0.001)));
                bench.deliver(seat, ok(testId(seat, "species-list"), run, device.getValue() / 2 * (1 + run * 0.001)));
            }
        }
    }

    private static JsonNode row(JsonNode standings, String model) {
        for (JsonNode row : standings.path("rows")) {
            if (row.path("configuration").path("model").asString().equals(model)) {
                return row;
            }
        }
        throw new AssertionError(model + " is not ranked");
    }

    @Test
    void theOrderTheIndexAndTheGroups() {
        long middle = row(bench.owner().get(DESKTOPS).body(), "Middle")
                .path("configuration")
                .path("id")
                .asLong();
        JsonNode standings = bench.owner().get(DESKTOPS + "&base=" + middle).body();
        assertThat(row(standings, "Fast").path("index").asDouble()).isCloseTo(150, within(1e-9));
        assertThat(row(standings, "Slow").path("index").asDouble()).isCloseTo(100.0 / 1.5, within(1e-9));
        assertThat(row(standings, "Fast").path("placeBest").asInt()).isEqualTo(1);
        assertThat(row(standings, "Fast").path("coverage").asDouble()).isCloseTo(1, within(1e-12));
        assertThat(row(standings, "Fast").path("parts")).hasSize(2);
        assertThat(standings.path("parts").get(0).path("weight").asDouble()).isCloseTo(0.5, within(1e-12));
        // Other classes of tests share this server and have made suites of their own.
        assertThat(standings.path("leftOut"))
                .filteredOn(l -> l.path("suite").asString().equals("Yarrow processor"))
                .extracting(l -> l.path("test").asString())
                .contains("Weir hash, all threads", "Map tile crush")
                .doesNotContain("Weir hash, one thread");
    }

    @Test
    void oneTestAloneHasItsValues() {
        long metric = 0;
        for (JsonNode test : bench.owner().get("/api/tests").body()) {
            if (test.path("id").asLong() == hash) {
                metric = test.path("metrics").get(0).path("id").asLong();
            }
        }
        JsonNode standings = bench.owner().get(DESKTOPS + "&metric=" + metric).body();
        assertThat(standings.path("metric").path("unit").asString()).isEqualTo("ops/s");
        assertThat(row(standings, "Fast").path("value").asDouble()).isCloseTo(225 * 1.002, within(0.001));
        assertThat(row(standings, "Fast").path("runs").asInt()).isEqualTo(3);
    }

    @Test
    void aNewReadingIsSeenAtOnceAndTheSameQuestionIsNotAnsweredAnew() {
        String first =
                bench.owner().get(DESKTOPS).raw().headers().firstValue("ETag").orElseThrow();
        // The client of this test sends a header it was given with every request.
        Client again = Client.owner(port).header("If-None-Match", first);
        assertThat(again.get(DESKTOPS).status()).isEqualTo(304);
        Client seat = bench.started("DESKTOP", "Late", 3, List.of());
        bench.deliver(seat, ok(testId(seat, "weir-hash-one"), 1, 120));
        assertThat(again.get(DESKTOPS).status()).isEqualTo(200);
        assertThat(row(bench.owner().get(DESKTOPS).body(), "Late")
                        .path("status")
                        .asString())
                .isEqualTo("PLACED");
    }

    @Test
    void aBaseThatIsNotRankedIsReplacedAndThatIsSaid() {
        JsonNode standings = bench.owner().get(DESKTOPS + "&base=987654").body();
        assertThat(standings.path("baseNote").asString()).contains("not among");
        assertThat(bench.owner().get("/api/standings?deviceClass=PHONE").code()).isEqualTo("nothing-tested");
        assertThat(bench.owner().get("/api/standings?purpose=987654").status()).isEqualTo(404);
        assertThat(bench.owner().get("/api/standings?metric=987654").status()).isEqualTo(404);
        assertThat(bench.owner().get("/api/standings?deviceClass=SPACESHIP").status())
                .isEqualTo(400);
    }
}
