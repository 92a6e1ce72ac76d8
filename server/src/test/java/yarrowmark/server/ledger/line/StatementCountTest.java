package yarrowmark.server.ledger.line;

import static org.assertj.core.api.Assertions.assertThat;
import static yarrowmark.server.support.Bench.ok;
import static yarrowmark.server.support.Bench.testId;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import yarrowmark.server.support.AskedStatements;
import yarrowmark.server.support.Bench;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.ServerTest;

/** A view asks the database the same number of questions however many rows it shows. */
@ServerTest
class StatementCountTest {
    @LocalServerPort
    private int port;

    @Autowired
    private AskedStatements asked;

    private long statements(Bench bench, String path) {
        long before = asked.count();
        assertThat(bench.owner().get(path).status()).isEqualTo(200);
        return asked.count() - before;
    }

    @Test
    void moreRowsAskNoMoreQuestions() {
        Bench bench = new Bench(port);
        List<String> paths = List.of(
                "/api/ledger?size=200",
                "/api/bench",
                "/api/standings?deviceClass=MINI",
                "/api/models?size=200",
                "/api/tests");
        device(bench, "Count 1");
        List<Long> few = paths.stream().map(p -> statements(bench, p)).toList();
        for (int i = 2; i < 6; i++) {
            device(bench, "Count " + i);
        }
        List<Long> many = paths.stream().map(p -> statements(bench, p)).toList();
        // Fewer is right, too: what noise a metric lends is remembered for a minute.
        for (int i = 0; i < paths.size(); i++) {
            assertThat(many.get(i)).as(paths.get(i)).isLessThanOrEqualTo(few.get(i));
        }
        assertThat(many).allMatch(count -> count <= 12);
    }

    private static void device(Bench bench, String model) {
        Client device = bench.started("MINI", model, 3, List.of());
        for (int run = 1; run <= 3; run++) {
            bench.deliver(device, ok(testId(device, "weir-hash-one"), run, 300 + run));
            bench.deliver(device, ok(testId(device, "species-list"), run, 90 + run));
        }
    }
}
