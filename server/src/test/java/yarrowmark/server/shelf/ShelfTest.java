package yarrowmark.server.shelf;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.boot.test.web.server.LocalServerPort;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.ServerTest;

@ServerTest
class ShelfTest {
    @LocalServerPort
    private int port;
    private Client owner;

    @BeforeEach
    void signIn() {
        owner = Client.owner(port);
    }

    private static Map<String, Object> model(String maker, String name) {
        return new HashMap<>(Map.of("maker", maker, "name", name, "deviceClass", "LAPTOP", "price", 1299.5, "currency", "EUR", "released", "2025-05-08"));
    }

    @Test
    void aModelIsMadeFoundAndChanged() {
        JsonNode made = owner.post("/api/models", model("Quenby", "Folio 14")).body().path("model");
        assertThat(made.path("price").asDouble()).isEqualTo(1299.5);
        assertThat(owner.get("/api/models?q=enby%20fol").body().path("total").asInt()).isEqualTo(1);
        assertThat(owner.get("/api/models?q=folio&deviceClass=PHONE").body().path("total").asInt()).isZero();

        Map<String, Object> changed = model("Quenby", "Folio 14");
        changed.put("price", 1199);
        Client.Answer ok = owner.put("/api/models/" + made.path("id").asLong(), Map.of("version", made.path("version").asInt(), "model", changed));
        assertThat(ok.body().path("model").path("price").asInt()).isEqualTo(1199);
        Client.Answer second = owner.put("/api/models/" + made.path("id").asLong(), Map.of("version", made.path("version").asInt(), "model", changed));
        assertThat(second.status()).isEqualTo(409);
        assertThat(second.code()).isEqualTo("changed-meanwhile");
    }

    @Test
    void twinsAreRefusedWhateverTheirCase() {
        owner.post("/api/models", model("Ostler", "Cob mini"));
        assertThat(owner.post("/api/models", model("ostler", "COB MINI")).code()).isEqualTo("model-exists");
    }

    @Test
    void whatIsWrongIsNamedFieldByField() {
        Map<String, Object> bad = model("", "x".repeat(5_000));
        bad.put("price", -3);
        bad.put("currency", "euro");
        Client.Answer answer = owner.post("/api/models", bad);
        assertThat(answer.status()).isEqualTo(400);
        assertThat(answer.detail()).contains("maker").contains("name").contains("price").contains("currency");
        Map<String, Object> future = model("Pellow", "Drift 90");
        future.put("released", "2190-01-01");
        assertThat(owner.post("/api/models", future).detail()).contains("2190");
        Map<String, Object> half = model("Pellow", "Drift 91");
        half.remove("currency");
        assertThat(owner.post("/api/models", half).code()).isEqualTo("price-without-currency");
        assertThat(owner.get("/api/models?q=Drift%209").body().path("total").asInt()).isZero();
    }

    @Test
    void searchWordsAreTextAndNoPattern() {
        owner.post("/api/models", model("Dunlin", "100% Wader_12!"));
        assertThat(owner.get("/api/models?q=100%25%20wader_1").body().path("total").asInt()).isEqualTo(1);
        assertThat(owner.get("/api/models?q=1%25Wader").body().path("total").asInt()).isZero();
        assertThat(owner.get("/api/models?q='%20or%20''='").body().path("total").asInt()).isZero();
    }

    @Test
    void unitsHaveLabelsOfTheirOwn() {
        long id = owner.post("/api/models", model("Hawkmoor", "Ridge")).body().path("model").path("id").asLong();
        assertThat(owner.post("/api/models/" + id + "/units", Map.of("label", "On loan")).body().path("units")).hasSize(1);
        assertThat(owner.post("/api/models/" + id + "/units", Map.of("label", "on loan")).code()).isEqualTo("unit-exists");
        assertThat(owner.get("/api/models/987654").detail()).contains("987654");
    }
}
