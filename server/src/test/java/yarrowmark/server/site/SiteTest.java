package yarrowmark.server.site;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import java.awt.Color;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.InputStream;
import java.net.http.HttpResponse;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import javax.imageio.ImageIO;
import javax.xml.parsers.DocumentBuilderFactory;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;
import org.w3c.dom.Document;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.ServerTest;
import yarrowmark.server.writeup.Writing;

/** The public side: a front page with ways to everything, what programs read of it, and all of it as files. */
@ServerTest
class SiteTest extends Writing {
    private static final String FIGURE =
            "<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 690 200\"><rect x=\"0\" y=\"0\" width=\"690\" height=\"200\" fill=\"var(--accent, var(--leaf))\"/><text x=\"20\" y=\"40\" font-size=\"14\" fill=\"var(--ink)\">Weir hash</text></svg>";
    private static final Pattern LINK = Pattern.compile("(?:href|src)=\"([^\"#]*)[^\"]*\"|url\\((/?[^)]*)\\)");

    @Autowired
    private JdbcTemplate sql;

    @AfterEach
    void withoutAddress() {
        owner.put("/api/look", Map.of());
    }

    private String published(String kind, Object... pieces) {
        JsonNode page = made(pieces);
        Map<String, Object> shown = new HashMap<>();
        for (JsonNode piece : page.path("pieces")) {
            if (piece.path("kind").asString().equals("FIGURE")) {
                shown.put(piece.path("id").asString(), Map.of("svg", FIGURE, "caption", "Bars"));
            }
        }
        Map<String, Object> body =
                new HashMap<>(Map.of("revision", page.path("revision").asInt(), "listed", true, "shown", shown));
        if (!kind.isEmpty()) {
            body.put("kind", kind);
        }
        Client.Answer answer = owner.post("/api/write-ups/" + id(page) + "/editions", body);
        assertThat(answer.status()).as(answer.detail()).isEqualTo(200);
        return page.path("writeUp").path("publicKey").asString();
    }

    private String withFigure(String kind) {
        return published(
                kind,
                piece("TEXT", Map.of("text", "It *stands* [well](https://example.org) <b>")),
                piece("FIGURE", Map.of("question", Map.of("of", "standing", "deviceClass", "LAPTOP"))));
    }

    private String photo() throws Exception {
        BufferedImage image = new BufferedImage(800, 600, BufferedImage.TYPE_INT_RGB);
        image.createGraphics().fillRect(0, 0, 800, 600);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, "png", out);
        return owner.postBytes("/api/write-ups/photos", out.toByteArray())
                .body()
                .path("hash")
                .asString();
    }

    @Test
    void theFrontPageShowsWhatIsNewestAndLeadsToTheRest() throws Exception {
        String older = withFigure("Long review / field");
        String newer = published(
                "",
                piece("PHOTO", Map.of("hash", photo(), "alt", "A dyke")),
                piece("VERDICT", Map.of("line", "Take it along, \"twice\".")));
        String front = text("/w");
        assertThat(front.indexOf(newer)).isPositive().isLessThan(front.indexOf(older));
        assertThat(front)
                .contains("/w/" + newer + "/1/lead.jpg", "/w/" + older + "/1/small.jpg")
                .contains("Take it along, &quot;twice&quot;.", "It stands well &lt;b&gt;")
                .contains("href=\"/w/by/kind/long-review-field\"", "Long review / field")
                .contains("/w/by/model/" + lab.model())
                .doesNotContain("<script", "style=\"");
        assertThat(text("/w/by/kind/long-review-field")).contains(older).doesNotContain(newer);
        assertThat(text("/w/by/model/" + lab.model())).contains(older, newer);
        Matcher year = Pattern.compile("/w/by/year/(\\d{4})").matcher(front);
        assertThat(year.find()).isTrue();
        assertThat(text("/w/by/year/" + year.group(1))).contains(older, newer);
        for (String nothing : List.of(
                "/w/by/kind/none",
                "/w/by/model/x",
                "/w/by/model/99999999",
                "/w/by/year/1970",
                "/w/page/900",
                "/w/by/x/1")) {
            assertThat(read(nothing).statusCode()).as(nothing).isEqualTo(404);
        }
        assertThat(text("/w?page=0")).as("as its pages were counted before").isEqualTo("");
        assertThat(read("/w?page=0").headers().firstValue("Location")).hasValue("/w/page/1");
    }

    @Test
    void aSharedLinkBringsTitleDescriptionAndPicture() throws Exception {
        assertThat(owner.put("/api/look", Map.of("address", "https://reviews.example/w/", "accent", "#74386b"))
                        .status())
                .isEqualTo(200);
        String key = withFigure("");
        assertThat(text("/w/" + key))
                .contains("<link rel=\"canonical\" href=\"https://reviews.example/w/" + key + "\">")
                .contains("<meta name=\"description\" content=\"It stands well &lt;b&gt;\">")
                .contains("og:image\" content=\"https://reviews.example/w/" + key + "/1/share.jpg\"")
                .contains("og:title\" content=\"Two summers " + lab.number());
        HttpResponse<byte[]> card = read("/w/" + key + "/1/share.jpg");
        assertThat(card.headers().firstValue("Content-Type")).hasValue("image/jpeg");
        BufferedImage image = ImageIO.read(new ByteArrayInputStream(card.body()));
        assertThat(image.getWidth()).isEqualTo(1200);
        assertThat(image.getHeight()).isEqualTo(630);
        assertThat(new Color(image.getRGB(900, 120)))
                .as("the figure, in the lab's accent")
                .matches(colour -> near(colour, new Color(0x74386b)));
        assertThat(ink(image, 60, 200, 500, 300)).as("the title").isGreaterThan(200);
        assertThat(read("/w/" + key + "/1/share.jpg").body())
                .as("kept, and the same for whoever asks next")
                .isEqualTo(card.body());
        BufferedImage small = ImageIO.read(
                new ByteArrayInputStream(read("/w/" + key + "/1/small.jpg").body()));
        assertThat(small.getWidth()).isEqualTo(360);
        assertThat(read("/w/" + key + "/2/share.jpg").statusCode()).isEqualTo(404);
        for (String wrong :
                List.of("reviews.example", "ftp://a.example", "https://a.example/?x", "https://me@a.example")) {
            assertThat(owner.put("/api/look", Map.of("address", wrong)).status())
                    .as(wrong)
                    .isEqualTo(422);
        }
    }

    /** A JPEG's colours are a little off. */
    private static boolean near(Color one, Color other) {
        return Math.abs(one.getRed() - other.getRed()) < 12
                && Math.abs(one.getGreen() - other.getGreen()) < 12
                && Math.abs(one.getBlue() - other.getBlue()) < 12;
    }

    private static int ink(BufferedImage image, int x, int y, int width, int height) {
        int dark = 0;
        for (int i = x; i < x + width; i++) {
            for (int j = y; j < y + height; j++) {
                dark += new Color(image.getRGB(i, j)).getRed() < 100 ? 1 : 0;
            }
        }
        return dark;
    }

    @Test
    void wordsThatOurLettersLackAreWrittenWithTheMachines() {
        PictureFonts fonts = new PictureFonts();
        assertThat(fonts.title("Жук", 20).getFamily()).isEqualTo(java.awt.Font.SERIF);
        assertThat(fonts.title("Zwei Winter, größer", 20).canDisplayUpTo("Zwei Winter, größer"))
                .isEqualTo(-1);
    }

    @Test
    void theFeedIsAtomAndNamesWhatIsListed() throws Exception {
        String key = withFigure("");
        owner.put("/api/look", Map.of("address", "https://reviews.example/w"));
        DocumentBuilderFactory factory = DocumentBuilderFactory.newInstance();
        factory.setNamespaceAware(true);
        Document feed = factory.newDocumentBuilder()
                .parse(new ByteArrayInputStream(read("/w/feed.xml").body()));
        assertThat(feed.getDocumentElement().getNamespaceURI()).isEqualTo("http://www.w3.org/2005/Atom");
        assertThat(feed.getElementsByTagName("entry").getLength()).isPositive();
        assertThat(text("/w/feed.xml")).contains("https://reviews.example/w/" + key, "<updated>20");
    }

    @Test
    void aStandingIsPublishedAsItWasOrAsItIs() throws Exception {
        long one = lab.configuration(Map.of("firmware.version", "1.04"));
        long other = lab.configuration(Map.of("firmware.version", "1.40"));
        lab.suite("Depth, m, more").session(one, 2).typed(0, "10.1", "10.2");
        lab.session(other, 2).typed(0, "12.1", "12.2");
        String was = saved(false);
        String is = saved(true);
        assertThat(text("/w")).contains("/w/standings/" + was, "as it was on", "/w/standings/" + is, "as it is now");
        assertThat(text("/w/standings/" + was))
                .contains("Depths &amp; more", "firmware 1.40", ">12.15 m<", ">10.15 m<");
        lab.session(one, 2).typed(0, "20.1", "20.2");
        assertThat(text("/w/standings/" + was)).as("as it was").contains(">10.15 m<");
        assertThat(text("/w/standings/" + is))
                .as("with what was measured since")
                .contains(">12.15 m<")
                .doesNotContain(">10.15 m<");
        assertThat(owner.put("/api/kept-standings/" + is, Map.of("listed", false, "living", false))
                        .status())
                .isEqualTo(200);
        assertThat(text("/w")).doesNotContain(is);
        assertThat(text("/w/standings/" + is))
                .as("that of the day it was saved")
                .contains(">10.15 m<");
        assertThat(read("/w/standings/" + "x".repeat(24)).statusCode()).isEqualTo(404);
        // One whose question has no answer any more is shown as it was, and the folder can still be made.
        String lost = saved(true);
        sql.update("update frozen_standing set ask = '{\"metric\":99999999}' where frozen_key = ?", lost);
        assertThat(text("/w/standings/" + lost)).contains("As it was on", "Depths &amp; more");
        // An address of before leads there.
        HttpResponse<byte[]> before = read("/kept/" + was);
        assertThat(before.headers().firstValue("Location")).hasValue("/w/standings/" + was);
    }

    private String saved(boolean living) {
        Client.Answer answer = owner.post(
                "/api/kept-standings?metric=" + lab.metric(0),
                Map.of("caption", "By depth.", "title", "Depths & more", "listed", true, "living", living));
        assertThat(answer.status()).as(answer.detail()).isEqualTo(200);
        return answer.body().path("key").asString();
    }

    @Test
    void theFolderHoldsAllOfItAndEveryLinkInItLeadsToAFile() throws Exception {
        String key = withFigure("Ausführlich");
        String second = published("", piece("PHOTO", Map.of("hash", photo(), "alt", "A dyke")));
        JsonNode unlisted = made(piece("TEXT", Map.of("text", "For a few.")));
        owner.post(
                "/api/write-ups/" + id(unlisted) + "/editions",
                Map.of("revision", unlisted.path("revision").asInt(), "listed", false, "shown", Map.of()));
        Map<String, byte[]> files;
        try (InputStream zip = owner.open("/api/site.zip")) {
            files = unpacked(zip.readAllBytes());
        }
        assertThat(files)
                .containsKeys("index.html", "feed.xml", "page.css", key + "/index.html", second + "/1/share.jpg")
                .doesNotContainKey(unlisted.path("writeUp").path("publicKey").asString() + "/index.html");
        assertThat(files.keySet()).anyMatch(f -> f.matches(second + "/files/[0-9a-f]{64}\\.jpg"));
        int links = 0;
        for (Map.Entry<String, byte[]> file : files.entrySet()) {
            if (!file.getKey().matches(".*\\.(html|css)")) {
                continue;
            }
            Matcher link = LINK.matcher(new String(file.getValue(), UTF_8));
            while (link.find()) {
                String to = link.group(1) == null ? link.group(2) : link.group(1);
                if (to.isEmpty() || to.startsWith("http") || to.startsWith("data:")) {
                    continue;
                }
                links++;
                String path =
                        java.net.URI.create("/" + file.getKey()).resolve(to).getPath();
                assertThat(files).as(file.getKey() + " → " + to).containsKey(path.substring(1));
            }
        }
        assertThat(links).isGreaterThan(30);
        assertThat(read("/api/site.zip").statusCode()).isEqualTo(401);
        assertThat(read("/w/site-" + "x".repeat(43) + ".zip").statusCode()).isEqualTo(404);
    }

    private static Map<String, byte[]> unpacked(byte[] zip) throws Exception {
        Map<String, byte[]> files = new LinkedHashMap<>();
        try (ZipInputStream in = new ZipInputStream(new ByteArrayInputStream(zip))) {
            for (ZipEntry entry = in.getNextEntry(); entry != null; entry = in.getNextEntry()) {
                files.put(entry.getName(), in.readAllBytes());
            }
        }
        return files;
    }
}
