package yarrowmark.server.ledger.table;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.boot.test.web.server.LocalServerPort;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.ServerTest;

/** A spreadsheet of years, from the file to the ledger. */
@ServerTest
class TableImportTest {
    private static final AtomicInteger NUMBER = new AtomicInteger();

    @LocalServerPort
    private int port;

    private Client owner;
    /** Names of its own for each test: they share the records. */
    private String t;

    @BeforeEach
    void signIn() {
        owner = Client.owner(port);
        t = "T" + NUMBER.incrementAndGet();
    }

    private String sheet() {
        return """
                Device;Tested;Price;CPU;RAM;Export;Archive 1;Archive 2;Average
                Ostler Cob T;12.03.26;799 €;Corvane 7;16 GB;58;96,2;95,8;83,3
                Ostler Fell T;14.03.26;379 €;Corvane 3;8 GB;1:12;141,0;139,5;117,5
                Tarn Nook T;20.03.26;449 €;Brae 5;16;crash on export;118,9;120,2;119,6
                """
                .replace(" T;", " " + t + ";");
    }

    private Client.Answer read(String file) {
        return owner.postBytes(
                "/api/tables?name=minis-" + t + ".csv&written=2026-05-01", file.getBytes(StandardCharsets.UTF_8));
    }

    private Client.Answer again(JsonNode answer, JsonNode layout) {
        ObjectNode question = Client.JSON.createObjectNode().put("sheet", 0);
        question.set("layout", layout);
        return owner.post("/api/tables/" + answer.path("id").asString(), question);
    }

    private JsonNode store(JsonNode answer) {
        ObjectNode order = Client.JSON.createObjectNode().put("sheet", 0);
        order.set("layout", answer.path("layout"));
        Client.Answer begun = owner.post("/api/tables/" + answer.path("id").asString() + "/import", order);
        assertThat(begun.status()).as(begun.raw().body()).isEqualTo(200);
        long end = System.nanoTime() + Duration.ofMinutes(1).toNanos();
        while (System.nanoTime() < end) {
            JsonNode state = owner.get(
                            "/api/ledger/import/" + begun.body().path("id").asString())
                    .body();
            if (state.has("outcome") || state.has("problem")) {
                return state;
            }
        }
        throw new AssertionError("the import is not done");
    }

    private JsonNode model(String name) {
        JsonNode rows =
                owner.get("/api/models?q=" + name.replace(" ", "%20")).body().path("rows");
        assertThat(rows).hasSize(1);
        return rows.get(0);
    }

    @Test
    void aSheetBecomesModelsFactsScoresAndStates() {
        Client.Answer read = read(sheet());
        assertThat(read.status()).as(read.raw().body()).isEqualTo(200);
        JsonNode answer = read.body();
        assertThat(answer.path("devices").asInt()).isEqualTo(3);
        assertThat(answer.path("scores").asInt()).isEqualTo(8);
        assertThat(answer.path("states").asInt()).isEqualTo(1);
        assertThat(answer.path("unread").asInt()).isZero();
        assertThat(answer.path("toSay")).isEmpty();
        assertThat(answer.path("outcome").path("newModels")).hasSize(3);
        assertThat(answer.path("outcome").path("refusedTotal").asInt())
                .as(read.raw().body())
                .isZero();
        assertThat(owner.get("/api/models?q=Cob%20" + t).body().path("total").asInt())
                .as("nothing is stored yet")
                .isZero();

        JsonNode stored = store(answer);
        assertThat(stored.path("outcome").path("readings").asInt())
                .as(stored.toString())
                .isEqualTo(8);
        JsonNode cob = model("Cob " + t);
        assertThat(cob.path("price").asInt()).isEqualTo(799);
        assertThat(cob.path("deviceClass").asString()).isEqualTo("MINI");
        JsonNode lines = owner.get(
                        "/api/ledger?model=" + model("Nook " + t).path("id").asLong())
                .body()
                .path("rows");
        assertThat(lines.toString()).contains("crash on export").contains("2026-03-20");

        // The same file again adds nothing; with one row more, only that.
        JsonNode same = read(sheet()).body();
        assertThat(same.path("outcome").path("there").asInt()).isEqualTo(9);
        assertThat(same.path("outcome").path("readings").asInt()).isZero();
        JsonNode more = read(sheet() + "Larkspur Peg " + t + ";03.04.26;549 €;Corvane 5;16 GB;64;109,3;108,8;94\n")
                .body();
        assertThat(more.path("outcome").path("newModels")).hasSize(1);
        assertThat(more.path("outcome").path("readings").asInt()).isEqualTo(3);
        assertThat(store(more).path("outcome").path("readings").asInt()).isEqualTo(3);
    }

    @Test
    void aNewColumnOfTheNextYearJoinsTheSuiteThatIsThere() {
        store(read(sheet()).body());
        String next = sheet().replace(";Average", ";Sync")
                .replaceAll("(?m);[\\d,]+$", ";12,5")
                .replace(".26;", ".25;");
        JsonNode answer = read(next).body();
        assertThat(answer.path("outcome").path("newTests").asInt()).isEqualTo(1);
        JsonNode stored = store(answer);
        assertThat(stored.path("outcome").path("readings").asInt())
                .as(stored.toString())
                .isEqualTo(11);
        assertThat(owner.get("/api/tests").raw().body()).contains("Sync");
    }

    @Test
    void whatSomebodySaysOfAColumnIsWhatIsStored() {
        JsonNode answer = read(sheet().replace("mini", "x")).body();
        ObjectNode layout = (ObjectNode) answer.path("layout").deepCopy();
        ArrayNode columns = (ArrayNode) layout.path("columns");
        ((ObjectNode) columns.get(5)).put("role", "IGNORED").put("name", "");
        layout.put("deviceClass", "laptop");
        JsonNode changed = again(answer, layout).body();
        assertThat(changed.path("scores").asInt()).isEqualTo(6);
        assertThat(changed.path("states").asInt()).isZero();
        assertThat(store(changed).path("outcome").path("readings").asInt()).isEqualTo(6);
        assertThat(model("Fell " + t).path("deviceClass").asString()).isEqualTo("LAPTOP");
    }

    @Test
    void aTableWithAScoreARowIsReadAsOneWithADeviceARow() {
        JsonNode answer =
                read("""
                Device,Test,Unit,Value
                Ostler Cob T,Export,s,58
                Ostler Cob T,Export,s,59
                Ostler Fell T,Export,s,72
                """
                                .replace(" T,", " " + t + ","))
                        .body();
        assertThat(answer.path("devices").asInt()).isEqualTo(2);
        assertThat(answer.path("scores").asInt()).isEqualTo(3);
        assertThat(store(answer).path("outcome").path("readings").asInt()).isEqualTo(3);
    }

    @Test
    void aNameThatIsNearlyOneOfTheShelfIsAskedAbout() {
        store(read(sheet()).body());
        JsonNode answer =
                read(sheet().replace("Ostler Cob " + t, "Ostlr Cob " + t)).body();
        JsonNode asked = answer.path("names").get(0);
        assertThat(asked.path("name").asString()).isEqualTo("Ostlr Cob " + t);
        assertThat(asked.path("model").asString()).isEqualTo("Cob " + t);
        ObjectNode layout = (ObjectNode) answer.path("layout").deepCopy();
        ((ObjectNode) layout.path("names")).put("Ostlr Cob " + t, "Ostler\tCob " + t);
        JsonNode decided = again(answer, layout).body();
        assertThat(decided.path("names")).isEmpty();
        assertThat(decided.path("outcome").path("newModels")).isEmpty();
    }

    @Test
    void whatIsMissingIsAskedForAndHostileLayoutsAreRefused() {
        JsonNode unclear = owner.postBytes(
                        "/api/tables?name=a.csv",
                        ("Device;Export\nOstler Dray " + t + ";5\n").getBytes(StandardCharsets.UTF_8))
                .body();
        assertThat(unclear.path("toSay").get(0).asString()).isEqualTo("Say what class the new models are.");
        assertThat(unclear.has("outcome")).isFalse();
        assertThat(store(unclear).path("code").asString()).isEqualTo("table-unclear");

        ObjectNode layout = (ObjectNode) unclear.path("layout").deepCopy();
        layout.put("lastRow", 5_000_000);
        assertThat(again(unclear, layout).body().path("code").asString()).isEqualTo("layout-outside");
        assertThat(owner.post(
                                "/api/tables/" + unclear.path("id").asString(),
                                Client.JSON.createObjectNode().put("sheet", 7))
                        .status())
                .isEqualTo(404);
        assertThat(owner.post("/api/tables/none", Client.JSON.createObjectNode().put("sheet", 0))
                        .status())
                .isEqualTo(404);
        layout.put("lastRow", 1);
        ((ObjectNode) layout.path("columns").get(0)).remove("name");
        assertThat(again(unclear, layout).status())
                .as("a column without a name")
                .isEqualTo(400);
        assertThat(read(" ").body().path("code").asString()).isEqualTo("file-empty");
    }

    @Test
    void whatAModelDoesNotTakeStopsTheWholeWithItsRow() {
        JsonNode answer = read("Device;Released;Export\nOstler Cob " + t + ";2099-01-01;58\n")
                .body();
        JsonNode state = store(answer);
        assertThat(state.path("problem").asString())
                .startsWith("Row 2, released: ")
                .endsWith("Nothing was stored.");
        assertThat(owner.get("/api/models?q=Cob%20" + t).body().path("total").asInt())
                .isZero();
    }
}
