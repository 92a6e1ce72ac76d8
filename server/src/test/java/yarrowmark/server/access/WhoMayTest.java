package yarrowmark.server.access;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.support.Bench;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.MovableClock;
import yarrowmark.server.support.ServerTest;

/** Every endpoint of the interface's document against everybody who may come: one without a stated rule fails. */
@ServerTest
class WhoMayTest {
    private enum Who {
        NOBODY,
        DEVICE,
        ENDED_DEVICE,
        READER,
        REVIEWER,
        OWNER,
        KEY_READ,
        KEY_DELIVER,
        KEY_EVERYTHING
    }

    private enum Rule {
        OPEN(EnumSet.allOf(Who.class)),
        DEVICE(EnumSet.of(Who.DEVICE)),
        SIGNED_IN(EnumSet.of(Who.READER, Who.REVIEWER, Who.OWNER, Who.KEY_READ, Who.KEY_DELIVER, Who.KEY_EVERYTHING)),
        DELIVERS(EnumSet.of(Who.REVIEWER, Who.OWNER, Who.KEY_DELIVER, Who.KEY_EVERYTHING)),
        REVIEWER(EnumSet.of(Who.REVIEWER, Who.OWNER, Who.KEY_EVERYTHING)),
        OWNER(EnumSet.of(Who.OWNER, Who.KEY_EVERYTHING)),
        HERSELF(EnumSet.of(Who.READER, Who.REVIEWER, Who.OWNER));

        private final Set<Who> may;

        Rule(Set<Who> may) {
            this.may = may;
        }
    }

    /** What would end the caller, or says nothing until something happens: only tried by those who may not. */
    private static final Set<String> ONLY_REFUSED = Set.of(
            "DELETE /api/people/me",
            "POST /api/people/me/sign-out-everywhere",
            "POST /api/access/sign-out",
            "POST /api/access/sign-in",
            "POST /api/access/owner",
            "POST /api/access/invitation",
            "POST /api/access/invitation/look",
            "GET /api/bench/events",
            "GET /api/device/command",
            "POST /api/device/end",
            "POST /api/device/join");

    @LocalServerPort
    private int port;

    @Autowired
    private MovableClock clock;

    private static Map<String, Rule> rules() throws IOException {
        Map<String, Rule> rules = new LinkedHashMap<>();
        try (InputStream in = WhoMayTest.class.getResourceAsStream("who-may.txt")) {
            new String(in.readAllBytes(), StandardCharsets.UTF_8)
                    .lines()
                    .filter(l -> !l.startsWith("#") && !l.isBlank())
                    .map(l -> l.strip().split("\\s+"))
                    .forEach(c -> rules.put(c[0] + " " + c[1], Rule.valueOf(c[2])));
        }
        return rules;
    }

    private Map<Who, Client> callers() {
        Client owner = Client.owner(port);
        Map<Who, Client> callers = new EnumMap<>(Who.class);
        callers.put(Who.NOBODY, new Client(port));
        callers.put(Who.OWNER, owner);
        for (String role : List.of("READER", "REVIEWER")) {
            Client client = new Client(port);
            client.get("/api/access");
            String token = owner.post("/api/people/invitations", Map.of("role", role))
                    .body()
                    .path("token")
                    .asString();
            assertThat(client.post(
                                    "/api/access/invitation",
                                    Map.of(
                                            "token",
                                            token,
                                            "name",
                                            "Matrix " + role + " " + System.nanoTime(),
                                            "password",
                                            "heron kettle gravel"))
                            .status())
                    .isEqualTo(200);
            callers.put(Who.valueOf(role), client);
        }
        for (String scope : List.of("READ", "DELIVER", "EVERYTHING")) {
            String key = owner.post("/api/people/me/keys", Map.of("name", scope, "scope", scope, "days", 3))
                    .body()
                    .path("key")
                    .asString();
            callers.put(Who.valueOf("KEY_" + scope), new Client(port).header("Authorization", "Bearer " + key));
        }
        callers.put(Who.DEVICE, new Bench(port).joined(1));
        return callers;
    }

    @Test
    void everyEndpointLetsInWhoItSaysAndNobodyElse() throws IOException {
        clock.letPass(Duration.ofMinutes(2));
        Map<String, Rule> rules = rules();
        JsonNode document = Client.owner(port).get("/v3/api-docs").body();
        Set<String> asked = new TreeSet<>();
        document.path("paths").properties().forEach(p -> p.getValue()
                .properties()
                .forEach(m -> asked.add(m.getKey().toUpperCase(Locale.ROOT) + " " + p.getKey())));
        assertThat(asked).as("endpoints with a stated rule").isEqualTo(new TreeSet<>(rules.keySet()));

        List<String> wrong = new ArrayList<>();
        // A device may send what it kept for a month, so that passes before the others come.
        Client ended = new Bench(port).joined(1);
        assertThat(ended.post("/api/device/end", Map.of("how", "STOPPED")).status())
                .isEqualTo(200);
        clock.letPass(Duration.ofDays(31));
        Map<Who, Client> callers = callers();
        callers.put(Who.ENDED_DEVICE, ended);
        rules.forEach((endpoint, rule) -> callers.forEach((who, client) -> {
            boolean may = rule.may.contains(who);
            if (may && ONLY_REFUSED.contains(endpoint) || rule == Rule.OPEN) {
                return;
            }
            int status = call(client, endpoint);
            boolean refused = status == 401 || status == 403;
            if (refused == may || status == 500) {
                wrong.add(who + (may ? " may " : " may not ") + endpoint + ", and was told " + status);
            }
        }));
        assertThat(wrong).isEmpty();
    }

    private static int call(Client client, String endpoint) {
        String[] parts = endpoint.split(" ");
        String path = parts[1].replaceAll("\\{deviceClass}", "LAPTOP").replaceAll("\\{[^}]+}", "987654");
        return switch (parts[0]) {
            case "GET" -> client.get(path).status();
            case "POST" -> client.post(path, Map.of()).status();
            case "PUT" -> client.put(path, Map.of()).status();
            case "DELETE" -> client.delete(path).status();
            default -> throw new AssertionError(endpoint);
        };
    }
}
