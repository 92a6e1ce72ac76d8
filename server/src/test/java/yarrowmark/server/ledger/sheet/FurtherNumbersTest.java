package yarrowmark.server.ledger.sheet;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.boot.test.web.server.LocalServerPort;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.Lab;
import yarrowmark.server.support.ServerTest;

/** Tests with several numbers, typed by a person. */
@ServerTest
class FurtherNumbersTest {
    @LocalServerPort
    private int port;

    private Lab lab;

    @BeforeEach
    void lab() {
        lab = new Lab(port);
    }

    @Test
    void anAverageAndItsLowAreTypedIntoOnePlaceAndAreOneRun() {
        lab.suite("Reed flight, fps, more\n+ 1 % low, fps, more\n+ stutters, 1, less, difference")
                .session(2);
        lab.type(0, 1, "62.4 / 41.0 / 3");
        lab.type(0, 2, "61.8 fps; –; 2");
        JsonNode test = lab.sheet().path("tests").get(0);
        assertThat(test.path("further"))
                .extracting(m -> m.path("name").asString())
                .containsExactly("Reed flight, 1 % low", "Reed flight, stutters");
        assertThat(test.path("runs"))
                .extracting(r -> r.path("value").asDouble())
                .containsExactly(62.4, 61.8);
        assertThat(test.path("others"))
                .extracting(o -> o.path("run").asInt() + ": " + o.path("value").asDouble())
                .containsExactlyInAnyOrder("1: 41.0", "1: 3.0", "2: 2.0");
        int before = counted();
        lab.type(0, 1, "62.4 / 41.0 / 3");
        assertThat(counted()).as("the same again is the same").isEqualTo(before);
        assertThat(setAside()).isZero();
        lab.type(0, 1, "62.4 / 40.2");
        assertThat(setAside()).as("the run before, whole").isEqualTo(3);
        assertThat(typed("62 / x").detail()).contains("Reed flight, 1 % low");
        assertThat(typed("62 / 41 / 3 / 9").detail()).contains("has 3 numbers, and 4 were given");
        assertThat(typed("62 / -3").detail()).contains("above 0");
    }

    @Test
    void theNumbersOfFrameTimesAreTypedWhereNobodyHasTheTimes() {
        lab.suite("Reed flight, fps, more, frame times").session(1);
        lab.type(0, 1, "57.8 / 17.1");
        JsonNode test = lab.sheet().path("tests").get(0);
        assertThat(test.path("runs").get(0).path("value").asDouble()).isEqualTo(57.8);
        assertThat(test.path("others")).hasSize(1);
        assertThat(test.path("others").get(0).path("metric").path("name").asString())
                .isEqualTo("Reed flight, 1 % low, mean");
    }

    private Client.Answer typed(String text) {
        Client.Answer answer = lab.owner()
                .post(
                        "/api/sessions/" + lab.session() + "/scores",
                        Map.of("testId", lab.tests().get(0), "run", 1, "text", text, "byStopwatch", false));
        assertThat(answer.code()).as(text).isEqualTo("not-understood");
        return answer;
    }

    private int counted() {
        return total("COUNTED");
    }

    private int setAside() {
        return total("SET_ASIDE");
    }

    private int total(String state) {
        return lab.owner()
                .get("/api/ledger?state=" + state + "&session=" + lab.session())
                .body()
                .path("total")
                .asInt();
    }
}
