package yarrowmark.server.platform.http;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static yarrowmark.server.platform.Require.require;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.builder.SpringApplicationBuilder;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.core.env.Environment;
import org.springframework.test.annotation.DirtiesContext;
import org.springframework.test.context.TestPropertySource;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.YarrowmarkServer;
import yarrowmark.server.platform.records.FromElsewhere;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.ServerTest;

/**
 * Every door of the program with bodies made from what it says of itself, mostly of the right shape and full of values that
 * nobody types. What fails can be done again: the numbers come from a seed.
 */
@ServerTest
@DirtiesContext
@TestPropertySource(properties = "yarrowmark.of-this-test=fuzz")
@Tag("long")
class FuzzTest {
    private static final int REQUESTS = Integer.getInteger("yarrowmark.fuzz", 10_000);
    private static final long SEED = Long.getLong("yarrowmark.fuzz.seed", 20261201);
    private static final int DEEPEST = 6;

    /** They wait for something to happen, or end the one who asks. */
    private static final Set<String> LEFT_OUT = Set.of(
            "GET /api/bench/events",
            "GET /api/device/command",
            "GET /api/changes",
            "POST /api/device/network/turn",
            "POST /api/access/sign-out",
            "POST /api/people/me/sign-out-everywhere",
            "DELETE /api/people/me",
            "DELETE /api/people/me/places/{id}",
            "PUT /api/people/me/name",
            "PUT /api/people/{id}/role");

    private static final List<String> TEXTS = List.of(
            "",
            " ",
            "a",
            "Kelpline",
            "0",
            "-1",
            "1e999",
            "NaN",
            "12,5",
            "1.234,5",
            "2026-02-30",
            "2026-12-01",
            "2026-12-01T00:00:00Z",
            "\u0000",
            "\u202e\u200b",
            "🌾".repeat(100),
            "<script>alert(1)</script>",
            "'; drop table run; --",
            "=1+1",
            "%s%n{0}",
            "../../etc/passwd",
            "a\nb",
            "x".repeat(300),
            "x".repeat(70_000),
            "(".repeat(200),
            "\uD800");
    private static final List<String> NUMBERS = List.of(
            "0",
            "1",
            "2",
            "3",
            "4",
            "-1",
            "0.1",
            "1e-320",
            "1e308",
            "1e400",
            "2147483648",
            "9223372036854775807",
            "-9223372036854775808",
            "1e20");

    @LocalServerPort
    private int port;

    @Autowired
    private Environment environment;

    @Autowired
    private List<FromElsewhere> rooms;

    private final Random random = new Random(SEED);
    private JsonNode document;

    private record Door(String method, String path, JsonNode operation) {}

    @Test
    void noDoorBreaksAndTheRecordsCanBeStartedWithAfterwards(@TempDir Path directory) {
        Client owner = Client.owner(port);
        document = owner.get("/v3/api-docs").body();
        seed(owner);
        List<Door> doors = doors();
        assertThat(doors).hasSizeGreaterThan(200);
        Map<String, String> broken = new TreeMap<>();
        Map<Integer, Integer> answers = new TreeMap<>();
        for (int i = 0; i < REQUESTS; i++) {
            Door door = doors.get(i % doors.size());
            String path = filled(door);
            String body = body(door);
            Client.Answer answer = owner.sendText(door.method(), path, body);
            answers.merge(answer.status(), 1, Integer::sum);
            if (answer.status() >= 500) {
                broken.putIfAbsent(
                        door.method() + " " + door.path(),
                        "request " + i + ": " + answer.status() + " to " + path + " with "
                                + (body == null ? "nothing" : body.substring(0, Math.min(400, body.length()))));
            }
        }
        assertThat(broken).isEmpty();
        assertThat(answers.getOrDefault(200, 0))
                .as("some of it is right: " + answers)
                .isGreaterThan(REQUESTS / 10);
        for (FromElsewhere room : rooms) {
            assertThatCode(room::lookOver).as(room.getClass().getSimpleName()).doesNotThrowAnyException();
        }
        startsAgain(directory);
    }

    private void startsAgain(Path directory) {
        List<String> settings = new ArrayList<>(List.of("--server.port=0", "--YARROWMARK_VAR=" + directory));
        for (String name : List.of("YARROWMARK_DB_URL", "YARROWMARK_DB_USER", "YARROWMARK_DB_PASSWORD")) {
            settings.add("--" + name + "=" + require(environment.getProperty(name)));
        }
        try (ConfigurableApplicationContext other =
                new SpringApplicationBuilder(YarrowmarkServer.class).run(settings.toArray(String[]::new))) {
            Client owner =
                    Client.owner(Integer.parseInt(require(other.getEnvironment().getProperty("local.server.port"))));
            for (String question : List.of(
                    "/api/models", "/api/ledger", "/api/standings", "/api/tests", "/api/plans", "/api/write-ups")) {
                // Nothing that counts was measured, so there may be nobody to rank.
                assertThat(owner.get(question).status()).as(question).isLessThan(500);
            }
        }
    }

    /** A few records, so that not everything asks for what is not there. */
    private static void seed(Client owner) {
        for (int i = 1; i <= 3; i++) {
            owner.post("/api/models", Map.of("maker", "Fuzz", "name", "Model " + i, "deviceClass", "LAPTOP"));
            owner.post("/api/models/" + i + "/units", Map.of("label", "A"));
            owner.post("/api/units/" + i + "/configurations", Map.of("facts", List.of()));
            owner.post(
                    "/api/write-ups",
                    Map.of(
                            "title",
                            "Text " + i,
                            "models",
                            List.of(),
                            "pieces",
                            List.of(Map.of("kind", "TEXT", "body", Map.of("text", "It begins.")))));
        }
    }

    private List<Door> doors() {
        List<Door> doors = new ArrayList<>();
        document.path("paths")
                .properties()
                .forEach(path -> path.getValue().properties().forEach(operation -> {
                    String method = operation.getKey().toUpperCase(java.util.Locale.ROOT);
                    if (!LEFT_OUT.contains(method + " " + path.getKey())) {
                        doors.add(new Door(method, path.getKey(), operation.getValue()));
                    }
                }));
        return doors;
    }

    private <T> T one(List<T> of) {
        return of.get(random.nextInt(of.size()));
    }

    private String filled(Door door) {
        String path = door.path();
        List<String> query = new ArrayList<>();
        for (JsonNode parameter : door.operation().path("parameters")) {
            String name = parameter.path("name").asString();
            String value = parameter.path("schema").path("type").asString().equals("integer")
                    ? random.nextInt(4) > 0 ? plain() : one(List.of("0", "-1", "9223372036854775807", "x"))
                    : scalar(parameter.path("schema"));
            String safe = encoded(value);
            if (parameter.path("in").asString().equals("path")) {
                path = path.replace("{" + name + "}", safe.isEmpty() ? "1" : safe);
            } else if (parameter.path("in").asString().equals("query")
                    && (parameter.path("required").asBoolean() || random.nextInt(3) == 0)) {
                query.add(name + "=" + safe);
            }
        }
        path = path.replaceAll("\\{[^}]*}", "1");
        return query.isEmpty() ? path : path + "?" + String.join("&", query);
    }

    private static String encoded(String value) {
        String text = value.length() > 2_000 ? value.substring(0, 2_000) : value;
        return java.net.URLEncoder.encode(text, java.nio.charset.StandardCharsets.UTF_8)
                .replace("+", "%20");
    }

    private String scalar(JsonNode schema) {
        JsonNode given = schema.path("enum");
        if (!given.isEmpty() && random.nextInt(8) > 0) {
            return given.get(random.nextInt(given.size())).asString();
        }
        boolean usual = random.nextInt(10) < 8;
        return switch (schema.path("type").asString("")) {
            case "integer", "number" -> usual ? plain() : one(NUMBERS);
            case "boolean" -> String.valueOf(random.nextBoolean());
            default -> usual ? text(schema.path("format").asString("")) : one(TEXTS);
        };
    }

    /** The number of something that is there, most likely. */
    private String plain() {
        return String.valueOf(1 + random.nextInt(3));
    }

    private String text(String format) {
        return switch (format) {
            case "date" -> "2026-11-" + (10 + random.nextInt(19));
            case "date-time" -> "2026-11-12T10:00:0" + random.nextInt(10) + "Z";
            default ->
                one(List.of("Kelpline", "Weir", "Fell", "12.5", "s")) + (random.nextBoolean() ? " " + plain() : "");
        };
    }

    private String body(Door door) {
        JsonNode content = door.operation().path("requestBody").path("content");
        if (content.isMissingNode()) {
            return null;
        }
        JsonNode schema = content.properties().iterator().next().getValue().path("schema");
        StringBuilder json = new StringBuilder();
        write(schema, json, 0);
        // Now and then it does not come whole.
        return random.nextInt(100) == 0 ? json.substring(0, json.length() / 2) : json.toString();
    }

    private void write(JsonNode given, StringBuilder json, int deep) {
        JsonNode schema = resolved(given);
        if (deep > DEEPEST || random.nextInt(150) == 0) {
            json.append(one(List.of("null", "[]", "{}", "true", "7", "\"x\"", "[[[[]]]]")));
            return;
        }
        if (schema.path("oneOf").isArray()) {
            write(schema.path("oneOf").get(random.nextInt(schema.path("oneOf").size())), json, deep + 1);
            return;
        }
        switch (schema.path("type").asString("object")) {
            case "array" -> {
                int many = random.nextInt(20) == 0 ? 300 : random.nextInt(4);
                List<String> items = new ArrayList<>();
                for (int i = 0; i < many; i++) {
                    StringBuilder item = new StringBuilder();
                    write(schema.path("items"), item, deep + 1);
                    items.add(item.toString());
                }
                json.append(items.stream().collect(Collectors.joining(",", "[", "]")));
            }
            case "object" -> object(schema, json, deep);
            case "string" -> json.append(Client.JSON.writeValueAsString(scalar(schema)));
            default -> json.append(scalar(schema));
        }
    }

    private void object(JsonNode schema, StringBuilder json, int deep) {
        Set<String> required =
                schema.path("required").valueStream().map(JsonNode::asString).collect(Collectors.toSet());
        List<String> fields = new ArrayList<>();
        schema.path("properties").properties().forEach(p -> {
            if (random.nextInt(10) < (required.contains(p.getKey()) ? 10 : 4)) {
                StringBuilder value = new StringBuilder();
                write(p.getValue(), value, deep + 1);
                fields.add("\"" + p.getKey() + "\":" + value);
            }
        });
        if (schema.path("additionalProperties").isObject()) {
            for (int i = random.nextInt(3); i > 0; i--) {
                StringBuilder value = new StringBuilder();
                write(schema.path("additionalProperties"), value, deep + 1);
                fields.add(Client.JSON.writeValueAsString(one(List.of("1", "2", "CPU", "n1", "", "x"))) + ":" + value);
            }
        }
        json.append(fields.stream().collect(Collectors.joining(",", "{", "}")));
    }

    private JsonNode resolved(JsonNode schema) {
        String ref = schema.path("$ref").asString("");
        return ref.isEmpty()
                ? schema
                : document.path("components").path("schemas").path(ref.substring(ref.lastIndexOf('/') + 1));
    }
}
