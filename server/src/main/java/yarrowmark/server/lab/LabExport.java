package yarrowmark.server.lab;

import java.io.IOException;
import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.security.DigestOutputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Properties;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.datasource.SingleConnectionDataSource;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;

/**
 * Writes the whole lab, as it is at one moment, as a Data Package: a CSV with a Table Schema for each kind of record, the
 * files people attached, and a description of all of it. docs/formats.md says more.
 */
final class LabExport {
    static final String DESCRIPTION = "datapackage.json";
    /** Of the way a package is laid out; another number means that an older program cannot read it. */
    static final int LAYOUT = 1;

    static final CSVFormat CSV = CSVFormat.RFC4180;

    /** Rows that are held in memory at a time. */
    private static final int ROWS = 1_000;

    private final Connection connection;
    private final Instant now;
    private final Properties words = LabTables.words();
    private final List<Map<String, Object>> resources = new ArrayList<>();

    /** @param connection to the records; only read */
    LabExport(Connection connection, Instant now) {
        this.connection = connection;
        this.now = now;
    }

    /** @return how many rows it holds */
    long write(OutputStream out) throws IOException, SQLException {
        JdbcTemplate jdbc = new JdbcTemplate(new SingleConnectionDataSource(connection, true));
        connection.setTransactionIsolation(Connection.TRANSACTION_REPEATABLE_READ);
        connection.setAutoCommit(false);
        long rows = 0;
        try (ZipOutputStream zip = new ZipOutputStream(out, StandardCharsets.UTF_8)) {
            jdbc.execute("start transaction with consistent snapshot, read only");
            List<LabTable> tables = LabTables.of(jdbc);
            for (LabTable table : tables) {
                rows += write(table, zip);
            }
            writeFiles(zip);
            entry(zip, DESCRIPTION);
            Map<String, Object> description = new LinkedHashMap<>();
            description.put("profile", "tabular-data-package");
            description.put("name", "yarrowmark-lab");
            description.put(
                    "title",
                    jdbc.queryForList("select value from app_setting where name = 'lab.name'", String.class).stream()
                            .findFirst()
                            .orElse("A lab"));
            description.put("created", now.toString());
            description.put("yarrowmark", Map.of("layout", LAYOUT, "form", form(jdbc)));
            description.put("resources", resources);
            zip.write(JsonMapper.builder()
                    .enable(SerializationFeature.INDENT_OUTPUT)
                    .build()
                    .writeValueAsBytes(description));
            zip.closeEntry();
        } finally {
            connection.rollback();
        }
        return rows;
    }

    /** The form of the records: what every update of them counts up. */
    private static int form(JdbcTemplate jdbc) {
        Integer form = jdbc.queryForObject(
                "select max(cast(version as unsigned)) from flyway_schema_history where success", Integer.class);
        return form == null ? 0 : form;
    }

    private static void entry(ZipOutputStream zip, String path) throws IOException {
        zip.putNextEntry(new ZipEntry(path));
    }

    private long write(LabTable table, ZipOutputStream zip) throws IOException, SQLException {
        entry(zip, table.path());
        Measured measured = new Measured(zip);
        long rows = 0;
        // Read as it comes: a table may be larger than the memory.
        try (PreparedStatement select = connection.prepareStatement(
                "select " + table.quotedColumns() + " from `" + table.name() + "` order by " + table.quotedKey())) {
            select.setFetchSize(ROWS);
            try (ResultSet row = select.executeQuery()) {
                Writer text = new OutputStreamWriter(measured, StandardCharsets.UTF_8);
                CSVPrinter csv = new CSVPrinter(text, CSV);
                csv.printRecord(table.columns().stream().map(LabColumn::name).toList());
                while (row.next()) {
                    if (table.name().equals(LabTables.SETTINGS)
                            && LabTables.OWN_SETTINGS.contains(row.getString("name"))) {
                        continue;
                    }
                    for (int i = 0; i < table.columns().size(); i++) {
                        LabColumn column = table.columns().get(i);
                        csv.print(
                                column.type() == LabColumn.Type.FILE
                                        ? filePath(row.getString("hash"), row.getString("content_type"))
                                        : column.written(row, i + 1));
                    }
                    csv.println();
                    rows++;
                }
                csv.flush();
            }
        }
        zip.closeEntry();
        resources.add(
                LabDescription.of(table, words.getProperty(table.name(), ""), rows, measured.bytes, measured.hash()));
        return rows;
    }

    private void writeFiles(ZipOutputStream zip) throws IOException, SQLException {
        try (PreparedStatement select =
                connection.prepareStatement("select hash, content_type, bytes from stored_file order by hash")) {
            select.setFetchSize(1);
            try (ResultSet row = select.executeQuery()) {
                while (row.next()) {
                    String path = filePath(row.getString(1), row.getString(2));
                    byte[] bytes = row.getBytes(3);
                    entry(zip, path);
                    zip.write(bytes);
                    zip.closeEntry();
                    resources.add(LabDescription.ofFile(path, row.getString(1), row.getString(2), bytes.length));
                }
            }
        }
    }

    /** Where a file lies: its hash, and an ending that programs know. */
    static String filePath(String hash, String contentType) {
        String ending =
                switch (contentType.split(";", 2)[0]) {
                    case "image/png" -> ".png";
                    case "image/jpeg" -> ".jpg";
                    case "image/gif" -> ".gif";
                    case "image/webp" -> ".webp";
                    case "application/pdf" -> ".pdf";
                    case "application/zip" -> ".zip";
                    case "application/gzip" -> ".gz";
                    case "application/x-xz" -> ".xz";
                    default -> ".txt";
                };
        return "files/" + hash + ending;
    }

    static MessageDigest sha256() {
        try {
            return MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }

    /** What goes through is counted and hashed, and flushed no further than here. */
    private static final class Measured extends DigestOutputStream {
        private long bytes;

        Measured(OutputStream out) {
            super(out, sha256());
        }

        @Override
        public void write(int b) throws IOException {
            super.write(b);
            bytes++;
        }

        @Override
        public void write(byte[] from, int start, int length) throws IOException {
            super.write(from, start, length);
            bytes += length;
        }

        @Override
        public void flush() {
            // The archive decides when.
        }

        String hash() {
            return HexFormat.of().formatHex(getMessageDigest().digest());
        }
    }
}
