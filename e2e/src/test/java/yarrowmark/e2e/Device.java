package yarrowmark.e2e;

import java.io.IOException;
import java.net.CookieManager;
import java.net.HttpCookie;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.openqa.selenium.json.Json;

/** Reviewers and devices that speak to the program without a browser, for measurements with many of them. */
final class Device {
    private static final Json JSON = new Json();

    /** Somebody who speaks HTTP, with cookies and whatever else identifies them. */
    static final class Http {
        private final CookieManager cookies = new CookieManager();
        private final HttpClient client;
        private final String address;
        private final Map<String, String> headers;

        Http(String address, Map<String, String> headers) {
            this.address = address;
            this.headers = headers;
            this.client = HttpClient.newBuilder()
                    .version(HttpClient.Version.HTTP_1_1)
                    .connectTimeout(Duration.ofSeconds(5))
                    .cookieHandler(cookies)
                    .build();
        }

        String cookies() {
            return cookies.getCookieStore().getCookies().stream()
                    .map(c -> c.getName() + "=" + c.getValue())
                    .collect(Collectors.joining("; "));
        }

        HttpResponse<String> send(String method, String path, String body, Map<String, String> more)
                throws IOException, InterruptedException {
            HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(address + path))
                    .timeout(Patience.LIMIT)
                    .header("Content-Type", "application/json")
                    .method(
                            method,
                            body.isEmpty()
                                    ? HttpRequest.BodyPublishers.noBody()
                                    : HttpRequest.BodyPublishers.ofString(body));
            headers.forEach(request::header);
            more.forEach(request::header);
            cookies.getCookieStore().getCookies().stream()
                    .filter(c -> c.getName().equals("XSRF-TOKEN"))
                    .map(HttpCookie::getValue)
                    .findFirst()
                    .ifPresent(token -> request.header("X-XSRF-TOKEN", token));
            return client.send(request.build(), HttpResponse.BodyHandlers.ofString());
        }

        @SuppressWarnings("unchecked")
        Map<String, Object> ask(String method, String path, String body) throws IOException, InterruptedException {
            HttpResponse<String> answer = send(method, path, body, Map.of());
            if (answer.statusCode() != 200) {
                throw new IOException(method + " " + path + " gave " + answer.statusCode() + ": " + answer.body());
            }
            return (Map<String, Object>) JSON.toType(answer.body(), Map.class);
        }

        @SuppressWarnings("unchecked")
        List<Map<String, Object>> list(String path) throws IOException, InterruptedException {
            return (List<Map<String, Object>>)
                    JSON.toType(send("GET", path, "", Map.of()).body(), List.class);
        }
    }

    private static final String PASSWORD = "a long password";
    private static final int RUNS = 20;

    private final Http http;
    private final List<Long> tests;
    private int delivered;

    private Device(Http http, List<Long> tests) {
        this.http = http;
        this.tests = tests;
    }

    /** The owner of an empty shelf, signed in. */
    static Http owner(String address) throws IOException, InterruptedException {
        Http owner = new Http(address, Map.of());
        boolean needed = owner.ask("GET", "api/access", "").get("state").equals("NEEDS_OWNER");
        owner.ask(
                "POST",
                "api/access/" + (needed ? "owner" : "sign-in"),
                JSON.toJson(
                        needed
                                ? Map.of("name", "wren", "password", PASSWORD, "lab", "Test lab")
                                : Map.of("name", "wren", "password", PASSWORD)));
        owner.ask("GET", "api/access", "");
        return owner;
    }

    /** A device that has joined and started as a new model of this name. */
    @SuppressWarnings("unchecked")
    static Device started(Http owner, String address, String model) throws IOException, InterruptedException {
        Object plan = owner.list("api/plans").get(0).get("id");
        Object code = owner.ask(
                        "POST",
                        "api/bench/seats",
                        JSON.toJson(Map.of("planId", plan, "runs", RUNS, "timedMs", 100, "pauseMs", 0)))
                .get("code");
        Object token = new Http(address, Map.of())
                .ask("POST", "api/device/join", JSON.toJson(Map.of("code", code)))
                .get("token");
        Http http = new Http(address, Map.of("Authorization", "Bearer " + token));
        http.ask(
                "POST",
                "api/device/start",
                JSON.toJson(Map.of(
                        "newModel",
                        Map.of("maker", "Pellow", "name", model, "deviceClass", "LAPTOP"),
                        "facts",
                        List.of(Map.of("key", "os.name", "value", "Fenland 7", "detected", true)))));
        List<Long> tests = new ArrayList<>();
        for (Map<String, Object> test : (List<Map<String, Object>>)
                http.ask("GET", "api/device/seat", "").get("tests")) {
            if ("rate".equals(test.get("metric"))) {
                tests.add((Long) test.get("id"));
            }
        }
        return new Device(http, tests);
    }

    /** The next run's body. Each is another one. */
    String nextRun() {
        int number = delivered++;
        int places = tests.size() * RUNS;
        return JSON.toJson(Map.of(
                "testId",
                tests.get(number % tests.size()),
                "runNumber",
                1 + number / tests.size() % RUNS,
                "attempt",
                1 + number / places,
                "state",
                "OK",
                "durationMs",
                3100,
                "readings",
                List.of(Map.of(
                        "metric",
                        "rate",
                        "value",
                        400 + number % 7,
                        "resolution",
                        0.01,
                        "samples",
                        List.of(399, 407)))));
    }

    /** @return the status of the answer; its body says the rest */
    HttpResponse<String> deliver(String key, String run) throws IOException, InterruptedException {
        return http.send("POST", "api/device/runs", run, Map.of("Idempotency-Key", key));
    }
}
