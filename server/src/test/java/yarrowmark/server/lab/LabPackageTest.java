package yarrowmark.server.lab;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowable;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.time.Clock;
import java.util.HashSet;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.UnaryOperator;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.jdbc.core.JdbcTemplate;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import yarrowmark.server.YarrowmarkServer;
import yarrowmark.server.support.EveryTable;
import yarrowmark.server.support.Schemas;

/** A whole lab as a package and back, with a row in every table and with what is odd or hostile in it. */
class LabPackageTest {
    private static final JsonMapper JSON = JsonMapper.builder().build();

    /** A row in each table; texts and numbers that are easily lost on the way. */
    private static final Schemas FULL = new Schemas();

    /** Tables without rows, for what is refused: it leaves them as they are. */
    private static final Schemas EMPTY = new Schemas();

    @TempDir
    private static Path directory;

    private static Path whole;

    @BeforeAll
    static void aFullLab() throws Exception {
        FULL.migrate("latest");
        EMPTY.migrate("latest");
        JdbcTemplate jdbc = FULL.jdbc();
        EveryTable.fill(jdbc);
        jdbc.update(
                "insert into app_setting (name, value) values ('shelf.id', 'this one'), ('lab.name', 'Öland, \"№ 1\"')");
        for (String odd : List.of("", "\\N", "\\\\N", "NULL", "=1+1", "a,\"b\"\r\nc", " 🌾 \t", "'", "\\")) {
            jdbc.update(
                    "insert into change_entry (at, person, subject, subject_id, field, old_value, new_value) values ('2026-02-03 04:05:06.789', ?, 'x', 1, 'x', ?, null)",
                    odd,
                    odd);
        }
        whole = directory.resolve("whole.zip");
        LabCommand.write(FULL.source(), whole, Clock.systemUTC());
    }

    private static Map<String, byte[]> entries(Path file) throws IOException {
        Map<String, byte[]> entries = new LinkedHashMap<>();
        try (ZipFile zip = new ZipFile(file.toFile())) {
            for (ZipEntry entry : java.util.Collections.list(zip.entries())) {
                try (InputStream in = zip.getInputStream(entry)) {
                    entries.put(entry.getName(), in.readAllBytes());
                }
            }
        }
        return entries;
    }

    private static Path packed(String name, Map<String, byte[]> entries) throws IOException {
        Path file = directory.resolve(name);
        try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(file))) {
            for (Map.Entry<String, byte[]> entry : entries.entrySet()) {
                zip.putNextEntry(new ZipEntry(entry.getKey()));
                zip.write(entry.getValue());
                zip.closeEntry();
            }
        }
        return file;
    }

    private static String sha256(byte[] bytes) throws Exception {
        return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes));
    }

    /** The package with one entry changed, and its checksum as somebody who meant it would have it. */
    private static Path changed(String path, UnaryOperator<String> change) throws Exception {
        Map<String, byte[]> entries = entries(whole);
        String before = new String(entries.get(path), StandardCharsets.UTF_8);
        String after = change.apply(before);
        assertThat(after).as("something was changed").isNotEqualTo(before);
        entries.put(path, after.getBytes(StandardCharsets.UTF_8));
        String description = new String(entries.get(LabExport.DESCRIPTION), StandardCharsets.UTF_8);
        entries.put(
                LabExport.DESCRIPTION,
                description
                        .replace(sha256(before.getBytes(StandardCharsets.UTF_8)), sha256(entries.get(path)))
                        .getBytes(StandardCharsets.UTF_8));
        return packed("changed.zip", entries);
    }

    private static String refused(Path file) {
        JdbcTemplate jdbc = EMPTY.jdbc();
        Throwable fault = catchThrowable(() -> new LabImport(EMPTY.source()).read(file, form -> {}));
        assertThat(fault).isInstanceOf(LabFault.class);
        for (String table : List.of("reading", "model", "stored_file", "app_setting")) {
            assertThat(jdbc.queryForObject("select count(*) from " + table, Integer.class))
                    .as(table)
                    .isZero();
        }
        return fault.getMessage();
    }

    @Test
    void whatIsWrittenComesBackToTheLastBit() throws Exception {
        Schemas other = new Schemas();
        long rows = new LabImport(other.source()).read(whole);
        Path again = directory.resolve("again.zip");
        assertThat(LabCommand.write(other.source(), again, Clock.systemUTC())).isEqualTo(rows);
        Map<String, byte[]> before = entries(whole);
        Map<String, byte[]> after = entries(again);
        assertThat(after.keySet()).isEqualTo(before.keySet());
        before.remove(LabExport.DESCRIPTION);
        before.forEach((path, bytes) -> assertThat(after.get(path)).as(path).isEqualTo(bytes));
        // And not only as the package has it.
        for (String sum : List.of(
                "select bit_xor(crc32(concat_ws('|', id, value + 0e0, resolution))) from reading",
                "select bit_xor(crc32(packed)) from reading_samples",
                "select bit_xor(crc32(bytes)) from stored_file",
                "select bit_xor(crc32(concat_ws('|', id, at, person, ifnull(old_value, 'nothing')))) from change_entry")) {
            assertThat(other.jdbc().queryForObject(sum, Long.class))
                    .as(sum)
                    .isEqualTo(FULL.jdbc().queryForObject(sum, Long.class));
        }
    }

    @Test
    void everyTableIsInItOrLeftOutForAReason() throws Exception {
        JsonNode description = JSON.readTree(entries(whole).get(LabExport.DESCRIPTION));
        Set<String> described = new TreeSet<>();
        for (JsonNode resource : description.path("resources")) {
            if (resource.path("path").asString().endsWith(".csv")) {
                String name = resource.path("name").asString();
                described.add(name);
                assertThat(resource.path("description").asString()).as(name).isNotBlank();
                assertThat(resource.path("rows").asInt()).as(name).isPositive();
                assertThat(resource.path("schema").path("primaryKey")).as(name).isNotEmpty();
            }
        }
        Set<String> all = new HashSet<>(FULL.jdbc()
                .queryForList(
                        "select table_name from information_schema.tables where table_schema = database()",
                        String.class));
        assertThat(all).containsAll(LabTables.LEFT_OUT.keySet());
        all.removeAll(LabTables.LEFT_OUT.keySet());
        assertThat(described).containsExactlyInAnyOrderElementsOf(all);
        assertThat(LabTables.words().stringPropertyNames()).containsExactlyInAnyOrderElementsOf(described);
        assertThat(description.path("title").asString()).isEqualTo("Öland, \"№ 1\"");
    }

    @Test
    void nothingSecretIsInIt() throws Exception {
        StringBuilder text = new StringBuilder();
        entries(whole).forEach((path, bytes) -> text.append(new String(bytes, StandardCharsets.UTF_8)));
        assertThat(text).doesNotContain("password_hash", "token_hash", "key_hash", "shelf.id");
    }

    @Test
    void whatIsWrongIsSaidWithItsPlaceAndNothingIsKept() throws Exception {
        assertThat(refused(changed("data/reading.csv", s -> s.replaceFirst("(?m)^(\\d+),", "many,"))))
                .contains("data/reading.csv, line 2, column id", "“many” is no integer");
        assertThat(refused(changed("data/reading.csv", s -> s.replace("resolution", "resolutions"))))
                .contains("data/reading.csv", "resolutions");
        assertThat(refused(changed("data/maker.csv", s -> s + "2\r\n"))).contains("data/maker.csv, line 3");
        assertThat(refused(changed("data/maker.csv", s -> s + s.split("\r\n")[1] + "\r\n")))
                .contains("data/maker.csv", "two rows are the same");
        assertThat(refused(changed("data/model.csv", s -> s.replaceFirst("(?m)^(\\d+),\\d+,", "$1,77,"))))
                .contains("data/model.csv, column maker_id: there is no maker 77");
        assertThat(refused(changed("data/metric.csv", s -> s.replace(",true", ",maybe"))))
                .contains("data/metric.csv", "“maybe” is no boolean");
        assertThat(refused(changed("data/session.csv", s -> s.replaceFirst("\\d{4}-\\d\\d-\\d\\dT", "2026-13-45T"))))
                .contains("data/session.csv", "is no datetime");
        assertThat(refused(changed("data/reading_samples.csv", s -> s.replace("\"[", "\"[NaN,"))))
                .contains("data/reading_samples.csv", "is no array");
        assertThat(refused(changed("data/stored_file.csv", s -> s.replace("files/", "../files/"))))
                .contains("there is no file “../files/");
        assertThat(refused(changed("data/stored_file.csv", s -> s.replace("text/plain;charset=utf-8", "text/html"))))
                .contains("no text/html");
    }

    @Test
    void whatWasChangedWithoutSayingSoIsRefused() throws Exception {
        Map<String, byte[]> entries = entries(whole);
        entries.computeIfPresent("data/reading.csv", (p, bytes) -> new String(bytes, StandardCharsets.UTF_8)
                .replaceFirst("\\d\\.\\d", "9.9")
                .getBytes(StandardCharsets.UTF_8));
        assertThat(refused(packed("silent.zip", entries))).contains("data/reading.csv", "checksum");
        String file = entries.keySet().stream()
                .filter(p -> p.startsWith("files/"))
                .findFirst()
                .orElseThrow();
        entries = entries(whole);
        entries.put(file, "something else".getBytes(StandardCharsets.UTF_8));
        assertThat(refused(packed("file.zip", entries))).contains("checksum differs");
        entries = entries(whole);
        entries.remove("data/unit.csv");
        assertThat(refused(packed("missing.zip", entries))).contains("data/unit.csv is missing");
    }

    @Test
    void whatIsNoPackageIsRefused() throws Exception {
        Path cut = directory.resolve("cut.zip");
        byte[] bytes = Files.readAllBytes(whole);
        Files.write(cut, java.util.Arrays.copyOf(bytes, bytes.length - 100));
        assertThat(refused(cut)).contains("not a whole ZIP");
        Files.write(cut, new byte[0]);
        assertThat(refused(cut)).contains("not a whole ZIP");
        assertThat(refused(packed("other.zip", Map.of("a.txt", new byte[3])))).contains("none of our packages");
        assertThat(refused(packed("bad.zip", Map.of(LabExport.DESCRIPTION, "{".getBytes(StandardCharsets.UTF_8)))))
                .contains("JSON");
        assertThat(refused(packed("empty.zip", Map.of(LabExport.DESCRIPTION, "{}".getBytes(StandardCharsets.UTF_8)))))
                .contains("whole lab");
        assertThat(refused(changed(LabExport.DESCRIPTION, s -> s.replace("\"layout\" : 1", "\"layout\" : 2"))))
                .contains("newer Yarrowmark");
        Schemas none = new Schemas();
        Path newer = changed(LabExport.DESCRIPTION, s -> s.replaceFirst("\"form\" : \\d+", "\"form\" : 9001"));
        assertThatThrownBy(() -> new LabImport(none.source()).read(newer)).hasMessageContaining("form 9001");
    }

    /** Whoever looks for where its sessions are now would look for ever. */
    @Test
    void whatWasMergedIntoItselfIsRefused() throws Exception {
        assertThat(refused(changed("data/configuration.csv", LabPackageTest::mergedIntoItself)))
                .contains("data/configuration.csv, column merged_into", "leads round in a circle");
    }

    private static String mergedIntoItself(String csv) {
        String[] lines = csv.split("\r\n");
        List<String> columns = List.of(lines[0].split(","));
        String[] cells = lines[1].split(",", -1);
        cells[columns.indexOf("merged_into")] = cells[columns.indexOf("id")];
        lines[1] = String.join(",", cells);
        return String.join("\r\n", lines) + "\r\n";
    }

    @Test
    void aCellThatWouldFillTheMemoryAndAnOpenQuoteAreSaidInWords() throws Exception {
        assertThat(refused(changed("data/maker.csv", s -> s + "7,\"" + "x".repeat(RowLimit.MOST + 100_000) + "\"\r\n")))
                .contains("data/maker.csv", "a row is longer than");
        assertThat(refused(changed("data/maker.csv", s -> s + "7,\"Kelpline")))
                .contains("data/maker.csv", "a quote is probably open");
    }

    @Test
    void aPlaceWithRecordsIsLeftAlone() {
        ByteArrayOutputStream said = new ByteArrayOutputStream();
        int code = LabCommand.run(
                FULL.environment(),
                YarrowmarkServer.class,
                new PrintStream(said, true, StandardCharsets.UTF_8),
                "import",
                whole.toString());
        assertThat(code).isEqualTo(1);
        assertThat(said.toString(StandardCharsets.UTF_8)).contains("records in this place already");
    }

    @Test
    void aFullDiskIsSaid() {
        ByteArrayOutputStream said = new ByteArrayOutputStream();
        assertThat(LabCommand.run(
                        FULL.environment(),
                        YarrowmarkServer.class,
                        new PrintStream(said, true, StandardCharsets.UTF_8),
                        "export",
                        "/dev/full"))
                .isEqualTo(1);
        assertThat(said.toString(StandardCharsets.UTF_8)).contains("/dev/full could not be written");
    }
}
