package yarrowmark.runner.bench;

import java.io.IOException;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import javax.net.ssl.SSLHandshakeException;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;
import yarrowmark.runner.protocol.Api;

/** Speaks the device's protocol with a bench. */
public final class BenchClient {
    /** Says which shelf answers: another one at the same address is not the one that gave the seat. */
    private static final String SHELF = "Yarrowmark-Shelf";

    private static final String PROTOCOL_HEADER = "Yarrowmark-Protocol";
    private static final String PROTOCOL = "1";

    private static final Duration USUAL = Duration.ofSeconds(20);
    /** The bench holds the question for a command until there is one. */
    private static final Duration LONG = Duration.ofSeconds(70);

    private static final JsonMapper JSON = new JsonMapper();

    private final URI address;
    private final HttpClient http;
    private @Nullable String token;
    private @Nullable String shelf;

    /** @param address of the bench, such as https://192.168.0.4:8443/ */
    public BenchClient(URI address, PinnedCertificate pin) {
        this.address = address.toString().endsWith("/") ? address : URI.create(address + "/");
        this.http = HttpClient.newBuilder()
                .connectTimeout(Duration.ofSeconds(10))
                .sslContext(pin.context())
                .build();
    }

    /** Takes the seat that was given before. */
    public BenchClient seated(String withToken, @Nullable String atShelf) {
        token = withToken;
        shelf = atShelf;
        return this;
    }

    public @Nullable String shelf() {
        return shelf;
    }

    /**
     * @param secret of this computer, kept before: the same one with the same code gives the same seat again
     * @return the token that keeps the seat
     */
    String join(String code, String device, String secret) {
        shelf = null;
        checkProtocol();
        String given = send("POST", "join", new Api.Join(code, device, secret), Api.Joined.class, Map.of(), USUAL)
                .token();
        token = given;
        return given;
    }

    /** Asked before the code is given away, which lets in one computer. */
    private void checkProtocol() {
        String spoken = answer("GET", "seat", null, Map.of(), USUAL)
                .headers()
                .firstValue(PROTOCOL_HEADER)
                .orElse(null);
        if (!PROTOCOL.equals(spoken)) {
            throw new Refused(
                    0,
                    "This runner speaks version " + PROTOCOL + " of the device protocol, and the server at " + address
                            + (spoken == null ? " an older one" : " version " + spoken)
                            + ". They do not fit. The runner that fits is the one that the server offers: "
                            + address.resolve("runner/yarrow-runner.jar") + ". The code was not used.");
        }
    }

    /** What to look at before the first run, for a class of device. */
    public List<String> checklist(String deviceClass) {
        return List.of(
                send("GET", "checklist?deviceClass=" + encoded(deviceClass), null, String[].class, Map.of(), USUAL));
    }

    public Api.Seat seat() {
        return send("GET", "seat", null, Api.Seat.class, Map.of(), USUAL);
    }

    public List<Api.Model> models(String words) {
        return send("GET", "models?q=" + encoded(words), null, Api.Models.class, Map.of(), USUAL)
                .rows();
    }

    public List<Api.Unit> units(long model) {
        return send("GET", "models/" + model, null, Api.Units.class, Map.of(), USUAL)
                .units();
    }

    public Api.Seat start(Api.Start start) {
        return send("POST", "start", start, Api.Seat.class, Map.of(), USUAL);
    }

    Api.CommandState progress(Api.Progress progress) {
        return send("POST", "progress", progress, Api.CommandState.class, Map.of(), USUAL);
    }

    /** Answers as soon as there is a newer command than the one that is known. */
    Api.CommandState command(int after) {
        return send("GET", "command?after=" + after, null, Api.CommandState.class, Map.of(), LONG);
    }

    /** @param key the same for every try, so that a repeated delivery counts once */
    Api.Stored deliver(String key, long ageMs, Api.Run run) {
        return send(
                "POST",
                "runs",
                run,
                Api.Stored.class,
                Map.of("Idempotency-Key", key, "Age-Ms", Long.toString(Math.max(0, ageMs))),
                USUAL);
    }

    Api.Seat end(Api.Ending how) {
        return send("POST", "end", new Api.End(how), Api.Seat.class, Map.of(), USUAL);
    }

    private static String encoded(String words) {
        return URLEncoder.encode(words, StandardCharsets.UTF_8);
    }

    private <T> T send(
            String method,
            String path,
            @Nullable Object body,
            Class<T> type,
            Map<String, String> headers,
            Duration patience) {
        HttpResponse<String> response = answer(method, path, body, headers, patience);
        if (response.statusCode() >= 500) {
            throw new Unreachable(words(response));
        }
        if (response.statusCode() >= 400) {
            throw new Refused(response.statusCode(), words(response));
        }
        try {
            return JSON.readValue(response.body(), type);
        } catch (JacksonException e) {
            throw new Refused(
                    response.statusCode(),
                    "The server speaks otherwise than this runner: take the runner that it offers itself.");
        }
    }

    private HttpResponse<String> answer(
            String method, String path, @Nullable Object body, Map<String, String> headers, Duration patience) {
        HttpRequest.Builder request = HttpRequest.newBuilder(address.resolve("api/device/" + path))
                .timeout(patience)
                .method(
                        method,
                        body == null
                                ? HttpRequest.BodyPublishers.noBody()
                                : HttpRequest.BodyPublishers.ofString(JSON.writeValueAsString(body)));
        if (body != null) {
            request.header("Content-Type", "application/json");
        }
        if (token != null) {
            request.header("Authorization", "Bearer " + token);
        }
        headers.forEach(request::header);
        HttpResponse<String> response;
        try {
            response = http.send(request.build(), HttpResponse.BodyHandlers.ofString(StandardCharsets.UTF_8));
        } catch (SSLHandshakeException e) {
            throw new Unreachable(
                    "The server at " + address + " is not the one whose fingerprint is known: " + e.getMessage());
        } catch (IOException e) {
            throw new Unreachable("The server at " + address + " cannot be reached.");
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new Unreachable("It was stopped.");
        }
        String from = response.headers().firstValue(SHELF).orElse(null);
        if (from == null || shelf != null && !shelf.equals(from)) {
            throw new Unreachable("Another program answers at " + address
                    + ", not the Yarrowmark that gave this computer its place.");
        }
        shelf = from;
        return response;
    }

    private static String words(HttpResponse<String> response) {
        String said = null;
        try {
            said = JSON.readValue(response.body(), Api.Problem.class).detail();
        } catch (JacksonException e) {
            // What refused it is not ours, or says nothing.
        }
        return said == null ? "The server answered " + response.statusCode() + "." : said;
    }
}
