package yarrowmark.server.site;

import static java.nio.charset.StandardCharsets.UTF_8;

import java.net.URLDecoder;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import yarrowmark.server.files.Files;
import yarrowmark.server.site.EditionPictures.Shape;
import yarrowmark.server.writeup.EditionFiles;
import yarrowmark.server.writeup.Frozen;
import yarrowmark.server.writeup.PageStyle;
import yarrowmark.server.writeup.PublishedEditions;
import yarrowmark.server.writeup.PublishedEditions.Listed;
import yarrowmark.server.writeup.PublishedEditions.Narrowed;

/** Every public address and what is there: for a reader who asks, and for the folder that holds all of it. */
@Service
class PublicSide {
    /** How long and by whom an answer may be kept, and what it may do. */
    enum Kind {
        PAGE,
        DRAFT,
        PICTURE,
        STYLE,
        FEED,
        DOWNLOAD
    }

    /** @param name of the file, where it is one to take along */
    record Answer(Kind kind, String type, byte[] bytes, @Nullable String name) {}

    /** @param base where readers find the front page; null where that is not known. @param query of the address */
    private record Asked(Matcher path, @Nullable String query, @Nullable String base) {
        String part(int i) {
            return path.group(i);
        }

        int number(int i) {
            return Integer.parseInt(path.group(i));
        }
    }

    private record Route(Pattern path, Function<Asked, @Nullable Answer> answer) {}

    private static final String KEY = "([A-Za-z0-9_-]{6,60})";
    private static final String NUMBER = "([1-9]\\d{0,5})";
    private static final String HASH = "([0-9a-f]{64})";
    private static final String TOKEN = "([A-Za-z0-9_-]{30,60})";
    private static final Pattern ACCENT = Pattern.compile("accent=([0-9a-f]{6})");

    private final List<Route> routes = new ArrayList<>();
    private final PublishedEditions editions;
    private final EditionPictures pictures;

    PublicSide(
            PublishedEditions editions,
            EditionFiles files,
            EditionPictures pictures,
            PageStyle style,
            FrontPage front,
            StandingPage standing,
            Feed feed) {
        this.editions = editions;
        this.pictures = pictures;
        on("", a -> page(front.of(a.base(), 1)));
        on("/page/" + NUMBER, a -> page(front.of(a.base(), a.number(1))));
        on(
                "/by/(kind|model|year)/([^/]+)(?:/page/" + NUMBER + ")?",
                a -> page(front.narrowed(
                        a.base(),
                        Narrowed.valueOf(a.part(1).toUpperCase(Locale.ROOT)),
                        URLDecoder.decode(a.part(2).replace("+", "%2B"), UTF_8),
                        a.part(3) == null ? 1 : a.number(3))));
        on("/feed\\.xml", a -> answer(Kind.FEED, "application/atom+xml;charset=utf-8", feed.of(a.base())));
        on("/standings/" + KEY, a -> page(standing.of(a.base(), a.part(1))));
        on("/page\\.css", a -> {
            Matcher accent = ACCENT.matcher(a.query() == null ? "" : a.query());
            return answer(
                    Kind.STYLE,
                    "text/css;charset=utf-8",
                    style.linked(accent.matches() ? "#" + accent.group(1) : null));
        });
        on("/icon\\.svg", a -> new Answer(Kind.PICTURE, "image/svg+xml", style.icon(), null));
        on(
                "/fonts/(title|sans)\\.woff2",
                a -> new Answer(Kind.PICTURE, "font/woff2", style.font(a.part(1).equals("title")), null));
        on("/draft/" + TOKEN, a -> editions.draft(a.part(1))
                .map(p -> answer(Kind.DRAFT, "text/html;charset=utf-8", p))
                .orElse(null));
        on("/draft/" + TOKEN + "/files/" + HASH, a -> editions.draftFile(a.part(1), a.part(2))
                .map(PublicSide::picture)
                .orElse(null));
        on("/" + KEY, a -> edition(a, null));
        on("/" + KEY + "/" + NUMBER, a -> edition(a, a.number(2)));
        on(
                "/" + KEY + "/" + NUMBER + "/standing",
                a -> page(editions.standing(a.part(1), a.number(2)).orElse(null)));
        on(
                "/" + KEY + "/" + NUMBER + "/page\\.html",
                a -> taken(a, "text/html;charset=utf-8", "write-up.html", e -> files.alone(e)
                        .getBytes(UTF_8)));
        on("/" + KEY + "/" + NUMBER + "/folder\\.zip", a -> taken(a, "application/zip", "write-up.zip", files::folder));
        on(
                "/" + KEY + "/" + NUMBER + "/markdown\\.zip",
                a -> taken(a, "application/zip", "write-up-markdown.zip", files::markdown));
        on(
                "/" + KEY + "/" + NUMBER + "/data\\.zip",
                a -> taken(a, "application/zip", "write-up-data.zip", files::data));
        on("/" + KEY + "/files/" + HASH, a -> editions.file(a.part(1), a.part(2))
                .map(PublicSide::picture)
                .orElse(null));
        for (Shape shape : Shape.values()) {
            on("/" + KEY + "/" + NUMBER + "/" + Pattern.quote(shape.file), a -> drawn(a, shape));
        }
    }

    private void on(String path, Function<Asked, @Nullable Answer> answer) {
        routes.add(new Route(Pattern.compile(path), answer));
    }

    /**
     * @param path  below /w, with its escapes; empty for the front page
     * @param query of the address; null for none
     * @param base  where readers find the front page; null where that is not known
     */
    Optional<Answer> at(String path, @Nullable String query, @Nullable String base) {
        for (Route route : routes) {
            Matcher matcher = route.path().matcher(path);
            if (matcher.matches()) {
                return Optional.ofNullable(route.answer().apply(new Asked(matcher, query, base)));
            }
        }
        return Optional.empty();
    }

    private @Nullable Answer edition(Asked a, @Nullable Integer number) {
        String key = a.part(1);
        Optional<String> page = editions.published(key, number);
        Optional<Listed> of = editions.described(key, number);
        return page.isEmpty() || of.isEmpty()
                ? null
                : page(SitePage.withHead(page.get(), of.get(), editions.look().name(), a.base()));
    }

    private @Nullable Answer taken(Asked a, String type, String name, Function<Frozen, byte[]> made) {
        return editions.whole(a.part(1), a.number(2))
                .map(e -> new Answer(Kind.DOWNLOAD, type, made.apply(e), name))
                .orElse(null);
    }

    private @Nullable Answer drawn(Asked a, Shape shape) {
        return pictures.of(a.part(1), a.number(2), shape)
                .map(bytes -> new Answer(Kind.PICTURE, "image/jpeg", bytes, null))
                .orElse(null);
    }

    private static @Nullable Answer page(@Nullable String html) {
        return html == null ? null : answer(Kind.PAGE, "text/html;charset=utf-8", html);
    }

    private static Answer answer(Kind kind, String type, String text) {
        return new Answer(kind, type, text.getBytes(UTF_8), null);
    }

    private static Answer picture(Files.Served file) {
        return new Answer(Kind.PICTURE, file.contentType(), file.bytes(), null);
    }
}
