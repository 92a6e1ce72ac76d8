package yarrowmark.runner.bench;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** A bench that keeps what it is sent and fails when it is told to. */
final class FakeBench implements AutoCloseable {
    private static final JsonMapper JSON = new JsonMapper();

    private final HttpServer server;
    /** By their keys, so that a repeated delivery counts once. */
    final Map<String, JsonNode> runs = new ConcurrentHashMap<>();

    final List<String> order = new CopyOnWriteArrayList<>();
    final List<JsonNode> sensors = new CopyOnWriteArrayList<>();
    final List<String> ends = new CopyOnWriteArrayList<>();
    final AtomicInteger joins = new AtomicInteger();
    /** Of the one computer that its code let in. */
    volatile @Nullable String joinedWith;
    /** How many of the next computers get their seat, and are not told. */
    final AtomicInteger lostJoins = new AtomicInteger();
    /** How many of the next deliveries are stored but not answered. */
    final AtomicInteger lost = new AtomicInteger();

    volatile boolean away;
    volatile String shelf = "shelf-1";
    volatile @Nullable String protocol = "1";
    volatile int refuses;
    private volatile String command = "GO";
    private volatile int revision = 1;

    FakeBench() throws IOException {
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.setExecutor(Executors.newCachedThreadPool(work -> {
            Thread thread = new Thread(work);
            thread.setDaemon(true);
            return thread;
        }));
        server.createContext("/api/device/", this::answer);
        server.start();
    }

    URI address() {
        return URI.create("http://127.0.0.1:" + server.getAddress().getPort());
    }

    synchronized void say(String next) {
        command = next;
        revision++;
        notifyAll();
    }

    private void answer(HttpExchange exchange) throws IOException {
        try (exchange) {
            String path = exchange.getRequestURI().getPath().substring("/api/device/".length());
            String body = new String(exchange.getRequestBody().readAllBytes(), StandardCharsets.UTF_8);
            if (away) {
                send(exchange, 503, "{}");
                return;
            }
            switch (path) {
                case "seat" -> send(exchange, 401, "{\"detail\":\"This device is not at the bench.\"}");
                case "join" -> joined(exchange, JSON.readTree(body));
                case "command" -> send(exchange, 200, command(exchange));
                case "progress" -> {
                    JsonNode said = JSON.readTree(body).path("sensors");
                    if (said.isArray()) {
                        sensors.add(said);
                    }
                    send(exchange, 200, state());
                }
                case "runs" -> delivered(exchange, body);
                case "end" -> {
                    ends.add(JSON.readTree(body).path("how").asString());
                    send(exchange, 200, seat());
                }
                default -> send(exchange, 404, "{\"detail\":\"There is nothing at this address.\"}");
            }
        }
    }

    private synchronized void joined(HttpExchange exchange, JsonNode body) throws IOException {
        joins.incrementAndGet();
        String secret = body.path("secret").asString();
        if (joinedWith != null && !joinedWith.equals(secret)) {
            send(exchange, 409, "{\"detail\":\"This code was used already.\"}");
            return;
        }
        joinedWith = secret;
        if (lostJoins.getAndUpdate(n -> Math.max(0, n - 1)) == 0) {
            send(exchange, 200, "{\"token\":\"token of " + secret + "\"}");
        }
    }

    private synchronized String state() {
        return "{\"command\":\"" + command + "\",\"revision\":" + revision + "}";
    }

    private synchronized String command(HttpExchange exchange) {
        int after = Integer.parseInt(exchange.getRequestURI().getQuery().substring("after=".length()));
        while (revision <= after) {
            try {
                wait();
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                return state();
            }
        }
        return state();
    }

    private void delivered(HttpExchange exchange, String body) throws IOException {
        String key = exchange.getRequestHeaders().getFirst("Idempotency-Key");
        JsonNode run = JSON.readTree(body);
        if (refuses > 0) {
            refuses--;
            send(exchange, 422, "{\"detail\":\"This run is not wanted.\"}");
            return;
        }
        if (runs.put(key, run) == null) {
            order.add(run.path("testId").asString() + "/"
                    + run.path("runNumber").asString() + "/"
                    + run.path("attempt").asString() + " " + run.path("state").asString());
        }
        if (lost.getAndUpdate(n -> Math.max(0, n - 1)) > 0) {
            return; // stored, and nobody is told
        }
        send(exchange, 200, "{\"runId\":1,\"key\":\"" + key + "\",\"late\":false}");
    }

    private String seat() {
        return "{\"seatId\":1,\"planName\":\"Plan\",\"runs\":2,\"timedMs\":10,\"pauseMs\":0,\"stopOnFailure\":false,\"tests\":[],\"done\":[],\"phase\":\"DONE\",\"command\":\"GO\",\"commandRevision\":1}";
    }

    private void send(HttpExchange exchange, int status, String body) throws IOException {
        byte[] bytes = body.getBytes(StandardCharsets.UTF_8);
        if (shelf != null) {
            exchange.getResponseHeaders().add("Yarrowmark-Shelf", shelf);
        }
        if (protocol != null) {
            exchange.getResponseHeaders().add("Yarrowmark-Protocol", protocol);
        }
        exchange.sendResponseHeaders(status, bytes.length);
        exchange.getResponseBody().write(bytes);
    }

    List<String> sorted() {
        List<String> all = new ArrayList<>(order);
        all.sort(null);
        return all;
    }

    @Override
    public void close() {
        say("GO");
        server.stop(0);
    }
}
