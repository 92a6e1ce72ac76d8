package yarrowmark.server.site;

import static java.nio.charset.StandardCharsets.UTF_8;

import java.io.IOException;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.springframework.stereotype.Service;
import yarrowmark.server.site.PublicSide.Answer;
import yarrowmark.server.site.PublicSide.Kind;
import yarrowmark.server.writeup.PublishedEditions;

/**
 * The whole public side as files for any web host: whatever can be reached from the front page by its own links, with each
 * link relative to the page it stands on, so that the folder may lie anywhere.
 */
@Service
class SiteFolder {
    /** Takes one file. */
    interface Target {
        void put(String path, byte[] bytes) throws IOException;
    }

    /** @param pages of all files. @param bytes of all of them */
    record Made(int files, int pages, long bytes) {}

    private static final Pattern LINK = Pattern.compile("(?<before>(?:href|src)=\"|url\\()" + SitePage.FRONT
            + "(?<path>(?:/[^\"?#)]*)?)(?<query>\\?[^\"#)]*)?(?=[\"#)])");

    /** What is a file by its name; all else is a page with a folder of its own. */
    private static final Pattern FILE = Pattern.compile("(^|/)[a-z-]+\\.(css|svg|xml|zip|html|jpg|png|woff2)$");

    private final PublicSide side;
    private final PublishedEditions editions;

    SiteFolder(PublicSide side, PublishedEditions editions) {
        this.side = side;
        this.editions = editions;
    }

    /** @throws IOException where a file cannot be written, or a link leads nowhere */
    Made into(Target target) throws IOException {
        String base = editions.look().address();
        Map<String, String> files = new LinkedHashMap<>();
        Deque<String> left = new ArrayDeque<>();
        reached("", files, left);
        reached("/feed.xml", files, left);
        for (PublishedEditions.Listed one :
                editions.listed(null, null, 0, Integer.MAX_VALUE).rows()) {
            // Nothing on a page shows it, but its head names it to programs.
            reached("/" + one.key() + "/" + one.number() + "/" + EditionPictures.Shape.SHARE.file, files, left);
        }
        int pages = 0;
        long bytes = 0;
        while (!left.isEmpty()) {
            String address = left.remove();
            String[] parts = address.split("\\?", 2);
            Answer answer =
                    side.at(parts[0], parts.length > 1 ? parts[1] : null, base).orElse(null);
            if (answer == null) {
                if (isDrawn(address)) {
                    continue;
                }
                throw new IOException("a link leads to " + SitePage.FRONT + address + ", where nothing is");
            }
            String file = file(address);
            byte[] content = answer.bytes();
            if (answer.kind() == Kind.PAGE || answer.kind() == Kind.STYLE) {
                content =
                        rewritten(new String(content, UTF_8), file, files, left).getBytes(UTF_8);
            }
            pages += answer.kind() == Kind.PAGE ? 1 : 0;
            bytes += content.length;
            target.put(file, content);
        }
        return new Made(files.size(), pages, bytes);
    }

    /** A machine that cannot draw has no pictures, and pages all the same. */
    private static boolean isDrawn(String address) {
        for (EditionPictures.Shape shape : EditionPictures.Shape.values()) {
            if (address.endsWith("/" + shape.file)) {
                return true;
            }
        }
        return false;
    }

    private static void reached(String address, Map<String, String> files, Deque<String> left) {
        if (files.putIfAbsent(address, "") == null) {
            left.add(address);
        }
    }

    private static String rewritten(String text, String file, Map<String, String> files, Deque<String> left) {
        Matcher link = LINK.matcher(text);
        StringBuilder out = new StringBuilder();
        while (link.find()) {
            String query = link.group("query");
            String address = link.group("path") + (query == null ? "" : query);
            reached(address, files, left);
            link.appendReplacement(out, Matcher.quoteReplacement(link.group("before") + relative(file, file(address))));
        }
        return link.appendTail(out).toString();
    }

    /** From one file to another. */
    private static String relative(String from, String to) {
        return "../".repeat((int) from.chars().filter(c -> c == '/').count()) + to;
    }

    /** Where a page or file lies: names that every file system takes. */
    private static String file(String address) {
        String[] parts = address.split("\\?", 2);
        String path = parts[0].replaceFirst("^/", "").replace('%', '_');
        if (parts.length > 1) {
            int dot = path.lastIndexOf('.');
            return path.substring(0, dot) + "-" + parts[1].replaceAll("[^0-9a-z]+", "-") + path.substring(dot);
        }
        if (path.contains("/files/")) {
            return path + ".jpg";
        }
        if (FILE.matcher(path).find()) {
            return path;
        }
        return path.isEmpty() ? "index.html" : path + "/index.html";
    }
}
