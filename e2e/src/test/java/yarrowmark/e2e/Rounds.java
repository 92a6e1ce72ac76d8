package yarrowmark.e2e;

import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;

/** Carries out built-in tests on a device page, and reads what came of it from the server's own answers. */
final class Rounds {
    /** @param value absent where the run gave none. @param first whether the metric is its test's first one */
    record Score(
            String key,
            String test,
            String metric,
            String unit,
            String state,
            String reason,
            String words,
            Double value,
            double durationMs,
            double timedMs,
            long finishedAt,
            boolean first,
            List<Double> samples) {}

    private static final String CALL =
            """
        const done = arguments[arguments.length - 1];
        const [method, path, body] = arguments;
        const token = document.cookie.match(/XSRF-TOKEN=([^;]+)/);
        fetch(path, { method, headers: { 'Content-Type': 'application/json', ...(token && { 'X-XSRF-TOKEN': token[1] }) }, body: body ?? undefined })
          .then(async (answer) => answer.ok ? done(await answer.json()) : done({ refused: await answer.text() }));""";

    private final Program program;
    private final Browser reviewer;

    /** @param reviewer is signed in */
    Rounds(Program program, Browser reviewer) {
        this.program = program;
        this.reviewer = reviewer;
    }

    @SuppressWarnings("unchecked")
    private <T> T call(String method, String path, String body) {
        Object answer = reviewer.driver().executeAsyncScript(CALL, method, path, body);
        if (answer instanceof Map<?, ?> map && map.containsKey("refused")) {
            throw new IllegalStateException(method + " " + path + ": " + map.get("refused"));
        }
        return (T) answer;
    }

    /** Names of the built-in tests, by key. */
    Map<String, String> names() {
        List<Map<String, Object>> tests = call("GET", "/api/tests", null);
        Map<String, String> names = new LinkedHashMap<>();
        tests.forEach(t -> names.putIfAbsent((String) t.get("key"), (String) t.get("name")));
        return names;
    }

    /** Keys of the built-in tests that a device's browser carries out, in the order of the suites. */
    List<String> keys() {
        List<Map<String, Object>> tests = call("GET", "/api/tests", null);
        return tests.stream()
                .filter(t -> Boolean.TRUE.equals(t.get("builtIn")))
                .map(t -> (String) t.get("key"))
                .filter(k -> !List.of("total", "scaling", "per-ghz").contains(k) && !k.startsWith("native-"))
                .toList();
    }

    /** A seat at the bench that waits for whoever has its code. */
    record Invited(long seatId, String code, List<Map<String, Object>> tests) {}

    /** Makes a plan of some tests that a device carries out by itself, and a code for it. */
    Invited invite(Predicate<String> wanted, int runs, int timedMs) {
        reviewer.open(program.address() + "bench");
        List<Map<String, Object>> tests = call("GET", "/api/tests", null);
        List<Object> items = new ArrayList<>();
        for (Map<String, Object> t : tests) {
            boolean byItself = Boolean.TRUE.equals(t.get("builtIn")) || t.get("command") != null;
            if (byItself && wanted.test((String) t.get("key"))) {
                items.add("{\"testId\":" + t.get("id") + ",\"nice\":false}");
            }
        }
        String settings = "\"runs\":" + runs + ",\"timedMs\":" + timedMs + ",\"pauseMs\":0";
        Map<String, Object> plan = call(
                "POST",
                "/api/plans",
                "{\"name\":\"Round " + System.nanoTime() + "\"," + settings + ",\"stopOnFailure\":false,\"items\":"
                        + items + "}");
        Map<String, Object> lane =
                call("POST", "/api/bench/seats", "{\"planId\":" + plan.get("id") + "," + settings + "}");
        return new Invited(((Number) lane.get("seatId")).longValue(), (String) lane.get("code"), tests);
    }

    /** @param device opens the page of a device under test */
    List<Score> carryOut(UnderTest device, Predicate<String> wanted, int runs, int timedMs) {
        return carryOut(device, program.address(), wanted, runs, timedMs);
    }

    /** @param address by which the device reaches the program */
    List<Score> carryOut(UnderTest device, String address, Predicate<String> wanted, int runs, int timedMs) {
        List<String> keys = keys();
        Invited invited = invite(k -> keys.contains(k) && wanted.test(k), runs, timedMs);
        device.open(address + "j/" + invited.code());
        device.press("It is a new model");
        device.type("Maker", "Pellow");
        device.type("Model", "Bench machine " + invited.seatId());
        // Away from the bench: a page that follows a round live would share the machine with it.
        reviewer.open(program.address() + "suites");
        device.press("Start round");
        // A round may take hours, but not one test of it.
        for (String at = ""; !at.equals("Finished"); ) {
            String before = at;
            at = device.until("more of the round than " + before, () -> {
                String heading = device.heading();
                return heading.isEmpty() || heading.equals(before) ? null : heading;
            });
        }
        return scores(invited);
    }

    /** Everything that came of a seat's round. */
    List<Score> scores(Invited invited) {
        long seat = invited.seatId();
        List<Map<String, Object>> tests = invited.tests();
        Map<String, Object> bench = call("GET", "/api/bench", null);
        @SuppressWarnings("unchecked")
        List<Map<String, Object>> lanes = (List<Map<String, Object>>) bench.get("lanes");
        Object session = lanes.stream()
                .filter(l -> ((Number) l.get("seatId")).longValue() == seat)
                .findFirst()
                .orElseThrow()
                .get("sessionId");
        List<Score> scores = new ArrayList<>();
        for (int page = 0; ; page++) {
            Map<String, Object> ledger = call("GET", "/api/ledger?size=200&page=" + page + "&session=" + session, null);
            @SuppressWarnings("unchecked")
            List<Map<String, Object>> rows = (List<Map<String, Object>>) ledger.get("rows");
            for (Map<String, Object> row : rows) {
                Map<String, Object> test = tests.stream()
                        .filter(t -> t.get("id").equals(row.get("testId")))
                        .findFirst()
                        .orElseThrow();
                Map<String, Object> reading = row.get("readingId") == null
                        ? Map.of()
                        : call("GET", "/api/readings/" + row.get("readingId"), null);
                @SuppressWarnings("unchecked")
                Object first =
                        ((List<Map<String, Object>>) test.get("metrics")).get(0).get("id");
                Object timings = reading.get("timings");
                scores.add(new Score(
                        (String) test.get("key"),
                        (String) row.get("test"),
                        (String) row.get("metric"),
                        (String) row.get("unit"),
                        (String) row.get("state"),
                        (String) row.get("reason"),
                        (String) row.get("reasonWords"),
                        row.get("value") == null ? null : ((Number) row.get("value")).doubleValue(),
                        reading.isEmpty() ? 0 : ((Number) reading.get("durationMs")).doubleValue(),
                        reading.get("timedMs") == null ? 0 : ((Number) reading.get("timedMs")).doubleValue(),
                        Instant.parse((String) row.get("finishedAt")).toEpochMilli(),
                        first.equals(row.get("metricId")),
                        timings == null
                                ? List.of()
                                : ((List<Number>) timings)
                                        .stream().map(Number::doubleValue).toList()));
            }
            if (rows.isEmpty() || ((Number) ledger.get("total")).longValue() <= 200L * (page + 1)) {
                return scores;
            }
        }
    }
}
