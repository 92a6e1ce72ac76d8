package yarrowmark.server.ledger.exchange;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.Lab;
import yarrowmark.server.support.ServerTest;

@ServerTest
class LedgerImportTest {
    private static final AtomicInteger NUMBER = new AtomicInteger();
    private static final String HEADER =
            "maker,model,class,unit,configuration,fact:firmware.version,suite,version,mode,test,measure unit,direction,session,started,run,state,reason,value,note\r\n";

    @LocalServerPort
    private int port;

    private Client owner;

    @Autowired
    private LedgerImport imports;

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
        return "Pellow," + model + ",board,Unit 1,as sent,1.04," + suite + ",2,64 bit," + test + "," + unit + ","
                + direction + ",Field round,2026-03-01T09:10:00Z," + run + "," + state + ",," + value + "," + note
                + "\r\n";
    }

    private String file() {
        return HEADER
                + row("Copy", "GB/s", "more", 1, "ok", "21.4", "")
                + row("Copy", "GB/s", "more", 2, "ok", "21.6", "")
                + row("Export", "s", "less", 1, "failed", "", "crashed");
    }

    /** Sends a file and asks until it is done; the answer is the outcome, or the problem. */
    private Client.Answer send(String path, byte[] file, boolean make) {
        Client.Answer begun =
                owner.postBytes("/api/ledger/import?make=" + make + "&store=" + path.equals("import"), file);
        if (begun.status() != 200) {
            return begun;
        }
        String id = begun.body().path("id").asString();
        long end = System.nanoTime() + Duration.ofMinutes(1).toNanos();
        while (System.nanoTime() < end) {
            JsonNode state = owner.get("/api/ledger/import/" + id).body();
            if (state.has("outcome")) {
                return new Client.Answer(200, state.path("outcome"), begun.raw());
            }
            if (state.has("problem")) {
                return new Client.Answer(
                        422,
                        Client.JSON
                                .createObjectNode()
                                .put("code", state.path("code").asString())
                                .put("detail", state.path("problem").asString()),
                        begun.raw());
            }
        }
        throw new AssertionError("the import is not done");
    }

    private Client.Answer send(String path, String file, boolean make) {
        return send(path, file.getBytes(StandardCharsets.UTF_8), make);
    }

    private long modelId() {
        return owner.get("/api/models?q=" + model.replace(" ", "%20"))
                .body()
                .path("rows")
                .get(0)
                .path("id")
                .asLong();
    }

    private int inLedger() {
        JsonNode models =
                owner.get("/api/models?q=" + model.replace(" ", "%20")).body();
        return models.path("total").asInt() == 0
                ? 0
                : owner.get("/api/ledger?model="
                                + models.path("rows").get(0).path("id").asLong())
                        .body()
                        .path("total")
                        .asInt();
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

    private int counted(long id) {
        return owner.get("/api/ledger?state=COUNTED&model=" + id)
                .body()
                .path("total")
                .asInt();
    }

    @Test
    void aWholeImportIsUndoneAndRestored() {
        JsonNode stored = send("import", file(), true).body();
        String undo = "/api/ledger/imports/" + stored.path("importId").asLong() + "/undo";
        long id = modelId();
        JsonNode undone = owner.post(undo, Map.of()).body();
        assertThat(undone.path("readings").asInt()).isEqualTo(2);
        assertThat(undone.path("kept")).isEmpty();
        assertThat(undone.path("of").path("madeModels").asInt()).isOne();
        assertThat(counted(id)).isZero();
        assertThat(owner.get("/api/ledger?state=SET_ASIDE&model=" + id).body().toString())
                .contains("Its import was undone");
        assertThat(owner.get("/api/models/" + id)
                        .body()
                        .path("model")
                        .path("retired")
                        .asBoolean())
                .isTrue();
        assertThat(owner.post(undo, Map.of()).code()).isEqualTo("undone-already");

        assertThat(owner.delete(undo).body().path("readings").asInt()).isEqualTo(2);
        assertThat(counted(id)).isEqualTo(2);
        assertThat(owner.get("/api/models/" + id)
                        .body()
                        .path("model")
                        .path("retired")
                        .asBoolean())
                .isFalse();
        assertThat(owner.delete(undo).code()).isEqualTo("not-undone");
        assertThat(owner.post("/api/ledger/imports/987654/undo", Map.of()).status())
                .isEqualTo(404);
    }

    @Test
    void anUndoLeavesWhatSomethingElseWasMeasuredOnAndNamesIt() {
        long first = send("import", file(), true).body().path("importId").asLong();
        send("import", file().replace("2026-03-01", "2026-03-02"), true);
        JsonNode undone =
                owner.post("/api/ledger/imports/" + first + "/undo", Map.of()).body();
        assertThat(undone.path("readings").asInt()).isEqualTo(2);
        assertThat(undone.path("kept").get(0).asString()).isEqualTo("Pellow " + model + ", as sent");
        assertThat(counted(modelId())).as("those of the second").isEqualTo(2);
        assertThat(owner.get("/api/models/" + modelId())
                        .body()
                        .path("model")
                        .path("retired")
                        .asBoolean())
                .isFalse();
    }

    @Test
    void whatSomebodyHadRetiredBeforeTheUndoStaysRetiredAfterIt() {
        long first = send("import", file(), true).body().path("importId").asLong();
        long id = modelId();
        assertThat(owner.put("/api/models/" + id + "/retired", Map.of("retired", true))
                        .status())
                .isEqualTo(200);
        String undo = "/api/ledger/imports/" + first + "/undo";
        owner.post(undo, Map.of());
        owner.delete(undo);
        JsonNode page = owner.get("/api/models/" + id).body();
        assertThat(page.path("model").path("retired").asBoolean()).isTrue();
        assertThat(page.path("units")
                        .get(0)
                        .path("configurations")
                        .get(0)
                        .path("retired")
                        .asBoolean())
                .as("retired by the undo alone")
                .isFalse();
    }

    @Test
    void anImportThatAddsNothingIsNoneThatCouldBeUndone() {
        send("import", file(), true);
        assertThat(send("import", file(), true).body().has("importId")).isFalse();
        JsonNode newest = owner.get("/api/ledger/imports").body().get(0);
        assertThat(newest.path("readings").asInt()).isEqualTo(2);
        assertThat(newest.path("person").asString()).isNotEmpty();
    }

    @Test
    void whatIsExportedImportsToTheSameLedger() {
        send("import", file(), true);
        long id = owner.get("/api/models?q=" + model.replace(" ", "%20"))
                .body()
                .path("rows")
                .get(0)
                .path("id")
                .asLong();
        String exported = owner.get("/api/ledger/csv?model=" + id).raw().body();
        JsonNode back = send("preview/import", exported, false).body();
        assertThat(back.path("refusedTotal").asInt())
                .as(back.path("refused").toString())
                .isZero();
        assertThat(back.path("there").asInt()).isEqualTo(3);
        JsonNode elsewhere =
                send("import", exported.replace(model, model + " twin"), true).body();
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
        String bad = file() + row("Copy", "GB/s", "more", 3, "ok", "fast", "")
                + row("Copy", "MB/s", "more", 4, "ok", "21", "") + row("Copy", "GB/s", "more", 0, "ok", "21", "")
                + row("Copy", "GB/s", "more", 5, "maybe", "21", "") + row("Copy", "GB/s", "more", 6, "ok", "", "")
                + "Pellow," + model + "\r\n"
                + row("Copy", "GB/s", "more", 7, "ok", "-3", "").replace("2026-03-01T09:10:00Z", "yesterday");
        JsonNode refused = send("preview/import", bad, true).body().path("refused");
        assertThat(refused)
                .extracting(r -> r.path("line").asInt() + " " + r.path("column").asString())
                .containsExactly("5 value", "6 measure unit", "7 run", "8 state", "9 state", "10 ", "11 started");
        assertThat(refused.get(0).path("value").asString()).isEqualTo("fast");
        assertThat(send("import", bad, true).detail()).contains("line 5");
        assertThat(inLedger()).isZero();
    }

    @Test
    void theSameRunInTwoRowsIsRefusedWithTheLineOfTheFirst() {
        JsonNode refused = send("preview/import", file() + row("Copy", "GB/s", "more", 2, "ok", "21.7", ""), true)
                .body()
                .path("refused");
        assertThat(refused).hasSize(1);
        assertThat(refused.get(0).path("line").asInt()).isEqualTo(5);
        assertThat(refused.get(0).path("reason").asString()).contains("Line 3");
    }

    @Test
    void aValueThatTheLedgerKnowsOtherwiseIsRefused() {
        send("import", file(), true);
        JsonNode preview =
                send("preview/import", file().replace("21.6", "26.1"), true).body();
        assertThat(preview.path("refused").get(0).path("reason").asString()).contains("21.6");
    }

    @Test
    void filesComeInManyShapes() {
        byte[] marked = ("\uFEFF" + file()).getBytes(StandardCharsets.UTF_8);
        assertThat(send("preview/import", marked, true).body().path("readings").asInt())
                .isEqualTo(2);
        assertThat(send("preview/import", file().replace(',', ';').replace("\r\n", "\n"), true)
                        .body()
                        .path("readings")
                        .asInt())
                .isEqualTo(2);
        assertThat(send("preview/import", file().replace("as sent", "\"as, sent \"\"new\"\"\""), true)
                        .body()
                        .path("refusedTotal")
                        .asInt())
                .isZero();
        JsonNode more = send("preview/import", file().replace("note\r\n", "colour\r\n"), true)
                .body();
        assertThat(more.path("ignored").get(0).asString()).isEqualTo("colour");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                " \n",
                "maker,model\nPellow,Spar\n",
                "maker,maker,model,suite,version,test,started\n",
                "maker,model,suite,version,test,started\n\"open,quote\n"
            })
    void whatIsNoSuchFileIsRefusedInWords(String text) {
        Client.Answer answer = send("preview/import", text, true);
        assertThat(answer.status()).isIn(400, 422);
        assertThat(answer.detail()).isNotBlank();
    }

    @Test
    void otherAlphabetsAMillionColumnsAndAGigabyteAreRefused() {
        byte[] latin = file().replace("crashed", "st\u00fcrzt ab").getBytes(StandardCharsets.ISO_8859_1);
        assertThat(send("preview/import", latin, true).detail())
                .contains("line 4")
                .contains("UTF-8");
        assertThat(send("preview/import", String.join(",", Collections.nCopies(1_000_000, "a")), true)
                        .code())
                .isEqualTo("too-many-columns");
        assertThat(send("preview/import", new byte[130 * 1024 * 1024], true).status())
                .isEqualTo(413);
    }

    @Test
    void everyKindOfReadingComesBackToTheSameLedgerAndGoesIntoAnother() {
        Lab lab = new Lab(port)
                .suite(
                        "Wakes, check\nClip, choice 720p < 1080p, Video\nRead over size, MB/s, more, curve over B, Storage\nStarted, s, less\nFirmware, s, less")
                .session(1);
        lab.owner()
                .post(
                        "/api/suite-versions/" + lab.version() + "/computed",
                        Map.of(
                                "name",
                                "System start",
                                "unit",
                                "s",
                                "direction",
                                "LESS_IS_BETTER",
                                "scale",
                                "RATIO",
                                "group",
                                "EVERYDAY",
                                "main",
                                true,
                                "formula",
                                "started - firmware",
                                "inputs",
                                Map.of("started", lab.metric(3), "firmware", lab.metric(4))));
        lab.typed(0, "fail: stays dark").typed(1, "1080p").typed(3, "14.2").typed(4, "5.1");
        lab.owner()
                .post(
                        "/api/sessions/" + lab.session() + "/points",
                        Map.of(
                                "testId",
                                lab.tests().get(2),
                                "run",
                                1,
                                "text",
                                "512; 40\n4096; 310",
                                "timestamps",
                                false));
        String exported =
                owner.get("/api/ledger/csv?session=" + lab.session()).raw().body();
        assertThat(exported.lines())
                .as("four values, the three numbers of a curve, one computed, and the heading")
                .hasSize(4 + 3 + 1 + 1);
        JsonNode same = send("preview/import", exported, false).body();
        assertThat(same.path("there").asInt() + " there, "
                        + same.path("computed").asInt() + " computed, "
                        + same.path("readings").asInt() + " new, "
                        + same.path("refusedTotal").asInt() + " refused")
                .as(same.toString())
                .isEqualTo("7 there, 1 computed, 0 new, 0 refused");
        String elsewhere = exported.replace("Saltern " + lab.number(), "Saltern twin " + lab.number());
        assertThat(send("import", elsewhere, true).body().path("readings").asInt())
                .isEqualTo(8);
        List<JsonNode> made = owner.get("/api/tests")
                .body()
                .valueStream()
                .filter(t -> t.path("suite").asString().equals("Saltern twin " + lab.number()))
                .toList();
        assertThat(made).hasSize(6);
        JsonNode curve = made.stream()
                .filter(t -> t.path("name").asString().equals("Read over size"))
                .findFirst()
                .orElseThrow();
        assertThat(curve.path("metrics")).hasSize(3);
        assertThat(curve.path("group").asString()).isEqualTo("STORAGE");
        JsonNode clip = made.stream()
                .filter(t -> t.path("name").asString().equals("Clip"))
                .findFirst()
                .orElseThrow()
                .path("metrics")
                .get(0);
        assertThat(clip.path("choices").valueStream().map(JsonNode::asString)).containsExactly("720p", "1080p");
        assertThat(send("preview/import", elsewhere, true).body().path("there").asInt())
                .as("and the same file twice adds nothing there either")
                .isEqualTo(8);
    }

    @Test
    void whatIsImportedIsComputedFrom() {
        Lab lab = new Lab(port).suite("Started, s, less\nFirmware, s, less");
        lab.owner()
                .post(
                        "/api/suite-versions/" + lab.version() + "/computed",
                        Map.of(
                                "name",
                                "System start",
                                "unit",
                                "s",
                                "direction",
                                "LESS_IS_BETTER",
                                "scale",
                                "RATIO",
                                "group",
                                "EVERYDAY",
                                "main",
                                true,
                                "formula",
                                "started - firmware",
                                "inputs",
                                Map.of("started", lab.metric(0), "firmware", lab.metric(1))));
        String head = "maker,model,class,suite,version,test,measure unit,direction,started,run,value\r\n";
        String start = "Pellow," + model + ",board,Saltern " + lab.number() + ",1,";
        String rows = start + "Started,s,less,2026-03-01T09:10:00Z,1,14.2\r\n" + start
                + "Firmware,s,less,2026-03-01T09:10:00Z,1,5.1\r\n";
        assertThat(send("import", head + rows, true).body().path("readings").asInt())
                .isEqualTo(2);
        assertThat(inLedger()).as("and the computed one").isEqualTo(3);
    }

    /** A run of a built-in test whose points are in the row. */
    private String curve(String suiteName, String test, int run, String value, String points) {
        return "maker,model,class,suite,version,test,started,run,state,value,points\r\nPellow," + model + ",board,"
                + suiteName + ",1,\"" + test + "\",2026-03-01T09:10:00Z," + run + ",ok," + value + ",\"" + points
                + "\"\r\n";
    }

    @Test
    void aCurveComesWithItsPointsAndItsNumbersAreFound() {
        String file =
                curve("Yarrow native storage", "Read by block size, direct", 1, "", "4096; 50\n16384; 120\n65536; 100");
        Client.Answer stored = send("import", file, true);
        assertThat(stored.status()).as(stored.detail()).isEqualTo(200);
        assertThat(stored.body().path("ignored")).isEmpty();
        assertThat(send("import", file, true).body().path("there").asInt()).isEqualTo(1);
        JsonNode rows = owner.get("/api/ledger?model=" + modelId()).body().path("rows");
        JsonNode peak = rows.valueStream()
                .filter(r -> r.path("value").asDouble() == 120)
                .findFirst()
                .orElseThrow();
        assertThat(owner.get("/api/readings/" + peak.path("readingId").asLong())
                        .body()
                        .toString())
                .contains("4096.0,50.0,16384.0,120.0,65536.0,100.0");
    }

    @Test
    void loopsOfAnEnduranceTestSayWhatIsSustained() {
        String loops = IntStream.range(1, 9_001)
                .mapToObj(i -> i + "; " + (i < 4_000 ? 1000 + i % 7 : 500 + i % 7))
                .collect(Collectors.joining("\n"));
        Client.Answer stored =
                send("import", curve("Yarrow native endurance", "Weir hash, native, in a loop", 1, "", loops), true);
        assertThat(stored.status()).as(stored.detail()).isEqualTo(200);
        assertThat(owner.get("/api/ledger?model=" + modelId())
                        .body()
                        .path("rows")
                        .valueStream()
                        .map(r -> r.path("value").asDouble()))
                .as("half of the speed is sustained")
                .anyMatch(v -> v > 49 && v < 51);
    }

    @Test
    void pointsThatAreNoneAreRefusedByTheirCell() {
        String sweep = "Read by block size, direct";
        for (String[] wrong : new String[][] {
            {"Yarrow native storage", sweep, "", "4096; 50", "two points or more"},
            {"Yarrow native storage", sweep, "", "4096; 50\n4096; 60", "no curve"},
            {"Yarrow native storage", sweep, "", "4096; fifty\n16384; 60", "no number"},
            {"Yarrow native storage", sweep, "12", "4096; 50\n16384; 60", "a value or points"},
            {"Yarrow native processor", "Weir hash, native, one thread", "", "4096; 50\n16384; 60", "gives a curve"},
            {suite, "New", "", "4096; 50\n16384; 60", "gives a curve"}
        }) {
            JsonNode refused = send("preview/import", curve(wrong[0], wrong[1], 1, wrong[2], wrong[3]), true)
                    .body()
                    .path("refused");
            assertThat(refused).as(wrong[4]).hasSize(1);
            assertThat(refused.get(0).path("column").asString()).isEqualTo("points");
            assertThat(refused.get(0).path("reason").asString()).contains(wrong[4]);
        }
        assertThat(inLedger()).isZero();
    }

    @Test
    void anImportIsOnlyForWhoBeganIt() {
        assertThat(owner.get("/api/ledger/import/none").status()).isEqualTo(404);
        assertThat(owner.delete("/api/ledger/import/none").status()).isEqualTo(404);
    }

    @Test
    void aCancelledImportStoresNothing() {
        ImportProgress progress = new ImportProgress();
        progress.cancel();
        int before = inLedger();
        assertThatThrownBy(() -> imports.store(file().getBytes(StandardCharsets.UTF_8), true, Client.NAME, progress))
                .hasMessageContaining("cancelled");
        ImportProgress late = new ImportProgress() {
            @Override
            public void at(Step now, int nowDone, int nowOf) {
                if (now == Step.SAMPLES) {
                    cancel();
                }
                super.at(now, nowDone, nowOf);
            }
        };
        assertThatThrownBy(() -> imports.store(file().getBytes(StandardCharsets.UTF_8), true, Client.NAME, late))
                .hasMessageContaining("cancelled");
        assertThat(inLedger())
                .as("also when everything but the samples was written")
                .isEqualTo(before);
        assertThat(owner.get("/api/models?q=" + model.replace(" ", "%20"))
                        .body()
                        .path("total")
                        .asInt())
                .isZero();
    }

    @Test
    void namesThatNoRecordHoldsAreRefusedByTheirCell() {
        for (String column : List.of("suite", "measure unit", "configuration")) {
            int most = Map.of("suite", 120, "measure unit", 30, "configuration", 200)
                    .get(column);
            String old = Map.of("suite", suite, "measure unit", "GB/s", "configuration", "as sent")
                    .get(column);
            JsonNode preview = send("preview/import", file().replace(old, "x".repeat(most + 1)), true)
                    .body();
            assertThat(preview.path("refused").get(0).path("column").asString()).isEqualTo(column);
            assertThat(preview.path("refused").get(0).path("reason").asString()).contains("At most " + most);
        }
    }

    @Test
    void aVersionMayHaveACommaOfItsOwn() {
        String commas = file().replace(suite + ",2,64 bit", suite + ",\"2, beta\",\"64 bit, off screen\"");
        assertThat(send("import", commas, true).body().path("readings").asInt()).isEqualTo(2);
        JsonNode again = send("preview/import", commas, false).body();
        assertThat(again.path("there").asInt()).as(again.toString()).isEqualTo(3);
        assertThat(again.path("newTests").asInt()).isZero();
    }

    @Test
    void ofARunWithSeveralNumbersOneIsCorrectedAndTheOthersStay() {
        String head = "maker,model,class,suite,version,test,metric,measure unit,direction,started,run,value\r\n";
        String start = "Pellow," + model + ",board," + suite + ",1,Flight,";
        String rows = start + "Mean,fps,more,2026-03-01T09:10:00Z,1,61.5\r\n" + start
                + "Low,fps,more,2026-03-01T09:10:00Z,1,4.12\r\n";
        assertThat(send("import", head + rows, true).body().path("readings").asInt())
                .isEqualTo(2);
        long id = owner.get("/api/models?q=" + model.replace(" ", "%20"))
                .body()
                .path("rows")
                .get(0)
                .path("id")
                .asLong();
        JsonNode low = owner.get("/api/ledger?model=" + id)
                .body()
                .path("rows")
                .valueStream()
                .filter(r -> r.path("value").asDouble() == 4.12)
                .findFirst()
                .orElseThrow();
        Client.Answer corrected = owner.post(
                "/api/readings/" + low.path("readingId").asLong() + "/correct",
                Map.of("text", "41.2", "reason", "the point slipped"));
        assertThat(corrected.status()).as(corrected.detail()).isEqualTo(200);
        assertThat(corrected.body().path("value").asDouble()).isEqualTo(41.2);
        assertThat(corrected.body().path("corrects").path("value").asDouble()).isEqualTo(4.12);
        List<String> counted = owner.get("/api/ledger?state=COUNTED&model=" + id)
                .body()
                .path("rows")
                .valueStream()
                .map(r -> r.path("metric").asString() + " " + r.path("value").asDouble() + " attempt "
                        + r.path("attempt").asInt())
                .sorted()
                .toList();
        assertThat(counted)
                .as("both numbers are of the same attempt")
                .containsExactly("Low 41.2 attempt 2", "Mean 61.5 attempt 2");
        JsonNode sheet = owner.get("/api/sessions/" + low.path("sessionId").asLong() + "/sheet")
                .body()
                .path("tests")
                .get(0);
        assertThat(sheet.path("runs").get(0).path("value").asDouble())
                .as("the main number stands in the sheet")
                .isEqualTo(61.5);
        assertThat(sheet.path("others").get(0).path("value").asDouble()).isEqualTo(41.2);
    }
}
