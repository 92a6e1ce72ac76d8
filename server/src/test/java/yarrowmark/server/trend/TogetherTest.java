package yarrowmark.server.trend;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.boot.test.web.server.LocalServerPort;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.Lab;
import yarrowmark.server.support.ServerTest;

/** Two units of a model under the same kernels: where they part. */
@ServerTest
class TogetherTest {
    @LocalServerPort
    private int port;

    private Lab lab;

    @BeforeEach
    void lab() {
        lab = new Lab(port).suite("Export, s, less\nFrames, fps, more");
    }

    private long unit(String label) {
        Client.Answer made = lab.owner().post("/api/models/" + lab.model() + "/units", Map.of("label", label));
        assertThat(made.status()).as(made.detail()).isEqualTo(200);
        for (JsonNode u : made.body().path("units")) {
            if (u.path("label").asString().equals(label)) {
                return u.path("id").asLong();
            }
        }
        throw new AssertionError("no unit " + label);
    }

    private long configuration(long unit, String kernel, String memory) {
        Client.Answer made = lab.owner()
                .post(
                        "/api/units/" + unit + "/configurations",
                        Map.of(
                                "facts",
                                List.of(
                                        Map.of("key", "os.kernel", "text", kernel, "read", false),
                                        Map.of("key", "memory.size", "text", memory, "read", false))));
        assertThat(made.status()).as(made.detail()).isEqualTo(200);
        return made.body().path("configuration").path("id").asLong();
    }

    private void measured(long unit, String kernel, double export, double frames) {
        lab.session(configuration(unit, kernel, "8 GiB"), 3).typed(0, three(export));
        if (frames > 0) {
            lab.typed(1, three(frames));
        }
    }

    private static String[] three(double value) {
        return new String[] {number(value * 0.999), number(value), number(value * 1.001)};
    }

    private static String number(double value) {
        return String.format(Locale.ROOT, "%.3f", value);
    }

    private JsonNode together(String query) {
        Client.Answer answer = lab.owner().get("/api/trends/together?model=" + lab.model() + query);
        assertThat(answer.status()).as(answer.detail()).isEqualTo(200);
        return answer.body();
    }

    @Test
    void unitsPartWhereTheDifferenceOfTheirChangesIsTold() {
        long one = unit("First");
        long other = unit("Second");
        for (String kernel : List.of("6.2", "6.9", "6.10")) {
            measured(one, kernel, 20, 60);
        }
        measured(other, "6.2", 40, 30);
        measured(other, "6.9", 40, 30);
        measured(other, "6.10", 30, 36);
        measured(other, "6.12", 30, 36);
        JsonNode both = together("&unit=" + one + "&along=os.kernel&with=" + lab.model() + "-" + other);
        assertThat(both.path("steps").valueStream().map(s -> s.path("label").asString()))
                .containsExactly("6.2", "6.9", "6.10", "6.12");
        assertThat(both.path("lines").valueStream().map(l -> l.path("unit").asString()))
                .containsExactly("First", "Second");
        assertThat(both.path("lines").get(1).path("points").get(0).path("ratio").asDouble())
                .as("each from its own first step, also at half the speed")
                .isEqualTo(1);
        JsonNode parting = both.path("partings").get(0);
        assertThat(parting.path("common").asInt()).isEqualTo(3);
        assertThat(parting.path("apart").path("step").asInt()).isEqualTo(2);
        assertThat(parting.path("apart").path("ratio").asDouble())
                .isCloseTo(Math.sqrt(40.0 / 30 * 36 / 30), within(2e-3));
        JsonNode frames = together(
                "&unit=" + one + "&along=os.kernel&metric=" + lab.metric(1) + "&with=" + lab.model() + "-" + other);
        assertThat(frames.path("partings").get(0).path("apart").path("ratio").asDouble())
                .isCloseTo(1.2, within(2e-3));
        assertThat(frames.path("metric").path("name").asString()).isEqualTo("Frames");
    }

    @Test
    void onlyWhatAllOfThemHaveIsInTheOverallAndEqualValuesAreOneStep() {
        long one = unit("First");
        long other = unit("Second");
        measured(one, "6.2", 20, 60);
        measured(one, "6.9", 20, 90);
        measured(other, "6.2", 20, 0);
        measured(other, "6.9", 20, 0);
        lab.session(configuration(other, "6.9", "16 GiB"), 3).typed(0, three(20));
        JsonNode both = together("&unit=" + one + "&along=os.kernel&with=" + lab.model() + "-" + other);
        assertThat(both.path("tests")).hasSize(1);
        assertThat(both.path("notShared").asInt()).isEqualTo(1);
        assertThat(both.path("partings").get(0).path("apart").isMissingNode())
                .as("frames, which jumped, are not shared")
                .isTrue();
        assertThat(both.path("lines").get(1).path("pooled").asBoolean()).isTrue();
        assertThat(both.path("steps")).hasSize(2);
    }

    @Test
    void whatCannotStandTogetherIsSaid() {
        long one = unit("First");
        long other = unit("Second");
        measured(one, "6.2", 20, 0);
        measured(one, "6.9", 20, 0);
        lab.session(configuration(other, "6.2", "8 GiB"), 3).typed(1, three(60));
        String at = "/api/trends/together?model=" + lab.model() + "&unit=" + one + "&along=os.kernel";
        assertThat(lab.owner().get(at + "&with=" + lab.model() + "-" + other).code())
                .isEqualTo("no-shared-test");
        assertThat(lab.owner().get(at + "&with=" + lab.model() + "-987654").status())
                .isEqualTo(404);
        assertThat(lab.owner().get(at + "&with=987654").status()).isEqualTo(404);
        assertThat(lab.owner().get(at + "&with=x;drop").status()).isEqualTo(400);
        assertThat(lab.owner().get(at).status()).as("with nobody").isEqualTo(400);
        assertThat(lab.owner()
                        .get(at + "&with=1&with=2&with=3&with=4&with=5&with=6")
                        .status())
                .as("a seventh line")
                .isEqualTo(400);
        JsonNode alone = together("&unit=" + one + "&along=os.kernel&with=" + lab.model() + "-" + one);
        assertThat(alone.path("lines")).as("beside itself").hasSize(1);
        assertThat(alone.path("partings")).isEmpty();
    }
}
