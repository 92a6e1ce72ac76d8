package yarrowmark.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What readers get: the front page and all that it leads to, on a phone and on a desk, and as files on any web host. */
@Order(5)
class SiteIT extends AtTheDemo {
    /** Where the folder lies on its host: not at the top. */
    private static final String UNDER = "/some/where/";

    private static final Pattern LINK = Pattern.compile("(?:href|src)=\"([^\"]+)\"|url\\(([^)]+)\\)");

    SiteIT() {
        super(Demo.READ);
    }

    private List<String> pages(Browser reader) {
        reader.open(program.address() + "w");
        @SuppressWarnings("unchecked")
        List<String> found = (List<String>) reader.js(
                "return [...new Set([location.href, ...[...document.querySelectorAll('main a')].map((a) => a.href)])]");
        return found;
    }

    @Test
    void everyPageIsReadableOnAPhoneAndOnADesk() throws IOException {
        String axe = Files.readString(Path.of("..", "web", "node_modules", "axe-core", "axe.min.js"));
        List<String> found = new ArrayList<>();
        try (Browser reader = new Browser()) {
            List<String> pages = pages(reader);
            assertThat(pages).hasSizeGreaterThan(8);
            for (String page : pages) {
                reader.open(page);
                reader.js(axe + "; window.axe = window.axe ?? axe");
                for (int width : new int[] {320, 390, 1280}) {
                    reader.cdp(
                            "Emulation.setDeviceMetricsOverride",
                            Map.of("width", width, "height", 844, "deviceScaleFactor", 1, "mobile", false));
                    if (!(Boolean) reader.js("return document.documentElement.scrollWidth <= window.innerWidth + 1")) {
                        found.add(page + " sticks out at " + width + " px");
                    }
                    for (String theme : List.of("light", "dark")) {
                        reader.cdp(
                                "Emulation.setEmulatedMedia",
                                Map.of(
                                        "features",
                                        List.of(
                                                Map.of("name", "prefers-color-scheme", "value", theme),
                                                Map.of("name", "forced-colors", "value", "none"))));
                        String trouble = (String)
                                reader.js(
                                        "return axe.run(document).then((r) => r.violations.map((v) => v.id + ': ' + v.nodes.slice(0, 2).map((n) => n.html.slice(0, 200)).join(' ')).join('\\n'))");
                        if (!trouble.isEmpty()) {
                            found.add(page + " at " + width + " px, " + theme + ": " + trouble);
                        }
                    }
                }
            }
            assertThat(reader.driver().manage().getCookies()).isEmpty();
            assertThat(reader.complaints()).isEmpty();
        }
        assertThat(found).isEmpty();
    }

    /** Pale ink on white paper is what a dark system printed. */
    @Test
    void onPaperInkIsDarkWhateverTheSystemLikes() {
        try (Browser reader = new Browser()) {
            for (String page : pages(reader)) {
                reader.open(page);
                reader.cdp(
                        "Emulation.setEmulatedMedia",
                        Map.of(
                                "media",
                                "print",
                                "features",
                                List.of(Map.of("name", "prefers-color-scheme", "value", "dark"))));
                assertThat(reader.js("return getComputedStyle(document.body).color"))
                        .as(page)
                        .isEqualTo("rgb(29, 42, 36)");
            }
        }
    }

    @Test
    void onAPhoneEveryFigureIsSeenWholeWithItsValues() throws IOException {
        try (Browser reader = new Browser()) {
            List<String> editions = pages(reader).stream()
                    .filter(p -> p.matches(".*/w/[A-Za-z0-9_-]{20,}$"))
                    .toList();
            assertThat(editions).hasSize(4);
            int figures = 0;
            for (String page : editions) {
                reader.open(page);
                reader.cdp(
                        "Emulation.setDeviceMetricsOverride",
                        Map.of("width", 390, "height", 844, "deviceScaleFactor", 1, "mobile", false));
                @SuppressWarnings("unchecked")
                List<String> cut = (List<String>)
                        reader.js(
                                """
                        return [...document.querySelectorAll('figure .drawing svg')].filter((s) => s.getBoundingClientRect().width > 0).flatMap((s) =>
                          [...s.querySelectorAll('text')].filter((t) => { const b = t.getBoundingClientRect(); return b.left < -1 || b.right > innerWidth + 1; }).map((t) => t.textContent));""");
                assertThat(cut).as(page).isEmpty();
                figures += ((Number)
                                reader.js(
                                        "return [...document.querySelectorAll('figure .on-phone svg')].filter((s) => s.getBoundingClientRect().width > 0).length"))
                        .intValue();
            }
            assertThat(figures).isGreaterThan(4);
        }
    }

    @Test
    void theFolderIsReadFromAnyWebHostAndNoLinkIsBroken(@TempDir Path folder) throws Exception {
        Path site = folder.resolve("site");
        assertThat(command(site)).isZero();
        assertThat(command(site)).as("and is made anew in its place").isZero();
        Files.createDirectories(folder.resolve("mine"));
        Files.writeString(folder.resolve("mine/notes.txt"), "mine");
        assertThat(command(folder.resolve("mine"))).as("what is not ours stays").isNotZero();
        assertThat(folder.resolve("mine/notes.txt")).hasContent("mine");

        HttpServer host = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        host.createContext(UNDER, exchange -> {
            Path file = site.resolve(exchange.getRequestURI().getPath().substring(UNDER.length()))
                    .normalize();
            boolean there = file.startsWith(site) && Files.isRegularFile(file);
            byte[] bytes = there ? Files.readAllBytes(file) : new byte[0];
            exchange.getResponseHeaders().set("Content-Type", type(file));
            exchange.sendResponseHeaders(there ? 200 : 404, there ? bytes.length : -1);
            exchange.getResponseBody().write(bytes);
            exchange.close();
        });
        host.start();
        String front = "http://127.0.0.1:" + host.getAddress().getPort() + UNDER + "index.html";
        try (Browser reader = new Browser()) {
            assertThat(broken(URI.create(front))).isEmpty();
            reader.open(front);
            reader.see("//h2/a[.='Two winters with the Drift 13']").click();
            reader.see("//h1[.='Two winters with the Drift 13']");
            reader.see("//figure//*[name()='svg']");
            assertThat((Boolean) reader.js("return document.fonts.check(\"16px 'Source Sans 3 Variable'\")"))
                    .isTrue();
            reader.see("//header//a").click();
            reader.see("//h2/a[.='Three tablets in the rain']");
            assertThat(reader.complaints()).isEmpty();
        } finally {
            host.stop(0);
        }
    }

    private int command(Path folder) throws IOException, InterruptedException {
        // Not to the output of the tests: that is how they tell what came of them.
        Path said = Files.createTempFile("site", ".txt");
        ProcessBuilder builder = new ProcessBuilder(
                        Path.of("..", "bin", "site")
                                .toAbsolutePath()
                                .normalize()
                                .toString(),
                        folder.toString(),
                        "demo")
                .redirectErrorStream(true)
                .redirectOutput(said.toFile());
        builder.environment().put("YARROWMARK_VAR", program.records().toString());
        builder.environment().put("JAVA_TOOL_OPTIONS", Program.SHORT_LIVED);
        return builder.start().waitFor();
    }

    private static String type(Path file) {
        String name = file.toString();
        return name.endsWith(".html")
                ? "text/html"
                : name.endsWith(".css")
                        ? "text/css"
                        : name.endsWith(".svg") ? "image/svg+xml" : "application/octet-stream";
    }

    /** Every link of every page, followed as far as the folder goes. */
    private static List<String> broken(URI front) throws IOException, InterruptedException {
        List<String> broken = new ArrayList<>();
        Set<URI> seen = new LinkedHashSet<>(Set.of(front));
        Deque<URI> left = new ArrayDeque<>(seen);
        java.net.http.HttpClient client = java.net.http.HttpClient.newHttpClient();
        while (!left.isEmpty()) {
            URI at = left.remove();
            var answer = client.send(
                    java.net.http.HttpRequest.newBuilder(at).build(),
                    java.net.http.HttpResponse.BodyHandlers.ofString());
            if (answer.statusCode() != 200) {
                broken.add(at.toString());
            }
            if (!at.getPath().matches(".*\\.(html|css)")) {
                continue;
            }
            Matcher link = LINK.matcher(answer.body());
            while (link.find()) {
                String to = (link.group(1) == null ? link.group(2) : link.group(1)).replace("&amp;", "&");
                if (to.startsWith("#") || to.startsWith("data:") || to.startsWith("http") || to.startsWith("mailto:")) {
                    continue;
                }
                URI next = at.resolve(to.replaceFirst("#.*", ""));
                if (seen.add(next)) {
                    left.add(next);
                }
            }
        }
        assertThat(seen).hasSizeGreaterThan(40);
        return broken;
    }
}
