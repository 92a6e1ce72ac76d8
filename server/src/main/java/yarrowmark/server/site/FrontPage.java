package yarrowmark.server.site;

import static java.nio.charset.StandardCharsets.UTF_8;
import static yarrowmark.server.site.SitePage.FRONT;
import static yarrowmark.server.writeup.EditionPage.escaped;

import java.net.URLEncoder;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import yarrowmark.server.platform.Page;
import yarrowmark.server.standing.FrozenStandings;
import yarrowmark.server.writeup.LabLook;
import yarrowmark.server.writeup.PublishedEditions;
import yarrowmark.server.writeup.PublishedEditions.Choice;
import yarrowmark.server.writeup.PublishedEditions.Listed;
import yarrowmark.server.writeup.PublishedEditions.Narrowed;

/** The lab's front page: what is newest, with pictures, and the ways to everything else. */
@Component
class FrontPage {
    private static final int ON_A_PAGE = 24;
    /** More would be a list to scroll through and no help. */
    private static final int MOST_CHOICES = 60;

    private final PublishedEditions editions;
    private final FrozenStandings standings;

    FrontPage(PublishedEditions editions, FrozenStandings standings) {
        this.editions = editions;
        this.standings = standings;
    }

    /** @param page from 1. @return null where there is no such page */
    @Nullable
    String of(@Nullable String base, int page) {
        LabLook.LookNow look = editions.look();
        Page<Listed> found = editions.listed(null, null, page - 1, ON_A_PAGE);
        if (page > 1 && found.rows().isEmpty()) {
            return null;
        }
        // The first page has the lab's name right above.
        StringBuilder html =
                new StringBuilder(page == 1 ? "<h1 class=\"unseen\">" : "<h1>").append(escaped(look.name()));
        html.append(page > 1 ? ", page " + page : "").append("</h1>\n");
        List<Listed> cards = new ArrayList<>(found.rows());
        if (page == 1 && !cards.isEmpty()) {
            lead(html, cards.remove(0));
        }
        if (found.total() == 0) {
            html.append("<p>Nothing is published yet.</p>\n");
        }
        cards(html, cards);
        pager(html, FRONT, page, found);
        if (page == 1) {
            standings(html);
            choices(html, "By kind", "kind", editions.choices(Narrowed.KIND));
            choices(html, "By model", "model", editions.choices(Narrowed.MODEL));
            choices(html, "By year", "year", editions.choices(Narrowed.YEAR));
        }
        String said = found.rows().isEmpty()
                ? ""
                : found.rows().stream()
                        .limit(3)
                        .map(Listed::title)
                        .reduce((a, b) -> a + " · " + b)
                        .orElse("");
        return SitePage.of(
                look,
                page > 1 ? look.name() + ", page " + page : look.name(),
                SitePage.head(base, look.name(), page > 1 ? "/page/" + page : "", "website", look.name(), said, null),
                html.toString());
    }

    /** What is narrowed to a kind, a model or a year. @return null where that leads to nothing */
    @Nullable
    String narrowed(@Nullable String base, Narrowed by, String what, int page) {
        Object value = value(by, what);
        Page<Listed> found = value == null ? null : editions.listed(by, value, page - 1, ON_A_PAGE);
        if (found == null || found.rows().isEmpty()) {
            return null;
        }
        String name = by != Narrowed.MODEL
                ? String.valueOf(value)
                : found.rows().get(0).about().stream()
                        .filter(m -> String.valueOf(m.modelId()).equals(what))
                        .map(m -> m.name())
                        .findFirst()
                        .orElse(what);
        LabLook.LookNow look = editions.look();
        String path = "/by/" + by.name().toLowerCase(Locale.ROOT) + "/" + encoded(what);
        StringBuilder html = new StringBuilder("<h1>").append(escaped(name)).append("</h1>\n<p class=\"by\">");
        html.append(found.total() == 1 ? "One page" : found.total() + " pages").append(", the newest first.</p>\n");
        cards(html, found.rows());
        pager(html, FRONT + path, page, found);
        html.append("<p><a href=\"").append(FRONT).append("\">Everything that is published</a></p>\n");
        String title = name + " · " + look.name();
        return SitePage.of(
                look,
                title,
                SitePage.head(base, look.name(), path + (page > 1 ? "/page/" + page : ""), "website", title, "", null),
                html.toString());
    }

    private @Nullable Object value(Narrowed by, String what) {
        try {
            return switch (by) {
                case KIND ->
                    editions.choices(Narrowed.KIND).stream()
                            .map(Choice::name)
                            .filter(kind -> slug(kind).equals(what))
                            .findFirst()
                            .orElse(null);
                case MODEL -> Long.valueOf(what);
                case YEAR -> Integer.valueOf(what);
            };
        } catch (NumberFormatException e) {
            return null;
        }
    }

    private static void lead(StringBuilder html, Listed one) {
        html.append("<article class=\"lead\"><a href=\"")
                .append(address(one))
                .append("\" tabindex=\"-1\" aria-hidden=\"true\"><img alt=\"\" width=\"960\" height=\"480\" src=\"")
                .append(picture(one, EditionPictures.Shape.LEAD))
                .append("\"></a>\n<div><h2><a href=\"")
                .append(address(one))
                .append("\">")
                .append(escaped(one.title()))
                .append("</a></h2>\n");
        said(html, one);
        html.append("</div></article>\n");
    }

    private static void cards(StringBuilder html, List<Listed> cards) {
        if (cards.isEmpty()) {
            return;
        }
        html.append("<ul class=\"cards\">\n");
        for (Listed one : cards) {
            html.append("<li><a href=\"")
                    .append(address(one))
                    .append(
                            "\" tabindex=\"-1\" aria-hidden=\"true\"><img alt=\"\" loading=\"lazy\" width=\"360\" height=\"216\" src=\"")
                    .append(picture(one, EditionPictures.Shape.SMALL))
                    .append("\"></a><div><h2><a href=\"")
                    .append(address(one))
                    .append("\">")
                    .append(escaped(one.title()))
                    .append("</a></h2>\n");
            said(html, one);
            html.append("</div></li>\n");
        }
        html.append("</ul>\n");
    }

    private static void said(StringBuilder html, Listed one) {
        String said = SitePage.said(one);
        if (!said.isBlank()) {
            html.append("<p>").append(escaped(said)).append("</p>\n");
        }
        html.append("<p class=\"by\">");
        if (one.kind() != null) {
            html.append("<a href=\"")
                    .append(FRONT)
                    .append("/by/kind/")
                    .append(encoded(slug(one.kind())))
                    .append("\">")
                    .append(escaped(one.kind()))
                    .append("</a> · ");
        }
        html.append(SitePage.day(one.publishedAt()))
                .append(one.number() > 1 ? " · edition " + one.number() : "")
                .append("</p>\n");
    }

    private void standings(StringBuilder html) {
        List<FrozenStandings.FrozenRow> rows = standings.listed();
        if (rows.isEmpty()) {
            return;
        }
        html.append("<section class=\"ways\"><h2>Standings</h2>\n<ul>");
        for (FrozenStandings.FrozenRow row : rows) {
            html.append("<li><a href=\"")
                    .append(FRONT)
                    .append("/standings/")
                    .append(row.key())
                    .append("\">")
                    .append(escaped(row.title() == null ? row.caption() : row.title()))
                    .append("</a> <span class=\"by\">")
                    .append(row.living() ? "as it is now" : "as it was on " + SitePage.day(row.at()))
                    .append("</span></li>\n");
        }
        html.append("</ul></section>\n");
    }

    private static void choices(StringBuilder html, String title, String by, List<Choice> all) {
        if (all.isEmpty()) {
            return;
        }
        html.append("<nav class=\"ways\" aria-label=\"")
                .append(title)
                .append("\"><h2>")
                .append(title)
                .append("</h2>\n<ul class=\"row\">");
        all.stream().limit(MOST_CHOICES).forEach(c -> html.append("<li><a href=\"")
                .append(FRONT)
                .append("/by/")
                .append(by)
                .append('/')
                .append(encoded(by.equals("kind") ? slug(c.key()) : c.key()))
                .append("\">")
                .append(escaped(c.name()))
                .append("</a> <span class=\"by\">")
                .append(c.count())
                .append("</span></li>\n"));
        html.append("</ul></nav>\n");
    }

    private static void pager(StringBuilder html, String path, int page, Page<Listed> found) {
        long pages = (found.total() + ON_A_PAGE - 1) / ON_A_PAGE;
        if (pages < 2) {
            return;
        }
        html.append("<nav class=\"pager\" aria-label=\"Pages\">");
        if (page > 1) {
            html.append("<a rel=\"prev\" href=\"")
                    .append(page == 2 ? path : path + "/page/" + (page - 1))
                    .append("\">Newer</a> ");
        }
        html.append("page ").append(page).append(" of ").append(pages);
        if (page < pages) {
            html.append(" <a rel=\"next\" href=\"")
                    .append(path)
                    .append("/page/")
                    .append(page + 1)
                    .append("\">Older</a>");
        }
        html.append("</nav>\n");
    }

    private static String address(Listed one) {
        return FRONT + "/" + one.key();
    }

    private static String picture(Listed one, EditionPictures.Shape shape) {
        return FRONT + "/" + one.key() + "/" + one.number() + "/" + shape.file;
    }

    /** A kind in an address: its letters and figures. */
    private static String slug(String kind) {
        return kind.toLowerCase(Locale.ROOT).replaceAll("[^\\p{L}\\p{N}]+", "-");
    }

    private static String encoded(String what) {
        return URLEncoder.encode(what, UTF_8);
    }
}
