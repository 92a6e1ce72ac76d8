package yarrowmark.server.ledger;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.Collections;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.boot.test.web.server.LocalServerPort;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.ServerTest;

@ServerTest
class LedgerImportTest {
    private static final AtomicInteger NUMBER = new AtomicInteger();
    private static final String HEADER = "maker,model,class,unit,configuration,fact:firmware.version,suite,version,mode,test,measure unit,direction,session,started,run,state,reason,value,note\r\n";

    @LocalServerPort
    private int port;
    private Client owner;
    private String model;
    private String suite;

    @BeforeEach
    void namesOfTheirOwn() {
        owner = Client.owner(port);
        int number = NUMBER.incrementAndGet();
        model = "Spar i" + number;
        suite = "Sluice i" + number;
    }

    private String row(String test, String unit, String direction, int run, String state, String value, String note) {
        return "Pellow," + model + ",board,Unit 1,as sent,1.04," + suite + ",2,64 bit," + test + "," + unit + "," + direction + ",Field round,2026-03-01T09:10:00Z," + run + "," + state + ",,"
            + value + "," + note + "\r\n";
    }

    private String file() {
        return HEADER + row("Copy", "GB/s", "more", 1, "ok", "21.4", "") + row("Copy", "GB/s", "more", 2, "ok", "21.6", "") + row("Export", "s", "less", 1, "failed", "", "crashed");
    }

    private Client.Answer send(String path, byte[] file, boolean make) {
        return owner.postBytes("/api/ledger/" + path + "?make=" + make, file);
    }

    private Client.Answer send(String path, String file, boolean make) {
        return send(path, file.getBytes(StandardCharsets.UTF_8), make);
    }

    private int inLedger() {
        JsonNode models = owner.get("/api/models?q=" + model.replace(" ", "%20")).body();
        return models.path("total").asInt() == 0 ? 0 : owner.get("/api/ledger?model=" + models.path("rows").get(0).path("id").asLong()).body().path("total").asInt();
    }

    @Test
    void aFileIsLookedAtFirstAndStoredOnceHoweverOftenItComes() {
        JsonNode preview = send("preview/import", file(), true).body();
        assertThat(preview.path("readings").asInt()).isEqualTo(2);
        assertThat(preview.path("withoutValue").asInt()).isEqualTo(1);
        assertThat(preview.path("newModels").get(0).asString()).isEqualTo("Pellow " + model);
        assertThat(preview.path("newSuites").get(0).asString()).isEqualTo(suite + " 2, 64 bit");
        assertThat(preview.path("newTests").asInt()).isEqualTo(2);
        assertThat(inLedger()).as("looking stores nothing").isZero();

        Client.Answer stored = send("import", file(), true);
        assertThat(stored.status()).as(stored.detail()).isEqualTo(200);
        assertThat(inLedger()).isEqualTo(3);
        JsonNode again = send("import", file(), true).body();
        assertThat(again.path("there").asInt()).isEqualTo(3);
        assertThat(again.path("readings").asInt()).isZero();
        assertThat(inLedger()).isEqualTo(3);
    }

    @Test
    void whatIsExportedImportsToTheSameLedger() {
        send("import", file(), true);
        long id = owner.get("/api/models?q=" + model.replace(" ", "%20")).body().path("rows").get(0).path("id").asLong();
        String exported = owner.get("/api/ledger/csv?model=" + id).raw().body();
        JsonNode back = send("preview/import", exported, false).body();
        assertThat(back.path("refusedTotal").asInt()).as(back.path("refused").toString()).isZero();
        assertThat(back.path("there").asInt()).isEqualTo(3);
        JsonNode elsewhere = send("import", exported.replace(model, model + " twin"), true).body();
        assertThat(elsewhere.path("readings").asInt()).isEqualTo(2);
        model = model + " twin";
        assertThat(inLedger()).isEqualTo(3);
    }

    @Test
    void nothingUnknownIsMadeUnlessSaidSo() {
        JsonNode preview = send("preview/import", file(), false).body();
        assertThat(preview.path("refusedTotal").asInt()).isEqualTo(3);
        assertThat(preview.path("refused").get(0).path("line").asInt()).isEqualTo(2);
        assertThat(preview.path("refused").get(0).path("column").asString()).isEqualTo("model");
        assertThat(send("import", file(), false).code()).isEqualTo("rows-refused");
        assertThat(inLedger()).isZero();
    }

    @Test
    void everyBadRowIsToldWithLineColumnValueAndReasonAndNothingIsStored() {
        String bad = file() + row("Copy", "GB/s", "more", 3, "ok", "fast", "") + row("Copy", "MB/s", "more", 4, "ok", "21", "") + row("Copy", "GB/s", "more", 0, "ok", "21", "")
            + row("Copy", "GB/s", "more", 5, "maybe", "21", "") + row("Copy", "GB/s", "more", 6, "ok", "", "") + "Pellow," + model + "\r\n"
            + row("Copy", "GB/s", "more", 7, "ok", "-3", "").replace("2026-03-01T09:10:00Z", "yesterday");
        JsonNode refused = send("preview/import", bad, true).body().path("refused");
        assertThat(refused).extracting(r -> r.path("line").asInt() + " " + r.path("column").asString())
            .containsExactly("5 value", "6 measure unit", "7 run", "8 state", "9 state", "10 ", "11 started");
        assertThat(refused.get(0).path("value").asString()).isEqualTo("fast");
        assertThat(send("import", bad, true).detail()).contains("line 5");
        assertThat(inLedger()).isZero();
    }

    @Test
    void theSameRunInTwoRowsIsRefusedWithTheLineOfTheFirst() {
        JsonNode refused = send("preview/import", file() + row("Copy", "GB/s", "more", 2, "ok", "21.7", ""), true).body().path("refused");
        assertThat(refused).hasSize(1);
        assertThat(refused.get(0).path("line").asInt()).isEqualTo(5);
        assertThat(refused.get(0).path("reason").asString()).contains("Line 3");
    }

    @Test
    void aValueThatTheLedgerKnowsOtherwiseIsRefused() {
        send("import", file(), true);
        JsonNode preview = send("preview/import", file().replace("21.6", "26.1"), true).body();
        assertThat(preview.path("refused").get(0).path("reason").asString()).contains("21.6");
    }

    @Test
    void filesComeInManyShapes() {
        byte[] marked = ("\uFEFF" + file()).getBytes(StandardCharsets.UTF_8);
        assertThat(send("preview/import", marked, true).body().path("readings").asInt()).isEqualTo(2);
        assertThat(send("preview/import", file().replace(',', ';').replace("\r\n", "\n"), true).body().path("readings").asInt()).isEqualTo(2);
        assertThat(send("preview/import", file().replace("as sent", "\"as, sent \"\"new\"\"\""), true).body().path("refusedTotal").asInt()).isZero();
        JsonNode more = send("preview/import", file().replace("note\r\n", "colour\r\n"), true).body();
        assertThat(more.path("ignored").get(0).asString()).isEqualTo("colour");
    }

    @ParameterizedTest
    @ValueSource(strings = {"", " \n", "maker,model\nPellow,Spar\n", "maker,maker,model,suite,version,test,started\n", "maker,model,suite,version,test,started\n\"open,quote\n"})
    void whatIsNoSuchFileIsRefusedInWords(String text) {
        Client.Answer answer = send("preview/import", text, true);
        assertThat(answer.status()).isIn(400, 422);
        assertThat(answer.detail()).isNotBlank();
    }

    @Test
    void otherAlphabetsAMillionColumnsAndAGigabyteAreRefused() {
        byte[] latin = file().replace("crashed", "st\u00fcrzt ab").getBytes(StandardCharsets.ISO_8859_1);
        assertThat(send("preview/import", latin, true).detail()).contains("line 4").contains("UTF-8");
        assertThat(send("preview/import", String.join(",", Collections.nCopies(1_000_000, "a")), true).code()).isEqualTo("too-many-columns");
        assertThat(send("preview/import", new byte[130 * 1024 * 1024], true).status()).isEqualTo(413);
    }
}
