package yarrowmark.server.writeup;

import static java.nio.charset.StandardCharsets.UTF_8;
import static yarrowmark.server.writeup.MarkedText.plainMarkdown;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;
import yarrowmark.server.files.Files;

/** An edition to take along: one page that stands alone, a folder for any web server, Markdown with pictures, and its data. */
@Service
public class EditionFiles {
    private final Files files;
    private final PageStyle style;

    EditionFiles(Files files, PageStyle style) {
        this.files = files;
        this.style = style;
    }

    /** One file with style, fonts and photos in it. */
    public String alone(Frozen edition) {
        String page = EditionPage.of(edition, null, "%s");
        for (String hash : photos(edition)) {
            Files.Served photo = files.file(hash);
            page = page.replace(
                    "src=\"" + hash + "\"",
                    "src=\"data:" + photo.contentType() + ";base64,"
                            + Base64.getEncoder().encodeToString(photo.bytes()) + "\"");
        }
        return withoutAddresses(page)
                .replaceFirst(
                        "<link rel=\"stylesheet\" href=\"[^\"]*\">",
                        java.util.regex.Matcher.quoteReplacement(
                                "<style>" + style.withFonts(edition.accent()) + "</style>"));
    }

    /** Where it lies then, nothing else of ours is. */
    private static String withoutAddresses(String page) {
        return page.replace(EditionPage.ICON, "")
                .replaceAll("<p><a href=\"%STANDING%\">[^<]*</a></p>\\n", "")
                .replaceAll("<a href=\"%EDITION\\d+%\">(\\d+)</a>", "$1")
                .replaceAll("<p><a href=\"%DATA%\">[^<]*</a></p>\\n", "");
    }

    public byte[] folder(Frozen edition) {
        return zip(zip -> {
            put(
                    zip,
                    "index.html",
                    beside(EditionPage.of(edition, null, "files/%s.jpg").replace("%STANDING%", "standing.html")));
            if (edition.standing() != null) {
                put(zip, "standing.html", beside(EditionPage.standing(edition, "index.html")));
            }
            put(zip, "page.css", style.withFonts(edition.accent()).getBytes(UTF_8));
            putPhotos(zip, edition);
        });
    }

    /** A page that has its style in a file beside it. */
    private static byte[] beside(String page) {
        return withoutAddresses(page)
                .replaceFirst("href=\"" + EditionPage.STYLE + "[^\"]*\"", "href=\"page.css\"")
                .getBytes(UTF_8);
    }

    public byte[] markdown(Frozen edition) {
        return zip(zip -> {
            StringBuilder text = new StringBuilder("# " + plainMarkdown(edition.title()) + "\n\n");
            if (edition.subtitle() != null) {
                text.append("*").append(plainMarkdown(edition.subtitle())).append("*\n\n");
            }
            int figure = 0;
            for (Frozen.FrozenPiece piece : edition.pieces()) {
                JsonNode body = piece.body();
                Frozen.Shown shown = piece.shown();
                switch (piece.kind()) {
                    case HEADING ->
                        text.append("## ")
                                .append(plainMarkdown(body.path("text").asString("")))
                                .append("\n\n");
                    case TEXT ->
                        text.append(MarkedText.markdown(body.path("text").asString("")))
                                .append("\n\n");
                    case FIGURE -> {
                        if (shown != null && shown.svg() != null) {
                            String name = "figure-" + ++figure + ".svg";
                            put(
                                    zip,
                                    name,
                                    style.resolved(shown.svg(), edition.accent())
                                            .getBytes(UTF_8));
                            text.append("![")
                                    .append(plainMarkdown(shown.alt() == null ? "" : shown.alt()))
                                    .append("](")
                                    .append(name)
                                    .append(")\n\n")
                                    .append(plainMarkdown(body.path("caption")
                                            .asString(shown.caption() == null ? "" : shown.caption())))
                                    .append("\n\n");
                        }
                    }
                    case PHOTO ->
                        text.append("![")
                                .append(plainMarkdown(body.path("alt").asString("")))
                                .append("](files/")
                                .append(body.path("hash").asString(""))
                                .append(".jpg)\n\n");
                    case TABLE, FACTS -> tableText(text, shown);
                    case POINTS -> {
                        pointsText(text, "Strong", body.path("strong"));
                        pointsText(text, "Weak", body.path("weak"));
                    }
                    case VERDICT ->
                        text.append("> ")
                                .append(MarkedText.markdown(body.path("line").asString("")))
                                .append("\n\n");
                    case METHOD -> {
                        text.append("## How it was measured\n\n")
                                .append(MarkedText.markdown(body.path("note").asString("")))
                                .append("\n\n");
                        if (shown != null && shown.lines() != null) {
                            shown.lines().forEach(line -> text.append("- ")
                                    .append(plainMarkdown(line))
                                    .append('\n'));
                            text.append('\n');
                        }
                    }
                }
            }
            put(zip, "write-up.md", text.toString().getBytes(UTF_8));
            putPhotos(zip, edition);
        });
    }

    private static void pointsText(StringBuilder text, String title, JsonNode lines) {
        if (!lines.isEmpty()) {
            text.append("**").append(title).append("**\n\n");
            lines.forEach(line -> text.append("- ")
                    .append(MarkedText.markdown(line.asString("")))
                    .append('\n'));
            text.append('\n');
        }
    }

    private static void tableText(StringBuilder text, Frozen.@Nullable Shown shown) {
        if (shown == null || shown.rows() == null || shown.rows().isEmpty()) {
            return;
        }
        List<String> columns = shown.columns() == null
                ? shown.rows().get(0).stream().map(c -> "").toList()
                : shown.columns();
        text.append("| ")
                .append(String.join(
                        " | ", columns.stream().map(EditionFiles::cell).toList()))
                .append(" |\n|")
                .append("---|".repeat(columns.size()))
                .append('\n');
        shown.rows().forEach(row -> text.append("| ")
                .append(String.join(" | ", row.stream().map(EditionFiles::cell).toList()))
                .append(" |\n"));
        text.append('\n');
    }

    private static String cell(String words) {
        return plainMarkdown(words).replace("|", "\\|");
    }

    /** A Data Package: a table for each figure and table, and one of the numbers in the text. */
    public byte[] data(Frozen edition) {
        return zip(zip -> {
            List<Map<String, Object>> resources = new ArrayList<>();
            List<List<String>> numbers = new ArrayList<>();
            int count = 0;
            for (Frozen.FrozenPiece piece : edition.pieces()) {
                Frozen.Shown shown = piece.shown();
                if (shown == null) {
                    continue;
                }
                if (shown.numbers() != null) {
                    shown.numbers()
                            .values()
                            .forEach(n -> numbers.add(List.of(
                                    n.words(),
                                    n.says(),
                                    n.value() == null ? "" : Double.toString(n.value()),
                                    n.unit() == null ? "" : n.unit())));
                }
                if (shown.rows() != null && !shown.rows().isEmpty()) {
                    String name = (piece.kind() == PieceKind.FIGURE ? "figure-" : "table-") + ++count;
                    List<String> columns = unique(shown);
                    resources.add(resource(
                            zip,
                            name,
                            shown.caption() == null ? name : shown.caption(),
                            columns,
                            shown.rows(),
                            edition));
                }
            }
            if (!numbers.isEmpty()) {
                resources.add(resource(
                        zip,
                        "numbers",
                        "The numbers in the text",
                        List.of("words", "says", "value", "unit"),
                        numbers,
                        edition));
            }
            if (edition.readings() != null && !edition.readings().isEmpty()) {
                resources.add(resource(
                        zip,
                        "readings",
                        "The readings that counted when this was published",
                        ReadingsBehind.COLUMNS,
                        edition.readings(),
                        edition));
            }
            Map<String, Object> description = new LinkedHashMap<>();
            description.put("profile", "tabular-data-package");
            description.put("name", "write-up");
            description.put("title", edition.title());
            description.put("created", edition.at().toString());
            description.put("version", String.valueOf(edition.number()));
            description.put("contributors", List.of(Map.of("title", edition.lab())));
            if (edition.licence() != null) {
                description.put("licenses", List.of(Map.of("title", edition.licence(), "name", edition.licence())));
            }
            description.put("resources", resources);
            put(
                    zip,
                    "datapackage.json",
                    JsonMapper.builder()
                            .enable(SerializationFeature.INDENT_OUTPUT)
                            .build()
                            .writeValueAsBytes(description));
        });
    }

    private static List<String> unique(Frozen.Shown shown) {
        List<String> names = new ArrayList<>();
        int width = shown.rows() == null ? 0 : shown.rows().get(0).size();
        for (int i = 0; i < width; i++) {
            String name = shown.columns() != null && i < shown.columns().size()
                    ? shown.columns().get(i)
                    : "";
            String plain = name.isBlank() ? "column " + (i + 1) : name;
            names.add(names.contains(plain) ? plain + " " + (i + 1) : plain);
        }
        return names;
    }

    private static Map<String, Object> resource(
            ZipOutputStream zip,
            String name,
            String title,
            List<String> columns,
            List<List<String>> rows,
            Frozen edition)
            throws IOException {
        StringBuilder text = new StringBuilder();
        try (CSVPrinter csv = new CSVPrinter(text, CSVFormat.RFC4180)) {
            csv.printRecord(columns);
            for (List<String> row : rows) {
                csv.printRecord(row);
            }
        }
        put(zip, "data/" + name + ".csv", text.toString().getBytes(UTF_8));
        Map<String, Object> resource = new LinkedHashMap<>();
        resource.put("profile", "tabular-data-resource");
        resource.put("name", name);
        resource.put("title", title);
        resource.put("path", "data/" + name + ".csv");
        resource.put("mediatype", "text/csv");
        resource.put("encoding", "utf-8");
        resource.put(
                "schema",
                Map.of(
                        "fields",
                        columns.stream()
                                .map(c -> Map.of("name", c, "type", "string"))
                                .toList()));
        return resource;
    }

    private interface Filling {
        void into(ZipOutputStream zip) throws IOException;
    }

    private static byte[] zip(Filling filling) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(bytes, UTF_8)) {
            filling.into(zip);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return bytes.toByteArray();
    }

    private void putPhotos(ZipOutputStream zip, Frozen edition) throws IOException {
        for (String hash : photos(edition)) {
            put(zip, "files/" + hash + ".jpg", files.file(hash).bytes());
        }
    }

    private static List<String> photos(Frozen edition) {
        return edition.pieces().stream()
                .filter(p -> p.kind() == PieceKind.PHOTO)
                .map(p -> p.body().path("hash").asString(""))
                .distinct()
                .toList();
    }

    private static void put(ZipOutputStream zip, String name, byte[] bytes) throws IOException {
        zip.putNextEntry(new ZipEntry(name));
        zip.write(bytes);
        zip.closeEntry();
    }
}
