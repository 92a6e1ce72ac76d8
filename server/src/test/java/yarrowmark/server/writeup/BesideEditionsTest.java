package yarrowmark.server.writeup;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import java.awt.Color;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.ServerTest;

/** What goes along with an edition and what must not; and what it names that is elsewhere now. */
@ServerTest
class BesideEditionsTest extends Writing {
    private static final String PNG = "data:image/png;base64,";

    @Test
    void whereItStoodThatDayIsReadBesideIt() throws Exception {
        JsonNode page = made(piece("TEXT", Map.of("text", "It stands well.")));
        long id = id(page);
        Map<String, Object> body = new HashMap<>(Map.of(
                "revision",
                owner.get("/api/write-ups/" + id).body().path("revision").asInt(),
                "listed",
                false,
                "shown",
                Map.of(),
                "standing",
                Map.of(
                        "svg",
                        DRAWING.replace("<rect", "<script>alert(1)</script><rect"),
                        "caption",
                        "Standing <of> that day",
                        "alt",
                        "Two of them",
                        "columns",
                        List.of("place", "configuration"),
                        "rows",
                        List.of(List.of("1", "Saltern")))));
        assertThat(owner.post("/api/write-ups/" + id + "/editions", body).status())
                .isEqualTo(200);
        String key = page.path("writeUp").path("publicKey").asString();
        assertThat(text("/w/" + key)).contains("href=\"/w/" + key + "/1/standing\"");
        String standing = text("/w/" + key + "/1/standing");
        assertThat(standing)
                .contains("Where it stood on", "Standing &lt;of&gt; that day", "Saltern", "href=\"/w/" + key + "/1\"")
                .doesNotContain("<script", "<of>");
        Map<String, String> folder =
                unpacked(read("/w/" + key + "/1/folder.zip").body());
        assertThat(folder).containsKeys("index.html", "standing.html", "page.css");
        assertThat(folder.get("index.html")).contains("href=\"standing.html\"").doesNotContain("%STANDING%");
        assertThat(text("/w/" + key + "/1/page.html")).doesNotContain("%STANDING%", "/standing");

        // One that speaks of no device has none, and its address leads nowhere.
        JsonNode other = made(piece("TEXT", Map.of("text", "On tides.")));
        publish(other, Map.of(), null);
        String none = other.path("writeUp").path("publicKey").asString();
        assertThat(text("/w/" + none)).doesNotContain("standing");
        assertThat(read("/w/" + none + "/1/standing").statusCode()).isEqualTo(404);
        assertThat(read("/w/" + key + "/2/standing").statusCode()).isEqualTo(404);
    }

    @Test
    void notesForTheStageAreForTheirWriterOnly() throws Exception {
        JsonNode page = made(
                piece("VERDICT", Map.of("line", "Buy it.", "notes", "Pause before saying this.")),
                piece("POINTS", Map.of("strong", List.of("light"), "weak", List.of(), "notes", "Show the hinge.")));
        assertThat(owner.get("/api/write-ups/" + id(page)).body().toString())
                .contains("Pause before", "Show the hinge");
        publish(page, Map.of(), null);
        String key = page.path("writeUp").path("publicKey").asString();
        List<String> outside = new ArrayList<>(List.of(text("/w/" + key), text("/w/" + key + "/1/page.html")));
        for (String zip : List.of("folder.zip", "markdown.zip", "data.zip")) {
            outside.addAll(unpacked(read("/w/" + key + "/1/" + zip).body()).values());
        }
        assertThat(outside).allSatisfy(file -> assertThat(file).doesNotContain("Pause before", "Show the hinge"));
        assertThat(String.join("", outside)).contains("Buy it.", "light");
    }

    @Test
    void aConfigurationThatWasMergedIsFollowed() {
        long into = lab.configuration(Map.of("firmware.version", "1.04"));
        long old = lab.configuration(Map.of("firmware.version", "1.40"));
        lab.suite("Depth, m, more").session(old, 2).typed(0, "10.1", "10.2");
        JsonNode page = made(
                piece(
                        "TEXT",
                        Map.of(
                                "text",
                                "It has [10 m](number:a).",
                                "numbers",
                                Map.of("a", Map.of("of", "value", "configuration", old, "metric", lab.metric(0))))),
                piece("FACTS", Map.of("configurations", List.of(old, into))),
                piece("METHOD", Map.of("configurations", List.of(old))));
        String seen = owner.get("/api/configurations/" + old)
                .body()
                .path("fingerprint")
                .asString();
        owner.post(
                "/api/configurations/" + old + "/corrections",
                Map.of("seen", seen, "key", "firmware.version", "text", "1.04", "reason", "Digits swapped"));
        assertThat(owner.post("/api/configurations/" + old + "/merge", Map.of("into", into))
                        .status())
                .isEqualTo(200);
        JsonNode pieces = owner.get("/api/write-ups/" + id(page)).body().path("pieces");
        assertThat(pieces.get(0).at("/body/numbers/a/configuration").asLong()).isEqualTo(into);
        assertThat(pieces.get(1).at("/body/configurations").toString()).isEqualTo("[" + into + "]");
        assertThat(pieces.get(2).at("/body/configurations").toString()).isEqualTo("[" + into + "]");
        assertThat(pieces.get(0).path("revision").asInt())
                .as("nobody wrote anything")
                .isEqualTo(1);
    }

    @Test
    void aMarkMayBeAPictureAndIsDrawnAnew() throws Exception {
        BufferedImage image = new BufferedImage(900, 300, BufferedImage.TYPE_INT_ARGB);
        image.setRGB(450, 150, Color.RED.getRGB());
        byte[] png = png(image);
        Client.Answer kept =
                owner.put("/api/look", Map.of("mark", PNG + Base64.getEncoder().encodeToString(png)));
        assertThat(kept.status()).as(kept.detail()).isEqualTo(200);
        String mark = kept.body().path("mark").asString();
        BufferedImage small =
                ImageIO.read(new ByteArrayInputStream(Base64.getDecoder().decode(mark.substring(PNG.length()))));
        assertThat(small.getWidth()).isEqualTo(192);
        assertThat(small.getHeight()).isEqualTo(64);
        assertThat(small.getRGB(0, 0) >>> 24).as("what is transparent stays so").isZero();
        JsonNode page = made(piece("TEXT", Map.of("text", "With a mark.")));
        publish(page, Map.of(), null);
        String address = "/w/" + page.path("writeUp").path("publicKey").asString();
        assertThat(text(address)).contains("<img alt=\"\" src=\"" + PNG);
        assertThat(read(address).headers().firstValue("Content-Security-Policy").orElseThrow())
                .contains("img-src 'self' data:;");
        for (String wrong : List.of(
                PNG,
                PNG + "AAAA",
                PNG + Base64.getEncoder().encodeToString("<svg onload=alert(1)>".getBytes(UTF_8)),
                PNG + Base64.getEncoder().encodeToString(png(new BufferedImage(3, 3, BufferedImage.TYPE_INT_ARGB))))) {
            assertThat(owner.put("/api/look", Map.of("mark", wrong)).status()).isEqualTo(422);
        }
        assertThat(owner.get("/api/look").body().path("mark").asString()).isEqualTo(mark);
        owner.put("/api/look", Map.of());
    }

    private static byte[] png(BufferedImage image) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, "png", out);
        return out.toByteArray();
    }

    private static Map<String, String> unpacked(byte[] zip) throws IOException {
        Map<String, String> files = new HashMap<>();
        try (ZipInputStream in = new ZipInputStream(new ByteArrayInputStream(zip))) {
            for (ZipEntry entry = in.getNextEntry(); entry != null; entry = in.getNextEntry()) {
                files.put(entry.getName(), new String(in.readAllBytes(), UTF_8));
            }
        }
        return files;
    }
}
