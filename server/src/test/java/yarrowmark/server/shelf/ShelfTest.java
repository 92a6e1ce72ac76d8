package yarrowmark.server.shelf;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.time.Clock;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import javax.imageio.ImageIO;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.ServerTest;

@ServerTest
class ShelfTest {
    @LocalServerPort
    private int port;

    private Client owner;

    @Autowired
    private Clock clock;

    @BeforeEach
    void signIn() {
        owner = Client.owner(port);
    }

    private static Map<String, Object> model(String maker, String name) {
        return new HashMap<>(Map.of(
                "maker",
                maker,
                "name",
                name,
                "deviceClass",
                "LAPTOP",
                "price",
                1299.5,
                "currency",
                "EUR",
                "released",
                "2025-05-08"));
    }

    private static Map<String, Object> field(String seen, String text) {
        Map<String, Object> body = new HashMap<>();
        body.put("seen", seen);
        body.put("text", text);
        return body;
    }

    private static String shown(JsonNode page, String field) {
        for (JsonNode f : page.path("fields")) {
            if (f.path("name").asString().equals(field)) {
                return f.path("shown").asString("");
            }
        }
        throw new IllegalStateException("no field " + field);
    }

    @Test
    void aModelIsMadeFoundAndChangedFieldByField() {
        JsonNode made =
                owner.post("/api/models", model("Quenby", "Umbel 14")).body().path("model");
        assertThat(made.path("price").asDouble()).isEqualTo(1299.5);
        assertThat(owner.get("/api/models?q=enby%20umb").body().path("total").asInt())
                .isEqualTo(1);
        assertThat(owner.get("/api/models?q=umbel&deviceClass=PHONE")
                        .body()
                        .path("total")
                        .asInt())
                .isZero();
        String at = "/api/models/" + made.path("id").asLong() + "/fields/";
        assertThat(shown(
                        owner.put(at + "price", field("1299.5 EUR", "1 199 eur"))
                                .body(),
                        "price"))
                .isEqualTo("1199 EUR");
        assertThat(shown(owner.put(at + "weight", field(null, "1,24 kg")).body(), "weight"))
                .isEqualTo("1.24 kg");
        owner.put(at + "width", field(null, "312 mm"));
        owner.put(at + "depth", field(null, "22.1 cm"));
        JsonNode page = owner.put(at + "height", field(null, "16 mm")).body();
        assertThat(page.path("derived").get(0).path("value").asDouble()).isCloseTo(1.103, Offset.offset(0.001));
        assertThat(page.path("derived").get(1).path("value").asDouble()).isEqualTo(16);
        assertThat(owner.put(at + "name", field("Umbel 14", "Umbel 14 s"))
                        .body()
                        .path("model")
                        .path("name")
                        .asString())
                .isEqualTo("Umbel 14 s");
        assertThat(owner.get("/api/models?q=umbel%2014%20s")
                        .body()
                        .path("total")
                        .asInt())
                .isEqualTo(1);
        assertThat(owner.put(at + "screen", field(null, "")).status()).isEqualTo(200);
        owner.put(at + "notes", field(null, "The hinge creaks like a bittern"));
        assertThat(owner.get("/api/models?q=bittern").body().path("total").asInt())
                .isEqualTo(1);
        assertThat(owner.get("/api/models?q=bittern&dearest=1000")
                        .body()
                        .path("total")
                        .asInt())
                .isZero();
        assertThat(owner.get("/api/models?q=bittern&dearest=1200&releasedFrom=2025-01-01&maker=quenby")
                        .body()
                        .path("total")
                        .asInt())
                .isEqualTo(1);
        assertThat(owner.get("/api/models?q=bittern&releasedFrom=2026-01-01")
                        .body()
                        .path("total")
                        .asInt())
                .isZero();
    }

    @Test
    void theShelfIsListedByAnyColumnAndWhatIsNotKnownComesLast() {
        Map<String, Object> plain = Map.of("maker", "Sorrel", "deviceClass", "PHONE");
        for (String[] m : new String[][] {{"Order A", "900"}, {"Order B", null}, {"Order C", "300"}}) {
            Map<String, Object> body = new HashMap<>(plain);
            body.put("name", m[0]);
            if (m[1] != null) {
                body.put("price", m[1]);
                body.put("currency", "EUR");
            }
            assertThat(owner.post("/api/models", body).status()).isEqualTo(200);
        }
        assertThat(listed("sort=PRICE")).containsExactly("Order C", "Order A", "Order B");
        assertThat(listed("sort=PRICE&falling=true")).containsExactly("Order A", "Order C", "Order B");
        assertThat(listed("sort=NAME&falling=true")).containsExactly("Order C", "Order B", "Order A");
        assertThat(listed("sort=RELEASED")).containsExactly("Order A", "Order B", "Order C");
        assertThat(listed("sort=CLASS")).hasSize(3);
        assertThat(listed("sort=CONFIGURATIONS&falling=true")).hasSize(3);
    }

    private List<String> listed(String order) {
        return owner.get("/api/models?q=sorrel%20order&" + order)
                .body()
                .path("rows")
                .valueStream()
                .map(m -> m.path("name").asString())
                .toList();
    }

    @Test
    void theSecondOfTwoWhoEditIsToldAndSeesBoth() {
        long id = owner.post("/api/models", model("Quenby", "Folio 15"))
                .body()
                .path("model")
                .path("id")
                .asLong();
        String at = "/api/models/" + id + "/fields/";
        owner.put(at + "ports", field(null, "2 USB-C"));
        Client.Answer second = owner.put(at + "ports", field(null, "3 USB-C"));
        assertThat(second.status()).isEqualTo(409);
        assertThat(second.code()).isEqualTo("changed-meanwhile");
        assertThat(second.body().path("now").asString()).isEqualTo("2 USB-C");
        assertThat(owner.put(at + "wireless", field(null, "another field is no clash"))
                        .status())
                .isEqualTo(200);
        assertThat(owner.put(at + "ports", field("2 USB-C", "3 USB-C")).status())
                .isEqualTo(200);
    }

    @Test
    void whatAFieldCannotBeIsSaid() {
        long id = owner.post("/api/models", model("Quenby", "Folio 17"))
                .body()
                .path("model")
                .path("id")
                .asLong();
        String at = "/api/models/" + id + "/fields/";
        assertThat(owner.put(at + "released", field("2025-05-08", "2190-01-01")).detail())
                .contains("2190");
        assertThat(owner.put(at + "weight", field(null, "28 W")).detail()).contains("unit of power");
        assertThat(owner.put(at + "price", field("1299.5 EUR", "cheap")).detail())
                .contains("no price");
        assertThat(owner.put(at + "name", field("Folio 17", " ")).code()).isEqualTo("empty");
        assertThat(owner.put(at + "deviceClass", field("LAPTOP", "toaster")).detail())
                .contains("laptop");
        assertThat(owner.put(at + "colour", field(null, "red")).status()).isEqualTo(404);
        assertThat(owner.put(at + "screen", field(null, "x".repeat(301))).code())
                .isEqualTo("too-long");
    }

    @Test
    void modelsAreFoundByAnyFactOfTheirConfigurations() {
        long id = owner.post("/api/models", model("Larkspur", "Slate 21"))
                .body()
                .path("model")
                .path("id")
                .asLong();
        long unit = owner.post("/api/models/" + id + "/units", Map.of("label", "Tag 0815"))
                .body()
                .path("units")
                .get(0)
                .path("id")
                .asLong();
        owner.post(
                "/api/units/" + unit + "/configurations",
                Map.of(
                        "facts",
                        List.of(
                                Map.of("key", "processor.name", "text", "Brae 21x", "read", false),
                                Map.of("key", "memory.size", "text", "24 GB", "read", false))));
        assertThat(owner.get("/api/models?q=brae%2021x%2024")
                        .body()
                        .path("total")
                        .asInt())
                .isEqualTo(1);
        assertThat(owner.get("/api/models?q=0815").body().path("total").asInt()).isEqualTo(1);
        String at = "/api/models?q=slate%2021&fact=memory.size&relation=";
        assertThat(owner.get(at + "AT_LEAST&value=20%20GiB")
                        .body()
                        .path("total")
                        .asInt())
                .isEqualTo(1);
        assertThat(owner.get(at + "AT_MOST&value=20%20GiB").body().path("total").asInt())
                .isZero();
        assertThat(owner.get(at + "IS&value=24%20GB").body().path("total").asInt())
                .isEqualTo(1);
        assertThat(owner.get("/api/models?q=slate%2021&fact=os.name")
                        .body()
                        .path("total")
                        .asInt())
                .isZero();
        assertThat(owner.get(at + "AT_LEAST&value=20%20GHz").detail()).contains("unit of frequency");
        assertThat(owner.get("/api/models?fact=processor.name&relation=AT_LEAST&value=x")
                        .code())
                .isEqualTo("not-a-quantity");
        assertThat(owner.get("/api/search?q=brae%2021x").body().path("configurations"))
                .hasSize(1);
        assertThat(owner.put("/api/models/" + id + "/retired", Map.of("retired", true))
                        .body()
                        .path("model")
                        .path("retired")
                        .asBoolean())
                .isTrue();
        assertThat(owner.get("/api/models?q=slate%2021").body().path("total").asInt())
                .isZero();
        assertThat(owner.get("/api/models?q=slate%2021&retired=true")
                        .body()
                        .path("total")
                        .asInt())
                .isEqualTo(1);
    }

    @Test
    void unitsThatMustGoBackSoonAreTold() {
        long id = owner.post("/api/models", model("Dunlin", "Wader 31"))
                .body()
                .path("model")
                .path("id")
                .asLong();
        long unit = owner.post("/api/models/" + id + "/units", Map.of("label", "On loan"))
                .body()
                .path("units")
                .get(0)
                .path("id")
                .asLong();
        String soon = LocalDate.now(clock).plusDays(3).toString();
        assertThat(owner.put("/api/units/" + unit + "/fields/dueBack", field(null, soon))
                        .status())
                .isEqualTo(200);
        JsonNode due = owner.get("/api/units/due?days=7").body();
        assertThat(due).hasSize(1);
        assertThat(due.get(0).path("daysLeft").asInt()).isEqualTo(3);
        assertThat(owner.get("/api/units/due?days=2").body()).isEmpty();
        owner.put("/api/units/" + unit + "/retired", Map.of("retired", true));
        assertThat(owner.get("/api/units/due?days=7").body()).isEmpty();
    }

    @Test
    void theLastChangeIsTakenBackAndNoOther() {
        long id = owner.post("/api/models", model("Pellow", "Drift 41"))
                .body()
                .path("model")
                .path("id")
                .asLong();
        owner.put("/api/models/" + id + "/fields/screen", field(null, "matt"));
        owner.put("/api/models/" + id + "/fields/screen", field("matt", "glossy"));
        JsonNode history = owner.get("/api/history/model/" + id).body().path("rows");
        assertThat(history).hasSize(3);
        assertThat(history.get(0).path("last").asBoolean()).isTrue();
        assertThat(history.get(0).path("changes").get(0).path("field").asString())
                .isEqualTo("Screen");
        String undo = "/api/history/model/" + id + "/undo";
        assertThat(owner.post(undo, Map.of("change", history.get(1).path("id").asString()))
                        .code())
                .isEqualTo("not-the-last");
        assertThat(owner.post(undo, Map.of("change", history.get(0).path("id").asString()))
                        .status())
                .isEqualTo(200);
        assertThat(shown(owner.get("/api/models/" + id).body(), "screen")).isEqualTo("matt");
        JsonNode after = owner.get("/api/history/model/" + id).body().path("rows");
        assertThat(after.get(0).path("undo").asBoolean()).isTrue();
        assertThat(after.get(1).path("undoneBy").asString()).isEqualTo(Client.NAME);
        owner.post(undo, Map.of("change", after.get(2).path("id").asString()));
        owner.post("/api/models/" + id + "/units", Map.of("label", "Unit 1"));
        String made = owner.get("/api/history/model/" + id)
                .body()
                .path("rows")
                .get(4)
                .path("id")
                .asString();
        assertThat(owner.post(undo, Map.of("change", made)).code())
                .as("a unit hangs on it")
                .isEqualTo("has-units");
        assertThat(owner.delete("/api/models/" + id).code()).isEqualTo("has-units");
    }

    @Test
    void aPhotoIsDrawnAnewAndNothingElseIsTaken() throws IOException {
        long id = owner.post("/api/models", model("Hawkmoor", "Beacon 51"))
                .body()
                .path("model")
                .path("id")
                .asLong();
        String at = "/api/models/" + id + "/photo";
        BufferedImage image = new BufferedImage(2000, 1000, BufferedImage.TYPE_INT_RGB);
        ByteArrayOutputStream png = new ByteArrayOutputStream();
        ImageIO.write(image, "png", png);
        String hash = owner.postBytes(at, png.toByteArray())
                .body()
                .path("model")
                .path("photo")
                .asString();
        Client.Answer photo = owner.get("/api/files/" + hash);
        assertThat(photo.raw().headers().firstValue("Content-Type")).contains("image/jpeg");
        assertThat(photo.raw().headers().firstValue("X-Content-Type-Options")).contains("nosniff");
        assertThat(photo.raw().headers().firstValue("Content-Security-Policy").orElse(""))
                .contains("sandbox");
        assertThat(owner.postBytes(at, "<svg xmlns='http://www.w3.org/2000/svg'><script>1</script></svg>".getBytes())
                        .detail())
                .contains("SVG");
        assertThat(owner.postBytes(at, "no picture at all".getBytes()).code()).isEqualTo("not-a-photo");
        assertThat(owner.postBytes(at, Arrays.copyOf(png.toByteArray(), 60)).code())
                .isEqualTo("not-a-photo");
        assertThat(owner.postBytes(at, new byte[40 * 1024 * 1024]).status()).isEqualTo(413);
        assertThat(owner.get("/api/models/" + id)
                        .body()
                        .path("model")
                        .path("photo")
                        .asString())
                .as("the good one stays")
                .isEqualTo(hash);
        assertThat(new Client(port).get("/api/files/" + hash).status()).isEqualTo(401);
    }

    @Test
    void checklistsAreEditedAndTheSecondEditorIsTold() {
        JsonNode lists = owner.get("/api/checklists").body();
        assertThat(lists).hasSize(6);
        Map<String, Object> change = Map.of(
                "seen",
                Client.JSON.convertValue(lists.get(5).path("items"), List.class),
                "items",
                List.of("Feet dry", " "));
        String at = "/api/checklists/" + lists.get(5).path("deviceClass").asString();
        assertThat(owner.put(at, change).body().get(5).path("items")).hasSize(1);
        Client.Answer second = owner.put(at, change);
        assertThat(second.code()).isEqualTo("changed-meanwhile");
        assertThat(second.body().path("now").get(0).asString()).isEqualTo("Feet dry");
    }

    @Test
    void claimsStandBesideWhatWasFound() {
        long id = owner.post("/api/models", model("Ostler", "Cob 61"))
                .body()
                .path("model")
                .path("id")
                .asLong();
        String at = "/api/models/" + id + "/claims";
        JsonNode claims = owner.post(at, Map.of("factKey", "memory.size", "text", "32 GB", "source", "the box"))
                .body();
        assertThat(claims.get(0).path("claim").path("shown").asString()).isEqualTo("32 GiB");
        assertThat(claims.get(0).has("kept")).as("open until somebody looks").isFalse();
        long unit = owner.post("/api/models/" + id + "/units", Map.of("label", "Unit 1"))
                .body()
                .path("units")
                .get(0)
                .path("id")
                .asLong();
        owner.post(
                "/api/units/" + unit + "/configurations",
                Map.of("facts", List.of(Map.of("key", "memory.size", "text", "16 GB", "read", false))));
        JsonNode found = owner.get(at).body().get(0);
        assertThat(found.path("kept").asBoolean()).isFalse();
        assertThat(found.path("found").asString()).isEqualTo("16 GiB");
        assertThat(owner.post(at, Map.of("factKey", "memory.size", "text", "lots", "source", "the box"))
                        .code())
                .isEqualTo("not-understood");
        assertThat(owner.post(at, Map.of("text", "1", "source", "the box")).code())
                .isEqualTo("which-claim");
        assertThat(owner.delete(at + "/" + found.path("claim").path("id").asLong())
                        .body())
                .isEmpty();
    }

    @Test
    void twinsAreRefusedWhateverTheirCase() {
        owner.post("/api/models", model("Ostler", "Cob mini"));
        assertThat(owner.post("/api/models", model("ostler", "COB MINI")).code())
                .isEqualTo("model-exists");
    }

    @Test
    void whatIsWrongIsNamedFieldByField() {
        Map<String, Object> bad = model("", "x".repeat(5_000));
        bad.put("price", -3);
        bad.put("currency", "euro");
        Client.Answer answer = owner.post("/api/models", bad);
        assertThat(answer.status()).isEqualTo(400);
        assertThat(answer.detail())
                .contains("maker")
                .contains("name")
                .contains("price")
                .contains("currency");
        Map<String, Object> future = model("Pellow", "Drift 90");
        future.put("released", "2190-01-01");
        assertThat(owner.post("/api/models", future).detail()).contains("2190");
        Map<String, Object> half = model("Pellow", "Drift 91");
        half.remove("currency");
        assertThat(owner.post("/api/models", half).code()).isEqualTo("price-without-currency");
        assertThat(owner.get("/api/models?q=Drift%209").body().path("total").asInt())
                .isZero();
    }

    @Test
    void searchWordsAreTextAndNoPattern() {
        owner.post("/api/models", model("Dunlin", "100% Wader_12!"));
        assertThat(owner.get("/api/models?q=100%25%20wader_1")
                        .body()
                        .path("total")
                        .asInt())
                .isEqualTo(1);
        assertThat(owner.get("/api/models?q=1%25Wader*").body().path("total").asInt())
                .isZero();
        assertThat(owner.get("/api/models?q='%20or%20''='").body().path("total").asInt())
                .isZero();
    }

    @Test
    void unitsHaveLabelsOfTheirOwn() {
        long id = owner.post("/api/models", model("Hawkmoor", "Ridge"))
                .body()
                .path("model")
                .path("id")
                .asLong();
        assertThat(owner.post("/api/models/" + id + "/units", Map.of("label", "On loan"))
                        .body()
                        .path("units"))
                .hasSize(1);
        assertThat(owner.post("/api/models/" + id + "/units", Map.of("label", "on loan"))
                        .code())
                .isEqualTo("unit-exists");
        assertThat(owner.get("/api/models/987654").detail()).contains("987654");
    }
}
