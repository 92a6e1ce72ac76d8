package yarrowmark.server.ledger.line;

import static org.assertj.core.api.Assertions.assertThat;
import static yarrowmark.server.support.Bench.ok;
import static yarrowmark.server.support.Bench.testId;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import org.assertj.core.api.SoftAssertions;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import yarrowmark.server.support.AskedStatements;
import yarrowmark.server.support.Bench;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.Lab;
import yarrowmark.server.support.ServerTest;

/** A view asks the database the same number of questions however many rows it shows. */
@ServerTest
class StatementCountTest {
    @LocalServerPort
    private int port;

    @Autowired
    private AskedStatements asked;

    private long statements(Bench bench, String path) {
        return statements(bench.owner(), path);
    }

    private long statements(Client owner, String path) {
        long before = asked.count();
        Client.Answer answer = owner.get(path);
        assertThat(answer.status()).as(path + " " + answer.detail()).isEqualTo(200);
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

    /** Views of one model, and of configurations side by side. */
    @Test
    void moreConfigurationsAndPurposesAskNoMoreQuestions() {
        Lab lab = new Lab(port).suite("Task 1; s; lower\nTask 2; s; lower\n");
        Client owner = lab.owner();
        owner.post(
                "/api/models/" + lab.model() + "/claims",
                Map.of("factKey", "memory.size", "text", "16 GB", "source", "the maker's page"));
        owner.post(
                "/api/models/" + lab.model() + "/claims",
                Map.of("metricId", lab.metric(0), "text", "40", "source", "the maker's page"));
        List<Long> made = new ArrayList<>();
        Supplier<Map<String, Long>> counts = () -> {
            String ids = made.stream().map(String::valueOf).collect(Collectors.joining(","));
            Map<String, Long> counted = new LinkedHashMap<>();
            for (String path : List.of(
                    "/api/models/" + lab.model() + "/claims",
                    "/api/models/" + lab.model() + "/sessions",
                    "/api/models/" + lab.model(),
                    "/api/compare?base=" + made.get(0) + "&with=" + ids,
                    "/api/compare/marks?ids=" + ids,
                    "/api/configurations/difference?base=" + made.get(0) + "&ids=" + ids,
                    "/api/purposes")) {
                counted.put(path.replace(ids, "..."), statements(owner, path));
            }
            return counted;
        };
        for (int i = 0; i < 2; i++) {
            made.add(configuration(lab, i));
        }
        Map<String, Long> few = counts.get();
        for (int i = 2; i < 7; i++) {
            made.add(configuration(lab, i));
            Map<String, Object> weighing = Map.of(
                    "groups",
                    Map.of("STORAGE", 1),
                    "suites",
                    Map.of(),
                    "tests",
                    Map.of(lab.tests().get(0), 2));
            assertThat(owner.post("/api/purposes", Map.of("name", "Count " + i, "weighing", weighing))
                            .status())
                    .isEqualTo(200);
        }
        Map<String, Long> many = counts.get();
        SoftAssertions.assertSoftly(all ->
                many.forEach((path, count) -> all.assertThat(count).as(path).isLessThanOrEqualTo(few.get(path))));
        assertThat(many.values()).allMatch(count -> count <= 20);
    }

    private static long configuration(Lab lab, int number) {
        long made = lab.configuration(Map.of("memory.size", (8 + number) + " GB", "firmware.version", "1." + number));
        lab.session(made, 2).typed(0, "4" + number, "4" + number + ".5").typed(1, "50", "5" + number);
        return made;
    }

    private static void device(Bench bench, String model) {
        Client device = bench.started("MINI", model, 3, List.of());
        for (int run = 1; run <= 3; run++) {
            bench.deliver(device, ok(testId(device, "weir-hash-one"), run, 300 + run));
            bench.deliver(device, ok(testId(device, "species-list"), run, 90 + run));
        }
    }
}
