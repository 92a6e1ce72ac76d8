package yarrowmark.server.standing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.test.context.TestPropertySource;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.ServerTest;

/** Everything a standing can be asked for, on a shelf of eight models of its own, of which the numbers are known by hand. */
@ServerTest
@TestPropertySource(properties = "yarrowmark.shelf=questions")
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class StandingsQuestionsTest {
    /** Speeds double from model to model; the price rises by 100. */
    private static final int MODELS = 8;

    @LocalServerPort
    private int port;

    private Client owner;
    private final List<Long> models = new ArrayList<>();
    private final List<Long> configurations = new ArrayList<>();
    private List<Long> speedTests;
    private List<Long> storeTests;

    @BeforeAll
    void eightModels() {
        owner = Client.owner(port);
        speedTests = suite("Tidegauge", "PROCESSOR", "Count, pts, more\nSort, pts, more");
        storeTests = suite("Creel", "STORAGE", "Read, MB/s, more\nWrite, MB/s, more");
        for (int i = 0; i < MODELS; i++) {
            JsonNode made = post(
                    "/api/models",
                    Map.of(
                            "maker",
                            i < 4 ? "Larkspur" : "Quenby",
                            "name",
                            "Step " + i,
                            "deviceClass",
                            i % 2 == 0 ? "LAPTOP" : "TABLET"));
            long model = made.path("model").path("id").asLong();
            models.add(model);
            field(model, "price", i == 7 ? "900 USD" : 300 + 100 * i + " EUR");
            field(model, "released", (2018 + i) + "-05-01");
            field(model, "weight", 500 + 100 * i + " g");
            long unit = post("/api/models/" + model + "/units", Map.of("label", "Unit 1"))
                    .path("units")
                    .get(0)
                    .path("id")
                    .asLong();
            configurations.add(configuration(unit, Map.of("memory.size", (i + 1) + " GiB", "firmware.version", "1.0")));
            measure(configurations.get(i), speedTests, Math.pow(2, i));
            measure(configurations.get(i), storeTests, i == 5 ? 0 : 100 * Math.pow(2, i));
        }
    }

    private JsonNode post(String path, Object body) {
        Client.Answer answer = owner.post(path, body);
        assertThat(answer.status()).as(path + ": " + answer.detail()).isEqualTo(200);
        return answer.body();
    }

    private void field(long model, String name, String text) {
        Map<String, Object> body = new HashMap<>(Map.of("text", text));
        Client.Answer answer = owner.put("/api/models/" + model + "/fields/" + name, body);
        assertThat(answer.status()).as(answer.detail()).isEqualTo(200);
    }

    private List<Long> suite(String name, String group, String lines) {
        List<Long> ids = new ArrayList<>();
        post("/api/suites", Map.of("name", name, "version", "1", "group", group, "text", lines))
                .forEach(id -> ids.add(id.asLong()));
        return ids;
    }

    private long configuration(long unit, Map<String, String> facts) {
        List<Map<String, Object>> given = new ArrayList<>();
        facts.forEach((key, text) -> given.add(Map.of("key", key, "text", text, "read", false)));
        return post("/api/units/" + unit + "/configurations", Map.of("facts", given))
                .path("configuration")
                .path("id")
                .asLong();
    }

    /** Three runs of 1, 1.001 and 0.999 times the value; nothing where it is 0. */
    private void measure(long configuration, List<Long> tests, double value) {
        if (value == 0) {
            return;
        }
        long session = post(
                        "/api/sessions",
                        Map.of(
                                "configurationId",
                                configuration,
                                "name",
                                "Questions",
                                "testIds",
                                tests,
                                "runs",
                                3,
                                "onMains",
                                configuration % 2 == 0))
                .path("session")
                .path("id")
                .asLong();
        for (long test : tests) {
            for (int run = 1; run <= 3; run++) {
                post(
                        "/api/sessions/" + session + "/scores",
                        Map.of(
                                "testId",
                                test,
                                "run",
                                run,
                                "text",
                                String.format(java.util.Locale.ROOT, "%.4f", value * (1 + (run - 2) * 0.001)),
                                "byStopwatch",
                                false));
            }
        }
    }

    private JsonNode ask(String query) {
        Client.Answer answer = owner.get("/api/standings?" + query);
        assertThat(answer.status()).as(query + ": " + answer.detail()).isEqualTo(200);
        return answer.body();
    }

    private List<String> names(JsonNode standings) {
        List<String> names = new ArrayList<>();
        standings
                .path("rows")
                .forEach(r -> names.add(r.path("configuration").path("model").asString()));
        return names;
    }

    private static String encoded(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8);
    }

    @Test
    void everyLevelCanBeRanked() {
        assertThat(ask("base=" + configurations.get(0)).path("parts"))
                .extracting(p -> p.path("name").asString())
                .contains("Processor", "Storage");
        JsonNode group = ask("group=STORAGE&base=" + configurations.get(0));
        assertThat(group.path("scope").asString()).isEqualTo("Storage tests");
        assertThat(names(group)).hasSize(7).doesNotContain("Step 5");
        assertThat(group.path("parts"))
                .extracting(p -> p.path("kind").asString())
                .containsOnly("TEST");
        assertThat(names(ask("test=" + storeTests.get(0)))).hasSize(7);
        assertThat(ask("suite=" + version("Tidegauge")).path("scope").asString())
                .isEqualTo("Tidegauge 1");
        assertThat(owner.get("/api/standings?suite=98765").status()).isEqualTo(404);
    }

    private long version(String suite) {
        for (JsonNode v : owner.get("/api/suite-versions").body()) {
            if (v.path("suite").asString().equals(suite)) {
                return v.path("id").asLong();
            }
        }
        throw new AssertionError(suite);
    }

    @Test
    void theTypicalOneIsTheMedian() {
        JsonNode standings = ask("typical=true&group=PROCESSOR&perModel=FACTORY&fact="
                + encoded("memory.size~AT_MOST~8 GiB") + "&yearFrom=2018");
        assertThat(standings.has("base")).isFalse();
        // Eight doublings: the median lies between the fourth and the fifth, at a factor of √2 from each.
        for (JsonNode row : standings.path("rows")) {
            int i = Integer.parseInt(
                    row.path("configuration").path("model").asString().substring(5));
            assertThat(row.path("index").asDouble()).isCloseTo(100 * Math.pow(2, i - 3.5), within(1e-6));
        }
    }

    @Test
    void whoIsInCanBeNarrowed() {
        assertThat(names(ask("maker=larkspur"))).containsExactly("Step 3", "Step 2", "Step 1", "Step 0");
        assertThat(names(ask("deviceClass=TABLET"))).containsExactly("Step 7", "Step 5", "Step 3", "Step 1");
        JsonNode priced = ask("priceFrom=400&priceTo=600");
        assertThat(names(priced)).containsExactly("Step 3", "Step 2", "Step 1");
        assertThat(priced.path("unknown").get(0).path("what").asString()).isEqualTo("without a price in EUR");
        assertThat(names(ask("yearFrom=2023&perModel=FACTORY"))).containsExactly("Step 7", "Step 6", "Step 5");
        assertThat(names(ask("fact=" + encoded("memory.size~AT_LEAST~6 GB") + "&yearFrom=2018&perModel=FACTORY")))
                .containsExactly("Step 7", "Step 6", "Step 5");
        assertThat(names(ask("fact=" + encoded("memory.size~AT_MOST~3 GB") + "&yearFrom=2019")))
                .containsExactly("Step 2", "Step 1");
        assertThat(ask("power=MAINS").path("rows").size()
                        + ask("power=BATTERY").path("rows").size())
                .isGreaterThanOrEqualTo(MODELS);
        assertThat(owner.get("/api/standings?fact=" + encoded("memory.size~NEARLY~6 GB"))
                        .code())
                .isEqualTo("not-a-condition");
        assertThat(owner.get("/api/standings?maker=Nobody").code()).isEqualTo("nothing-tested");
    }

    @Test
    void theStateOfAReviewIsAsked() {
        field(models.get(2), "review", "in review");
        assertThat(names(ask("review=IN_REVIEW"))).containsExactly("Step 2");
        Client.Answer refused = owner.put(
                "/api/models/" + models.get(2) + "/fields/review", Map.of("seen", "IN_REVIEW", "text", "shiny"));
        assertThat(refused.code()).isEqualTo("unknown-state");
    }

    @Test
    void scoresArePerPriceOnlyWhereItIsKnown() {
        JsonNode standings = ask("per=price&group=PROCESSOR&base=" + configurations.get(0));
        assertThat(names(standings)).doesNotContain("Step 7");
        for (JsonNode row : standings.path("rows")) {
            int i = configurations.indexOf(row.path("configuration").path("id").asLong());
            if (i >= 0) {
                assertThat(row.path("index").asDouble())
                        .isCloseTo(100 * Math.pow(2, i) * 300 / (300 + 100 * i), within(1e-6));
            }
        }
    }

    @Test
    void whyAddsUpAndSaysWhatIsMissing() {
        JsonNode why = owner.get(
                        "/api/standings/why?configuration=" + configurations.get(5) + "&base=" + configurations.get(0))
                .body();
        double sum = 0;
        for (JsonNode t : why.path("tests")) {
            sum += t.path("percent").asDouble(0);
        }
        assertThat(sum).isCloseTo(why.path("index").asDouble() - 100, within(1e-6));
        assertThat(why.path("missing"))
                .extracting(m -> m.path("test").asString())
                .containsExactly("Read", "Write");
        assertThat(why.path("wholeMs").asLong()).isPositive();
        JsonNode top = owner.get("/api/standings/why?configuration=" + configurations.get(7) + "&typical=true")
                .body();
        assertThat(top.path("tests").get(0).path("third").asString()).isEqualTo("UPPER");
        assertThat(owner.get("/api/standings/why?configuration=987654").status())
                .isEqualTo(404);
    }

    @Test
    void theFrontierOfBestValue() {
        JsonNode against = owner.get("/api/standings/against?quantity=price&group=PROCESSOR")
                .body();
        assertThat(against.path("without").asInt()).isEqualTo(1);
        assertThat(against.path("points")).hasSizeGreaterThanOrEqualTo(7).anyMatch(p -> p.path("frontier")
                .asBoolean());
        JsonNode age = owner.get("/api/standings/against?quantity=fact:memory.size&group=PROCESSOR")
                .body();
        assertThat(age.path("points"))
                .extracting(p -> p.path("shown").asString())
                .contains("8 GiB", "1 GiB");
        assertThat(owner.get("/api/standings/against?quantity=colour").code()).isEqualTo("unknown-quantity");
        assertThat(owner.get("/api/standings/quantities").body())
                .extracting(q -> q.path("key").asString())
                .contains("price", "weight", "released", "fact:memory.size");
    }

    @Test
    void anotherPriceIsTriedWithoutChangingTheModel() {
        String plot = "/api/standings/against?quantity=price&group=PROCESSOR&perModel=FACTORY";
        JsonNode before = owner.get(plot).body();
        long dear = configurations.get(6);
        JsonNode tried = owner.get(plot + "&tried=" + dear + "~250.5").body();
        assertThat(point(before, dear).path("shown").asString()).isEqualTo("900 EUR");
        assertThat(point(tried, dear).path("shown").asString()).isEqualTo("250.5 EUR");
        assertThat(tried.path("points"))
                .filteredOn(p -> p.path("frontier").asBoolean())
                .as("nobody else is as good for so little")
                .extracting(p -> p.path("configurationId").asLong())
                .containsExactly(dear);
        assertThat(owner.get(plot).body()).as("nothing is stored").isEqualTo(before);
        long noPrice = configurations.get(7);
        assertThat(point(owner.get(plot + "&tried=" + noPrice + "~300").body(), noPrice)
                        .path("x")
                        .asDouble())
                .as("one in another currency has a price while it is tried")
                .isEqualTo(300);
        for (String wrong : List.of("x~3", dear + "~-3", dear + "~", dear + "~NaN", "7")) {
            assertThat(owner.get(plot + "&tried=" + encoded(wrong)).code())
                    .as(wrong)
                    .isEqualTo("not-an-amount");
        }
        assertThat(owner.get("/api/standings/against?quantity=released&tried=" + dear + "~3")
                        .code())
                .isEqualTo("not-to-try");
    }

    private static JsonNode point(JsonNode plot, long configuration) {
        for (JsonNode point : plot.path("points")) {
            if (point.path("configurationId").asLong() == configuration) {
                return point;
            }
        }
        throw new AssertionError(configuration + " is not on the plot");
    }

    @Test
    void linesOfGenerationsHaveSteps() {
        field(models.get(1), "predecessor", "Larkspur Step 0");
        field(models.get(3), "predecessor", "Step 1");
        JsonNode line = owner.get("/api/standings/generations?group=PROCESSOR")
                .body()
                .path("lines")
                .get(0);
        assertThat(line.path("generations"))
                .extracting(g -> g.path("model").asString())
                .containsExactly("Step 0", "Step 1", "Step 3");
        assertThat(line.path("generations").get(2).path("step").path("ratio").asDouble())
                .isCloseTo(4, within(1e-6));
        assertThat(line.path("whole").path("ratio").asDouble()).isCloseTo(8, within(1e-6));
        assertThat(line.path("whole").path("verdict").asString()).isEqualTo("CLEAR_GAIN");
        assertThat(owner.put("/api/models/" + models.get(0) + "/fields/predecessor", Map.of("text", "Larkspur Step 3"))
                        .code())
                .isEqualTo("follows-itself");
        assertThat(owner.put("/api/models/" + models.get(0) + "/fields/predecessor", Map.of("text", "Nobody's Best"))
                        .code())
                .isEqualTo("unknown-model");
    }

    @Test
    void aModelThatIsInNoLineOfGenerationsSaysWhyAndAWiderScopeIsTaken() {
        long bare = post("/api/models", Map.of("maker", "Quenby", "name", "Bare", "deviceClass", "LAPTOP"))
                .path("model")
                .path("id")
                .asLong();
        field(models.get(5), "predecessor", "Quenby Bare");
        field(models.get(6), "predecessor", "Quenby Step 5");
        JsonNode line = lineOf("group=STORAGE");
        assertThat(line.path("generations"))
                .extracting(g ->
                        g.path("model").asString() + ": " + g.path("missing").asString())
                .containsExactly(
                        "Bare: no configuration of it is on the shelf",
                        "Step 5: none of the tests ranked here was run on it",
                        "Step 6: ");
        assertThat(lineOf("deviceClass=LAPTOP&group=PROCESSOR")
                        .path("generations")
                        .get(1)
                        .path("missing")
                        .asString())
                .isEqualTo("the filters leave it out");
        JsonNode all = owner.get("/api/standings/generations?metric=" + metric(speedTests.get(0)))
                .body();
        assertThat(all.path("scope").asString()).isEqualTo("Count");
        assertThat(all.path("instead").asBoolean()).isFalse();
        owner.delete("/api/models/" + bare);
    }

    private JsonNode lineOf(String query) {
        return owner.get("/api/standings/generations?" + query)
                .body()
                .path("lines")
                .valueStream()
                .filter(l ->
                        l.path("generations").get(0).path("model").asString().equals("Bare"))
                .findFirst()
                .orElseThrow();
    }

    private long metric(long test) {
        return owner.get("/api/tests")
                .body()
                .valueStream()
                .filter(t -> t.path("id").asLong() == test)
                .findFirst()
                .orElseThrow()
                .path("metrics")
                .get(0)
                .path("id")
                .asLong();
    }

    @Test
    void whatIsComparedByDifferencesIsRankedByItselfWithoutAnIndex() {
        List<Long> heat = suite("Kiln", "BODY", "Surface, °C, less\nHums, check");
        double[] degrees = {41, 38, 52, -3};
        for (int i = 0; i < degrees.length; i++) {
            measure(configurations.get(i), heat.subList(0, 1), degrees[i]);
        }
        long metric = metric(heat.get(0));
        JsonNode standings = ask("metric=" + metric + "&base=" + configurations.get(0));
        assertThat(names(standings)).containsExactly("Step 3", "Step 1", "Step 0", "Step 2");
        JsonNode coldest = standings.path("rows").get(0);
        assertThat(coldest.path("value").asDouble()).isCloseTo(-3, within(1e-9));
        assertThat(coldest.path("index").isMissingNode())
                .as("there are no ratios")
                .isTrue();
        assertThat(coldest.path("difference").path("value").asDouble()).isCloseTo(-44, within(1e-9));
        assertThat(coldest.path("difference").path("low").asDouble()).isBetween(-44.5, -44.0);
        assertThat(coldest.path("placeWorst").asInt()).isEqualTo(1);
        assertThat(ask("metric=" + metric + "&typical=true")
                        .path("rows")
                        .get(0)
                        .path("difference")
                        .path("value")
                        .asDouble())
                .as("against the typical one of 38 and 41")
                .isCloseTo(-3 - 39.5, within(2.0));
        JsonNode points = owner.get("/api/standings/against?quantity=price&metric=" + metric)
                .body()
                .path("points");
        assertThat(points).extracting(p -> p.path("value").asDouble()).contains(-3.0, 52.0);
        assertThat(owner.get("/api/standings?per=price&metric=" + metric).code())
                .isEqualTo("not-a-ratio");
        assertThat(owner.get("/api/standings/why?metric=" + metric + "&configuration=" + configurations.get(0))
                        .code())
                .isEqualTo("not-a-ratio");
        assertThat(owner.get("/api/standings/generations?metric=" + metric).code())
                .isEqualTo("not-a-ratio");
        assertThat(owner.get("/api/standings?metric=" + metric(heat.get(1))).code())
                .isEqualTo("not-ranked");
    }

    @Test
    void aPurposeIsTriedSavedChangedAndRetired() {
        Map<String, Object> storage = Map.of(
                "groups",
                Map.of("STORAGE", 3),
                "suites",
                Map.of(),
                "tests",
                Map.of(storeTests.get(0).toString(), 0));
        JsonNode tried = post("/api/standings/tried", storage);
        assertThat(tried.path("standings").path("metrics")).hasSize(1);
        assertThat(tried.path("firmness").path("first").get(0).path("share").asDouble())
                .isEqualTo(1);
        long id = post("/api/purposes", Map.of("name", "night counts", "weighing", storage))
                .path("id")
                .asLong();
        assertThat(ask("purpose=" + id).path("purpose").asString()).isEqualTo("night counts");
        assertThat(owner.post("/api/purposes", Map.of("name", "night counts", "weighing", storage))
                        .code())
                .isEqualTo("purpose-exists");
        Map<String, Object> none = Map.of("groups", Map.of("STORAGE", 0), "suites", Map.of(), "tests", Map.of());
        assertThat(owner.put("/api/purposes/" + id, Map.of("name", "night counts", "weighing", none))
                        .code())
                .isEqualTo("all-weights-zero");
        Map<String, Object> nobody = Map.of("groups", Map.of("BROWSER", 1), "suites", Map.of(), "tests", Map.of());
        assertThat(owner.post("/api/standings/tried", nobody).code()).isEqualTo("no-weight");
        assertThat(owner.delete("/api/purposes/" + id).status()).isEqualTo(200);
        assertThat(owner.get("/api/standings?purpose=" + id).status()).isEqualTo(404);
        long usual = owner.get("/api/purposes").body().get(0).path("id").asLong();
        assertThat(owner.delete("/api/purposes/" + usual).code()).isEqualTo("the-usual-purpose");
    }

    @Test
    void whichTestsAreWorthTheHoursAtHand() {
        JsonNode all = owner.get("/api/standings/hours?minutes=20000").body();
        assertThat(all.path("nothing").isMissingNode() || all.path("nothing").isNull())
                .as(all.path("nothing").asString(""))
                .isTrue();
        int tests = all.path("path").size();
        assertThat(tests).isGreaterThan(2);
        assertThat(all.path("chosen")).hasSize(tests);
        assertThat(all.path("left")).isEmpty();
        assertThat(all.path("path").get(tests - 1).path("agree").asDouble())
                .as("all tests agree with themselves")
                .isEqualTo(all.path("pairs").asDouble());

        JsonNode last = all.path("path").get(tests - 1);
        double first = all.path("path").get(0).path("minutes").asDouble();
        int brief = (int) Math.max(1, Math.ceil(first));
        JsonNode few = owner.get("/api/standings/hours?minutes=" + brief).body();
        assertThat(few.path("chosen").size() + few.path("left").size()).isEqualTo(tests);
        assertThat(few.path("chosen")
                        .get(few.path("chosen").size() - 1)
                        .path("until")
                        .asDouble())
                .isLessThanOrEqualTo(brief);

        long id = last.path("testId").asLong();
        JsonNode forced = owner.get("/api/standings/hours?minutes=" + brief + "&must=" + id)
                .body();
        assertThat(forced.path("chosen").get(0).path("testId").asLong()).isEqualTo(id);
        JsonNode without =
                owner.get("/api/standings/hours?minutes=20000&never=" + id).body();
        assertThat(without.path("chosen")).hasSize(tests - 1);
        assertThat(owner.get("/api/standings/hours?minutes=60&must=" + id + "&never=" + id)
                        .code())
                .isEqualTo("must-and-never");
        assertThat(owner.get("/api/standings/hours?minutes=0").status()).isEqualTo(400);

        long alone = owner.get("/api/standings")
                .body()
                .path("rows")
                .get(0)
                .path("configuration")
                .path("id")
                .asLong();
        assertThat(owner.get("/api/standings/hours?minutes=60&only=" + alone)
                        .body()
                        .path("nothing")
                        .asString())
                .contains("6 configurations");
    }

    @Test
    void howFirmTheTopIs() {
        JsonNode firmness = owner.get("/api/standings/firmness").body();
        assertThat(firmness.path("first")).hasSize(5);
        assertThat(firmness.path("first").get(0).path("share").asDouble())
                .as("best in everything")
                .isEqualTo(1);
        assertThat(firmness.path("weightings").asInt()).isEqualTo(1_000);
        assertThat(firmness.path("over").asString()).isEqualTo("GROUP");
    }

    @Test
    void oneOfEachModelAndOldFirmware() {
        JsonNode page = owner.get("/api/models/" + models.get(6)).body();
        long unit = page.path("units").get(0).path("id").asLong();
        long newer = configuration(unit, Map.of("memory.size", "7 GiB", "firmware.version", "1.10"));
        measure(newer, speedTests, 40);
        assertThat(ask("group=PROCESSOR&perModel=NEWEST").path("rows"))
                .filteredOn(
                        r -> r.path("configuration").path("model").asString().equals("Step 6"))
                .extracting(r -> r.path("configuration").path("id").asLong())
                .containsExactly(newer);
        assertThat(ask("group=PROCESSOR&perModel=BEST").path("rows"))
                .filteredOn(
                        r -> r.path("configuration").path("model").asString().equals("Step 6"))
                .extracting(r -> r.path("configuration").path("id").asLong())
                .containsExactly(configurations.get(6));
        assertThat(ask("group=PROCESSOR&perModel=FACTORY").path("rows"))
                .filteredOn(
                        r -> r.path("configuration").path("model").asString().equals("Step 6"))
                .hasSize(1);
        assertThat(ask("group=PROCESSOR").path("rows"))
                .filteredOn(r -> r.has("newerFirmware"))
                .extracting(r -> r.path("newerFirmware").asString())
                .containsExactly("1.10");
        assertThat(ask("group=PROCESSOR&newestFirmware=true").path("rows")).noneMatch(r -> r.has("newerFirmware"));
    }

    @Test
    void anOlderSuiteVersionIsStale() {
        List<Long> older = suite("Sluice gate", "NETWORK", "Ping, pts, more");
        for (int i = 0; i < 3; i++) {
            measure(configurations.get(i), older, 5 + i);
        }
        post(
                "/api/suites",
                Map.of("name", "Sluice gate", "version", "2", "group", "NETWORK", "text", "Ping, pts, more"));
        assertThat(ask("group=NETWORK").path("rows"))
                .allMatch(r -> r.path("staleTests").asInt() == 1);
        assertThat(owner.get("/api/standings?group=NETWORK&fresh=true").code()).isEqualTo("nothing-tested");
    }

    @Test
    void aKeptStandingStaysAsItWasAndNeedsNoSignIn() {
        long model = post("/api/models", Map.of("maker", "Dunlin", "name", "Kept", "deviceClass", "PHONE"))
                .path("model")
                .path("id")
                .asLong();
        long phone = configuration(
                post("/api/models/" + model + "/units", Map.of("label", "Unit 1"))
                        .path("units")
                        .get(0)
                        .path("id")
                        .asLong(),
                Map.of("memory.size", "512 GiB"));
        measure(phone, speedTests, 3);
        JsonNode kept = post(
                "/api/kept-standings?deviceClass=PHONE&group=PROCESSOR",
                Map.of(
                        "caption",
                        "Dunlin's <b>phones</b>",
                        "title",
                        "Phones in the rain",
                        "words",
                        " Two of them drowned. "));
        String path = "/api/kept/" + kept.path("key").asString();
        JsonNode before = new Client(port).get(path).body();
        assertThat(before.path("standings").path("rows")).hasSize(1);
        assertThat(before.path("title").asString()).isEqualTo("Phones in the rain");
        assertThat(before.path("words").asString()).isEqualTo("Two of them drowned.");
        assertThat(before.has("person"))
                .as("readers are not told who works here")
                .isFalse();
        measure(phone, speedTests, 0.5);
        assertThat(new Client(port).get(path).body()).isEqualTo(before);
        assertThat(new Client(port).get("/api/kept/nothing-here").status()).isEqualTo(404);
        assertThat(new Client(port).get("/api/kept-standings").status()).isEqualTo(401);
        assertThat(owner.get("/api/kept-standings").body().path("total").asInt())
                .isPositive();
        assertThat(owner.delete("/api/kept-standings/" + kept.path("key").asString())
                        .status())
                .isEqualTo(200);
        assertThat(new Client(port).get(path).status()).isEqualTo(404);
    }

    @Test
    void twoIslandsAreToldApart() {
        List<Long> alone = suite("Island", "VIDEO", "Frames, pts, more");
        long unit = post("/api/models/" + models.get(0) + "/units", Map.of("label", "Island unit"))
                .path("units")
                .get(1)
                .path("id")
                .asLong();
        long island = configuration(unit, Map.of("memory.size", "64 GiB"));
        measure(island, alone, 12);
        JsonNode standings = ask("base=" + configurations.get(0));
        assertThat(standings.path("rows"))
                .filteredOn(r -> r.path("configuration").path("id").asLong() == island)
                .extracting(r -> r.path("status").asString())
                .containsExactly("NOT_LINKED");
        assertThat(owner.get("/api/standings/why?configuration=" + island + "&base=" + configurations.get(0))
                        .code())
                .isEqualTo("not-linked");
        JsonNode one = ask("group=VIDEO");
        assertThat(one.path("rows")).hasSize(1);
        assertThat(one.path("rows").get(0).path("index").asDouble()).isEqualTo(100);
    }
}
