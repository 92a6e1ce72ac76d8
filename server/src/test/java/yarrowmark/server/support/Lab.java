package yarrowmark.server.support;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicInteger;
import tools.jackson.databind.JsonNode;

/** A signed-in owner with a suite and a session of their own, under names nobody else in the tests has. */
public final class Lab {
    private static final AtomicInteger NUMBER = new AtomicInteger();

    private final Client owner;
    private final int number = NUMBER.incrementAndGet();
    private final long model;
    private final long configuration;
    private final long unit;
    private long version;
    private long session;
    private List<Long> tests = List.of();

    public Lab(int port) {
        owner = Client.owner(port);
        model = owner.post("/api/models", Map.of("maker", "Hawkmoor", "name", "Lab " + number, "deviceClass", "BOARD"))
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
        configuration = configuration();
    }

    public long configuration(Map<String, String> facts) {
        List<Map<String, Object>> given = new ArrayList<>();
        facts.forEach((key, text) -> given.add(Map.of("key", key, "text", text, "read", false)));
        Client.Answer made = owner.post("/api/units/" + unit + "/configurations", Map.of("facts", given));
        assertThat(made.status()).as(made.detail()).isEqualTo(200);
        return made.body().path("configuration").path("id").asLong();
    }

    private long configurationWithoutFacts() {
        return owner.post("/api/units/" + unit + "/configurations", Map.of("facts", List.of()))
                .body()
                .path("configuration")
                .path("id")
                .asLong();
    }

    public long configuration() {
        return configuration == 0 ? configurationWithoutFacts() : configuration;
    }

    /** @param lines of a list of tests */
    public Lab suite(String lines) {
        return suite("Saltern " + number, "1", lines);
    }

    public Lab suite(String name, String suiteVersion, String lines) {
        return suite(name, suiteVersion, "STORAGE", lines);
    }

    public Lab suite(String name, String suiteVersion, String group, String lines) {
        Client.Answer made =
                owner.post("/api/suites", Map.of("name", name, "version", suiteVersion, "group", group, "text", lines));
        assertThat(made.status()).as(made.detail()).isEqualTo(200);
        tests = new ArrayList<>();
        made.body().forEach(id -> tests.add(id.asLong()));
        version = row(tests.get(0)).path("suiteVersionId").asLong();
        return this;
    }

    public Lab session(int runs) {
        return session(configuration, runs);
    }

    public long test(int n) {
        return tests.get(n);
    }

    public Lab session(long of, int runs) {
        Client.Answer made = owner.post(
                "/api/sessions", Map.of("configurationId", of, "name", "Lab", "testIds", tests, "runs", runs));
        assertThat(made.status()).as(made.detail()).isEqualTo(200);
        session = made.body().path("session").path("id").asLong();
        return this;
    }

    public Client.Answer type(int test, int run, String text) {
        return owner.post(
                "/api/sessions/" + session + "/scores",
                Map.of("testId", tests.get(test), "run", run, "text", text, "byStopwatch", false));
    }

    /** Types a whole row, and sees that each was stored. */
    public Lab typed(int test, String... texts) {
        for (int run = 1; run <= texts.length; run++) {
            Client.Answer stored = type(test, run, texts[run - 1]);
            assertThat(stored.status()).as(stored.detail()).isEqualTo(200);
        }
        return this;
    }

    public JsonNode sheet() {
        return owner.get("/api/sessions/" + session + "/sheet").body();
    }

    /** The test's row in the catalogue. */
    public JsonNode row(long testId) {
        for (JsonNode test : owner.get("/api/tests").body()) {
            if (test.path("id").asLong() == testId) {
                return test;
            }
        }
        throw new AssertionError("no test " + testId);
    }

    public long metric(int test) {
        return row(tests.get(test)).path("metrics").get(0).path("id").asLong();
    }

    /**
     * What a comparison says of a test in words.
     *
     * @param question as /api/compare takes it
     * @param side     of the others, from 0
     */
    public String sentence(String question, int test, int side) {
        Client.Answer answer = owner.get("/api/compare/sentences?" + question);
        for (JsonNode line : answer.body()) {
            if (line.path("metricId").asLong() == metric(test)) {
                return line.path("sentences").get(side).asString();
            }
        }
        throw new AssertionError("no line of test " + test + " in " + answer.body());
    }

    public Client owner() {
        return owner;
    }

    public int number() {
        return number;
    }

    public long model() {
        return model;
    }

    public long version() {
        return version;
    }

    public long session() {
        return session;
    }

    public List<Long> tests() {
        return tests;
    }
}
