package yarrowmark.server.shelf.configuration;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.boot.test.web.server.LocalServerPort;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.support.Bench;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.ServerTest;

@ServerTest
class ConfigurationsTest {
    private static final AtomicInteger NUMBER = new AtomicInteger();

    @LocalServerPort
    private int port;

    private Client owner;
    private Bench bench;
    private long model;
    private long unit;

    @BeforeEach
    void aModelWithAUnit() {
        bench = new Bench(port);
        owner = bench.owner();
        model = owner.post(
                        "/api/models",
                        Map.of(
                                "maker",
                                "Dunlin",
                                "name",
                                "Sanderling c" + NUMBER.incrementAndGet(),
                                "deviceClass",
                                "LAPTOP"))
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

    /** Facts as key, text, key, text; the text "=" leaves the fact as it is. */
    private static List<Map<String, Object>> facts(String... typed) {
        List<Map<String, Object>> facts = new ArrayList<>();
        for (int i = 0; i < typed.length; i += 2) {
            Map<String, Object> fact = new HashMap<>(Map.of("key", typed[i], "read", false));
            if (!typed[i + 1].equals("=")) {
                fact.put("text", typed[i + 1]);
            }
            facts.add(fact);
        }
        return facts;
    }

    @Test
    void aDeviceThatIsTurnedOrBusyIsTheSameConfiguration() {
        String name = "Heron t" + NUMBER.incrementAndGet();
        List<Map<String, Object>> upright = List.of(
                Bench.fact("display.resolution", "1080x2400"),
                Bench.fact("display.refresh", "60"),
                Bench.fact("os.name", "Reed"));
        Client first = bench.started("PHONE", name, 1, upright);
        bench.deliver(first, Bench.ok(Bench.testId(first, "weir-hash-one"), 1, 3000));
        long model = owner.get("/api/models?q=" + name.replace(" ", "%20"))
                .body()
                .path("rows")
                .get(0)
                .path("id")
                .asLong();
        again(model, "2400x1080", "30");
        again(model, "1080x2400", "60");
        assertThat(configurations(model)).hasSize(1);
        again(model, "1080x2400", "120");
        assertThat(configurations(model))
                .as("a display that showed more pictures is another one, or set otherwise")
                .hasSize(2);
    }

    private JsonNode configurations(long of) {
        return owner.get("/api/models/" + of).body().path("units").get(0).path("configurations");
    }

    private void again(long of, String resolution, String refresh) {
        Map<String, Object> start = Map.of(
                "modelId",
                of,
                "facts",
                List.of(
                        Bench.fact("display.resolution", resolution),
                        Bench.fact("display.refresh", refresh),
                        Bench.fact("os.name", "Reed")));
        Client device = bench.joined(1);
        assertThat(device.post("/api/device/start", start).status()).isEqualTo(200);
        // A configuration that was never measured would be filled with whatever comes next.
        bench.deliver(device, Bench.ok(Bench.testId(device, "weir-hash-one"), 1, 3000));
    }

    private Client.Answer make(Long parent, String... typed) {
        Map<String, Object> body = new HashMap<>(Map.of("facts", facts(typed)));
        if (parent != null) {
            body.put("parentId", parent);
        }
        return owner.post("/api/units/" + unit + "/configurations", body);
    }

    private static long id(Client.Answer page) {
        assertThat(page.status()).as(page.detail()).isEqualTo(200);
        return page.body().path("configuration").path("id").asLong();
    }

    private static String shown(JsonNode page, String key) {
        for (JsonNode f : page.path("facts")) {
            if (f.path("key").asString().equals(key)) {
                return f.path("shown").asString();
            }
        }
        return null;
    }

    private Client measured(List<Map<String, Object>> told) {
        Client device = bench.joined(1);
        Client.Answer answer =
                device.post("/api/device/start", Map.of("modelId", model, "unitId", unit, "facts", told));
        assertThat(answer.status()).as(answer.detail()).isEqualTo(200);
        return device;
    }

    private JsonNode page(long id) {
        return owner.get("/api/configurations/" + id).body();
    }

    @Test
    void aCopyIsCalledByWhatChangedAndHangsUnderItsParent() {
        long first = id(make(
                null,
                "Processor",
                "Thessaly 5",
                "memory.size",
                "16 GB",
                "firmware.version",
                "1.04",
                "Desk lamp",
                "on"));
        Client.Answer copy =
                make(first, "processor.name", "=", "memory.size", "=", "firmware.version", "1.11", "Desk lamp", "=");
        assertThat(copy.body().path("configuration").path("name").asString()).isEqualTo("firmware 1.11");
        assertThat(copy.body().path("parentId").asLong()).isEqualTo(first);
        assertThat(shown(copy.body(), "Desk lamp"))
                .as("unknown keys are kept as text")
                .isEqualTo("on");
        Client.Answer same = make(
                first,
                "processor.name",
                "=",
                "memory.size",
                "16384 MiB",
                "firmware.version",
                "1.11",
                "Desk lamp",
                "on");
        assertThat(same.code()).isEqualTo("same-facts");
        assertThat(same.body().path("configurationId").asLong()).isEqualTo(id(copy));
    }

    @Test
    void aNameMadeFromFactsTellsSiblingsApart() {
        String[] same = {"Processor", "Thessaly 5", "memory.size", "16 GB", "os.name", "Fenline", "os.kernel"};
        make(null, with(same, "6.1", "storage.model", "Reed 500"));
        assertThat(make(null, with(same, "6.9", "storage.model", "Reed 500"))
                        .body()
                        .path("configuration")
                        .path("name")
                        .asString())
                .startsWith("Thessaly 5 · 16 GiB · Fenline · ")
                .endsWith("kernel 6.9");
        assertThat(make(null, with(same, "6.9", "storage.model", "Reed 900"))
                        .body()
                        .path("configuration")
                        .path("name")
                        .asString())
                .as("told from the nearest one")
                .contains("Reed 900")
                .doesNotContain("6.9");
    }

    @Test
    void noTwoConfigurationsOfAUnitAreCalledTheSame() {
        long delivered = id(make(null, "memory.size", "16 GB", "power.source", "mains", "power.mode", "balanced"));
        Client.Answer battery =
                make(delivered, "memory.size", "16 GB", "power.source", "battery", "power.mode", "balanced");
        String fast = "high performance";
        long mode = id(make(delivered, "memory.size", "16 GB", "power.source", "mains", "power.mode", fast));
        Client.Answer both = make(mode, "memory.size", "16 GB", "power.source", "battery", "power.mode", fast);
        String first = battery.body().path("configuration").path("name").asString();
        String second = both.body().path("configuration").path("name").asString();
        assertThat(first).isEqualTo("power battery");
        assertThat(second).startsWith("power battery, ").contains("high performance");
        assertThat(owner.put("/api/configurations/" + id(both) + "/name", Map.of("from", second, "to", "Power battery"))
                        .code())
                .as("in any case")
                .isEqualTo("name-taken");
        assertThat(owner.put("/api/configurations/" + id(both) + "/name", Map.of("from", second, "to", second))
                        .status())
                .as("its own name is no other's")
                .isEqualTo(200);
    }

    private static String[] with(String[] first, String... more) {
        return Stream.concat(Stream.of(first), Stream.of(more)).toArray(String[]::new);
    }

    @Test
    void everythingThatIsWrongIsToldAtOnceAndNothingIsStored() {
        Client.Answer answer =
                make(null, "memory.size", "3 GHz", "firmware.date", "03/05/2026", "processor.cores", "8", "Cores", "9");
        assertThat(answer.code()).isEqualTo("facts-refused");
        assertThat(answer.body().path("refused")).hasSize(3);
        assertThat(make(null, "processor.cores", "12", "processor.threads", "8").detail())
                .contains("contradict");
        assertThat(make(null, "memory.size", "=").detail()).contains("not known");
        assertThat(owner.get("/api/models/" + model).body().path("units").get(0).path("configurations"))
                .isEmpty();
    }

    @Test
    void factsChangeInPlaceUntilSomethingIsMeasuredAndTheSecondEditorIsTold() {
        long id = id(make(null, "memory.size", "16 GB"));
        String seen = page(id).path("fingerprint").asString();
        Map<String, Object> change = Map.of("seen", seen, "facts", facts("memory.size", "=", "power.mode", "quiet"));
        assertThat(owner.put("/api/configurations/" + id + "/facts", change).status())
                .isEqualTo(200);
        Client.Answer second = owner.put("/api/configurations/" + id + "/facts", change);
        assertThat(second.code()).isEqualTo("changed-meanwhile");
        assertThat(second.body().path("facts")).hasSize(2);

        JsonNode last = owner.get("/api/history/configuration/" + id)
                .body()
                .path("rows")
                .get(0);
        assertThat(owner.post(
                                "/api/history/configuration/" + id + "/undo",
                                Map.of("change", last.path("id").asString()))
                        .status())
                .isEqualTo(200);
        assertThat(page(id).path("fingerprint").asString()).isEqualTo(seen);

        measured(List.of(Bench.fact("processor.threads", "8")));
        JsonNode used = page(id);
        assertThat(used.path("sessions").asInt())
                .as("the prepared one was filled, not copied")
                .isEqualTo(1);
        assertThat(shown(used, "processor.threads")).isEqualTo("8");
        Client.Answer refused = owner.put(
                "/api/configurations/" + id + "/facts",
                Map.of("seen", used.path("fingerprint").asString(), "facts", facts("memory.size", "8 GB")));
        assertThat(refused.code()).isEqualTo("has-readings");
        assertThat(owner.delete("/api/configurations/" + id).code()).isEqualTo("has-readings");
    }

    @Test
    void aDetectedFactThatContradictsATypedOneIsShownBesideItUntilSomebodyPicks() {
        long id = id(make(null, "browser.version", "140.1", "memory.size", "16 GB", "room.temperature", "21"));
        measured(List.of(Bench.fact("browser.version", "141.2")));
        JsonNode page = page(id);
        assertThat(shown(page, "browser.version")).isEqualTo("141.2");
        assertThat(page.path("facts").toString()).contains("\"other\":\"140.1\"");
        assertThat(shown(page, "memory.size")).as("typed and not told stays").isEqualTo("16 GiB");
        assertThat(shown(page, "room.temperature"))
                .as("a room is that of a day")
                .isNull();
        JsonNode picked = owner.post(
                        "/api/configurations/" + id + "/picks", Map.of("key", "browser.version", "other", true))
                .body();
        assertThat(shown(picked, "browser.version")).isEqualTo("140.1");
        assertThat(picked.path("corrections")).hasSize(1);
        assertThat(owner.post("/api/configurations/" + id + "/picks", Map.of("key", "browser.version", "other", true))
                        .code())
                .isEqualTo("nothing-to-pick");
    }

    @Test
    void theGraphicsProcessorThatADeviceDrawsWithBecomesTheOneThatTestsUsedAndTheOtherIsNotForgotten() {
        String pond = "LAYER (Sedge, Sedge Pond 40 (0x1F9D) Drawer11)";
        String weir = "LAYER (Fenland, Fenland Weir 900 M (0x2204) Drawer11)";
        long id = id(make(
                null,
                "graphics.renderer",
                "Sedge Pond 40",
                "graphics.renderer.2",
                "Fenland Weir 900 M",
                "graphics.memory.2",
                "8 GB"));
        measured(List.of(Bench.fact("graphics.renderer", weir)));
        JsonNode page = page(id);
        assertThat(shown(page, "graphics.renderer")).isEqualTo(weir);
        assertThat(page.path("facts").toString()).contains("\"other\":\"Fenland Weir 900 M\"");
        assertThat(shown(page, "graphics.memory")).isEqualTo("8 GiB");
        assertThat(shown(page, "graphics.renderer.2")).isEqualTo("Sedge Pond 40");
        assertThat(shown(page, "graphics.memory.2")).isNull();

        measured(List.of(Bench.fact("graphics.renderer", pond)));
        long latest = owner.get("/api/models/" + model)
                .body()
                .path("units")
                .get(0)
                .path("configurations")
                .valueStream()
                .mapToLong(c -> c.path("id").asLong())
                .max()
                .orElseThrow();
        assertThat(latest).as("other graphics are other circumstances").isNotEqualTo(id);
        JsonNode next = page(latest);
        assertThat(shown(next, "graphics.renderer")).isEqualTo(pond);
        assertThat(shown(next, "graphics.renderer.2")).isEqualTo("Fenland Weir 900 M");
        assertThat(shown(next, "graphics.memory.2")).isEqualTo("8 GiB");
    }

    @Test
    void aCorrectionIsRecordedAndEqualOnesAreMergedWithTheirReadings() {
        Client one = measured(List.of(Bench.fact("firmware.version", "1.04")));
        long test = Bench.testId(one, "weir-hash-one");
        bench.deliver(one, Bench.ok(test, 1, 100));
        one.post("/api/device/end", Map.of("how", "DONE"));
        Client other = measured(List.of(Bench.fact("firmware.version", "1.40")));
        bench.deliver(other, Bench.ok(test, 1, 121));
        JsonNode configurations =
                owner.get("/api/models/" + model).body().path("units").get(0).path("configurations");
        long first = configurations.get(0).path("id").asLong();
        long second = configurations.get(1).path("id").asLong();

        Map<String, Object> correction = new HashMap<>(
                Map.of("seen", page(second).path("fingerprint").asString(), "key", "firmware.version", "text", "1.04"));
        assertThat(owner.post("/api/configurations/" + second + "/corrections", correction)
                        .detail())
                .contains("reason");
        correction.put("reason", "Digits swapped");
        JsonNode corrected = owner.post("/api/configurations/" + second + "/corrections", correction)
                .body();
        JsonNode entry = corrected.path("corrections").get(0);
        assertThat(entry.path("before").asString()
                        + entry.path("after").asString()
                        + entry.path("person").asString())
                .isEqualTo("1.401.04" + Client.NAME);
        assertThat(corrected.path("sameFacts").get(0).path("mergeable").asBoolean())
                .isTrue();
        assertThat(owner.get("/api/configurations/twins").body().toString())
                .contains("\"id\":" + first + ",")
                .contains("\"id\":" + second + ",");

        assertThat(owner.post("/api/configurations/" + second + "/merge", Map.of("into", 987_654_321))
                        .status())
                .isEqualTo(404);
        assertThat(owner.post("/api/configurations/987654321/merge", Map.of("into", first))
                        .status())
                .isEqualTo(404);
        assertThat(owner.post("/api/configurations/" + second + "/merge", Map.of("into", first))
                        .status())
                .isEqualTo(200);
        assertThat(page(second).path("mergedInto").asLong()).isEqualTo(first);
        assertThat(page(first).path("sessions").asInt()).isEqualTo(2);
        long reading = bench.ledger("configuration=" + first)
                .path("rows")
                .get(0)
                .path("readingId")
                .asLong();
        JsonNode sample = owner.get("/api/readings/" + reading).body().path("sample");
        assertThat(sample.path("n").asInt()).isEqualTo(2);
        assertThat(sample.path("centre").asDouble()).isCloseTo(110, org.assertj.core.data.Offset.offset(1e-9));
        assertThat(bench.ledger("configuration=" + second).path("total").asInt())
                .isZero();
        assertThat(owner.post("/api/configurations/" + second + "/merge", Map.of("into", first))
                        .code())
                .isEqualTo("not-the-same");
    }

    @Test
    void differencesTellTheChangeUnderTestAndWhatAlsoChanged() {
        long first = id(make(null, "firmware.version", "1.9", "memory.size", "8 GB", "room.temperature", "21.5"));
        long copy = id(make(
                first,
                "firmware.version",
                "1.11",
                "memory.size",
                "16 GB",
                "room.temperature",
                "20.5",
                "power.source",
                "mains"));
        owner.put("/api/configurations/" + copy + "/tested", Map.of("keys", List.of("firmware.version")));
        JsonNode d = owner.get("/api/configurations/difference?ids=" + first + "," + copy + "&base=" + first)
                .body();
        assertThat(d.path("differing"))
                .extracting(r -> r.path("key").asString() + " " + r.path("role").asString())
                .containsExactly(
                        "firmware.version UNDER_TEST", "memory.size ALSO_CHANGED", "room.temperature WITHIN_TOLERANCE");
        assertThat(d.path("differing")
                        .get(1)
                        .path("cells")
                        .get(1)
                        .path("change")
                        .path("amount")
                        .asDouble())
                .isEqualTo(2);
        assertThat(d.path("partly")).hasSize(1);
        assertThat(owner.get("/api/configurations/difference?ids=" + first + "&base=" + first)
                        .code())
                .isEqualTo("not-two");
        JsonNode other = owner.get("/api/configurations/difference?ids=" + first + "," + copy + "&base=" + copy
                        + "&tested=memory.size")
                .body();
        assertThat(other.path("differing").get(0).path("key").asString()).isEqualTo("memory.size");
    }

    /** Somebody who copies and changes one fact wants to know what it does; of several nobody can guess. */
    @Test
    void theOneChangeOfACopyIsUnderTest() {
        long first = id(make(null, "firmware.version", "1.9", "memory.size", "8 GB", "room.temperature", "21.5"));
        long one = id(make(first, "firmware.version", "1.10", "memory.size", "8 GB", "room.temperature", "25"));
        long two = id(make(first, "firmware.version", "1.11", "memory.size", "16 GB"));
        long filled = id(make(first, "firmware.version", "1.9", "memory.size", "8 GB", "power.source", "mains"));
        assertThat(owner.get("/api/configurations/" + one).body().path("tested"))
                .extracting(JsonNode::asString)
                .containsExactly("firmware.version");
        for (long none : new long[] {first, two, filled}) {
            assertThat(owner.get("/api/configurations/" + none).body().path("tested"))
                    .isEmpty();
        }
    }

    @Test
    void textOfASystemsToolIsReadAndNothingOfItIsStoredOrDropped() {
        JsonNode read = owner.post(
                        "/api/facts/read",
                        Map.of("text", "MemTotal:  16265216 kB\nSomething else\nNAME=\"Fenland\"\nVERSION_ID=\"12.4\""))
                .body();
        assertThat(read.path("facts"))
                .extracting(
                        f -> f.path("label").asString() + ": " + f.path("shown").asString())
                .containsExactly(
                        "Memory the system can use: 15.51 GiB", "Operating system: Fenland", "System version: 12.4");
        assertThat(read.path("unread").get(0).path("text").asString()).isEqualTo("Something else");
        assertThat(owner.post("/api/facts/read", Map.of("text", "x".repeat(3_000_000)))
                        .status())
                .isEqualTo(413);
    }

    @Test
    void typingIsUnderstoodAsOneGoesAndUsedValuesAreSuggested() {
        id(make(null, "power.mode", "silent as a heron"));
        assertThat(owner.get("/api/facts/values?key=power.mode&q=heron")
                        .body()
                        .get(0)
                        .path("shown")
                        .asString())
                .isEqualTo("silent as a heron");
        JsonNode understood = owner.post("/api/facts/understand", Map.of("key", "memory.speed", "text", "DDR5-5600"))
                .body();
        assertThat(understood.path("shown").asString()
                        + understood.path("also").path("Memory kind").asString())
                .isEqualTo("5600 MT/sDDR5");
        assertThat(owner.post("/api/facts/understand", Map.of("key", "memory.size", "text", "16 Gb"))
                        .body()
                        .path("reason")
                        .asString())
                .contains("bits");
        assertThat(owner.get("/api/facts/vocabulary").body()).hasSizeGreaterThanOrEqualTo(60);
    }

    @Test
    void whatWasTickedStaysWithTheSession() {
        Client device = bench.joined(1);
        JsonNode list = device.get("/api/device/checklist?deviceClass=LAPTOP").body();
        device.post(
                "/api/device/start",
                Map.of(
                        "modelId",
                        model,
                        "unitId",
                        unit,
                        "facts",
                        List.of(),
                        "checks",
                        List.of(
                                Map.of("text", list.get(0).asString(), "ticked", true),
                                Map.of("text", list.get(1).asString(), "ticked", false))));
        JsonNode checks =
                owner.get("/api/models/" + model + "/sessions").body().get(0).path("checks");
        assertThat(checks).hasSize(2);
        assertThat(checks.get(0).path("ticked").asBoolean()).isTrue();
        assertThat(checks.get(0).path("person").asString()).contains(Client.NAME);
    }

    @Test
    void whatADeviceIsToldByItsHolderIsReadLikeAnyForm() {
        Client device = bench.joined(1);
        Map<String, Object> typed = Map.of("key", "memory.size", "value", "16 Gb", "detected", false);
        Client.Answer refused = device.post("/api/device/start", Map.of("modelId", model, "facts", List.of(typed)));
        assertThat(refused.code()).isEqualTo("facts-refused");
        assertThat(refused.detail()).contains("bits");
    }
}
