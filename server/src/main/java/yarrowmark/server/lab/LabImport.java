package yarrowmark.server.lab;

import static java.nio.charset.StandardCharsets.UTF_8;

import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.security.DigestInputStream;
import java.sql.BatchUpdateException;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.util.Arrays;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.IntConsumer;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipFile;
import javax.sql.DataSource;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.flywaydb.core.Flyway;
import org.flywaydb.core.api.configuration.FluentConfiguration;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.datasource.SingleConnectionDataSource;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import yarrowmark.server.files.FileTypes;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.records.Chain;

/**
 * Reads a package that {@link LabExport} wrote into a database with nothing in it: first the form of records that the
 * package was made with, then all of its tables, in one transaction. A server brings them to its own form when it starts.
 */
final class LabImport {
    private static final int ROWS = 500;
    private static final int MOST_DESCRIPTION_BYTES = 64 << 20;
    /** What the records can hold in one file. */
    private static final int MOST_FILE_BYTES = 16 << 20;

    private final DataSource source;

    /** @param source of a database without tables */
    LabImport(DataSource source) {
        this.source = source;
    }

    /**
     * @return how many rows it held
     * @throws LabFault what is wrong with it, and where; then nothing is kept
     */
    long read(Path file) throws IOException, SQLException {
        return read(file, this::makeTables);
    }

    /** @param prepare makes the tables of the form it is given */
    long read(Path file, IntConsumer prepare) throws IOException, SQLException {
        try (ZipFile zip = new ZipFile(file.toFile(), UTF_8)) {
            JsonNode description = description(zip);
            int form = form(description);
            Map<String, JsonNode> resources = new HashMap<>();
            for (JsonNode resource : description.path("resources")) {
                resources.put(resource.path("name").asString(""), resource);
            }
            prepare.accept(form);
            try (Connection connection = source.getConnection()) {
                return fill(connection, zip, resources);
            }
        } catch (ZipException e) {
            throw new LabFault("this is not a whole ZIP archive: it is cut off, changed, or something else");
        }
    }

    private static JsonNode description(ZipFile zip) throws IOException {
        ZipEntry entry = zip.getEntry(LabExport.DESCRIPTION);
        if (entry == null) {
            throw new LabFault("there is no " + LabExport.DESCRIPTION + " in it, so it is none of our packages");
        }
        try (InputStream in = zip.getInputStream(entry)) {
            return JsonMapper.builder().build().readTree(atMost(in, MOST_DESCRIPTION_BYTES, LabExport.DESCRIPTION));
        } catch (JacksonException e) {
            throw new LabFault(LabExport.DESCRIPTION + " cannot be read as JSON");
        }
    }

    private static byte[] atMost(InputStream in, int most, String path) throws IOException {
        byte[] bytes = in.readNBytes(most + 1);
        if (bytes.length > most) {
            throw new LabFault(path + " is larger than " + (most >> 20) + " MiB");
        }
        return bytes;
    }

    private static int form(JsonNode description) {
        JsonNode ours = description.path("yarrowmark");
        if (!ours.path("layout").isInt() || !ours.path("form").isInt()) {
            throw new LabFault(LabExport.DESCRIPTION + " does not say that it is a whole lab");
        }
        if (ours.path("layout").asInt() != LabExport.LAYOUT) {
            throw new LabFault("it was written by a newer Yarrowmark. Take that one to read it");
        }
        return ours.path("form").asInt();
    }

    private void makeTables(int form) {
        JdbcTemplate jdbc = new JdbcTemplate(source);
        Integer there = jdbc.queryForObject(
                "select count(*) from information_schema.tables where table_schema = database()", Integer.class);
        if (there == null || there > 0) {
            throw new LabFault("there are records in this place already. A package goes into an empty one");
        }
        FluentConfiguration configuration =
                Flyway.configure().dataSource(source).locations("classpath:db/migration");
        int newest = Arrays.stream(configuration.load().info().all())
                .mapToInt(m -> Integer.parseInt(m.getVersion().getVersion()))
                .max()
                .orElse(0);
        if (form < 1 || form > newest) {
            throw new LabFault("its records are of form " + form + ", and this Yarrowmark knows them up to " + newest
                    + ". Take a newer one");
        }
        configuration.target(String.valueOf(form)).load().migrate();
    }

    private static long fill(Connection connection, ZipFile zip, Map<String, JsonNode> resources)
            throws IOException, SQLException {
        JdbcTemplate jdbc = new JdbcTemplate(new SingleConnectionDataSource(connection, true));
        List<LabTable> tables = LabTables.of(jdbc);
        connection.setAutoCommit(false);
        // Tables refer to each other in a circle. What is referred to is looked for when all of it is there.
        jdbc.execute("set foreign_key_checks = 0");
        long rows = 0;
        for (LabTable table : tables) {
            JsonNode resource = resources.get(table.name());
            ZipEntry entry = zip.getEntry(table.path());
            if (resource == null || entry == null) {
                throw new LabFault(table.path() + " is missing");
            }
            jdbc.execute("delete from `" + table.name() + "`");
            rows += new TableReader(connection, zip, table).read(entry, resource);
        }
        for (LabTable table : tables) {
            for (LabTable.Reference to : table.refersTo()) {
                refersToSomething(jdbc, table, to);
                if (to.table().equals(table.name())) {
                    leadsNowhereInACircle(jdbc, table, to);
                }
            }
        }
        connection.commit();
        return rows;
    }

    private static void refersToSomething(JdbcTemplate jdbc, LabTable table, LabTable.Reference to) {
        StringBuilder on = new StringBuilder();
        StringBuilder given = new StringBuilder();
        for (int i = 0; i < to.columns().size(); i++) {
            on.append(i == 0 ? "" : " and ")
                    .append("p.`" + to.of().get(i) + "` = c.`" + to.columns().get(i) + "`");
            given.append(" and c.`" + to.columns().get(i) + "` is not null");
        }
        List<String> lost = jdbc.queryForList(
                "select c.`" + to.columns().get(0) + "` from `" + table.name() + "` c left join `" + to.table()
                        + "` p on " + on + " where p.`" + to.of().get(0) + "` is null" + given + " limit 1",
                String.class);
        if (!lost.isEmpty()) {
            throw new LabFault(table.path() + ", column " + to.columns().get(0) + ": there is no " + to.table() + " "
                    + lost.get(0));
        }
    }

    /** What was merged into itself by way of others would be looked for without an end. */
    private static void leadsNowhereInACircle(JdbcTemplate jdbc, LabTable table, LabTable.Reference to) {
        String from = to.of().get(0);
        String column = to.columns().get(0);
        Map<Long, Long> next = new HashMap<>();
        jdbc.query(
                "select `" + from + "`, `" + column + "` from `" + table.name() + "` where `" + column
                        + "` is not null",
                row -> {
                    next.put(row.getLong(1), row.getLong(2));
                });
        Chain.circle(next).ifPresent(id -> {
            throw new LabFault(table.path() + ", column " + column + ": row " + id + " leads round in a circle");
        });
    }

    /** Reads one table. */
    private static final class TableReader {
        private final Connection connection;
        private final ZipFile zip;
        private final LabTable table;

        TableReader(Connection connection, ZipFile zip, LabTable table) {
            this.connection = connection;
            this.zip = zip;
            this.table = table;
        }

        long read(ZipEntry entry, JsonNode resource) throws IOException, SQLException {
            String marks = String.join(", ", Collections.nCopies(table.columns().size(), "?"));
            try (DigestInputStream in = new DigestInputStream(zip.getInputStream(entry), LabExport.sha256());
                    RowLimit limit = new RowLimit(new InputStreamReader(in, UTF_8), table.path());
                    CSVParser csv = LabExport.CSV
                            .builder()
                            .setHeader()
                            .setSkipHeaderRecord(true)
                            .get()
                            .parse(limit);
                    PreparedStatement insert = connection.prepareStatement("insert into `" + table.name() + "` ("
                            + table.quotedColumns() + ") values (" + marks + ")")) {
                hasTheColumns(csv.getHeaderNames());
                long rows = insertAll(csv, limit, insert);
                in.readAllBytes();
                String hash = "sha256:"
                        + HexFormat.of().formatHex(in.getMessageDigest().digest());
                if (!hash.equals(resource.path("hash").asString(""))) {
                    throw new LabFault(table.path() + " is not what was written: its checksum differs");
                }
                return rows;
            } catch (UncheckedIOException | IllegalStateException e) {
                throw new LabFault(table.path() + " cannot be read as CSV: a quote is probably open");
            }
        }

        private long insertAll(CSVParser csv, RowLimit limit, PreparedStatement insert)
                throws IOException, SQLException {
            long rows = 0;
            long first = csv.getCurrentLineNumber() + 1;
            for (CSVRecord record : csv) {
                limit.nextRow();
                take(record, csv, insert);
                insert.addBatch();
                rows++;
                if (rows % ROWS == 0) {
                    store(insert, first, csv.getCurrentLineNumber());
                    first = csv.getCurrentLineNumber() + 1;
                }
            }
            store(insert, first, csv.getCurrentLineNumber());
            return rows;
        }

        private void store(PreparedStatement insert, long first, long last) throws SQLException {
            try {
                insert.executeBatch();
            } catch (BatchUpdateException e) {
                throw new LabFault(table.path() + ", lines " + first + " to " + last
                        + ": two rows are the same where they must differ, or a value does not fit");
            }
        }

        private void hasTheColumns(List<String> given) {
            Set<String> wanted = new HashSet<>();
            table.columns().forEach(c -> wanted.add(c.name()));
            for (String name : given) {
                if (!wanted.remove(name)) {
                    throw new LabFault(table.path() + " has a column “" + LabColumn.shortened(name)
                            + "” twice, or one that is not known");
                }
            }
            if (!wanted.isEmpty()) {
                throw new LabFault(
                        table.path() + " has no column " + wanted.iterator().next());
            }
        }

        private void take(CSVRecord record, CSVParser csv, PreparedStatement insert) throws IOException, SQLException {
            if (!record.isConsistent()) {
                throw new LabFault(table.path() + ", line " + csv.getCurrentLineNumber() + ": " + record.size()
                        + " values for " + table.columns().size() + " columns");
            }
            int at = 1;
            for (LabColumn column : table.columns()) {
                try {
                    String text = record.get(column.name());
                    if (column.type() == LabColumn.Type.FILE) {
                        insert.setBytes(at++, file(text, record.get("hash"), record.get("content_type")));
                    } else {
                        column.read(text, insert, at++);
                    }
                } catch (LabFault e) {
                    throw new LabFault(table.path() + ", line " + csv.getCurrentLineNumber() + ", column "
                            + column.name() + ": " + e.getMessage());
                }
            }
        }

        /** What a file says it is and what it is must agree: it will be shown to people. */
        private byte[] file(@Nullable String path, String hash, String contentType) throws IOException {
            ZipEntry entry = path == null ? null : zip.getEntry(path);
            if (entry == null) {
                throw new LabFault(
                        "there is no file “" + LabColumn.shortened(String.valueOf(path)) + "” in the package");
            }
            byte[] bytes;
            try (InputStream in = zip.getInputStream(entry)) {
                bytes = atMost(in, MOST_FILE_BYTES, "it");
            }
            if (!HexFormat.of().formatHex(LabExport.sha256().digest(bytes)).equals(hash)) {
                throw new LabFault("the file is not what was kept: its checksum differs");
            }
            try {
                if (FileTypes.of(bytes).equals(contentType)) {
                    return bytes;
                }
            } catch (Problem e) {
                throw new LabFault(String.valueOf(e.getMessage()));
            }
            throw new LabFault("the file is no " + LabColumn.shortened(contentType));
        }
    }
}
