package yarrowmark.server.writeup;

import static java.nio.charset.StandardCharsets.UTF_8;

import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import java.util.regex.Pattern;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import yarrowmark.server.files.Files;
import yarrowmark.server.platform.Page;

/**
 * What readers get who are nobody here: editions, and drafts by their secret link. No session, no script, nothing from
 * elsewhere; what is not there and what is not for them look the same.
 */
@Controller
@RequestMapping("/w")
class PublicPages {
    private static final String SAFE =
            "default-src 'none'; style-src 'self'; font-src 'self'; img-src 'self' data:; base-uri 'none'; form-action 'none'; frame-ancestors 'none'";
    private static final Pattern ACCENT = Pattern.compile("[0-9a-f]{6}");
    private static final int LISTED = 30;
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMM uuuu", Locale.ENGLISH);

    private final Editions editions;
    private final EditionFiles files;
    private final PageStyle style;

    PublicPages(Editions editions, EditionFiles files, PageStyle style) {
        this.editions = editions;
        this.files = files;
        this.style = style;
    }

    @GetMapping
    ResponseEntity<byte[]> list(@RequestParam(defaultValue = "0") @Min(0) @Max(10_000) int page) {
        Page<Editions.Listed> found = editions.listed(page, LISTED);
        String lab = EditionPage.escaped(editions.labName());
        StringBuilder html = new StringBuilder("<!doctype html>\n<html lang=\"en\"><head><meta charset=\"utf-8\">"
                + "<meta name=\"viewport\" content=\"width=device-width, initial-scale=1\">" + EditionPage.ICON
                + "<title>" + lab
                + "</title><link rel=\"stylesheet\" href=\"" + EditionPage.STYLE
                + "\"></head><body><header class=\"lab\"><span>" + lab + "</span></header><main><h1>" + lab
                + "</h1>\n<ul class=\"list\">");
        for (Editions.Listed one : found.rows()) {
            html.append("<li><a href=\"/w/")
                    .append(one.key())
                    .append("\">")
                    .append(EditionPage.escaped(one.title()))
                    .append("</a>");
            if (one.subtitle() != null) {
                html.append("<p>").append(EditionPage.escaped(one.subtitle())).append("</p>");
            }
            html.append("<p class=\"by\">")
                    .append(DAY.format(one.publishedAt().atZone(ZoneOffset.UTC)))
                    .append(one.number() > 1 ? " · edition " + one.number() : "")
                    .append("</p></li>\n");
        }
        html.append("</ul>");
        if (found.total() == 0) {
            html.append("<p>Nothing is published yet.</p>");
        }
        if ((page + 1L) * LISTED < found.total()) {
            html.append("<p><a href=\"/w?page=").append(page + 1).append("\">Earlier ones</a></p>");
        }
        return page(html.append("</main></body></html>\n").toString(), true);
    }

    @GetMapping("/{key}")
    ResponseEntity<byte[]> newest(@PathVariable String key) {
        return editions.published(key, null).map(p -> page(p, true)).orElseGet(PublicPages::nothing);
    }

    @GetMapping("/{key}/{number:\\d{1,6}}")
    ResponseEntity<byte[]> edition(@PathVariable String key, @PathVariable int number) {
        return editions.published(key, number).map(p -> page(p, true)).orElseGet(PublicPages::nothing);
    }

    @GetMapping("/{key}/{number:\\d{1,6}}/standing")
    ResponseEntity<byte[]> standing(@PathVariable String key, @PathVariable int number) {
        return editions.standing(key, number).map(p -> page(p, true)).orElseGet(PublicPages::nothing);
    }

    @GetMapping("/{key}/{number:\\d{1,6}}/page.html")
    ResponseEntity<byte[]> alone(@PathVariable String key, @PathVariable int number) {
        return editions.taken(key, number)
                .map(p -> saved(files.alone(p).getBytes(UTF_8), "text/html;charset=utf-8", "write-up.html"))
                .orElseGet(PublicPages::nothing);
    }

    @GetMapping("/{key}/{number:\\d{1,6}}/folder.zip")
    ResponseEntity<byte[]> folder(@PathVariable String key, @PathVariable int number) {
        return editions.taken(key, number)
                .map(p -> saved(files.folder(p), "application/zip", "write-up.zip"))
                .orElseGet(PublicPages::nothing);
    }

    @GetMapping("/{key}/{number:\\d{1,6}}/markdown.zip")
    ResponseEntity<byte[]> markdown(@PathVariable String key, @PathVariable int number) {
        return editions.taken(key, number)
                .map(p -> saved(files.markdown(p), "application/zip", "write-up-markdown.zip"))
                .orElseGet(PublicPages::nothing);
    }

    @GetMapping("/{key}/{number:\\d{1,6}}/data.zip")
    ResponseEntity<byte[]> data(@PathVariable String key, @PathVariable int number) {
        return editions.taken(key, number)
                .map(p -> saved(files.data(p), "application/zip", "write-up-data.zip"))
                .orElseGet(PublicPages::nothing);
    }

    @GetMapping("/{key}/files/{hash:[0-9a-f]{64}}")
    ResponseEntity<byte[]> file(@PathVariable String key, @PathVariable String hash) {
        return editions.file(key, hash).map(PublicPages::picture).orElseGet(PublicPages::nothing);
    }

    @GetMapping("/draft/{token:[A-Za-z0-9_-]{30,60}}")
    ResponseEntity<byte[]> draft(@PathVariable String token) {
        return editions.draft(token).map(p -> page(p, false)).orElseGet(PublicPages::nothing);
    }

    @GetMapping("/draft/{token:[A-Za-z0-9_-]{30,60}}/files/{hash:[0-9a-f]{64}}")
    ResponseEntity<byte[]> draftFile(@PathVariable String token, @PathVariable String hash) {
        return editions.draftFile(token, hash).map(PublicPages::picture).orElseGet(PublicPages::nothing);
    }

    @GetMapping("/page.css")
    ResponseEntity<byte[]> sheet(@RequestParam(defaultValue = "") String accent) {
        String colour = ACCENT.matcher(accent).matches() ? "#" + accent : null;
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_TYPE, "text/css;charset=utf-8")
                .header(HttpHeaders.CACHE_CONTROL, "public, max-age=600")
                .body(style.linked(colour).getBytes(UTF_8));
    }

    @GetMapping("/icon.svg")
    ResponseEntity<byte[]> icon() {
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_TYPE, "image/svg+xml")
                .header(HttpHeaders.CACHE_CONTROL, "public, max-age=86400")
                .header("Content-Security-Policy", "default-src 'none'; sandbox")
                .body(style.icon());
    }

    @GetMapping("/fonts/{name:title|sans}.woff2")
    ResponseEntity<byte[]> font(@PathVariable String name) {
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_TYPE, "font/woff2")
                .header(HttpHeaders.CACHE_CONTROL, "public, max-age=86400")
                .body(style.font(name.equals("title")));
    }

    private static ResponseEntity<byte[]> page(String html, boolean isPublic) {
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_TYPE, "text/html;charset=utf-8")
                .header("Content-Security-Policy", SAFE)
                .header("Referrer-Policy", "no-referrer")
                .header("X-Robots-Tag", isPublic ? "all" : "noindex, nofollow")
                .header(HttpHeaders.CACHE_CONTROL, isPublic ? "public, max-age=60" : "no-store")
                .body(html.getBytes(UTF_8));
    }

    private static ResponseEntity<byte[]> picture(Files.Served file) {
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_TYPE, file.contentType())
                .header(HttpHeaders.CACHE_CONTROL, "public, max-age=86400")
                .header("Content-Security-Policy", "default-src 'none'; sandbox")
                .body(file.bytes());
    }

    private static ResponseEntity<byte[]> saved(byte[] bytes, String type, String name) {
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_TYPE, type)
                .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"" + name + "\"")
                .header("Content-Security-Policy", "default-src 'none'; sandbox")
                .body(bytes);
    }

    private static ResponseEntity<byte[]> nothing() {
        return ResponseEntity.status(HttpStatus.NOT_FOUND)
                .contentType(MediaType.parseMediaType("text/html;charset=utf-8"))
                .header("Content-Security-Policy", SAFE)
                .header(HttpHeaders.CACHE_CONTROL, "no-store")
                .body(("<!doctype html><html lang=\"en\"><head>" + EditionPage.ICON
                                + "<title>Nothing here</title><link rel=\"stylesheet\" href=\""
                                + EditionPage.STYLE
                                + "\"></head><body><main><h1>Nothing here</h1><p>What was under this address is not published, or not any more.</p></main></body></html>")
                        .getBytes(UTF_8));
    }
}
