package yarrowmark.server.writeup;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.net.http.HttpResponse;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.IntStream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.ServerTest;

/** Writing and publishing, as the front end asks for it and as a reader gets it. */
@ServerTest
class WriteUpsTest extends Writing {
    @Test
    void twoPeopleInOneWriteUpLoseNothing() throws Exception {
        JsonNode page = made(piece("TEXT", Map.of("text", "one")), piece("TEXT", Map.of("text", "two")));
        long id = id(page);
        String first = "/api/write-ups/" + id + "/pieces/" + pieceId(page, 0);
        String second = "/api/write-ups/" + id + "/pieces/" + pieceId(page, 1);
        Client other = Client.owner(port);
        assertThat(owner.put(first, Map.of("body", Map.of("text", "one, longer"), "revision", 1))
                        .status())
                .isEqualTo(200);
        assertThat(other.put(second, Map.of("body", Map.of("text", "two, longer"), "revision", 1))
                        .status())
                .isEqualTo(200);
        Client.Answer clash = other.put(first, Map.of("body", Map.of("text", "one, otherwise"), "revision", 1));
        assertThat(clash.status()).isEqualTo(409);
        assertThat(clash.code()).isEqualTo("piece-changed");
        assertThat(clash.body().path("now").path("body").path("text").asString())
                .isEqualTo("one, longer");
        assertThat(clash.body().path("now").path("revision").asInt()).isEqualTo(2);
        // The same text again is no clash: an answer may have been lost.
        assertThat(owner.put(first, Map.of("body", Map.of("text", "one, longer"), "revision", 1))
                        .body()
                        .path("revision")
                        .asInt())
                .isEqualTo(2);

        // Of eight at once from the same revision one gets in, and the others are told.
        ExecutorService pool = Executors.newFixedThreadPool(8);
        try {
            List<Callable<Integer>> all = IntStream.range(0, 8)
                    .<Callable<Integer>>mapToObj(i -> () -> Client.owner(port)
                            .put(second, Map.of("body", Map.of("text", "at once " + i), "revision", 2))
                            .status())
                    .toList();
            int in = 0;
            for (Future<Integer> answer : pool.invokeAll(all)) {
                assertThat(answer.get()).isIn(200, 409);
                in += answer.get() == 200 ? 1 : 0;
            }
            assertThat(in).isEqualTo(1);
        } finally {
            pool.shutdownNow();
        }
    }

    private List<String> texts(long id) {
        return owner.get("/api/write-ups/" + id)
                .body()
                .path("pieces")
                .valueStream()
                .map(p -> p.path("body").path("text").asString())
                .toList();
    }

    @Test
    void piecesAreAddedMovedTakenOutAndBroughtBack() {
        JsonNode page = made(piece("TEXT", Map.of("text", "a")), piece("TEXT", Map.of("text", "c")));
        long id = id(page);
        String pieces = "/api/write-ups/" + id + "/pieces";
        owner.post(pieces, Map.of("kind", "TEXT", "body", Map.of("text", "b"), "after", pieceId(page, 0)));
        assertThat(texts(id)).containsExactly("a", "b", "c");
        owner.put(pieces + "/" + pieceId(page, 1) + "/place", Map.of());
        assertThat(texts(id)).containsExactly("c", "a", "b");
        owner.delete(pieces + "/" + pieceId(page, 0));
        assertThat(texts(id)).containsExactly("c", "b");
        owner.post(pieces + "/" + pieceId(page, 0) + "/restore", Map.of());
        assertThat(texts(id)).containsExactly("c", "a", "b");
        // So often between the same two that no number is left between them.
        for (int i = 0; i < 80; i++) {
            long last = owner.get("/api/write-ups/" + id)
                    .body()
                    .path("pieces")
                    .get(2)
                    .path("id")
                    .asLong();
            owner.put(pieces + "/" + last + "/place", Map.of("after", pieceId(page, 1)));
        }
        assertThat(texts(id)).containsExactlyInAnyOrder("a", "b", "c").startsWith("c");
        assertThat(owner.put(pieces + "/" + pieceId(page, 0) + "/place", Map.of("after", 1L << 50))
                        .status())
                .isEqualTo(404);
    }

    @Test
    void whatIsNoPieceIsRefused() {
        long id = id(made());
        String pieces = "/api/write-ups/" + id + "/pieces";
        for (Object[] bad : new Object[][] {
            {"TEXT", "words"},
            {"TEXT", Map.of("html", "<b>x</b>")},
            {"TEXT", Map.of("text", List.of("a"))},
            {"TEXT", Map.of("text", "x".repeat(60_001))},
            {"PHOTO", Map.of("hash", "../../etc/passwd")},
            {"HEADING", Map.of("text", Map.of("a", "b"))},
        }) {
            Client.Answer answer = owner.post(pieces, Map.of("kind", bad[0], "body", bad[1]));
            assertThat(answer.code()).as(bad[1].toString().substring(0, 5)).isEqualTo("piece-shape");
        }
        assertThat(owner.post(pieces, Map.of("kind", "VIDEO", "body", Map.of())).status())
                .isEqualTo(400);
        // Five thousand words out of a word processor are a text.
        assertThat(owner.post(
                                pieces,
                                Map.of("kind", "TEXT", "body", Map.of("text", "w\u00f6rds \u2013 ".repeat(5_000))))
                        .status())
                .isEqualTo(200);
        assertThat(owner.get("/api/write-ups/" + (1L << 40)).status()).isEqualTo(404);
    }

    @Test
    void anEditionStaysAsItWasWhateverHappensInTheLedger() throws Exception {
        lab.suite("Depth, m, more").session(2).typed(0, "10.1", "10.2");
        Map<String, Object> number =
                Map.of("of", "value", "configuration", lab.configuration(), "metric", lab.metric(0));
        JsonNode page = made(
                piece("TEXT", Map.of("text", "It dives [10.1 m](number:n1) deep.", "numbers", Map.of("n1", number))),
                piece("FIGURE", Map.of("question", Map.of("of", "standing"))));
        Map<String, Object> shown = Map.of(
                String.valueOf(pieceId(page, 0)),
                Map.of(
                        "numbers",
                        Map.of(
                                "n1",
                                Map.of("words", "10.1 m", "says", "Depth: Lab, 2 runs.", "value", 10.15, "unit", "m"))),
                String.valueOf(pieceId(page, 1)),
                Map.of(
                        "svg",
                        DRAWING,
                        "alt",
                        "One bar",
                        "caption",
                        "Depth, m",
                        "columns",
                        List.of("device", "Depth"),
                        "rows",
                        List.of(List.of("Lab", "10.1 m"))));
        assertThat(publish(page, shown, null).body().path("number").asInt()).isEqualTo(1);
        String key = page.path("writeUp").path("publicKey").asString();
        String before = text("/w/" + key);
        assertThat(before).contains("10.1 m", "Depth: Lab, 2 runs.", "aria-label=\"One bar\"", "var(--leaf)");

        lab.type(0, 1, "99");
        assertThat(text("/w/" + key)).isEqualTo(before);

        assertThat(publish(page, shown, null).code()).isEqualTo("say-what-changed");
        assertThat(publish(page, shown, "Measured again").body().path("number").asInt())
                .isEqualTo(2);
        assertThat(text("/w/" + key)).contains("edition 2", "Measured again", "/w/" + key + "/1");
        assertThat(text("/w/" + key + "/1"))
                .contains("an earlier edition", "10.1 m")
                .doesNotContain("Measured again");
        assertThat(read("/w/" + key + "/3").statusCode()).isEqualTo(404);
        assertThat(text("/w")).contains("Two summers " + lab.number());

        for (String file : List.of("page.html", "folder.zip", "markdown.zip", "data.zip")) {
            HttpResponse<byte[]> taken = read("/w/" + key + "/2/" + file);
            assertThat(taken.statusCode()).as(file).isEqualTo(200);
            assertThat(taken.headers().firstValue("content-disposition").orElse(""))
                    .startsWith("attachment");
        }
        assertThat(text("/w/" + key + "/2/page.html")).contains("<style>").doesNotContain("href=\"/w/", "%EDITION");
        // The data of the first edition has the readings of then, and not the one that came later.
        String readings = entry(read("/w/" + key + "/1/data.zip").body(), "data/readings.csv");
        assertThat(readings).startsWith("device,unit,configuration,suite").contains("10.1,", "10.2,");
        assertThat(readings.lines()).hasSize(3);
        assertThat(entry(read("/w/" + key + "/2/data.zip").body(), "data/readings.csv"))
                .contains("99.0");
        owner.delete("/api/write-ups/" + id(page));
        assertThat(read("/w/" + key).statusCode()).isEqualTo(404);
        owner.post("/api/write-ups/" + id(page) + "/restore", Map.of());
        assertThat(read("/w/" + key).statusCode()).isEqualTo(200);
    }

    private static String entry(byte[] zip, String name) throws Exception {
        try (ZipInputStream in = new ZipInputStream(new ByteArrayInputStream(zip))) {
            for (ZipEntry entry = in.getNextEntry(); entry != null; entry = in.getNextEntry()) {
                if (entry.getName().equals(name)) {
                    return new String(in.readAllBytes(), java.nio.charset.StandardCharsets.UTF_8);
                }
            }
        }
        throw new AssertionError("there is no " + name);
    }

    @Test
    void whatGoesOutIsWhatItsWriterSaw() {
        JsonNode page = made(
                piece("TEXT", Map.of("text", "one")), piece("FIGURE", Map.of("question", Map.of("of", "standing"))));
        long id = id(page);
        Client.Answer stale = owner.post(
                "/api/write-ups/" + id + "/editions",
                Map.of("revision", page.path("revision").asInt() - 1, "listed", false, "shown", Map.of()));
        assertThat(stale.code()).isEqualTo("write-up-changed");
        assertThat(publish(page, Map.of(), null).code()).isEqualTo("figure-without-drawing");
        assertThat(publish(made(), Map.of(), null).code()).isEqualTo("nothing-to-publish");
    }

    @Test
    void aPublishedPageCanDoNothing() throws Exception {
        JsonNode page = made(
                piece(
                        "TEXT",
                        Map.of(
                                "text",
                                "<script>alert(1)</script>\n\nA line with [x](javascript:alert(1)) ![p](https://elsewhere.example/p.png) [ok](https://example.org/a?b=1&c=2)\n\n<img src=x onerror=alert(1)>")),
                piece("HEADING", Map.of("text", "\"><script>alert(2)</script>")),
                piece("FIGURE", Map.of("question", Map.of("of", "standing"))));
        String hostile =
                "<svg xmlns=\"http://www.w3.org/2000/svg\" xmlns:xlink=\"http://www.w3.org/1999/xlink\" onload=\"alert(3)\" viewBox=\"0 0 1 1\"><script>alert(4)</script><a xlink:href=\"javascript:alert(5)\"><text x=\"0\" y=\"0\">in a link</text></a><image href=\"https://elsewhere.example/x\"/><rect fill=\"url(https://elsewhere.example/y)\" width=\"1\" height=\"1\"/><foreignObject><body/></foreignObject><style>*{background:url(x)}</style><text x=\"0\" y=\"1\">left &lt;b&gt;</text></svg>";
        assertThat(publish(
                                page,
                                Map.of(
                                        String.valueOf(pieceId(page, 2)),
                                        Map.of("svg", hostile, "narrow", hostile, "alt", "\"><script>")),
                                null)
                        .status())
                .isEqualTo(200);
        String key = page.path("writeUp").path("publicKey").asString();
        HttpResponse<byte[]> answer = read("/w/" + key);
        String html = new String(answer.body(), java.nio.charset.StandardCharsets.UTF_8);
        assertThat(html)
                .doesNotContain(
                        "<script",
                        "javascript:",
                        "onload",
                        "<img",
                        "elsewhere.example",
                        "foreignObject",
                        "<style",
                        "<image")
                .contains("left &lt;b&gt;", "https://example.org/a?b=1&amp;c=2", "&lt;script&gt;")
                .contains("class=\"on-page\"", "class=\"on-phone\"");
        assertThat(answer.headers().firstValue("content-security-policy").orElse(""))
                .contains("default-src 'none'")
                .doesNotContain("unsafe", "script-src");
        assertThat(answer.headers().allValues("set-cookie")).isEmpty();
        Client.Answer noDrawing =
                publish(made(piece("FIGURE", Map.of("question", Map.of("of", "standing")))), Map.of(), null);
        assertThat(noDrawing.status()).isEqualTo(422);
    }

    @Test
    void aDraftIsReadByItsLinkUntilItIsTakenBack() throws Exception {
        JsonNode page = made(piece("TEXT", Map.of("text", "not yet")));
        long id = id(page);
        String key = page.path("writeUp").path("publicKey").asString();
        Map<String, Object> body = Map.of("revision", page.path("revision").asInt(), "shown", Map.of());
        String token = owner.post("/api/write-ups/" + id + "/draft", body)
                .body()
                .path("token")
                .asString();
        HttpResponse<byte[]> draft = read("/w/draft/" + token);
        assertThat(new String(draft.body())).contains("not yet", "a draft, not published", "noindex");
        assertThat(draft.headers().firstValue("x-robots-tag").orElse("")).contains("noindex");
        assertThat(read("/w/" + key).statusCode()).as("nothing is published").isEqualTo(404);
        assertThat(text("/w")).doesNotContain("Two summers " + lab.number());
        String next = owner.post("/api/write-ups/" + id + "/draft", body)
                .body()
                .path("token")
                .asString();
        assertThat(read("/w/draft/" + token).statusCode()).isEqualTo(404);
        owner.delete("/api/write-ups/" + id + "/draft");
        assertThat(read("/w/draft/" + next).statusCode()).isEqualTo(404);
        assertThat(read("/w/draft/" + "x".repeat(43)).statusCode()).isEqualTo(404);
    }

    @Test
    void onlyPicturesOfWhatIsPublishedAreRead() throws Exception {
        java.awt.image.BufferedImage image =
                new java.awt.image.BufferedImage(40, 30, java.awt.image.BufferedImage.TYPE_INT_RGB);
        image.setRGB(3, 3, lab.number());
        java.io.ByteArrayOutputStream png = new java.io.ByteArrayOutputStream();
        javax.imageio.ImageIO.write(image, "png", png);
        String hash = owner.postBytes("/api/write-ups/photos", png.toByteArray())
                .body()
                .path("hash")
                .asString();
        assertThat(hash).hasSize(64);
        JsonNode page = made(piece("PHOTO", Map.of("hash", hash, "alt", "grey")));
        String key = page.path("writeUp").path("publicKey").asString();
        assertThat(read("/w/" + key + "/files/" + hash).statusCode()).isEqualTo(404);
        publish(page, Map.of(), null);
        assertThat(read("/w/" + key + "/files/" + hash).statusCode()).isEqualTo(200);
        assertThat(read("/w/" + key + "/files/" + "0".repeat(64)).statusCode()).isEqualTo(404);
        // As large as a camera makes them; more is said, and not read.
        java.awt.image.BufferedImage noise =
                new java.awt.image.BufferedImage(1_200, 1_000, java.awt.image.BufferedImage.TYPE_INT_RGB);
        java.util.Random random = new java.util.Random(5);
        for (int i = 0; i < 1_200_000; i++) {
            noise.setRGB(i % 1_200, i / 1_200, random.nextInt(1 << 24));
        }
        java.io.ByteArrayOutputStream large = new java.io.ByteArrayOutputStream();
        javax.imageio.ImageIO.write(noise, "png", large);
        assertThat(large.size()).isGreaterThan(3_000_000);
        assertThat(owner.postBytes("/api/write-ups/photos", large.toByteArray()).status())
                .isEqualTo(200);
        assertThat(owner.postBytes("/api/write-ups/photos", new byte[40_000_000])
                        .status())
                .isEqualTo(413);
        assertThat(owner.postBytes("/api/write-ups/photos", "no picture".getBytes())
                        .status())
                .isBetween(400, 499);
    }

    @Test
    void theLooksAccentCanBeReadAndItsMarkIsHarmless() {
        assertThat(owner.put("/api/look", Map.of("accent", "#ffee88")).code()).isEqualTo("too-pale");
        assertThat(owner.put("/api/look", Map.of("accent", "red")).code()).isEqualTo("not-a-colour");
        Client.Answer kept = owner.put(
                "/api/look",
                Map.of(
                        "accent",
                        "#5b5ea6",
                        "mark",
                        "<svg viewBox=\"0 0 4 4\"><script>alert(1)</script><circle cx=\"2\" cy=\"2\" r=\"2\"/></svg>",
                        "licence",
                        "CC BY 4.0"));
        assertThat(kept.body().path("mark").asString()).contains("<circle").doesNotContain("script");
        assertThat(owner.put("/api/look", Map.of("mark", "<svg><circle")).code())
                .isEqualTo("not-a-drawing");
        assertThat(owner.put("/api/look", Map.of()).body().has("accent")).isFalse();
    }

    @Test
    void theMethodSaysWhatTheSessionsKnow() {
        lab.suite("Depth, m, more").session(2).typed(0, "10.1", "10.2");
        JsonNode lines = owner.get("/api/write-ups/method?configuration=" + lab.configuration())
                .body()
                .path("lines");
        assertThat(lines.toString())
                .contains("Saltern " + lab.number() + " 1: 1 test, 2 runs.", "1 session, on ", Client.NAME);
    }

    @Test
    void valuesHaveTheirIntervalOrTheReason() {
        lab.suite("Depth, m, more\nSpeed, m/s, more").session(3).typed(0, "10.1", "10.2", "10.3");
        JsonNode asked = owner.get("/api/compare/values?ids=" + lab.configuration() + ",99999999&metrics="
                        + lab.metric(0) + "," + lab.metric(1))
                .body();
        JsonNode values = asked.path("rows").get(0).path("values");
        assertThat(values.get(0).path("value").asDouble()).isBetween(10.19, 10.21);
        assertThat(values.get(0).path("low").asDouble()).isLessThan(10.19);
        assertThat(values.get(0).path("high").asDouble()).isGreaterThan(10.21);
        assertThat(values.get(1).has("value")).isFalse();
        assertThat(values.get(1).path("why").asString()).contains("not run");
        assertThat(asked.path("gone").get(0).asLong()).isEqualTo(99999999);
    }
}
