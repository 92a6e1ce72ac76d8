package yarrowmark.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.Callable;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.test.annotation.DirtiesContext;
import yarrowmark.server.support.Bench;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.Crowd;
import yarrowmark.server.support.Lab;
import yarrowmark.server.support.MovableClock;
import yarrowmark.server.support.ServerTest;

/** Thirty-two parties who make the same thing in the same moment: it is there once, and nobody gets an unworded answer. */
@ServerTest
@DirtiesContext(classMode = DirtiesContext.ClassMode.BEFORE_CLASS)
@Timeout(600)
class CrowdedRecordsTest {
    @LocalServerPort
    private int port;

    @Autowired
    private JdbcTemplate sql;

    @Autowired
    private MovableClock clock;

    private static List<Client.Answer> all(Callable<Client.Answer> party) throws Exception {
        List<Callable<Client.Answer>> parties = new ArrayList<>();
        for (int i = 0; i < Crowd.PARTIES; i++) {
            parties.add(party);
        }
        return Crowd.atOnce(parties);
    }

    /** How many got which answer. */
    private static Map<Integer, Integer> counted(List<Client.Answer> answers) {
        Map<Integer, Integer> counts = new HashMap<>();
        answers.forEach(a -> counts.merge(a.status(), 1, Integer::sum));
        return counts;
    }

    private int count(String query) {
        return sql.queryForObject(query, Integer.class);
    }

    @BeforeEach
    void oneOwner() throws Exception {
        if (count("select count(*) from person") > 0) {
            return;
        }
        List<Callable<Client.Answer>> visitors = new ArrayList<>();
        for (int i = 0; i < Crowd.PARTIES; i++) {
            Client visitor = new Client(port);
            visitor.get("/api/access");
            String name = i % 2 == 0 ? Client.NAME : "other " + i;
            visitors.add(() -> visitor.post(
                    "/api/access/owner", Map.of("name", name, "password", Client.PASSWORD, "lab", "Test lab")));
        }
        List<Client.Answer> answers = Crowd.atOnce(visitors);
        assertThat(answers.stream().filter(a -> a.status() == 200)).hasSize(1);
        assertThat(answers.stream().filter(a -> a.status() != 200))
                .allMatch(a -> a.code().equals("owner-exists"));
        assertThat(count("select count(*) from person")).isEqualTo(1);
        // Whoever was first: the other tests sign in as this one.
        sql.update("update person set name = ?", Client.NAME);
    }

    @Test
    void aModelAndItsMakerAreMadeOnce() throws Exception {
        Client owner = Client.owner(port);
        assertThat(counted(all(() ->
                        owner.post("/api/models", Map.of("maker", "Zurn", "name", "One", "deviceClass", "BOARD")))))
                .isEqualTo(Map.of(200, 1, 409, Crowd.PARTIES - 1));
        assertThat(count("select count(*) from maker where name = 'Zurn'")).isEqualTo(1);
        // Other accents, another name; another case, the same one.
        assertThat(owner.post("/api/models", Map.of("maker", "Zürn", "name", "One", "deviceClass", "BOARD"))
                        .status())
                .isEqualTo(200);
        assertThat(owner.post("/api/models", Map.of("maker", "Zurn", "name", "Öne", "deviceClass", "BOARD"))
                        .status())
                .isEqualTo(200);
        assertThat(owner.post("/api/models", Map.of("maker", "ZURN", "name", "one", "deviceClass", "BOARD"))
                        .status())
                .isEqualTo(409);
    }

    @Test
    void aModelsFirstUnitAndConfigurationAreMadeOnceHoweverManyDevicesAreIt() throws Exception {
        Bench bench = new Bench(port);
        Client owner = bench.owner();
        long model = owner.post("/api/models", Map.of("maker", "Pellow", "name", "Swarm", "deviceClass", "LAPTOP"))
                .body()
                .path("model")
                .path("id")
                .asLong();
        List<Callable<Client.Answer>> devices = new ArrayList<>();
        for (int i = 0; i < Crowd.PARTIES; i++) {
            Client device = bench.joined(1);
            devices.add(() -> device.post(
                    "/api/device/start",
                    Map.of("modelId", model, "facts", List.of(Bench.fact("os.name", "Fenland 7")))));
        }
        assertThat(counted(Crowd.atOnce(devices))).isEqualTo(Map.of(200, Crowd.PARTIES));
        assertThat(count("select count(*) from unit where model_id = " + model)).isEqualTo(1);
        assertThat(count("select count(*) from configuration c join unit u on u.id = c.unit_id where u.model_id = "
                        + model))
                .isEqualTo(1);
    }

    @Test
    void unitsSuitesAndPlansOfOneNameAreMadeOnce() throws Exception {
        Lab lab = new Lab(port).suite("Task 1; s; lower\n");
        Client owner = lab.owner();
        assertThat(counted(all(() -> owner.post("/api/models/" + lab.model() + "/units", Map.of("label", "Flock")))))
                .isEqualTo(Map.of(200, 1, 409, Crowd.PARTIES - 1));
        assertThat(counted(all(() -> owner.post(
                        "/api/suites",
                        Map.of(
                                "name",
                                "Flock suite",
                                "version",
                                "1",
                                "group",
                                "STORAGE",
                                "text",
                                "Task 1; s; lower\n")))))
                .isEqualTo(Map.of(200, 1, 409, Crowd.PARTIES - 1));
    }

    @Test
    void aRunIsThereOnceHoweverOftenItIsDelivered() throws Exception {
        Bench bench = new Bench(port);
        Client device = bench.started("Echo", 3, List.of());
        Object run = Bench.ok(Bench.testId(device, "weir-hash-one"), 1, 400);
        String key = UUID.randomUUID().toString();
        assertThat(counted(all(() -> bench.deliver(device, key, run)))).isEqualTo(Map.of(200, Crowd.PARTIES));
        // A second tab carries out the same run under a key of its own.
        assertThat(counted(all(() -> bench.deliver(device, run)))).isEqualTo(Map.of(409, Crowd.PARTIES));
        assertThat(bench.ledger("q=echo&size=50").path("total").asInt()).isGreaterThanOrEqualTo(1);
        assertThat(count("select count(*) from run where session_id = (select max(id) from session)"))
                .isEqualTo(1);
    }

    @Test
    void ofScoresTypedIntoOneFieldOneCountsAndAllAreKept() throws Exception {
        Lab lab = new Lab(port).suite("Task 1; s; lower\n").session(1);
        List<Callable<Client.Answer>> people = new ArrayList<>();
        for (int i = 0; i < Crowd.PARTIES; i++) {
            int number = i;
            people.add(() -> lab.type(0, 1, Integer.toString(100 + number)));
        }
        assertThat(counted(Crowd.atOnce(people))).isEqualTo(Map.of(200, Crowd.PARTIES));
        assertThat(count("select count(*) from run where session_id = " + lab.session()))
                .isEqualTo(Crowd.PARTIES);
        assertThat(
                        count(
                                "select count(*) from reading rd join run r on r.id = rd.run_id where r.session_id = "
                                        + lab.session()
                                        + " and not exists (select 1 from set_aside a where a.reading_id = rd.id and a.taken_back_at is null)"))
                .isEqualTo(1);
        assertThat(count("select n from sample where configuration_id = " + lab.configuration() + " and metric_id = "
                        + lab.metric(0)))
                .isEqualTo(1);
    }

    @Test
    void noMoreWrongPasswordsAreTriedAtOnceThanOneAfterTheOther() throws Exception {
        List<Client.Answer> answers = all(() -> {
            Client guesser = new Client(port);
            guesser.get("/api/access");
            return guesser.post("/api/access/sign-in", Map.of("name", Client.NAME, "password", "a wrong password"));
        });
        clock.letPass(Duration.ofMinutes(2));
        assertThat(counted(answers).get(401)).isLessThanOrEqualTo(10);
        assertThat(counted(answers).keySet()).containsExactlyInAnyOrder(401, 429);
    }
}
