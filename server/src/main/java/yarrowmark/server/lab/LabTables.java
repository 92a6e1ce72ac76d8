package yarrowmark.server.lab;

import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Properties;
import java.util.Set;
import org.springframework.jdbc.core.JdbcTemplate;

/** Which tables of the records are in a package, as the database describes them, and what each one holds in words. */
final class LabTables {
    /** What stays: secrets, and what is worth something only at the server that made it. */
    static final Map<String, String> LEFT_OUT = Map.ofEntries(
            Map.entry("person", "passwords, and who may come in: people are invited anew"),
            Map.entry("former_name", "belongs to people"),
            Map.entry("signed_place", "where people are signed in"),
            Map.entry("invitation", "links that let somebody in"),
            Map.entry("api_key", "keys that let a program in"),
            Map.entry("seat", "codes and tokens of devices"),
            Map.entry("delivery", "what a device was told about its deliveries"),
            Map.entry("late_run", "runs that nobody has taken in yet, in a seat's own form"),
            Map.entry("ledger_import", "what can be undone of an import, where it was made and for a week"),
            Map.entry("ledger_import_part", "belongs to ledger_import"),
            Map.entry("edition_picture", "is drawn again from its edition when somebody asks for it"),
            Map.entry("flyway_schema_history", "the form of the records, which the package states"));

    /** Settings that are this place's own. */
    static final Set<String> OWN_SETTINGS = Set.of("shelf.id", "site.pass");

    static final String SETTINGS = "app_setting";
    static final String FILES = "stored_file";

    private LabTables() {}

    /** Those of the database that is connected to, by name. */
    static List<LabTable> of(JdbcTemplate jdbc) {
        List<LabTable> tables = new ArrayList<>();
        for (String name : jdbc.queryForList(
                "select table_name from information_schema.tables where table_schema = database() and table_type = 'BASE TABLE' order by table_name",
                String.class)) {
            if (!LEFT_OUT.containsKey(name)) {
                tables.add(table(jdbc, name));
            }
        }
        return tables;
    }

    private static LabTable table(JdbcTemplate jdbc, String name) {
        List<LabColumn> columns = new ArrayList<>();
        jdbc.query(
                "select column_name, data_type, is_nullable from information_schema.columns where table_schema = database() and table_name = ? and extra not like '%GENERATED%' order by ordinal_position",
                row -> {
                    columns.add(new LabColumn(
                            row.getString(1),
                            type(name, row.getString(1), row.getString(2)),
                            "NO".equals(row.getString(3))));
                },
                name);
        List<String> key = jdbc.queryForList(
                "select column_name from information_schema.statistics where table_schema = database() and table_name = ? and index_name = 'PRIMARY' order by seq_in_index",
                String.class,
                name);
        Map<String, LabTable.Reference> references = new LinkedHashMap<>();
        jdbc.query(
                "select constraint_name, column_name, referenced_table_name, referenced_column_name from information_schema.key_column_usage where table_schema = database() and table_name = ? and referenced_table_name is not null order by constraint_name, ordinal_position",
                row -> {
                    LabTable.Reference reference = references.computeIfAbsent(
                            row.getString(1),
                            n -> new LabTable.Reference(new ArrayList<>(), text(row, 3), new ArrayList<>()));
                    reference.columns().add(row.getString(2));
                    reference.of().add(row.getString(4));
                },
                name);
        return new LabTable(name, columns, key, List.copyOf(references.values()));
    }

    private static String text(java.sql.ResultSet row, int at) {
        try {
            return row.getString(at);
        } catch (java.sql.SQLException e) {
            throw new IllegalStateException(e);
        }
    }

    private static LabColumn.Type type(String table, String column, String sql) {
        if (sql.equals("mediumblob")) {
            return table.equals(FILES) ? LabColumn.Type.FILE : LabColumn.Type.ARRAY;
        }
        return LabColumn.Type.of(sql);
    }

    /** What each table holds, for whoever reads a package without this program. */
    static Properties words() {
        Properties words = new Properties();
        try (InputStream in = LabTables.class.getResourceAsStream("tables.properties");
                InputStreamReader reader =
                        new InputStreamReader(java.util.Objects.requireNonNull(in), StandardCharsets.UTF_8)) {
            words.load(reader);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return words;
    }
}
