package yarrowmark.server.support;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import tools.jackson.databind.JsonNode;

/** What tests do again and again: invite, join, start, deliver. */
public final class Bench {
    private final Client owner;
    private final int port;

    public Bench(int port) {
        this.port = port;
        this.owner = Client.owner(port);
    }

    public Client owner() {
        return owner;
    }

    public long plan() {
        return owner.get("/api/plans").body().get(0).path("id").asLong();
    }

    public Client.Answer invite(int runs) {
        return owner.post("/api/bench/seats", Map.of("planId", plan(), "runs", runs, "timedMs", 100, "pauseMs", 0));
    }

    /** A device that joined with a fresh code. */
    public Client joined(int runs) {
        String code = invite(runs).body().path("code").asString();
        String token = new Client(port)
                .post("/api/device/join", Map.of("code", code))
                .body()
                .path("token")
                .asString();
        return new Client(port).header("Authorization", "Bearer " + token);
    }

    /** A device that joined and started as a new laptop of this name. */
    public Client started(String model, int runs, List<Map<String, Object>> facts) {
        return started("LAPTOP", model, runs, facts);
    }

    public Client started(String deviceClass, String model, int runs, List<Map<String, Object>> facts) {
        Client device = joined(runs);
        Client.Answer answer = start(device, deviceClass, model, facts);
        if (answer.status() != 200) {
            throw new IllegalStateException(answer.detail());
        }
        return device;
    }

    public static Client.Answer start(
            Client device, String deviceClass, String model, List<Map<String, Object>> facts) {
        return device.post(
                "/api/device/start",
                Map.of(
                        "newModel",
                        Map.of("maker", "Pellow", "name", model, "deviceClass", deviceClass),
                        "facts",
                        facts));
    }

    public static Map<String, Object> fact(String key, String value) {
        return Map.of("key", key, "value", value, "detected", true);
    }

    public static long testId(Client device, String key) {
        for (JsonNode test : device.get("/api/device/seat").body().path("tests")) {
            if (test.path("key").asString().equals(key)) {
                return test.path("id").asLong();
            }
        }
        throw new IllegalStateException("no test " + key);
    }

    public static Map<String, Object> ok(long testId, int run, Object value) {
        Map<String, Object> body = new LinkedHashMap<>();
        body.put("testId", testId);
        body.put("runNumber", run);
        body.put("attempt", 1);
        body.put("state", "OK");
        body.put("durationMs", 3100);
        double middle = value instanceof Number n ? n.doubleValue() : 1;
        body.put(
                "readings",
                List.of(Map.of(
                        "metric",
                        "rate",
                        "value",
                        value,
                        "resolution",
                        0.01,
                        "samples",
                        List.of(middle - Math.abs(middle) / 200, middle + Math.abs(middle) / 200))));
        return body;
    }

    public static Map<String, Object> notOk(long testId, int run, String state, String reason) {
        Map<String, Object> body = new LinkedHashMap<>(ok(testId, run, 1));
        body.put("state", state);
        body.put("reason", reason);
        body.put("readings", new ArrayList<>());
        return body;
    }

    public Client.Answer deliver(Client device, Object body) {
        return deliver(device, UUID.randomUUID().toString(), body);
    }

    public Client.Answer deliver(Client device, String key, Object body) {
        return new Client(port)
                .header("Authorization", authorization(device))
                .header("Idempotency-Key", key)
                .post("/api/device/runs", body);
    }

    private static String authorization(Client device) {
        return device.get("/api/device/seat")
                .raw()
                .request()
                .headers()
                .firstValue("Authorization")
                .orElseThrow();
    }

    public JsonNode ledger(String query) {
        return owner.get("/api/ledger?" + query).body();
    }
}
