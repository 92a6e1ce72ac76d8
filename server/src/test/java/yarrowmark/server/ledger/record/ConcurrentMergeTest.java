package yarrowmark.server.ledger.record;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import java.util.List;
import java.util.Map;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.function.Supplier;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.Lab;
import yarrowmark.server.support.ServerTest;

/** What comes while two configurations are being merged waits, and belongs to the one that is left. */
@ServerTest
class ConcurrentMergeTest {
    @LocalServerPort
    private int port;

    @Autowired
    private Merging merging;

    @Autowired
    private PlatformTransactionManager transactions;

    @Autowired
    private JdbcTemplate sql;

    private final ExecutorService other = Executors.newSingleThreadExecutor();
    private Lab lab;
    private long into;
    private long from;

    @BeforeEach
    void twoThatAreTheSame() {
        lab = new Lab(port).suite("Task 1; s; lower\n");
        into = lab.configuration(Map.of("firmware.version", "1.04"));
        from = lab.configuration(Map.of("firmware.version", "1.40"));
        lab.session(into, 3).typed(0, "40", "41");
        lab.session(from, 3).typed(0, "42");
        JsonNode page = lab.owner().get("/api/configurations/" + from).body();
        Client.Answer corrected = lab.owner()
                .post(
                        "/api/configurations/" + from + "/corrections",
                        Map.of(
                                "seen", page.path("fingerprint").asString(),
                                "key", "firmware.version",
                                "text", "1.04",
                                "reason", "Digits swapped"));
        assertThat(corrected.status()).as(corrected.detail()).isEqualTo(200);
    }

    @AfterEach
    void end() {
        other.shutdownNow();
    }

    /** Merges, and lets somebody else ask for something before the merge is committed. @return what they were answered */
    private Client.Answer meanwhile(Supplier<Client.Answer> ask) throws Exception {
        Future<Client.Answer> answer = new TransactionTemplate(transactions).execute(t -> {
            merging.merge(from, into, Client.NAME);
            Future<Client.Answer> asked = other.submit(ask::get);
            await().atMost(5, TimeUnit.MINUTES)
                    .until(() -> sql.queryForObject(
                                    "select count(*) from information_schema.processlist where db = database() and info like '%for update' and time_ms > 300",
                                    Integer.class)
                            > 0);
            assertThat(asked.isDone()).isFalse();
            return asked;
        });
        return answer.get(5, TimeUnit.MINUTES);
    }

    private List<Long> readingsOf(long configuration) {
        return sql.queryForList("select id from reading where configuration_id = ?", Long.class, configuration);
    }

    private int inSample(long configuration) {
        return sql
                .queryForList("select n from sample where configuration_id = ?", Integer.class, configuration)
                .stream()
                .mapToInt(n -> n)
                .sum();
    }

    @Test
    void aScoreTypedMeanwhileIsInTheSampleOfTheOneThatIsLeft() throws Exception {
        assertThat(meanwhile(() -> lab.type(0, 2, "43")).status()).isEqualTo(200);
        assertThat(readingsOf(from)).isEmpty();
        assertThat(readingsOf(into)).hasSize(4);
        assertThat(inSample(from)).isZero();
        assertThat(inSample(into)).isEqualTo(4);
    }

    @Test
    void aReadingSetAsideMeanwhileLeavesTheRightSample() throws Exception {
        long reading = readingsOf(from).get(0);
        assertThat(meanwhile(() -> lab.owner()
                                .post("/api/readings/" + reading + "/set-aside", Map.of("reason", "a window was open")))
                        .status())
                .isEqualTo(200);
        assertThat(inSample(from)).isZero();
        assertThat(inSample(into)).isEqualTo(2);
    }

    @Test
    void aSessionOpenedMeanwhileBelongsToTheOneThatIsLeft() throws Exception {
        Client.Answer opened = meanwhile(() -> lab.owner()
                .post(
                        "/api/sessions",
                        Map.of("configurationId", from, "name", "Lab", "testIds", lab.tests(), "runs", 2)));
        assertThat(opened.status()).as(opened.detail()).isEqualTo(200);
        long session = opened.body().path("session").path("id").asLong();
        assertThat(sql.queryForObject("select configuration_id from session where id = ?", Long.class, session))
                .isEqualTo(into);
    }
}
