package yarrowmark.server.writeup;

import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.MissingNode;

/**
 * A frozen write-up as a page: plain HTML that needs no script, with its drawings in it. What is typed is escaped, what is
 * drawn was cleaned before.
 */
public final class EditionPage {
    /** Where the page's style is; a page that stands alone has it in itself. */
    public static final String STYLE = "/w/page.css";

    public static final String ICON = "<link rel=\"icon\" type=\"image/svg+xml\" href=\"/w/icon.svg\">\n";

    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMM uuuu", Locale.ENGLISH);

    private final Frozen edition;
    private final StringBuilder html = new StringBuilder();
    /** What is said of each number, in the order they come. */
    private final Map<String, Frozen.FrozenNumber> numbers = new LinkedHashMap<>();

    private final ShownHtml shown;

    private EditionPage(Frozen edition) {
        this.edition = edition;
        this.shown = new ShownHtml(html, edition.tests());
    }

    /**
     * @param address of the newest edition, for an earlier one to lead there; null where this is it
     * @param files   address of a file by its hash, with %s for the hash
     */
    static String of(Frozen edition, @Nullable String address, String files) {
        return new EditionPage(edition).page(address, files);
    }

    /** @param address of the edition that this stands beside */
    static String standing(Frozen edition, String address) {
        return new EditionPage(edition).standingPage(address);
    }

    private String standingPage(String address) {
        begin("Where it stood on " + day(edition.at()) + " · " + edition.title());
        html.append("<h1>Where it stood on ")
                .append(day(edition.at()))
                .append("</h1>\n<p class=\"by\">Beside <a href=\"")
                .append(escaped(address))
                .append("\">")
                .append(escaped(edition.title()))
                .append("</a>, with the numbers of that day.</p>\n");
        shown.figure(edition.standing(), MissingNode.getInstance());
        html.append("</article>\n</main>\n<footer><p>")
                .append(escaped(edition.lab()))
                .append(", made with Yarrowmark</p></footer>\n");
        return html.append("</body>\n</html>\n").toString();
    }

    private String page(@Nullable String address, String files) {
        begin(edition.title() + " · " + edition.lab());
        head(address);
        for (Frozen.FrozenPiece piece : edition.pieces()) {
            piece(piece, files);
        }
        saidOfNumbers();
        html.append("</article>\n</main>\n");
        foot();
        return html.append("</body>\n</html>\n").toString();
    }

    private void begin(String title) {
        html.append("<!doctype html>\n<html lang=\"en\">\n<head>\n<meta charset=\"utf-8\">\n")
                .append("<meta name=\"viewport\" content=\"width=device-width, initial-scale=1\">\n");
        if (edition.number() == 0) {
            html.append("<meta name=\"robots\" content=\"noindex, nofollow\">\n");
        }
        html.append(ICON)
                .append("<title>")
                .append(escaped(title))
                .append("</title>\n<link rel=\"stylesheet\" href=\"")
                .append(STYLE)
                .append(
                        edition.accent() == null
                                ? ""
                                : "?accent=" + escaped(edition.accent().substring(1)))
                .append("\">\n</head>\n<body>\n<header class=\"lab\">");
        if (edition.mark() != null) {
            html.append("<span class=\"mark\">")
                    .append(LabLook.html(edition.mark()))
                    .append("</span>");
        }
        html.append("<span>").append(escaped(edition.lab())).append("</span></header>\n<main>\n<article>\n");
    }

    private void head(@Nullable String address) {
        html.append("<h1>").append(escaped(edition.title())).append("</h1>\n");
        if (edition.subtitle() != null) {
            html.append("<p class=\"subtitle\">")
                    .append(escaped(edition.subtitle()))
                    .append("</p>\n");
        }
        html.append("<p class=\"by\">")
                .append(escaped(edition.person()))
                .append(", ")
                .append(day(edition.at()));
        if (edition.number() == 0) {
            html.append(" · <strong>a draft, not published</strong>");
        } else if (edition.number() > 1) {
            html.append(" · edition ").append(edition.number());
        }
        html.append("</p>\n");
        if (address != null) {
            html.append("<p class=\"older\" role=\"note\">This is an earlier edition. <a href=\"")
                    .append(escaped(address))
                    .append("\">Read the newest one.</a></p>\n");
        } else if (edition.number() > 1 && edition.changes() != null) {
            html.append("<p class=\"changes\"><strong>New in this edition:</strong> ")
                    .append(escaped(edition.changes()))
                    .append("</p>\n");
        }
    }

    private void piece(Frozen.FrozenPiece piece, String files) {
        JsonNode body = piece.body();
        Map<String, String> anchors = anchors(piece);
        switch (piece.kind()) {
            case HEADING ->
                html.append("<h2>")
                        .append(escaped(body.path("text").asString("")))
                        .append("</h2>\n");
            case TEXT -> html.append(MarkedText.html(body.path("text").asString(""), anchors));
            case FIGURE -> shown.figure(piece.shown(), body);
            case TABLE, FACTS -> shown.table(piece.shown(), body);
            case PHOTO -> photo(body, files);
            case POINTS -> points(body, anchors);
            case VERDICT -> verdict(body, anchors);
            case METHOD -> method(piece.shown(), body);
        }
    }

    /** Numbers are counted over the whole page: two pieces may call theirs the same. */
    private Map<String, String> anchors(Frozen.FrozenPiece piece) {
        Map<String, String> anchors = new HashMap<>();
        Frozen.Shown shown = piece.shown();
        if (shown != null && shown.numbers() != null) {
            shown.numbers().forEach((id, number) -> {
                String anchor = "n" + (numbers.size() + 1);
                numbers.put(anchor, number);
                anchors.put(id, anchor);
            });
        }
        return anchors;
    }

    private void photo(JsonNode body, String files) {
        String caption = body.path("caption").asString("");
        html.append("<figure class=\"photo\"><img loading=\"lazy\" src=\"")
                .append(escaped(files.replace("%s", body.path("hash").asString(""))))
                .append("\" alt=\"")
                .append(escaped(body.path("alt").asString("")))
                .append("\">");
        if (!caption.isBlank()) {
            html.append("<figcaption>").append(escaped(caption)).append("</figcaption>");
        }
        html.append("</figure>\n");
    }

    private void points(JsonNode body, Map<String, String> anchors) {
        html.append("<div class=\"points\">");
        list("Strong", body.path("strong"), anchors);
        list("Weak", body.path("weak"), anchors);
        html.append("</div>\n");
    }

    private void list(String title, JsonNode lines, Map<String, String> anchors) {
        if (lines.isEmpty()) {
            return;
        }
        html.append("<section><h2>").append(title).append("</h2><ul>");
        lines.forEach(line -> html.append("<li>")
                .append(MarkedText.line(line.asString(""), anchors))
                .append("</li>"));
        html.append("</ul></section>");
    }

    private void verdict(JsonNode body, Map<String, String> anchors) {
        html.append("<aside class=\"verdict\" aria-label=\"Verdict\"><p>")
                .append(MarkedText.line(body.path("line").asString(""), anchors))
                .append("</p>");
        String mark = body.path("mark").asString("");
        if (!mark.isBlank()) {
            html.append("<p class=\"marked\">").append(escaped(mark)).append("</p>");
        }
        html.append("</aside>\n");
    }

    private void method(Frozen.@Nullable Shown shown, JsonNode body) {
        html.append("<section class=\"method\"><h2>How it was measured</h2>\n");
        String note = body.path("note").asString("");
        if (!note.isBlank()) {
            html.append(MarkedText.html(note, Map.of()));
        }
        if (shown != null && shown.lines() != null && !shown.lines().isEmpty()) {
            html.append("<ul>");
            shown.lines()
                    .forEach(line -> html.append("<li>").append(escaped(line)).append("</li>"));
            html.append("</ul>\n");
        }
        html.append("</section>\n");
    }

    private void saidOfNumbers() {
        if (numbers.isEmpty()) {
            return;
        }
        html.append("<section class=\"numbers\"><h2>The numbers in the text</h2>\n<ol>");
        numbers.forEach((anchor, number) -> html.append("<li id=\"")
                .append(anchor)
                .append("\"><strong>")
                .append(escaped(number.words()))
                .append("</strong> ")
                .append(escaped(number.says()))
                .append("</li>"));
        html.append("</ol></section>\n");
    }

    private void foot() {
        html.append("<footer>");
        if (!edition.earlier().isEmpty()) {
            html.append("<p>Earlier editions: ");
            html.append(String.join(
                    ", ",
                    edition.earlier().stream()
                            .map(e -> "<a href=\"%EDITION" + e.number() + "%\">" + e.number() + "</a> (" + day(e.at())
                                    + ")")
                            .toList()));
            html.append("</p>\n");
        }
        if (edition.licence() != null) {
            html.append("<p>Data: ").append(escaped(edition.licence())).append("</p>\n");
        }
        if (edition.number() > 0 && edition.standing() != null) {
            html.append("<p><a href=\"%STANDING%\">Where it stood on ")
                    .append(day(edition.at()))
                    .append("</a></p>\n");
        }
        if (edition.number() > 0) {
            html.append("<p><a href=\"%DATA%\">The numbers as open data</a></p>\n");
        }
        html.append("<p>").append(escaped(edition.lab())).append(", made with Yarrowmark</p></footer>\n");
    }

    private static String day(Instant at) {
        return DAY.format(at.atZone(ZoneOffset.UTC));
    }

    public static String escaped(String text) {
        StringBuilder safe = new StringBuilder(text.length() + 16);
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            switch (c) {
                case '&' -> safe.append("&amp;");
                case '<' -> safe.append("&lt;");
                case '>' -> safe.append("&gt;");
                case '"' -> safe.append("&quot;");
                case '\'' -> safe.append("&#39;");
                default -> safe.append(c);
            }
        }
        return safe.toString();
    }
}
