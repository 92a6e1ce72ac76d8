package yarrowmark.server.bench;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.InputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.jdbc.core.JdbcTemplate;
import yarrowmark.server.support.Bench;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.Crowd;
import yarrowmark.server.support.ServerTest;

/** Thirty-two parties at once, against half as many connections to the database. */
@ServerTest
class CrowdTest {
    @LocalServerPort
    private int port;

    @Autowired
    private JdbcTemplate sql;

    private Bench bench;

    @BeforeEach
    void bench() {
        bench = new Bench(port);
    }

    /** It took 31 seconds and lost four answers while each commit waited for a second connection. */
    @Test
    @Timeout(600)
    void devicesDeliverTogetherWhileTheBenchIsWatched() throws Exception {
        List<Client> devices = new ArrayList<>();
        for (int i = 0; i < Crowd.PARTIES; i++) {
            devices.add(bench.started("Crowd " + i, 3, List.of(Bench.fact("os.name", "Fenland " + i))));
        }
        long test = Bench.testId(devices.get(0), "weir-hash-one");
        int before = readings();
        // A watcher that opens the feed and reads nothing of it.
        try (InputStream asleep = bench.owner().open("/api/bench/events")) {
            for (int run = 1; run <= 3; run++) {
                int number = run;
                List<Client.Answer> answers = Crowd.atOnce(devices.stream()
                        .<Callable<Client.Answer>>map(
                                device -> () -> bench.deliver(device, Bench.ok(test, number, 100 + number)))
                        .toList());
                assertThat(answers).extracting(Client.Answer::status).containsOnly(200);
            }
            assertThat(asleep).isNotNull();
        }
        assertThat(readings() - before).isEqualTo(3 * Crowd.PARTIES);
    }

    @Test
    @Timeout(600)
    void aSearchFindsEachModelOnceWhileThirtyTwoChangeIt() throws Exception {
        List<Long> models = new ArrayList<>();
        for (int i = 0; i < 4; i++) {
            models.add(bench.owner()
                    .post("/api/models", Map.of("maker", "Dunlin", "name", "Throng " + i, "deviceClass", "BOARD"))
                    .body()
                    .path("model")
                    .path("id")
                    .asLong());
        }
        List<Callable<Integer>> parties = new ArrayList<>();
        for (int i = 0; i < Crowd.PARTIES; i++) {
            int number = i;
            parties.add(() -> {
                Client owner = bench.owner();
                owner.post(
                        "/api/models/" + models.get(number % 4) + "/units", Map.of("label", "Throng unit " + number));
                return owner.get("/api/models?q=throng").body().path("total").asInt();
            });
        }
        assertThat(Crowd.atOnce(parties)).containsOnly(4);
        assertThat(bench.owner()
                        .get("/api/models?q=throng")
                        .body()
                        .path("total")
                        .asInt())
                .isEqualTo(4);
    }

    private int readings() {
        return sql.queryForObject("select count(*) from reading", Integer.class);
    }
}
