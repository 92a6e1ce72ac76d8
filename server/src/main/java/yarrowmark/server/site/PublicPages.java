package yarrowmark.server.site;

import static java.nio.charset.StandardCharsets.UTF_8;

import jakarta.servlet.http.HttpServletRequest;
import java.net.URI;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.servlet.support.ServletUriComponentsBuilder;
import yarrowmark.server.site.PublicSide.Answer;
import yarrowmark.server.writeup.EditionPage;
import yarrowmark.server.writeup.PublishedEditions;

/**
 * What readers get who are nobody here: editions, and drafts by their secret link. No session, no script, nothing from
 * elsewhere; what is not there and what is not for them look the same.
 */
@Controller
class PublicPages {
    private static final String SAFE =
            "default-src 'none'; style-src 'self'; font-src 'self'; img-src 'self' data:; base-uri 'none'; form-action 'none'; frame-ancestors 'none'";
    private static final String BARE = "default-src 'none'; sandbox";
    private static final String POLICY = "Content-Security-Policy";

    private final PublicSide side;
    private final PublishedEditions editions;

    PublicPages(PublicSide side, PublishedEditions editions) {
        this.side = side;
        this.editions = editions;
    }

    @GetMapping({SitePage.FRONT, SitePage.FRONT + "/**"})
    ResponseEntity<byte[]> at(HttpServletRequest request) {
        String path = request.getRequestURI().substring(request.getContextPath().length());
        String below = path.substring(SitePage.FRONT.length()).replaceAll("/+$", "");
        String before = request.getParameter("page");
        if (below.isEmpty() && before != null && before.matches("\\d{1,5}")) {
            // As its pages were counted before: from 0.
            return ResponseEntity.status(HttpStatus.MOVED_PERMANENTLY)
                    .location(URI.create(SitePage.FRONT + "/page/" + (Integer.parseInt(before) + 1)))
                    .build();
        }
        String base = editions.look().address();
        return side.at(below, request.getQueryString(), base == null ? here() : base)
                .map(PublicPages::answered)
                .orElseGet(PublicPages::nothing);
    }

    /** Where nobody said what the public address is, it is the one that was asked. */
    private static String here() {
        return ServletUriComponentsBuilder.fromCurrentContextPath()
                .path(SitePage.FRONT)
                .build()
                .toUriString();
    }

    private static ResponseEntity<byte[]> answered(Answer answer) {
        ResponseEntity.BodyBuilder of = ResponseEntity.ok().header(HttpHeaders.CONTENT_TYPE, answer.type());
        switch (answer.kind()) {
            case PAGE ->
                of.header(POLICY, SAFE)
                        .header("Referrer-Policy", "no-referrer")
                        .header("X-Robots-Tag", "all")
                        .header(HttpHeaders.CACHE_CONTROL, "public, max-age=60");
            case DRAFT ->
                of.header(POLICY, SAFE)
                        .header("Referrer-Policy", "no-referrer")
                        .header("X-Robots-Tag", "noindex, nofollow")
                        .header(HttpHeaders.CACHE_CONTROL, "no-store");
            case PICTURE -> of.header(POLICY, BARE).header(HttpHeaders.CACHE_CONTROL, "public, max-age=86400");
            case STYLE -> of.header(HttpHeaders.CACHE_CONTROL, "public, max-age=600");
            case FEED -> of.header(POLICY, BARE).header(HttpHeaders.CACHE_CONTROL, "public, max-age=60");
            case DOWNLOAD ->
                of.header(POLICY, BARE)
                        .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"" + answer.name() + "\"");
        }
        return of.body(answer.bytes());
    }

    private static ResponseEntity<byte[]> nothing() {
        return ResponseEntity.status(HttpStatus.NOT_FOUND)
                .header(HttpHeaders.CONTENT_TYPE, "text/html;charset=utf-8")
                .header(POLICY, SAFE)
                .header(HttpHeaders.CACHE_CONTROL, "no-store")
                .body(("<!doctype html><html lang=\"en\"><head>" + EditionPage.ICON
                                + "<title>Nothing here</title><link rel=\"stylesheet\" href=\""
                                + EditionPage.STYLE
                                + "\"></head><body><main><h1>Nothing here</h1><p>What was under this address is not published, or not any more. <a href=\""
                                + SitePage.FRONT + "\">What is</a></p></main></body></html>")
                        .getBytes(UTF_8));
    }
}
