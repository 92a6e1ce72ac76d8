package yarrowmark.server.shelf;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicInteger;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.boot.test.web.server.LocalServerPort;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.support.Bench;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.ServerTest;

/** What can be taken back, what can be removed, and what is only retired. */
@ServerTest
class ShelfHistoryTest {
    private static final AtomicInteger NUMBER = new AtomicInteger();

    @LocalServerPort
    private int port;

    private Client owner;
    private long model;
    private long unit;

    @BeforeEach
    void aModelWithAUnit() {
        owner = Client.owner(port);
        model = owner.post(
                        "/api/models",
                        Map.of(
                                "maker",
                                "Hawkmoor",
                                "name",
                                "Ridge h" + NUMBER.incrementAndGet(),
                                "deviceClass",
                                "BOARD"))
                .body()
                .path("model")
                .path("id")
                .asLong();
        unit = owner.post("/api/models/" + model + "/units", Map.of("label", "Unit 1"))
                .body()
                .path("units")
                .get(0)
                .path("id")
                .asLong();
    }

    private long configuration(String firmware, Long parent) {
        Map<String, Object> body = new HashMap<>(
                Map.of("facts", List.of(Map.of("key", "firmware.version", "text", firmware, "read", false))));
        if (parent != null) {
            body.put("parentId", parent);
        }
        return owner.post("/api/units/" + unit + "/configurations", body)
                .body()
                .path("configuration")
                .path("id")
                .asLong();
    }

    private JsonNode last(String subject, long id) {
        return owner.get("/api/history/" + subject + "/" + id)
                .body()
                .path("rows")
                .get(0);
    }

    private Client.Answer undo(String subject, long id) {
        JsonNode rows = owner.get("/api/history/" + subject + "/" + id).body().path("rows");
        for (JsonNode row : rows) {
            if (row.path("last").asBoolean()) {
                return owner.post(
                        "/api/history/" + subject + "/" + id + "/undo",
                        Map.of("change", row.path("id").asString()));
            }
        }
        throw new IllegalStateException("nothing can be taken back");
    }

    @Test
    void aUnitsFieldsAreTakenBackAndSoIsTheUnit() {
        Map<String, Object> serial = new HashMap<>(Map.of("text", "HK-7"));
        assertThat(owner.put("/api/units/" + unit + "/fields/serial", serial).status())
                .isEqualTo(200);
        assertThat(last("unit", unit).path("changes").get(0).path("field").asString())
                .isEqualTo("Serial or asset tag");
        assertThat(undo("unit", unit).status()).isEqualTo(200);
        assertThat(owner.get("/api/models/" + model)
                        .body()
                        .path("units")
                        .get(0)
                        .path("fields")
                        .get(1)
                        .has("value"))
                .isFalse();
        assertThat(undo("unit", unit).status()).isEqualTo(200);
        assertThat(owner.get("/api/models/" + model).body().path("units")).isEmpty();
    }

    @Test
    void aConfigurationWithACopyStaysUntilTheCopyIsGone() {
        long first = configuration("1.04", null);
        long copy = configuration("1.11", first);
        assertThat(undo("configuration", first).code()).isEqualTo("has-children");
        assertThat(owner.delete("/api/configurations/" + first).code()).isEqualTo("has-children");
        assertThat(owner.delete("/api/configurations/" + copy).status()).isEqualTo(200);
        assertThat(undo("configuration", first).status()).isEqualTo(200);
        assertThat(owner.get("/api/configurations/" + first).status()).isEqualTo(404);
        assertThat(owner.delete("/api/units/" + unit).status()).isEqualTo(200);
        assertThat(owner.delete("/api/models/" + model).status()).isEqualTo(200);
        assertThat(owner.get("/api/models/" + model).status()).isEqualTo(404);
    }

    @Test
    void aNameIsChangedByOneAtATimeAndTakenBack() {
        long id = configuration("1.04", null);
        String name = owner.get("/api/configurations/" + id)
                .body()
                .path("configuration")
                .path("name")
                .asString();
        assertThat(owner.put("/api/configurations/" + id + "/name", Map.of("from", name, "to", "as delivered"))
                        .status())
                .isEqualTo(200);
        Client.Answer second =
                owner.put("/api/configurations/" + id + "/name", Map.of("from", name, "to", "out of the box"));
        assertThat(second.code()).isEqualTo("changed-meanwhile");
        assertThat(second.body().path("now").asString()).isEqualTo("as delivered");
        assertThat(undo("configuration", id).status()).isEqualTo(200);
        assertThat(owner.get("/api/configurations/" + id)
                        .body()
                        .path("configuration")
                        .path("name")
                        .asString())
                .isEqualTo(name);
    }

    @Test
    void aNameThatSomebodyElseTookMeanwhileIsNotPutBack() {
        owner.put("/api/units/" + unit + "/fields/label", Map.of("seen", "Unit 1", "text", "Tag 7"));
        owner.post("/api/models/" + model + "/units", Map.of("label", "Unit 1"));
        assertThat(undo("unit", unit).code()).isEqualTo("unit-exists");
        JsonNode page = owner.get("/api/models/" + model).body().path("model");
        String other = page.path("name").asString() + " second";
        owner.post("/api/models", Map.of("maker", "Hawkmoor", "name", other, "deviceClass", "BOARD"));
        assertThat(owner.put(
                                "/api/models/" + model + "/fields/name",
                                Map.of("seen", page.path("name").asString(), "text", other))
                        .code())
                .isEqualTo("model-exists");
    }

    @Test
    void retiredThingsStepAsideAndComeBack() {
        long id = configuration("1.04", null);
        assertThat(owner.put("/api/configurations/" + id + "/retired", Map.of("retired", true))
                        .body()
                        .path("configuration")
                        .path("retired")
                        .asBoolean())
                .isTrue();
        Bench bench = new Bench(port);
        Client device = bench.joined(1);
        device.post(
                "/api/device/start",
                Map.of("modelId", model, "unitId", unit, "facts", List.of(Bench.fact("firmware.version", "1.04"))));
        JsonNode configurations =
                owner.get("/api/models/" + model).body().path("units").get(0).path("configurations");
        assertThat(configurations).as("what is retired is not measured again").hasSize(2);
        assertThat(undo("configuration", id).status()).isEqualTo(200);
        assertThat(owner.get("/api/configurations/" + id)
                        .body()
                        .path("configuration")
                        .path("retired")
                        .asBoolean())
                .isFalse();
    }

    @Test
    void aCorrectionIsKeptOnPurposeAndCorrectedByAnother() {
        long id = configuration("1.04", null);
        String seen = owner.get("/api/configurations/" + id)
                .body()
                .path("fingerprint")
                .asString();
        Map<String, Object> correction =
                new HashMap<>(Map.of("seen", seen, "key", "firmware.version", "text", "1.40", "reason", "read again"));
        assertThat(owner.post("/api/configurations/" + id + "/corrections", correction)
                        .status())
                .isEqualTo(200);
        assertThat(owner.post("/api/configurations/" + id + "/corrections", correction)
                        .code())
                .as("made for another state")
                .isEqualTo("changed-meanwhile");
        assertThat(undo("configuration", id).code()).isEqualTo("cannot-undo");
        correction.put(
                "seen",
                owner.get("/api/configurations/" + id)
                        .body()
                        .path("fingerprint")
                        .asString());
        assertThat(owner.post("/api/configurations/" + id + "/corrections", correction)
                        .code())
                .isEqualTo("same-value");
        correction.remove("text");
        JsonNode page = owner.post("/api/configurations/" + id + "/corrections", correction)
                .body();
        assertThat(page.path("facts")).isEmpty();
        assertThat(page.path("corrections")).hasSize(2);
    }

    @Test
    void aPhotoIsTakenAwayAndBack() throws IOException {
        ByteArrayOutputStream png = new ByteArrayOutputStream();
        ImageIO.write(new BufferedImage(40, 30, BufferedImage.TYPE_INT_RGB), "png", png);
        String hash = owner.postBytes("/api/models/" + model + "/photo", png.toByteArray())
                .body()
                .path("model")
                .path("photo")
                .asString();
        assertThat(owner.delete("/api/models/" + model + "/photo")
                        .body()
                        .path("model")
                        .has("photo"))
                .isFalse();
        assertThat(undo("model", model).status()).isEqualTo(200);
        assertThat(owner.get("/api/models/" + model)
                        .body()
                        .path("model")
                        .path("photo")
                        .asString())
                .isEqualTo(hash);
    }

    @Test
    void historyOfOtherThingsIsReadButNotTakenBack() {
        assertThat(owner.post("/api/history/reading/1/undo", Map.of("change", "1"))
                        .code())
                .isEqualTo("cannot-undo");
        assertThat(owner.post("/api/history/model/" + model + "/undo", Map.of("change", "abc"))
                        .status())
                .isEqualTo(400);
        assertThat(owner.get("/api/history/model/987654").body().path("total").asInt())
                .isZero();
        assertThat(new Client(port).get("/api/history/model/" + model).status()).isEqualTo(401);
    }

    @Test
    void bestPlacesAndClaimsFollowTheScores() {
        Bench bench = new Bench(port);
        Client device = bench.joined(1);
        device.post("/api/device/start", Map.of("modelId", model, "unitId", unit, "facts", List.of()));
        long test = Bench.testId(device, "transect-sketch");
        bench.deliver(device, Bench.ok(test, 1, 1_000_000));
        assertThat(owner.get("/api/models/" + model + "/places").body())
                .as("first of one says nothing")
                .isEmpty();
        long other = owner.post("/api/models", Map.of("maker", "Larkspur", "name", "Slow one", "deviceClass", "BOARD"))
                .body()
                .path("model")
                .path("id")
                .asLong();
        long slow = owner.post("/api/models/" + other + "/units", Map.of("label", "Unit 1"))
                .body()
                .path("units")
                .get(0)
                .path("id")
                .asLong();
        Client second = bench.joined(1);
        second.post("/api/device/start", Map.of("modelId", other, "unitId", slow, "facts", List.of()));
        bench.deliver(second, Bench.ok(test, 1, 500));
        JsonNode place = owner.get("/api/models/" + model + "/places").body().get(0);
        assertThat(place.path("of").asInt()).isGreaterThan(1);
        assertThat(place.path("best").asInt()).isEqualTo(1);
        assertThat(place.path("test").asString()).isEqualTo("Transect sketch");
        long metric = place.path("metricId").asLong();
        JsonNode claim = owner.post(
                        "/api/models/" + model + "/claims",
                        Map.of("metricId", metric, "text", "2 000 000", "source", "data sheet"))
                .body()
                .get(0);
        // A sample keeps logarithms, so a value comes back with a hair of rounding.
        assertThat(claim.path("measured").asDouble()).isCloseTo(1_000_000, within(1e-6));
        assertThat(claim.path("foundPerClaimed").asDouble()).isCloseTo(0.5, within(1e-12));
        assertThat(claim.path("kept").asBoolean()).isFalse();
        assertThat(owner.post(
                                "/api/models/" + model + "/claims",
                                Map.of("metricId", metric, "text", "plenty", "source", "data sheet"))
                        .detail())
                .contains("above 0");
        assertThat(owner.post(
                                "/api/models/" + model + "/claims",
                                Map.of("metricId", metric, "text", "1", "source", " "))
                        .status())
                .isEqualTo(400);
    }
}
