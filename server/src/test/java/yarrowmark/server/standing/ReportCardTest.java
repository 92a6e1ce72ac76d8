package yarrowmark.server.standing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static yarrowmark.server.support.Bench.notOk;
import static yarrowmark.server.support.Bench.ok;
import static yarrowmark.server.support.Bench.testId;

import java.util.ArrayList;
import java.util.HashMap;
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

/** Seven boards of one maker, whose rates are 100, 200 … 700. */
@ServerTest
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class ReportCardTest {
    private static final String AMONG = "?maker=Fenlark";
    private static final int BOARDS = 7;

    @LocalServerPort
    private int port;

    private Client owner;
    private final List<Long> configurations = new ArrayList<>();

    @BeforeAll
    void sevenBoards() {
        Bench bench = new Bench(port);
        owner = bench.owner();
        List<Long> models = new ArrayList<>();
        for (int i = 1; i <= BOARDS; i++) {
            Client seat = bench.joined(3);
            assertThat(seat.post(
                                    "/api/device/start",
                                    Map.of(
                                            "newModel",
                                            Map.of("maker", "Fenlark", "name", "Reed " + i, "deviceClass", "BOARD"),
                                            "facts",
                                            List.of()))
                            .status())
                    .isEqualTo(200);
            for (int run = 1; run <= 3; run++) {
                bench.deliver(seat, ok(testId(seat, "weir-hash-one"), run, 100 * i * (1 + run * 0.0001)));
                if (i == 6) {
                    bench.deliver(seat, ok(testId(seat, "species-list"), run, 50 * (1 + run * 0.001)));
                    bench.deliver(seat, notOk(testId(seat, "map-tile-crush"), run, "FAILED", "WRONG_ANSWER"));
                }
            }
            JsonNode own =
                    row(owner.get("/api/standings" + AMONG).body(), "Reed " + i).path("configuration");
            models.add(own.path("modelId").asLong());
            configurations.add(own.path("id").asLong());
        }
        assertThat(owner.put(
                                "/api/models/" + models.get(5) + "/fields/predecessor",
                                new HashMap<>(Map.of("text", "Fenlark Reed 5")))
                        .status())
                .isEqualTo(200);
    }

    private static JsonNode row(JsonNode standings, String model) {
        for (JsonNode row : standings.path("rows")) {
            if (row.path("configuration").path("model").asString().equals(model)) {
                return row;
            }
        }
        throw new AssertionError(model + " is not ranked");
    }

    private JsonNode card(int board, String more) {
        Client.Answer answer =
                owner.get("/api/configurations/" + configurations.get(board - 1) + "/report-card" + AMONG + more);
        assertThat(answer.status()).as(answer.detail()).isEqualTo(200);
        return answer.body();
    }

    private static JsonNode test(JsonNode card, String test) {
        for (JsonNode row : card.path("rows")) {
            if (row.path("metric").path("test").asString().equals(test)) {
                return row;
            }
        }
        throw new AssertionError(test + " is not on the card");
    }

    @Test
    void everyTestHasItsValueItsPlaceAndThoseItIsHeldAgainst() {
        JsonNode card = card(6, "");
        assertThat(card.path("among").asInt()).isEqualTo(BOARDS - 1);
        JsonNode hash = test(card, "Weir hash, one thread");
        assertThat(hash.path("value").asDouble()).isCloseTo(600.12, within(1e-4));
        assertThat(hash.path("runs").asInt()).isEqualTo(3);
        assertThat(hash.path("place").path("order").asInt()).isEqualTo(2);
        assertThat(hash.path("place").path("of").asInt()).isEqualTo(BOARDS);
        assertThat(hash.path("place").path("percentile").asDouble()).isCloseTo(5.0 / 6, within(1e-12));
        assertThat(hash.path("rating").asString()).isEqualTo("GOOD");
        assertThat(hash.path("others"))
                .extracting(o -> Math.round(600 * Math.exp(o.asDouble())))
                .containsExactlyInAnyOrder(100L, 200L, 300L, 400L, 500L, 700L);
        JsonNode alone = test(card, "Species list");
        assertThat(alone.has("place")).as("a place alone says nothing").isFalse();
        assertThat(alone.path("value").asDouble()).isCloseTo(50.1, within(1e-3));
        JsonNode failed = test(card, "Map tile crush");
        assertThat(failed.has("value")).isFalse();
        assertThat(failed.path("ended").path("reason").asString()).isEqualTo("WRONG_ANSWER");
        assertThat(card.path("rows")
                        .get(card.path("best").get(0).asInt())
                        .path("metric")
                        .path("test")
                        .asString())
                .isEqualTo("Weir hash, one thread");
        assertThat(card.path("worst")).isEmpty();
        assertThat(card.path("forerunner").path("model").asString()).isEqualTo("Reed 5");
    }

    @Test
    void itsPlacesAreThoseOfTheStandings() {
        JsonNode hash = test(card(3, ""), "Weir hash, one thread");
        JsonNode standing = row(
                owner.get("/api/standings" + AMONG + "&metric="
                                + hash.path("metric").path("id").asLong())
                        .body(),
                "Reed 3");
        assertThat(hash.path("place").path("order")).isEqualTo(standing.path("order"));
        assertThat(hash.path("place").path("best")).isEqualTo(standing.path("placeBest"));
        assertThat(hash.path("place").path("worst")).isEqualTo(standing.path("placeWorst"));
        assertThat(hash.path("place").path("percentile")).isEqualTo(standing.path("percentile"));
        JsonNode card = card(3, "");
        JsonNode whole = row(owner.get("/api/standings" + AMONG).body(), "Reed 3");
        assertThat(card.path("place").path("order")).isEqualTo(whole.path("order"));
        assertThat(card.path("place").path("of").asInt()).isEqualTo(BOARDS);
        assertThat(card.has("forerunner")).isFalse();
    }

    @Test
    void aLimitOfTheLabsGoesBeforeThirdsUntilItIsTakenBack() {
        long metric = test(card(6, ""), "Weir hash, one thread")
                .path("metric")
                .path("id")
                .asLong();
        String limits = "/api/metrics/" + metric + "/limits";
        assertThat(owner.put(limits, Map.of("good", 650, "poor", 600)).status()).isEqualTo(200);
        JsonNode now = test(card(6, ""), "Weir hash, one thread");
        assertThat(now.path("rating").asString()).isEqualTo("AVERAGE");
        assertThat(now.path("metric").path("goodLimit").asDouble()).isEqualTo(650);
        assertThat(test(card(1, ""), "Weir hash, one thread").path("rating").asString())
                .isEqualTo("POOR");
        Client.Answer turned = owner.put(limits, Map.of("good", 100, "poor", 600));
        assertThat(turned.code()).isEqualTo("not-limits");
        assertThat(turned.detail()).contains("good begins above poor");
        assertThat(owner.put(limits, Map.of("good", 100)).code()).isEqualTo("one-limit");
        assertThat(owner.put("/api/metrics/987654/limits", Map.of()).status()).isEqualTo(404);
        assertThat(owner.put(limits, Map.of()).status()).isEqualTo(200);
        assertThat(test(card(6, ""), "Weir hash, one thread").path("rating").asString())
                .isEqualTo("GOOD");
    }

    @Test
    void whatNobodyElseRanAndWhoIsNotAskedForIsSaid() {
        JsonNode among = owner.get("/api/configurations/" + configurations.get(5)
                        + "/report-card?maker=Nobody&suite="
                        + test(card(6, ""), "Species list")
                                .path("metric")
                                .path("suiteVersionId")
                                .asLong())
                .body();
        assertThat(among.path("among").asInt()).isZero();
        assertThat(among.path("noPlace").asString()).contains("nobody that is asked for");
        assertThat(among.path("rows")).isNotEmpty();
        String own = "/api/configurations/" + configurations.get(5) + "/report-card";
        assertThat(owner.get(own + "?maker=Fenlark&priceFrom=1")
                        .body()
                        .path("among")
                        .asInt())
                .isZero();
        assertThat(owner.get(own + "?per=price").code()).isEqualTo("divided");
        assertThat(owner.get("/api/configurations/987654/report-card").status()).isEqualTo(404);
    }

    @Test
    void aChartForEachTestHoldsTheValuesOfEverybodyInTheStanding() {
        JsonNode charts = owner.get("/api/compare/charts" + AMONG).body();
        assertThat(charts.path("metrics"))
                .as("what one of seven has is no chart")
                .extracting(m -> m.path("test").asString())
                .containsExactly("Weir hash, one thread");
        assertThat(charts.path("rows")).hasSize(BOARDS);
        assertThat(charts.path("rows")
                        .get(0)
                        .path("values")
                        .get(0)
                        .path("value")
                        .asDouble())
                .isCloseTo(700.14, within(1e-4));
        long hash = charts.path("metrics").get(0).path("testId").asLong();
        JsonNode two = owner.get("/api/compare/charts?only=" + configurations.get(5) + "," + configurations.get(1))
                .body();
        assertThat(two.path("rows"))
                .extracting(r -> r.path("configuration").path("id").asLong())
                .containsExactly(configurations.get(5), configurations.get(1));
        JsonNode without = owner.get("/api/compare/charts" + AMONG + "&everyTest=true&without=test:" + hash)
                .body();
        assertThat(without.path("metrics"))
                .extracting(m -> m.path("test").asString())
                .doesNotContain("Weir hash, one thread");
        assertThat(owner.get("/api/compare/charts?maker=Nobody").code()).isEqualTo("nothing-tested");
        JsonNode standing = owner.get("/api/standings?only=" + configurations.get(0) + "," + configurations.get(1))
                .body();
        assertThat(standing.path("placed").asInt()).isEqualTo(2);
    }
}
