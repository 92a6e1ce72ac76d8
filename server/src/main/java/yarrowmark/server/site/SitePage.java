package yarrowmark.server.site;

import static yarrowmark.server.writeup.EditionPage.escaped;

import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import yarrowmark.server.writeup.EditionPage;
import yarrowmark.server.writeup.LabLook;
import yarrowmark.server.writeup.PublishedEditions.Listed;

/** The frame of every public page, and what its head says to programs that follow a link to it. */
final class SitePage {
    static final String FRONT = "/w";
    static final String FEED = FRONT + "/feed.xml";
    private static final String STYLE_LINK = "<link rel=\"stylesheet\"";
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMM uuuu", Locale.ENGLISH);

    private SitePage() {}

    /** @param main what stands in it, as HTML. @param head more of its head, as HTML */
    static String of(LabLook.LookNow look, String title, String head, String main) {
        String accent =
                look.accent() == null ? "" : "?accent=" + escaped(look.accent().substring(1));
        String mark = look.mark() == null ? "" : "<span class=\"mark\">" + LabLook.html(look.mark()) + "</span>";
        return "<!doctype html>\n<html lang=\"en\"><head><meta charset=\"utf-8\">\n"
                + "<meta name=\"viewport\" content=\"width=device-width, initial-scale=1\">\n" + EditionPage.ICON
                + "<title>" + escaped(title) + "</title>\n" + head
                + STYLE_LINK + " href=\"" + EditionPage.STYLE + accent + "\"></head>\n<body>\n<header class=\"lab\">"
                + mark + "<a href=\"" + FRONT + "\">" + escaped(look.name()) + "</a></header>\n<main class=\"site\">\n"
                + main + "</main>\n<footer><p>" + escaped(look.name()) + ", made with Yarrowmark · <a href=\"" + FEED
                + "\">News feed</a></p></footer>\n</body></html>\n";
    }

    /**
     * What a page says of itself.
     *
     * @param base where readers find the front page; null where that is not known
     * @param path of the page below it, such as /abc
     * @param picture below it too; null for none
     */
    static String head(
            @Nullable String base,
            String lab,
            String path,
            String type,
            String title,
            String description,
            @Nullable String picture) {
        StringBuilder head = new StringBuilder();
        if (!description.isBlank()) {
            head.append("<meta name=\"description\" content=\"")
                    .append(escaped(description))
                    .append("\">\n");
            property(head, "description", description);
        }
        property(head, "title", title);
        property(head, "type", type);
        property(head, "site_name", lab);
        if (base != null) {
            property(head, "url", base + path);
            head.append("<link rel=\"canonical\" href=\"")
                    .append(escaped(base + path))
                    .append("\">\n");
            if (picture != null) {
                property(head, "image", base + picture);
                property(head, "image:width", "1200");
                property(head, "image:height", "630");
                property(head, "image:alt", title);
                head.append("<meta name=\"twitter:card\" content=\"summary_large_image\">\n");
            }
        }
        head.append("<link rel=\"alternate\" type=\"application/atom+xml\" title=\"")
                .append(escaped(lab))
                .append("\" href=\"")
                .append(FEED)
                .append("\">\n");
        return head.toString();
    }

    private static void property(StringBuilder head, String name, String content) {
        head.append("<meta property=\"og:")
                .append(name)
                .append("\" content=\"")
                .append(escaped(content))
                .append("\">\n");
    }

    /** An edition's page with its head, and a way to the front page where its lab stands. */
    static String withHead(String page, Listed edition, String lab, @Nullable String base) {
        String description = said(edition);
        String head = head(
                base,
                lab,
                "/" + edition.key(),
                "article",
                edition.title(),
                description,
                "/" + edition.key() + "/" + edition.number() + "/" + EditionPictures.Shape.SHARE.file);
        int style = page.indexOf(STYLE_LINK);
        return style < 0
                ? page
                : (page.substring(0, style) + head + page.substring(style))
                        .replaceFirst(
                                "(<header class=\"lab\">(?:<span class=\"mark\">.*?</span>)?)<span>([^<]*)</span></header>",
                                "$1<a href=\"" + FRONT + "\">$2</a></header>");
    }

    /** A write-up in a sentence or two. */
    static String said(Listed edition) {
        return edition.subtitle() != null
                ? edition.subtitle()
                : edition.description() == null ? "" : edition.description();
    }

    static String day(Instant at) {
        return DAY.format(at.atZone(ZoneOffset.UTC));
    }
}
