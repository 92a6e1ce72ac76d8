package yarrowmark.server.analysis;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.LongStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.catalog.Purposes;
import yarrowmark.server.catalog.TestGroup;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.Lab;
import yarrowmark.server.support.ServerTest;

/** Two and more configurations held against each other, through the interface and a real database. */
@ServerTest
class CompareTest {
    @LocalServerPort
    private int port;

    @Autowired
    private Purposes purposes;

    private Lab lab;
    private long base;
    private long other;

    @BeforeEach
    void twoConfigurations() {
        lab = new Lab(port);
        base = lab.configuration(Map.of("firmware.version", "1.04", "processor.cores", "4"));
        other = lab.configuration(Map.of("firmware.version", "1.11", "processor.cores", "8"));
    }

    private Client.Answer compare(String more, long... others) {
        return lab.owner().get("/api/compare?" + question(more, others));
    }

    private String question(String more, long... others) {
        return "base=" + base + "&with="
                + LongStream.of(others).mapToObj(Long::toString).collect(Collectors.joining(",")) + more;
    }

    private JsonNode compared(String more, long... others) {
        Client.Answer answer = compare(more, others);
        assertThat(answer.status()).as(answer.detail()).isEqualTo(200);
        return answer.body();
    }

    private static JsonNode cell(JsonNode comparison, String test, int side) {
        for (JsonNode row : comparison.path("rows")) {
            if (row.path("metric").path("test").asString().equals(test)) {
                return row.path("cells").get(side);
            }
        }
        throw new AssertionError("no row " + test);
    }

    /** The method's example B: the noise of example A, sample 2 against sample 1, through the whole program. */
    /** A smaller drive had hidden that everything else was better. */
    @Test
    void aBigOtherChangeIsToldBesideTheOverall() {
        Lab mixed = new Lab(port);
        long small = mixed.configuration(Map.of("storage.model", "Reed 500", "processor.name", "Thessaly 5"));
        long large = mixed.configuration(Map.of("storage.model", "Reed 900", "processor.name", "Thessaly 5"));
        Map<String, String> better = Map.of("PROCESSOR", "121", "MEMORY", "120", "STORAGE", "40");
        for (String group : List.of("PROCESSOR", "MEMORY", "STORAGE")) {
            mixed.suite("Mixed " + group + mixed.number(), "1", group, "Weir, 1, more");
            mixed.session(small, 3).typed(0, "100", "101", "99");
            mixed.session(large, 3).typed(0, better.get(group), better.get(group), better.get(group));
        }
        JsonNode side = mixed.owner()
                .get("/api/compare?base=" + small + "&with=" + large)
                .body()
                .path("sides")
                .get(0);
        assertThat(side.path("overall").path("ratio").asDouble()).isLessThan(1);
        JsonNode swayed = side.path("swayed");
        assertThat(swayed.path("key").asString()).isEqualTo("group:STORAGE");
        assertThat(swayed.path("facts").toString()).isEqualTo("[\"Drive\"]");
        assertThat(swayed.path("ratio").asDouble()).isCloseTo(0.4, within(0.01));
        assertThat(swayed.path("size").asString()).isEqualTo("60.0 % worse");
        assertThat(swayed.path("without").asDouble()).isBetween(1.2, 1.21);
        assertThat(swayed.path("withoutSize").asString()).isEqualTo("20.5 % better");
        JsonNode without = mixed.owner()
                .get("/api/compare?base=" + small + "&with=" + large + "&without=group:STORAGE")
                .body()
                .path("sides")
                .get(0);
        assertThat(without.path("overall").path("ratio").asDouble())
                .as("the same number where it is left out")
                .isCloseTo(swayed.path("without").asDouble(), within(1e-9));
        assertThat(without.path("swayed").isMissingNode()).isTrue();
    }

    @Test
    void exampleBComesThroughTheWholeProgram() {
        lab.suite("Weir, 1, more");
        double[][] samples = {
            {388.1, 391.7, 386.9},
            {402.4, 405.9, 403.3},
            {512.0, 498.6, 505.1},
            {610.8, 612.2, 607.5, 609.9},
            {291.3, 290.1}
        };
        List<Long> made = new ArrayList<>(List.of(base, other));
        for (int i = 0; i < samples.length; i++) {
            if (i > 1) {
                made.add(lab.configuration(Map.of("firmware.version", "2.0" + i)));
            }
            lab.session(made.get(i), samples[i].length);
            String[] texts = new String[samples[i].length];
            for (int run = 0; run < texts.length; run++) {
                texts[run] = Double.toString(samples[i][run]);
            }
            lab.typed(0, texts);
        }
        JsonNode cell = cell(compared("", other), "Weir", 0);
        // Typed with one decimal, so the resolution floor is far below the noise and changes nothing.
        assertThat(cell.path("ratio").asDouble()).isCloseTo(1.038491869, within(5e-10));
        assertThat(cell.path("low").asDouble()).isCloseTo(1.01011887598, within(5e-10));
        assertThat(cell.path("high").asDouble()).isCloseTo(1.06766182439, within(5e-10));
        assertThat(cell.path("verdict").asString()).isEqualTo("CLEAR_GAIN");
        assertThat(cell.path("size").asString()).isEqualTo("3.8 % higher");
        assertThat(cell.path("range").asString()).isEqualTo("1.0 to 6.8 % higher");
        assertThat(cell.path("apart").asDouble()).as("403.86 less 388.89").isCloseTo(14.9694, within(0.001));
        assertThat(lab.sentence(question("", other), 0, 0))
                .contains("3.8 % higher than")
                .contains("95 % interval 1.0 to 6.8 % higher");
    }

    private void measured(String lines, long of, String[]... texts) {
        if (lab.tests().isEmpty()) {
            lab.suite(lines);
        }
        lab.session(of, 3);
        for (int test = 0; test < texts.length; test++) {
            lab.typed(test, texts[test]);
        }
    }

    private static String[] runs(String... texts) {
        return texts;
    }

    @Test
    void theOverallIsMadeOfItsPartsAndSaysWhatChanged() {
        String lines = "Weir, 1, more\nPack, s, less\nHeat, °C, less, difference";
        measured(
                lines,
                base,
                runs("100.1", "101.2", "99.3"),
                runs("200.1", "201.3", "199.2"),
                runs("61.1", "62.1", "60.9"));
        measured(
                lines,
                other,
                runs("120.2", "121.1", "119.4"),
                runs("180.2", "181.1", "179.3"),
                runs("71.2", "72.3", "70.8"));
        JsonNode comparison = compared("", other);
        JsonNode side = comparison.path("sides").get(0);
        JsonNode overall = side.path("overall");
        double expected = Math.sqrt(cell(comparison, "Weir", 0).path("ratio").asDouble()
                * cell(comparison, "Pack", 0).path("ratio").asDouble());
        assertThat(overall.path("ratio").asDouble()).isCloseTo(expected, within(1e-12));
        assertThat(overall.path("shared").asInt()).isEqualTo(2);
        double parts = overall.path("groups")
                .valueStream()
                .mapToDouble(g -> g.path("percent").asDouble())
                .sum();
        assertThat(parts).isCloseTo(100 * (expected - 1), within(1e-9));
        double rows = comparison
                .path("rows")
                .valueStream()
                .mapToDouble(r -> r.path("cells").get(0).path("percent").asDouble(0))
                .sum();
        assertThat(rows).isCloseTo(parts, within(1e-9));
        assertThat(lab.sentence(question("", other), 1, 0))
                .contains("less time than")
                .doesNotContain("faster");
        JsonNode heat = cell(comparison, "Heat", 0);
        assertThat(heat.path("difference").asDouble()).isCloseTo(10.0666666667, within(1e-9));
        assertThat(heat.path("reading").asString()).isEqualTo("WORSE");
        assertThat(heat.path("ratio").isMissingNode()).isTrue();
        assertThat(comparison.path("leftOut").toString()).contains("Heat").contains("compared by differences");
        assertThat(side.path("changed").path("differing").toString())
                .contains("firmware.version")
                .contains("processor.cores");
        assertThat(side.path("clean").asBoolean()).as("two facts changed").isFalse();
    }

    @Test
    void exchangingTheBaseTurnsEverythingRound() {
        measured("Weir, 1, more", base, new String[][] {runs("100", "102", "98")});
        measured("", other, new String[][] {runs("120", "121", "119")});
        JsonNode there = cell(compared("", other), "Weir", 0);
        JsonNode back = lab.owner()
                .get("/api/compare?base=" + other + "&with=" + base)
                .body()
                .path("rows")
                .get(0)
                .path("cells")
                .get(0);
        assertThat(there.path("ratio").asDouble() * back.path("ratio").asDouble())
                .isCloseTo(1, within(1e-12));
        assertThat(there.path("low").asDouble() * back.path("high").asDouble()).isCloseTo(1, within(1e-9));
    }

    @Test
    void materialityDecidesWhatIsClearAndWhatIsLevel() {
        measured("Weir, 1, more", base, new String[][] {runs("100.0", "100.1", "99.9")});
        measured("", other, new String[][] {runs("105.0", "105.1", "104.9")});
        assertThat(cell(compared("&materiality=3", other), "Weir", 0)
                        .path("verdict")
                        .asString())
                .isEqualTo("CLEAR_GAIN");
        assertThat(cell(compared("&materiality=20", other), "Weir", 0)
                        .path("verdict")
                        .asString())
                .isEqualTo("LEVEL");
        assertThat(compare("&materiality=0", other).code()).isEqualTo("not-a-materiality");
        assertThat(compare("&materiality=NaN", other).code()).isEqualTo("not-a-materiality");
    }

    @Test
    void dividedByWhatIsKnownOnAllSidesOnly() {
        measured("Weir, 1, more", base, new String[][] {runs("100", "101", "99")});
        measured("", other, new String[][] {runs("160", "161", "159")});
        double plain = cell(compared("", other), "Weir", 0).path("ratio").asDouble();
        JsonNode perCore = compared("&per=cores", other);
        assertThat(cell(perCore, "Weir", 0).path("ratio").asDouble()).isCloseTo(plain / 2, within(1e-12));
        assertThat(perCore.path("per").path("unit").asString()).isEqualTo("cores");
        assertThat(perCore.path("sides").get(0).path("quantity").asDouble()).isEqualTo(8);
        assertThat(compare("&per=clock", other).code()).isEqualTo("quantity-unknown");
        assertThat(compare("&per=luck", other).code()).isEqualTo("unknown-quantity");
        JsonNode offered = lab.owner()
                .get("/api/compare/quantities?ids=" + base + "," + other)
                .body();
        assertThat(offered.valueStream().map(q -> q.path("key").asString())).containsExactly("cores");
    }

    @Test
    void severalAtOnceEachHaveTheirOwnSharedTests() {
        String lines = "Weir, 1, more\nPack, s, less";
        long third = lab.configuration(Map.of("firmware.version", "1.20"));
        measured(lines, base, runs("100", "101", "99"), runs("200", "201", "199"));
        measured(lines, other, runs("120", "121", "119"), runs("180", "181", "179"));
        measured(lines, third, new String[][] {runs("90", "91", "89")});
        JsonNode comparison = compared("", other, third);
        assertThat(comparison
                        .path("sides")
                        .get(0)
                        .path("overall")
                        .path("shared")
                        .asInt())
                .isEqualTo(2);
        assertThat(comparison
                        .path("sides")
                        .get(1)
                        .path("overall")
                        .path("shared")
                        .asInt())
                .isEqualTo(1);
        assertThat(cell(comparison, "Pack", 1).path("outReason").asString()).startsWith("not run on");
        assertThat(comparison.path("leftOut").toString()).contains("Pack");
    }

    @Test
    void nothingInCommonIsSaidAndOneRunEachIsProbable() {
        measured("Weir, 1, more\nPack, s, less", base, new String[][] {runs("100")});
        lab.session(other, 3).type(1, 1, "180");
        JsonNode apart = compared("", other);
        assertThat(apart.path("rows").size()).as("what the base has not run").isEqualTo(1);
        assertThat(apart.path("sides").get(0).path("noOverall").asString()).isEqualTo("No test was run on both.");
        lab.type(0, 1, "150");
        JsonNode cell = cell(compared("", other), "Weir", 0);
        assertThat(cell.path("ratio").asDouble()).isCloseTo(1.5, within(1e-12));
        assertThat(cell.path("unmeasured").asBoolean()).isTrue();
        assertThat(cell.path("verdict").asString()).isEqualTo("PROBABLY_GAIN");
        assertThat(compared("", other)
                        .path("sides")
                        .get(0)
                        .path("overall")
                        .path("unmeasured")
                        .asInt())
                .isEqualTo(1);
    }

    /** By hand: of three tests in two suites' groups, Pack carries the gain; without it the two others say loss. */
    @Test
    void partsStandForThemselvesAndCanBeLeftOut() {
        String lines = "Weir, 1, more, processor\nPack, s, less, storage\nSort, 1, more, processor";
        measured(
                lines,
                base,
                runs("100.1", "101.2", "99.3"),
                runs("200.1", "201.3", "199.2"),
                runs("50.1", "50.6", "49.8"));
        measured(
                lines,
                other,
                runs("90.2", "91.1", "89.4"),
                runs("120.2", "121.1", "119.3"),
                runs("48.1", "48.4", "47.8"));
        JsonNode overall = compared("", other).path("sides").get(0).path("overall");
        assertThat(overall.path("ratio").asDouble()).isGreaterThan(1.1);
        assertThat(overall.path("groups")).hasSize(2);
        double weir = cell(compared("", other), "Weir", 0).path("ratio").asDouble();
        double sort = cell(compared("", other), "Sort", 0).path("ratio").asDouble();
        double adds = 0;
        for (JsonNode group : overall.path("groups")) {
            adds += group.path("percent").asDouble();
            assertThat(group.path("low").asDouble())
                    .isLessThan(group.path("ratio").asDouble());
            if (group.path("group").asString().equals("PROCESSOR")) {
                assertThat(group.path("ratio").asDouble()).isCloseTo(Math.sqrt(weir * sort), within(1e-9));
                assertThat(group.path("key").asString()).isEqualTo("group:PROCESSOR");
            } else {
                assertThat(group.path("without").asDouble()).isCloseTo(Math.sqrt(weir * sort), within(1e-9));
            }
        }
        assertThat(adds).isCloseTo(100 * (overall.path("ratio").asDouble() - 1), within(1e-9));
        assertThat(overall.path("reverses").path("tests").get(0).asString()).isEqualTo("Pack");
        assertThat(overall.path("reverses").path("ratio").asDouble()).isLessThan(1);

        JsonNode without = compared("&without=group:STORAGE", other);
        assertThat(without.path("sides").get(0).path("overall").path("ratio").asDouble())
                .isCloseTo(Math.sqrt(weir * sort), within(1e-9));
        assertThat(cell(without, "Pack", 0).path("outReason").asString()).isEqualTo("left out here");
        assertThat(without.path("leftOut").toString()).contains("left out here");
        JsonNode none = compared("&without=group:STORAGE,group:PROCESSOR", other);
        assertThat(none.path("sides").get(0).path("overall").isMissingNode()).isTrue();
        assertThat(compared("&without=test:987654,nonsense", other)
                        .path("sides")
                        .get(0)
                        .path("overall")
                        .path("shared")
                        .asInt())
                .as("what is not there leaves nothing out")
                .isEqualTo(3);
    }

    /** Said to count, and made of two that count: it is compared, and weighed nowhere. */
    @Test
    void aTotalIsNeverWeighedBesideItsParts() {
        String lines = "Weir, 1, more\nPack, 1, more";
        lab.suite(lines);
        assertThat(lab.owner()
                        .post(
                                "/api/suite-versions/" + lab.version() + "/computed",
                                Map.of(
                                        "name",
                                        "Both",
                                        "unit",
                                        "1",
                                        "direction",
                                        "MORE_IS_BETTER",
                                        "scale",
                                        "RATIO",
                                        "group",
                                        "STORAGE",
                                        "main",
                                        true,
                                        "formula",
                                        "a + b",
                                        "inputs",
                                        Map.of("a", lab.metric(0), "b", lab.metric(1))))
                        .status())
                .isEqualTo(200);
        measured(lines, base, runs("100.1", "101.2", "99.3"), runs("200.1", "201.3", "199.2"));
        measured(lines, other, runs("110.1", "111.2", "109.3"), runs("240.1", "241.3", "239.2"));
        JsonNode comparison = compared("&suite=" + lab.version(), other);
        assertThat(comparison.path("rows")).hasSize(3);
        assertThat(comparison
                        .path("sides")
                        .get(0)
                        .path("overall")
                        .path("shared")
                        .asInt())
                .isEqualTo(2);
        assertThat(cell(comparison, "Both", 0).path("percent").isMissingNode()).isTrue();
        JsonNode standing =
                lab.owner().get("/api/standings?suite=" + lab.version()).body();
        assertThat(standing.path("metrics")).hasSize(2);
        assertThat(standing.path("leftOut").toString()).contains("its parts are weighed already");
    }

    @Test
    void aTestTheBaseHasNotRunIsALineAllTheSame() {
        long third = lab.configuration(Map.of("firmware.version", "2.0"));
        String lines = "Weir, 1, more\nPack, s, less";
        measured(lines, base, new String[][] {runs("100.1", "101.2", "99.3")});
        measured(lines, other, runs("110.1", "111.2", "109.3"), runs("20.1", "20.2", "20.3"));
        measured(lines, third, runs("120.1", "121.2", "119.3"), runs("10.1", "10.2", "10.3"));
        JsonNode comparison = compared("", other, third);
        JsonNode row = null;
        for (JsonNode r : comparison.path("rows")) {
            row = r.path("metric").path("test").asString().equals("Pack") ? r : row;
        }
        assertThat(row).isNotNull();
        assertThat(row.path("value").isMissingNode()).isTrue();
        assertThat(row.path("against").asInt()).isZero();
        assertThat(row.path("cells").get(0).path("ratio").isMissingNode()).isTrue();
        assertThat(row.path("cells").get(0).path("outReason").asString()).startsWith("not run on");
        assertThat(row.path("cells").get(1).path("ratio").asDouble()).isCloseTo(1.98, within(0.01));
        assertThat(row.path("cells").get(1).path("verdict").asString()).isEqualTo("CLEAR_GAIN");
        assertThat(comparison
                        .path("sides")
                        .get(1)
                        .path("overall")
                        .path("shared")
                        .asInt())
                .isEqualTo(1);
        String words = lab.sentence(question("", other, third), 1, 1);
        assertThat(words).startsWith("Pack: ").contains("less time than");
        assertThat(lab.sentence(question("", other, third), 1, 0))
                .as("nothing to hold the first that has it against")
                .isEmpty();
        // What is left out of the question is left out of the words.
        assertThat(lab.owner()
                        .get("/api/compare/sentences?" + question("&group=BROWSER", other, third))
                        .body()
                        .isEmpty())
                .isTrue();
    }

    @Test
    void whatCannotBeComparedIsRefusedInWords() {
        assertThat(lab.owner()
                        .get("/api/compare/sentences?" + question("", base))
                        .code())
                .isEqualTo("not-two");
        assertThat(compare("", base).code()).isEqualTo("not-two");
        assertThat(compare("", LongStream.range(1, 200).toArray()).code()).isEqualTo("not-two");
        assertThat(compare("", 987_654_321L).status()).isEqualTo(404);
        assertThat(compare("&purpose=987654", other).status()).isEqualTo(404);
        assertThat(lab.owner().get("/api/compare?base=x&with=1").status()).isEqualTo(400);
    }

    @Test
    void aLineOpensIntoItsReadings() {
        measured("Weir, 1, more", base, new String[][] {runs("100", "101", "60")});
        measured("", other, new String[][] {runs("120", "121", "119")});
        long metric = compared("", other)
                .path("rows")
                .get(0)
                .path("metric")
                .path("id")
                .asLong();
        JsonNode opened = lab.owner()
                .get("/api/compare/metrics/" + metric + "?ids=" + base + "," + other)
                .body();
        assertThat(opened.path("sides").get(0).path("readings").valueStream().map(r -> r.path("value")
                        .asDouble()))
                .containsExactly(100.0, 101.0, 60.0);
        assertThat(opened.path("sides").get(1).path("readings")).hasSize(3);
        assertThat(opened.path("others")).isEmpty();
        assertThat(lab.owner()
                        .get("/api/compare/metrics/" + metric + "?ids=" + other)
                        .body()
                        .path("others")
                        .get(0)
                        .path("configuration")
                        .path("id")
                        .asLong())
                .isEqualTo(base);
        assertThat(lab.owner().get("/api/compare/metrics/99999999?ids=" + base).status())
                .isEqualTo(404);
    }

    @Test
    void configurationsMadeFromOneAnotherAreProposed() {
        measured("Weir, 1, more", base, new String[][] {runs("100", "101", "99")});
        long unit = lab.owner()
                .get("/api/configurations/" + base)
                .body()
                .path("unitId")
                .asLong();
        long child = lab.owner()
                .post(
                        "/api/units/" + unit + "/configurations",
                        Map.of(
                                "parentId",
                                base,
                                "facts",
                                List.of(Map.of("key", "firmware.version", "text", "1.05", "read", false))))
                .body()
                .path("configuration")
                .path("id")
                .asLong();
        assertThat(lab.owner().get("/api/compare/pairs").body().valueStream().map(p -> p.path("after")
                        .path("id")
                        .asLong()))
                .doesNotContain(child);
        measured("", child, new String[][] {runs("103", "104", "102")});
        JsonNode pair = lab.owner().get("/api/compare/pairs").body().get(0);
        assertThat(pair.path("before").path("id").asLong()).isEqualTo(base);
        assertThat(pair.path("after").path("id").asLong()).isEqualTo(child);
        assertThat(pair.path("shared").asInt()).isEqualTo(1);
        JsonNode overall = lab.owner()
                .get("/api/compare?base=" + base + "&with=" + child)
                .body()
                .path("sides")
                .get(0)
                .path("overall");
        assertThat(pair.path("outcome").path("ratio").asDouble())
                .as("what Compare says of the same two")
                .isEqualTo(overall.path("ratio").asDouble())
                .isPositive();
        assertThat(pair.path("outcome").path("size").asString())
                .isEqualTo(overall.path("size").asString());
    }

    @Test
    void aTotalWithoutOnePartIsRecomputedAndLabelled() {
        lab.suite("One, 1, more\nTwo, 1, more\nThree, 1, more");
        Map<String, Object> weights = lab.tests().stream()
                .collect(Collectors.toMap(
                        t -> Long.toString(
                                lab.row(t).path("metrics").get(0).path("id").asLong()),
                        t -> 1));
        Client.Answer total = lab.owner()
                .post(
                        "/api/suite-versions/" + lab.version() + "/total",
                        Map.of("kind", "HARMONIC", "weights", weights, "unit", "1"));
        assertThat(total.status()).as(total.detail()).isEqualTo(200);
        lab.session(base, 1).typed(0, "1200").typed(1, "1850").typed(2, "2400");
        lab.session(other, 1).typed(0, "1320").typed(1, "1820").typed(2, "2900");
        String asked = "/api/compare/totals?base=" + base + "&with=" + other;
        JsonNode whole = lab.owner().get(asked).body().get(0);
        assertThat(whole.path("base").asDouble()).isCloseTo(1675.471698, within(5e-7));
        assertThat(whole.path("baseStated").asDouble()).isCloseTo(1675.471698, within(5e-7));
        assertThat(whole.path("parts").get(0).path("contribution").asDouble()).isCloseTo(76.846896162, within(5e-9));
        assertThat(whole.path("label").isMissingNode()).isTrue();
        JsonNode without =
                lab.owner().get(asked + "&without=" + lab.metric(1)).body().get(0);
        assertThat(without.path("base").asDouble()).isCloseTo(1600, within(1e-9));
        assertThat(without.path("label").asString()).contains("Recomputed by Yarrowmark from 2 of 3 parts");
        assertThat(without.path("parts").get(1).path("takenOut").asBoolean()).isTrue();
        assertThat(lab.owner()
                        .get(asked + "&without="
                                + lab.tests().stream()
                                        .map(t -> Long.toString(lab.row(t)
                                                .path("metrics")
                                                .get(0)
                                                .path("id")
                                                .asLong()))
                                        .collect(Collectors.joining(",")))
                        .body())
                .isEmpty();
    }

    /** The method's example of section 8 through the whole program, without lent noise mattering for the effects. */
    @Test
    void twoFactorsHaveEffectsAndAnInteraction() {
        long a1b1 = lab.configuration(Map.of("memory.size", "8 GB", "firmware.version", "8"));
        long a2b1 = lab.configuration(Map.of("memory.size", "16 GB", "firmware.version", "8"));
        long a1b2 = lab.configuration(Map.of("memory.size", "8 GB", "firmware.version", "9"));
        long a2b2 = lab.configuration(Map.of("memory.size", "16 GB", "firmware.version", "9"));
        measured("Weir, 1, more", a1b1, new String[][] {runs("201", "204", "199")});
        measured("", a2b1, new String[][] {runs("246", "250", "244")});
        measured("", a1b2, new String[][] {runs("205", "203", "207")});
        String three = "/api/compare/factors?ids=" + a1b1 + "," + a2b1 + "," + a1b2;
        JsonNode missing = lab.owner()
                .get(three + "&first=memory.size&second=firmware.version")
                .body();
        assertThat(missing.path("blocks")).isEmpty();
        assertThat(missing.path("rows").get(1).path("cells").get(1).path("from").asLong())
                .as("what the missing one could be made from")
                .isEqualTo(a2b1);
        measured("", a2b2, new String[][] {runs("281", "278", "284")});
        JsonNode grid = lab.owner()
                .get(three + "," + a2b2 + "&first=memory.size&second=firmware.version")
                .body();
        JsonNode block = grid.path("blocks").get(0);
        assertThat(block.path("first").path("ratio").asDouble()).isCloseTo(1.295902941, within(5e-10));
        assertThat(block.path("second").path("ratio").asDouble()).isCloseTo(1.077021177, within(5e-10));
        assertThat(block.path("interaction").path("ratio").asDouble()).isCloseTo(1.118805322, within(5e-10));
        assertThat(block.path("interaction").path("words").asString())
                .contains("the gain from".substring(1))
                .contains("larger on 16 GiB than on 8 GiB");
        assertThat(block.path("turns").asBoolean()).isFalse();
        assertThat(grid.path("dropped")).isEmpty();
        lab.suite("Beside " + lab.number(), "1", "Sluice, 1, more")
                .session(a2b2, 3)
                .typed(0, "3");
        JsonNode dropped = lab.owner()
                .get(three + "," + a2b2 + "&first=memory.size&second=firmware.version")
                .body()
                .path("dropped");
        assertThat(dropped).hasSize(1);
        assertThat(dropped.get(0).path("test").asString()).isEqualTo("Sluice");
        assertThat(dropped.get(0).path("failed").asBoolean()).isFalse();
        assertThat(dropped.get(0).path("why")).hasSize(3);
        assertThat(dropped.get(0).path("why").get(0).asString()).startsWith("not run on ");
        assertThat(grid.path("choices").valueStream().map(c -> c.path("key").asString()))
                .contains("memory.size", "firmware.version");
        assertThat(lab.owner().get(three + "&first=os.name").code()).isEqualTo("not-a-factor");
        assertThat(lab.owner().get("/api/compare/factors?ids=" + a1b1).code()).isEqualTo("not-two");
    }

    @Test
    void whatADisplayHoldsIsComparedButDoesNotCount() {
        long held = lab.configuration(Map.of("display.refresh", "60 Hz"));
        measured(
                "Weir, 1, more\nFlight, fps, more, capped",
                base,
                runs("100", "101", "99"),
                runs("40.1", "41.2", "40.6"));
        measured("", held, runs("110", "111", "109"), runs("59.9", "59.94", "59.92"));
        JsonNode cell = cell(compared("", held), "Flight", 0);
        assertThat(cell.path("ratio").asDouble()).isGreaterThan(1.4);
        assertThat(cell.path("outReason").asString()).startsWith("held at the display's rate on");
        assertThat(compared("", held)
                        .path("sides")
                        .get(0)
                        .path("overall")
                        .path("shared")
                        .asInt())
                .isEqualTo(1);
        List<JsonNode> marked = lab.owner()
                .get("/api/compare/marks?ids=" + base + "," + held)
                .body()
                .valueStream()
                .filter(m -> m.path("kinds").toString().contains("HELD"))
                .toList();
        assertThat(marked)
                .singleElement()
                .satisfies(m -> assertThat(m.path("configurationId").asLong()).isEqualTo(held));
    }

    @Test
    void unitsOfOneModelWithTheSameFactsThatDifferAreUnlike() {
        Map<String, String> facts = Map.of("firmware.version", "1.04", "processor.cores", "4");
        long unit = lab.owner()
                .post("/api/models/" + lab.model() + "/units", Map.of("label", "Unit 2"))
                .body()
                .path("units")
                .get(1)
                .path("id")
                .asLong();
        List<Map<String, Object>> given = facts.entrySet().stream()
                .map(f -> Map.<String, Object>of("key", f.getKey(), "text", f.getValue(), "read", false))
                .toList();
        long twin = lab.owner()
                .post("/api/units/" + unit + "/configurations", Map.of("facts", given))
                .body()
                .path("configuration")
                .path("id")
                .asLong();
        measured("Weir, 1, more\nPack, s, less", base, runs("100", "101", "99"), runs("200", "201", "199"));
        measured("", twin, runs("88", "88.5", "87.8"), runs("200.5", "199.5", "200"));
        JsonNode side = compared("", twin).path("sides").get(0);
        assertThat(side.path("unlikeUnits").valueStream().map(JsonNode::asString))
                .containsExactly("Weir");
        assertThat(compared("", other).path("rows")).isEmpty();
    }

    @Test
    void aCleanComparisonIsSaidFromBothSidesAndOnlyWhereNothingElseDiffers() {
        measured("Weir, 1, more", base, new String[][] {runs("100", "101", "99")});
        long unit = lab.owner()
                .get("/api/configurations/" + base)
                .body()
                .path("unitId")
                .asLong();
        long child = lab.owner()
                .post(
                        "/api/units/" + unit + "/configurations",
                        Map.of(
                                "parentId",
                                base,
                                "facts",
                                List.of(
                                        Map.of("key", "firmware.version", "text", "1.05", "read", false),
                                        Map.of("key", "processor.cores", "read", false))))
                .body()
                .path("configuration")
                .path("id")
                .asLong();
        measured("", child, new String[][] {runs("103", "104", "102")});
        assertThat(compared("", child).path("sides").get(0).path("clean").asBoolean())
                .as("the one change of a copy is under test")
                .isTrue();
        lab.owner().put("/api/configurations/" + child + "/tested", Map.of("keys", List.of()));
        assertThat(compared("", child).path("sides").get(0).path("clean").asBoolean())
                .as("nobody says what is under test")
                .isFalse();
        assertThat(lab.owner()
                        .put("/api/configurations/" + child + "/tested", Map.of("keys", List.of("firmware.version")))
                        .status())
                .isEqualTo(200);
        assertThat(compared("", child).path("sides").get(0).path("clean").asBoolean())
                .isTrue();
        assertThat(lab.owner()
                        .get("/api/compare?base=" + child + "&with=" + base)
                        .body()
                        .path("sides")
                        .get(0)
                        .path("clean")
                        .asBoolean())
                .isTrue();
        lab.owner()
                .post(
                        "/api/sessions",
                        Map.of(
                                "configurationId",
                                child,
                                "name",
                                "On battery",
                                "testIds",
                                lab.tests(),
                                "runs",
                                1,
                                "onMains",
                                false));
        assertThat(compared("", child).path("sides").get(0).path("clean").asBoolean())
                .as("a session in which nothing was measured says nothing")
                .isTrue();
    }

    @Test
    void equalReadingsAreLevelAsFarAsTheirStepShows() {
        measured("Weir, 1, more", base, new String[][] {runs("234", "234", "234")});
        measured("", other, new String[][] {runs("234", "234", "234")});
        JsonNode cell = cell(compared("&materiality=15", other), "Weir", 0);
        assertThat(cell.path("verdict").asString()).isEqualTo("LEVEL");
        assertThat(cell.path("high").asDouble())
                .as("three whole numbers are not infinitely exact")
                .isGreaterThan(1);
    }

    /** It turned a clear loss into a clear gain. */
    @Test
    void whatAThirdConfigurationRanChangesNothingInAPair() {
        long third = lab.configuration(Map.of("firmware.version", "3.0"));
        lab.suite("Parted " + lab.number() + " A", "1", "Weir, 1, more\nCrush, 1, more\nRelay, 1, more\n");
        measured("", base, new String[][] {runs("100", "101", "99")});
        measured("", other, new String[][] {runs("80", "81", "79")});
        measured("", third, runs("90", "91", "89"), runs("10", "11", "12"), runs("20", "21", "22"));
        lab.suite("Parted " + lab.number() + " B", "1", "Ferry, 1, more\n");
        measured("", base, new String[][] {runs("50", "51", "49")});
        measured("", other, new String[][] {runs("90", "91", "89")});
        measured("", third, new String[][] {runs("70", "71", "69")});
        JsonNode alone = compared("", other).path("sides").get(0).path("overall");
        JsonNode beside = compared("", other, third).path("sides").get(0).path("overall");
        assertThat(alone.path("ratio").asDouble())
                .as("each suite weighs the same")
                .isCloseTo(Math.sqrt(0.8 * 1.8), within(1e-3));
        assertThat(beside).isEqualTo(alone);
        assertThat(compared("", third, other).path("sides").get(1).path("overall"))
                .isEqualTo(alone);
    }

    @Test
    void aPurposeWithoutAnyWeightHasLinesAndNoOverall() {
        purposes.ensure("nothing at all", Map.of(TestGroup.STORAGE, 0.0));
        long purpose = lab.owner()
                .get("/api/purposes")
                .body()
                .valueStream()
                .filter(p -> p.path("name").asString().equals("nothing at all"))
                .findFirst()
                .orElseThrow()
                .path("id")
                .asLong();
        measured("Weir, 1, more", base, new String[][] {runs("100", "101", "99")});
        measured("", other, new String[][] {runs("103", "104", "102")});
        JsonNode comparison = compared("&purpose=" + purpose, other);
        assertThat(comparison.path("rows")).hasSize(1);
        assertThat(comparison.path("sides").get(0).path("noOverall").asString())
                .isEqualTo("The purpose gives no weight to any test that both ran.");
    }

    @Test
    void whyATestHasNoValueIsSaidWithTheConfiguration() {
        lab.suite("Saltern old " + lab.number(), "1", "Weir, 1, more\nPack, s, less\nUnzip, s, less");
        lab.session(base, 1);
        lab.typed(0, "100").typed(1, "20");
        lab.session(other, 1);
        lab.typed(0, "110");
        lab.type(1, 1, "n/a crashed on start");
        lab.suite("Saltern old " + lab.number(), "2", "Unzip, s, less");
        lab.session(other, 1);
        lab.typed(0, "5");
        JsonNode comparison = compared("", other);
        JsonNode failed = cell(comparison, "Pack", 0);
        assertThat(failed.path("outReason").asString())
                .as("both are of one model, so the configuration is named")
                .matches("(failed|could not run) on Hawkmoor Lab \\d+ \\(.+\\)");
        assertThat(failed.path("ended").path("state").asString()).isNotEqualTo("OK");
        assertThat(failed.path("ended").path("words").asString()).isEqualTo("crashed on start");
        assertThat(comparison.path("rows").size()).isEqualTo(3);
        // Of Unzip only the other one has a result, of the newer version, and the base has none of any.
        assertThat(cell(comparison, "Unzip", 0).path("outReason").asString()).startsWith("not run on");
        lab.suite("Saltern more " + lab.number(), "1", "Relay, s, less");
        lab.session(base, 1);
        lab.typed(0, "7");
        lab.suite("Saltern more " + lab.number(), "2", "Relay, s, less");
        lab.session(other, 1);
        lab.typed(0, "6");
        comparison = compared("", other);
        assertThat(cell(comparison, "Relay", 0).path("outReason").asString())
                .startsWith("other version: Hawkmoor Lab")
                .as("the base has run it in the older version")
                .contains("has run Saltern more " + lab.number() + " 1");
    }

    @Test
    void aCheckThatFailsWhereItPassedIsWorse() {
        measured("Wakes, check\nSleeps, check\nDocks, check", base, new String[][] {
            {"pass", "pass"}, {"pass"}, {"pass", "fail"}
        });
        lab.session(other, 2);
        lab.typed(0, "fail", "fail").typed(1, "pass").typed(2, "fail", "fail");
        JsonNode comparison = compared("", other);
        assertThat(cell(comparison, "Wakes", 0).path("reading").asString()).isEqualTo("WORSE");
        assertThat(cell(comparison, "Sleeps", 0).path("reading").asString()).isEqualTo("SAME");
        assertThat(cell(comparison, "Docks", 0).path("reading").asString())
                .as("it did not always pass on the base")
                .isEqualTo("CANNOT_TELL");
    }
}
