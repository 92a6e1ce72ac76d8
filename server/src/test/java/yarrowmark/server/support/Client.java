package yarrowmark.server.support;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.net.CookieManager;
import java.net.HttpCookie;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** A browser-like client: keeps cookies and sends the CSRF token back; or a device with a bearer token. */
public final class Client {
    public static final JsonMapper JSON = new JsonMapper();
    public static final String NAME = "wren";
    public static final String PASSWORD = "a long password";

    /** By the port of their server. */
    private static final Map<Integer, List<HttpCookie>> OWNERS = new ConcurrentHashMap<>();

    private final CookieManager cookies = new CookieManager();
    private final HttpClient http =
            HttpClient.newBuilder().cookieHandler(cookies).build();
    private final String base;
    private final Map<String, String> headers = new LinkedHashMap<>();

    public Client(int port) {
        this.base = "http://127.0.0.1:" + port;
    }

    /** An answer with its status; the body is empty where it is not JSON. */
    public record Answer(int status, JsonNode body, HttpResponse<String> raw) {
        public String code() {
            return body.path("code").asString("");
        }

        public String detail() {
            return body.path("detail").asString("");
        }
    }

    /**
     * Signed in as the owner, who is made on the way where there is none yet. Where somebody still is from before, as them:
     * a password is made so that trying one takes a processor a while.
     */
    public static Client owner(int port) {
        Client client = new Client(port);
        OWNERS.getOrDefault(port, List.of()).forEach(client::give);
        JsonNode access = client.get("/api/access").body();
        if (access.path("person").asString("").equals(NAME)) {
            return client;
        }
        client.cookies.getCookieStore().removeAll();
        String state = client.get("/api/access").body().path("state").asString();
        Map<String, String> who = state.equals("NEEDS_OWNER")
                ? Map.of("name", NAME, "password", PASSWORD, "lab", "Test lab")
                : Map.of("name", NAME, "password", PASSWORD);
        Answer answer = client.post("/api/access/" + (state.equals("NEEDS_OWNER") ? "owner" : "sign-in"), who);
        if (answer.status() != 200) {
            throw new IllegalStateException("cannot sign in: " + answer.detail());
        }
        OWNERS.put(port, List.copyOf(client.cookies.getCookieStore().getCookies()));
        return client;
    }

    private void give(HttpCookie cookie) {
        cookies.getCookieStore().add(URI.create(base), (HttpCookie) cookie.clone());
    }

    public Client header(String name, String value) {
        headers.put(name, value);
        return this;
    }

    /** The Authorization header of a device, for requests that this client does not make itself. */
    public String authorization() {
        return headers.getOrDefault("Authorization", "");
    }

    /** The Cookie header a browser would send, for requests that this client does not make itself. */
    public String cookies() {
        return cookies.getCookieStore().getCookies().stream()
                .map(c -> c.getName() + "=" + c.getValue())
                .collect(java.util.stream.Collectors.joining("; "));
    }

    /** What the server gave this browser to keep. @param name that its own begins with */
    public String cookie(String name) {
        return cookies.getCookieStore().getCookies().stream()
                .filter(c -> c.getName().startsWith(name))
                .map(HttpCookie::getValue)
                .findFirst()
                .orElse("");
    }

    /** An answer that goes on and on, such as an event stream. */
    public InputStream open(String path) {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(base + path));
        headers.forEach(request::header);
        try {
            return http.send(request.build(), HttpResponse.BodyHandlers.ofInputStream())
                    .body();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        }
    }

    /** How many bytes an answer has, all of them read and none understood. */
    public int bytes(String path) {
        try (InputStream in = open(path)) {
            return in.readAllBytes().length;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    public Answer get(String path) {
        return send(HttpRequest.newBuilder(URI.create(base + path)).GET());
    }

    public Answer post(String path, Object body) {
        return postText(path, JSON.writeValueAsString(body));
    }

    public Answer postText(String path, String body) {
        return send(HttpRequest.newBuilder(URI.create(base + path))
                .header("Content-Type", "application/json")
                .POST(HttpRequest.BodyPublishers.ofString(body)));
    }

    /** A file, as a browser sends it. */
    public Answer postBytes(String path, byte[] bytes) {
        return send(HttpRequest.newBuilder(URI.create(base + path))
                .header("Content-Type", "application/octet-stream")
                .POST(HttpRequest.BodyPublishers.ofByteArray(bytes)));
    }

    /** A body that does not say how long it is. */
    public Answer postStream(String path, Supplier<InputStream> body) {
        return send(HttpRequest.newBuilder(URI.create(base + path))
                .header("Content-Type", "application/json")
                .POST(HttpRequest.BodyPublishers.ofInputStream(body)));
    }

    public Answer put(String path, Object body) {
        return send(HttpRequest.newBuilder(URI.create(base + path))
                .header("Content-Type", "application/json")
                .PUT(HttpRequest.BodyPublishers.ofString(JSON.writeValueAsString(body))));
    }

    public Answer delete(String path) {
        return send(HttpRequest.newBuilder(URI.create(base + path)).DELETE());
    }

    /** @param body as it is, also where it is no JSON; null for none */
    public Answer sendText(String method, String path, @Nullable String body) {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(base + path));
        return send(
                body == null
                        ? request.method(method, HttpRequest.BodyPublishers.noBody())
                        : request.header("Content-Type", "application/json")
                                .method(method, HttpRequest.BodyPublishers.ofString(body)));
    }

    private Answer send(HttpRequest.Builder request) {
        headers.forEach(request::header);
        for (HttpCookie cookie : cookies.getCookieStore().getCookies()) {
            if (cookie.getName().equals("XSRF-TOKEN")) {
                request.header("X-XSRF-TOKEN", cookie.getValue());
            }
        }
        try {
            HttpResponse<String> response = http.send(request.build(), HttpResponse.BodyHandlers.ofString());
            String type = response.headers().firstValue("Content-Type").orElse("");
            JsonNode body = type.contains("json") ? JSON.readTree(response.body()) : JSON.createObjectNode();
            return new Answer(response.statusCode(), body, response);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        }
    }
}
