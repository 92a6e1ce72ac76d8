package yarrowmark.server.platform.health;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import org.junit.jupiter.api.Test;
import org.springframework.boot.test.web.server.LocalServerPort;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.platform.change.ChangeFeed;
import yarrowmark.server.platform.change.Mirror;
import yarrowmark.server.platform.change.RecordsChanged;
import yarrowmark.server.platform.change.Revision;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.ServerTest;

/** How the program is, for whoever watches it. */
@ServerTest
class HealthTest {
    /** As it comes through another program on this machine. */
    private static final String PASSED_ON = "X-Forwarded-For";

    @LocalServerPort
    private int port;

    @Test
    void theMachineIsToldOfEveryPart() {
        Client.Answer answer = new Client(port).get("/actuator/health");
        assertThat(answer.status()).isEqualTo(200);
        JsonNode parts = answer.body().path("components");
        assertThat(parts.path("db").path("status").asString()).isEqualTo("UP");
        assertThat(parts.path("disk").path("details").path("freeBytes").asLong())
                .isPositive();
        assertThat(parts.path("mirrors").path("details").path("missedCommits").asInt(-1))
                .isZero();
        assertThat(parts.path("backup").path("details").path("ageHours").asString())
                .isEqualTo("no daily backups are made");
    }

    @Test
    void numbersAreThereAsTextAndByName() {
        Client client = new Client(port);
        client.get("/api/access");
        String all = client.get("/actuator/prometheus").raw().body();
        assertThat(all)
                .contains("yarrowmark_disk_free_bytes", "yarrowmark_commits", "http_server_requests", "hikaricp");
        assertThat(client.get("/actuator/metrics/yarrowmark.disk.free").status())
                .isEqualTo(200);
    }

    @Test
    void fromElsewhereItNeedsAKeyOrAnOwner() {
        for (String path : new String[] {"/actuator/health", "/actuator/metrics", "/actuator/prometheus"}) {
            Client.Answer stranger =
                    new Client(port).header(PASSED_ON, "203.0.113.7").get(path);
            assertThat(stranger.status()).as(path).isEqualTo(401);
        }
        Client owner = Client.owner(port);
        String key = owner.post("/api/people/me/keys", Map.of("name", "watcher", "scope", "READ", "days", 30))
                .body()
                .path("key")
                .asString();
        assertThat(key).isNotEmpty();
        Client program = new Client(port).header(PASSED_ON, "203.0.113.7").header("Authorization", "Bearer " + key);
        assertThat(program.get("/actuator/prometheus").status()).isEqualTo(200);
        assertThat(owner.header(PASSED_ON, "203.0.113.7")
                        .get("/actuator/health")
                        .status())
                .isEqualTo(200);
        assertThat(new Client(port).post("/actuator/health", Map.of()).status()).isIn(401, 403);
        // What could change or show more than that is not there at all.
        for (String path : new String[] {"env", "beans", "heapdump", "shutdown", "loggers", "configprops"}) {
            assertThat(new Client(port).get("/actuator/" + path).status())
                    .as(path)
                    .isEqualTo(404);
        }
    }

    @Test
    void aMirrorThatMissedACommitNeedsAttentionAndStopsNobody() {
        ChangeFeed feed = new ChangeFeed(
                new org.springframework.beans.factory.ObjectProvider<>() {
                    @Override
                    public java.util.stream.Stream<Mirror> orderedStream() {
                        return java.util.stream.Stream.of(change -> {
                            throw new IllegalStateException("no room");
                        });
                    }
                },
                new Revision());
        feed.changed(new RecordsChanged() {});
        assertThat(new HealthOfParts()
                        .mirrorsHealthIndicator(feed, new Revision())
                        .health()
                        .getStatus()
                        .getCode())
                .isEqualTo("ATTENTION");
        assertThat(new HealthOfParts()
                        .diskHealthIndicator(new DiskSpace(() -> new DiskSpace.Room(1, 100)))
                        .health()
                        .getStatus()
                        .getCode())
                .isEqualTo("ATTENTION");
    }
}
