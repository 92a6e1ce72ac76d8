package yarrowmark.server.site;

import static yarrowmark.server.writeup.EditionPage.escaped;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import yarrowmark.server.writeup.LabLook;
import yarrowmark.server.writeup.PublishedEditions;
import yarrowmark.server.writeup.PublishedEditions.Listed;

/** What was published last, as an Atom feed (RFC 4287). */
@Component
class Feed {
    private static final int ENTRIES = 30;

    private final PublishedEditions editions;

    Feed(PublishedEditions editions) {
        this.editions = editions;
    }

    /** @param base where readers find the front page; without it addresses are relative to that of the feed */
    String of(@Nullable String base) {
        LabLook.LookNow look = editions.look();
        List<Listed> rows = editions.listed(null, null, 0, ENTRIES).rows();
        Instant updated = rows.isEmpty() ? Instant.EPOCH : rows.get(0).publishedAt();
        StringBuilder xml = new StringBuilder(
                "<?xml version=\"1.0\" encoding=\"utf-8\"?>\n<feed xmlns=\"http://www.w3.org/2005/Atom\">\n");
        xml.append("<id>").append(id(look.name())).append("</id>\n<title>");
        xml.append(text(look.name()))
                .append("</title>\n<updated>")
                .append(updated)
                .append("</updated>\n");
        xml.append("<link rel=\"alternate\" type=\"text/html\" href=\"")
                .append(base == null ? "index.html" : escaped(base))
                .append("\"/>\n");
        if (base != null) {
            xml.append("<link rel=\"self\" type=\"application/atom+xml\" href=\"")
                    .append(escaped(base))
                    .append("/feed.xml\"/>\n");
        }
        for (Listed one : rows) {
            xml.append("<entry><id>")
                    .append(id(one.key()))
                    .append("</id><title>")
                    .append(text(one.title()));
            xml.append("</title><updated>").append(one.publishedAt()).append("</updated><author><name>");
            xml.append(text(one.person())).append("</name></author><link rel=\"alternate\" href=\"");
            xml.append(base == null ? one.key() + "/index.html" : escaped(base + "/" + one.key()));
            xml.append("\"/><summary>").append(text(SitePage.said(one))).append("</summary></entry>\n");
        }
        return xml.append("</feed>\n").toString();
    }

    /** XML has no word for control characters, however they are escaped. */
    private static String text(String words) {
        return escaped(words.replaceAll("[\\p{Cntrl}&&[^\\t\\n]]", " "));
    }

    /** The same for ever, wherever the page lies. */
    private static String id(String of) {
        return "urn:uuid:" + UUID.nameUUIDFromBytes(of.getBytes(StandardCharsets.UTF_8));
    }
}
