package yarrowmark.server.reference;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Map;
import org.junit.jupiter.api.Test;
import org.springframework.boot.test.web.server.LocalServerPort;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.Lab;
import yarrowmark.server.support.ServerTest;

@ServerTest
class ReferencesTest {
    @LocalServerPort
    private int port;

    @Test
    void aPublishedScoreIsShownAndNeverRanked() {
        Lab lab = new Lab(port).suite("Sort, ops/s, more").session(2).typed(0, "100", "100");
        String path = "/api/models/" + lab.model() + "/references";
        Client.Answer added = lab.owner()
                .post(
                        path,
                        Map.of(
                                "metricId",
                                lab.metric(0),
                                "text",
                                "125",
                                "source",
                                "Marsh Weekly, spring issue",
                                "publishedOn",
                                "2026-03-01",
                                "results",
                                41));
        assertThat(added.status()).as(added.detail()).isEqualTo(200);
        JsonNode standings =
                lab.owner().get("/api/standings?metric=" + lab.metric(0)).body();
        assertThat(standings.path("rows").size()).isEqualTo(1);
        assertThat(standings.path("rows").get(0).path("value").asDouble())
                .as("not averaged with own readings")
                .isCloseTo(100, within(1e-9));
        assertThat(standings.path("published").get(0).path("index").asDouble()).isCloseTo(125, within(1e-9));
        assertThat(standings.path("published").get(0).path("results").asInt()).isEqualTo(41);
        assertThat(lab.owner()
                        .get("/api/ledger?session=" + lab.session())
                        .body()
                        .path("total")
                        .asInt())
                .as("it is no reading")
                .isEqualTo(2);

        long id = added.body().get(0).path("id").asLong();
        lab.owner().delete("/api/references/" + id);
        assertThat(lab.owner().get(path).body()).isEmpty();
        lab.owner().post("/api/references/" + id + "/restore", Map.of());
        assertThat(lab.owner().get(path).body()).hasSize(1);
    }

    @Test
    void whatIsNoScoreIsRefused() {
        Lab lab = new Lab(port).suite("Sort, ops/s, more");
        String path = "/api/models/" + lab.model() + "/references";
        assertThat(lab.owner()
                        .post(path, Map.of("metricId", lab.metric(0), "text", "fast", "source", "x"))
                        .code())
                .isEqualTo("not-understood");
        assertThat(lab.owner()
                        .post(path, Map.of("metricId", lab.metric(0), "text", "0", "source", "x"))
                        .code())
                .isEqualTo("not-a-score");
        assertThat(lab.owner()
                        .post(path, Map.of("metricId", 999_999_999L, "text", "1", "source", "x"))
                        .code())
                .isEqualTo("unknown-metric");
        assertThat(lab.owner()
                        .post(
                                path,
                                Map.of(
                                        "metricId",
                                        lab.metric(0),
                                        "text",
                                        "1",
                                        "source",
                                        "x",
                                        "publishedOn",
                                        "2999-01-01"))
                        .code())
                .isEqualTo("in-the-future");
        assertThat(lab.owner()
                        .post(path, Map.of("metricId", lab.metric(0), "text", "1", "source", " "))
                        .status())
                .isEqualTo(400);
        assertThat(lab.owner()
                        .post(
                                "/api/models/999999999/references",
                                Map.of("metricId", lab.metric(0), "text", "1", "source", "x"))
                        .status())
                .isEqualTo(404);
    }
}
