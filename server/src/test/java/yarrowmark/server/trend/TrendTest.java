package yarrowmark.server.trend;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.boot.test.web.server.LocalServerPort;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.Lab;
import yarrowmark.server.support.ServerTest;

@ServerTest
class TrendTest {
    @LocalServerPort
    private int port;

    private Lab lab;

    @BeforeEach
    void lab() {
        lab = new Lab(port).suite("Export, s, less\nFrames, fps, more\nSurface, °C, less");
    }

    private JsonNode trend(String query) {
        Client.Answer answer = lab.owner().get("/api/trends?model=" + lab.model() + query);
        assertThat(answer.status()).as(answer.detail()).isEqualTo(200);
        return answer.body();
    }

    /** Three kernels; frames could not be measured with the first, and export jumps with the last. */
    private void threeKernels() {
        kernel("6.10", 20, 61, 80);
        kernel("6.2", 20, 0, 82);
        kernel("6.9", 20, 60, 81);
    }

    private void kernel(String version, double export, double frames, double heat) {
        Map<String, String> facts = new HashMap<>(Map.of("os.kernel", version, "memory.size", "16 GiB"));
        double took = version.equals("6.10") ? export * 0.8 : export;
        lab.session(lab.configuration(facts), 3);
        lab.typed(0, three(took));
        if (frames > 0) {
            lab.typed(1, three(frames));
        } else {
            lab.typed(1, "n/a, no driver for this kernel");
        }
        lab.typed(2, three(heat));
    }

    private static String[] three(double value) {
        return new String[] {number(value * 0.999), number(value), number(value * 1.001)};
    }

    private static String number(double value) {
        return String.format(java.util.Locale.ROOT, "%.3f", value);
    }

    @Test
    void trendsOpenWithTheMostTellingOfAllDevices() {
        threeKernels();
        JsonNode mine = lab.owner()
                .get("/api/trends/telling")
                .body()
                .valueStream()
                .filter(t -> t.path("modelId").asLong() == lab.model())
                .findFirst()
                .orElseThrow();
        JsonNode overall = trend("").path("overall");
        assertThat(mine.path("points")).as("as the trend itself says").isEqualTo(overall.path("points"));
        assertThat(mine.path("firstToLast")).isEqualTo(overall.path("firstToLast"));
        assertThat(mine.path("along").path("key").asString()).isEqualTo("os.kernel");
        // Measured again, and worse by half: what was kept of before is not told.
        kernel("6.11", 40, 30, 80);
        assertThat(lab.owner()
                        .get("/api/trends/telling")
                        .body()
                        .valueStream()
                        .filter(t -> t.path("modelId").asLong() == lab.model())
                        .findFirst()
                        .orElseThrow()
                        .path("points"))
                .hasSize(4);
    }

    @Test
    void versionsComeInTheirOrderAndTheFactThatVariesIsOfferedFirst() {
        threeKernels();
        JsonNode trend = trend("");
        assertThat(trend.path("along").path("key").asString()).isEqualTo("os.kernel");
        assertThat(trend.path("offered").valueStream().map(o -> o.path("key").asString()))
                .doesNotContain("memory.size");
        assertThat(trend.path("steps").valueStream().map(s -> s.path("label").asString()))
                .containsExactly("6.2", "6.9", "6.10");
        assertThat(trend.path("steps").get(1).path("changed"))
                .as("nothing but the kernel changed")
                .isEmpty();
        JsonNode export = line(trend, "Export");
        assertThat(export.path("steps").get(1).path("marked").asBoolean()).isTrue();
        assertThat(export.path("steps").get(1).path("size").asString()).isEqualTo("20.0 % less time");
        assertThat(export.path("firstToLast").path("ratio").asDouble()).isCloseTo(1.25, within(1e-3));
        assertThat(export.path("steps").get(0).path("marked").asBoolean()).isFalse();
    }

    @Test
    void aMissingTestIsAGapWithItsReasonAndTheOverallGoesOn() {
        threeKernels();
        JsonNode trend = trend("");
        JsonNode frames = line(trend, "Frames");
        assertThat(frames.path("points").valueStream().map(p -> p.path("step").asInt()))
                .containsExactly(1, 2);
        assertThat(frames.path("points").get(0).path("ratio").asDouble()).isEqualTo(1);
        assertThat(trend.path("gaps")
                        .valueStream()
                        .map(g -> g.path("step").asInt() + " " + g.path("words").asString()))
                .containsExactly("0 no driver for this kernel");
        assertThat(trend.path("overall").path("points")).hasSize(3);
        assertThat(trend.path("overall").path("points").get(2).path("ratio").asDouble())
                .isGreaterThan(1.05);
        JsonNode heat = trend.path("sides").get(0);
        assertThat(heat.path("metric").path("name").asString()).isEqualTo("Surface");
        assertThat(heat.path("points").get(0).path("value").asDouble()).isCloseTo(82, within(1e-6));
        assertThat(trend.path("looks").asInt()).isEqualTo(2 + 1 + 2);
    }

    @Test
    void aQuantityIsALadderWithItsKneeAndAnUnknownFactIsListedApart() {
        double[] watts = {10, 20, 30, 40};
        double[] speed = {100, 140, 141, 141};
        for (int i = 0; i < watts.length; i++) {
            lab.session(lab.configuration(Map.of("power.sustained_limit", watts[i] + " W", "memory.size", "8 GiB")), 3)
                    .typed(1, three(speed[i]));
        }
        lab.session(lab.configuration(Map.of("memory.size", "8 GiB")), 3).typed(1, three(99));
        JsonNode trend = trend("&along=power.sustained_limit");
        assertThat(trend.path("steps").valueStream().map(s -> s.path("x").asDouble()))
                .containsExactly(10.0, 20.0, 30.0, 40.0);
        assertThat(trend.path("ladder").path("knee").asInt()).isEqualTo(1);
        assertThat(trend.path("ladder").path("best").get(3).asDouble()).isCloseTo(1.41, within(1e-3));
        assertThat(trend.path("unknown")).hasSize(1);
    }

    @Test
    void equalValuesWithOtherFactsStandSideBySideAndSayWhatElseChanged() {
        kernel("6.2", 20, 60, 80);
        lab.session(lab.configuration(Map.of("os.kernel", "6.2", "memory.size", "32 GiB")), 3)
                .typed(0, three(19));
        kernel("6.3", 20, 60, 80);
        JsonNode trend = trend("&along=os.kernel");
        assertThat(trend.path("steps").valueStream().map(s -> s.path("label").asString()))
                .containsExactly("6.2", "6.2", "6.3");
        assertThat(trend.path("steps")
                        .get(1)
                        .path("changed")
                        .get(0)
                        .path("before")
                        .asString())
                .isEqualTo("16 GiB");
        assertThat(trend.path("steps")
                        .get(2)
                        .path("changed")
                        .get(0)
                        .path("after")
                        .asString())
                .isEqualTo("16 GiB");
    }

    @Test
    void whatCannotBeATrendIsSaid() {
        assertThat(lab.owner().get("/api/trends?model=" + lab.model()).code()).isEqualTo("nothing-measured");
        lab.session(lab.configuration(Map.of("os.name", "Fenline", "os.kernel", "6.2")), 3)
                .typed(0, three(20));
        assertThat(lab.owner().get("/api/trends?model=" + lab.model()).code()).isEqualTo("nothing-varies");
        assertThat(lab.owner()
                        .get("/api/trends?along=os.name&model=" + lab.model())
                        .code())
                .isEqualTo("no-order");
        Client.Answer unknown = lab.owner().get("/api/trends?along=battery.capacity&model=" + lab.model());
        assertThat(unknown.code()).isEqualTo("nothing-varies");
        assertThat(unknown.detail()).contains("is not known of anything that is measured here");
        JsonNode one = trend("&along=os.kernel");
        assertThat(one.path("steps")).as("one step is a trend without steps").hasSize(1);
        assertThat(one.path("lines").get(0).path("firstToLast").isMissingNode()).isTrue();
        assertThat(lab.owner().get("/api/trends?model=987654").status()).isEqualTo(404);
        assertThat(lab.owner()
                        .get("/api/trends?unit=987654&model=" + lab.model())
                        .status())
                .isEqualTo(404);
        assertThat(lab.owner().get("/api/trends?matters=0&model=" + lab.model()).status())
                .isEqualTo(400);
    }

    @Test
    void anEventIsPinnedToAStepAndTakenOff() {
        threeKernels();
        String step = trend("").path("steps").get(1).path("key").asString();
        Map<String, Object> body = Map.of("model", lab.model(), "step", step, "words", "new <b>thermal paste</b>");
        assertThat(lab.owner().post("/api/trends/events", body).status()).isEqualTo(200);
        JsonNode event = trend("").path("steps").get(1).path("events").get(0);
        assertThat(event.path("words").asString()).isEqualTo("new <b>thermal paste</b>");
        assertThat(lab.owner()
                        .post("/api/trends/events", Map.of("model", lab.model(), "step", "'; drop", "words", "x"))
                        .status())
                .isEqualTo(400);
        assertThat(lab.owner()
                        .delete("/api/trends/events/" + event.path("id").asLong())
                        .status())
                .isEqualTo(200);
        assertThat(trend("").path("steps").get(1).path("events")).isEmpty();
        assertThat(lab.owner().delete("/api/trends/events/987654").status()).isEqualTo(404);
    }

    @Test
    void leavingATestOutMovesTheOverallAndNoLine() {
        threeKernels();
        JsonNode whole = trend("");
        JsonNode less = trend("&without=test:" + lab.test(0));
        assertThat(less.path("lines")
                        .valueStream()
                        .map(l -> l.path("metric").path("test").asString()))
                .containsExactly("Frames");
        assertThat(line(less, "Frames").path("points"))
                .isEqualTo(line(whole, "Frames").path("points"));
        assertThat(less.path("overall").path("points")).hasSize(2);
    }

    @Test
    void aTrendBeginsAtTheStepThatIsChosen() {
        threeKernels();
        JsonNode whole = trend("");
        String second = whole.path("steps").get(1).path("key").asString();
        JsonNode later = trend("&from=" + second);
        assertThat(later.path("steps").valueStream().map(s -> s.path("label").asString()))
                .containsExactly("6.9", "6.10");
        assertThat(line(later, "Export").path("points").get(0).path("ratio").asDouble())
                .isEqualTo(1);
        assertThat(later.path("from").valueStream().map(s -> s.path("label").asString()))
                .as("those before can be chosen again")
                .containsExactly("6.2", "6.9", "6.10");
        assertThat(lab.owner()
                        .get("/api/trends?from=c987654&model=" + lab.model())
                        .code())
                .isEqualTo("no-such-step");
    }

    @Test
    void eachGroupHasItsOwnOverall() {
        threeKernels();
        lab.suite("Weir " + lab.number(), "1", "Hash, ops/s, more");
        Client.Answer made = lab.owner()
                .post(
                        "/api/suites",
                        Map.of(
                                "name", "Sluice " + lab.number(),
                                "version", "1",
                                "group", "PROCESSOR",
                                "text", "Copy, ops/s, more"));
        long copy = made.body().get(0).asLong();
        for (JsonNode step : trend("").path("steps")) {
            long configuration = step.path("configurations").get(0).path("id").asLong();
            Client.Answer session = lab.owner()
                    .post(
                            "/api/sessions",
                            Map.of(
                                    "configurationId",
                                    configuration,
                                    "name",
                                    "Copy",
                                    "testIds",
                                    List.of(copy),
                                    "runs",
                                    1));
            lab.owner()
                    .post(
                            "/api/sessions/"
                                    + session.body().path("session").path("id").asLong() + "/scores",
                            Map.of("testId", copy, "run", 1, "text", "100", "byStopwatch", false));
        }
        JsonNode groups = trend("").path("groups");
        assertThat(groups.valueStream()
                        .map(g -> g.path("group").asString() + " "
                                + g.path("tests").asInt()))
                .containsExactly("PROCESSOR 1", "STORAGE 2");
        assertThat(groups.get(0)
                        .path("overall")
                        .path("points")
                        .get(2)
                        .path("ratio")
                        .asDouble())
                .isCloseTo(1, within(1e-12));
        assertThat(trend("&group=PROCESSOR").path("groups")).as("one alone").isEmpty();
    }

    @Test
    void theSingleReadingsAreThereForPanelsWithoutWhatWasSetAside() {
        threeKernels();
        JsonNode dots =
                lab.owner().get("/api/trends/readings?model=" + lab.model()).body();
        long export = lab.metric(0);
        List<String> found = dots.valueStream()
                .filter(d -> d.path("metricId").asLong() == export)
                .map(d -> d.path("step").asInt() + " " + d.path("values"))
                .toList();
        assertThat(found).containsExactly("0 [19.98,20.0,20.02]", "1 [19.98,20.0,20.02]", "2 [15.984,16.0,16.016]");
        JsonNode row = lab.owner()
                .get("/api/ledger?test=" + lab.test(0) + "&size=1")
                .body()
                .path("rows")
                .get(0);
        assertThat(lab.owner()
                        .post(
                                "/api/readings/" + row.path("readingId").asLong() + "/set-aside",
                                Map.of("reason", "a fan was stuck"))
                        .status())
                .isEqualTo(200);
        assertThat(lab.owner()
                        .get("/api/trends/readings?model=" + lab.model())
                        .body()
                        .valueStream()
                        .filter(d -> d.path("metricId").asLong() == export)
                        .mapToInt(d -> d.path("values").size())
                        .sum())
                .isEqualTo(8);
    }

    @Test
    void aLadderSaysWhatEachWattBrings() {
        lab.suite("Weir " + lab.number(), "1", "Hash, ops/s, more\nDraw, W, less");
        double[] limit = {10, 20, 30};
        double[] speed = {100, 150, 165};
        double[] draw = {12, 24, 33};
        for (int i = 0; i < limit.length; i++) {
            lab.session(lab.configuration(Map.of("power.sustained_limit", limit[i] + " W")), 3)
                    .typed(0, three(speed[i]))
                    .typed(1, three(draw[i]));
        }
        JsonNode ladder = trend("&along=power.sustained_limit&without=test:" + lab.test(1))
                .path("ladder");
        assertThat(ladder.path("gains").get(0).path("percent").asDouble()).isCloseTo(50, within(0.1));
        assertThat(ladder.path("gains").get(1).path("perUnit").asDouble()).isCloseTo(1, within(0.01));
        assertThat(ladder.path("perWatt").isMissingNode())
                .as("left out, so not known")
                .isTrue();
        JsonNode perWatt = trend("&along=power.sustained_limit").path("ladder").path("perWatt");
        assertThat(perWatt.path("power").asString()).isEqualTo("Draw");
        assertThat(perWatt.path("ratios").get(1).asDouble()).isCloseTo(1.5 / 2, within(1e-3));
        assertThat(perWatt.path("ratios").get(2).asDouble()).isCloseTo(1.65 / 2.75, within(1e-3));
    }

    @Test
    void openedFromTwoConfigurationsItGoesAlongWhatTellsThemApart() {
        long eight = lab.configuration(Map.of("os.kernel", "6.2", "memory.size", "8 GiB"));
        long sixteen = lab.configuration(Map.of("os.kernel", "6.2", "memory.size", "16 GiB"));
        long later = lab.configuration(Map.of("os.kernel", "6.9", "memory.size", "16 GiB"));
        long last = lab.configuration(Map.of("os.kernel", "6.10", "memory.size", "16 GiB"));
        for (long c : List.of(eight, sixteen, later, last)) {
            lab.session(c, 3).typed(0, three(20));
        }
        assertThat(trend("").path("along").path("key").asString())
                .as("most steps first")
                .isEqualTo("os.kernel");
        JsonNode opened = trend("&between=" + eight + "&between=" + sixteen);
        assertThat(opened.path("along").path("key").asString()).isEqualTo("memory.size");
        assertThat(opened.path("unit").asString()).isEqualTo("Unit 1");
        assertThat(trend("&between=" + eight + "&between=987654").path("unitId").isMissingNode())
                .as("one that is gone, or of another model")
                .isTrue();
    }

    private static JsonNode line(JsonNode trend, String test) {
        List<JsonNode> found = trend.path("lines")
                .valueStream()
                .filter(l -> l.path("metric").path("test").asString().equals(test))
                .toList();
        assertThat(found).as(test).hasSize(1);
        return found.get(0);
    }
}
