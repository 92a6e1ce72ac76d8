package yarrowmark.server.support;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.JdbcTemplate;
import yarrowmark.server.ledger.record.PackedSamples;

/**
 * A row in every table of the records, of whatever form they are: each has the number 1, and refers to the first of
 * everything. Words that mean something to the program are real ones.
 */
public final class EveryTable {
    private static final byte[] FILE = "wind 3, dry\n".getBytes(StandardCharsets.UTF_8);
    private static final String HASH = hash();

    private static final Map<String, Object> WORDS = Map.ofEntries(
            Map.entry("person.role", "OWNER"),
            Map.entry("invitation.role", "READER"),
            Map.entry("person.name", "wren"),
            Map.entry("device_class", "LAPTOP"),
            Map.entry("direction", "MORE_IS_BETTER"),
            Map.entry("scale", "RATIO"),
            Map.entry("metric.kind", "NUMBER"),
            Map.entry("reading_rule_pattern.kind", "KEY"),
            Map.entry("test_group", "PROCESSOR"),
            Map.entry("fact.source", "TYPED"),
            Map.entry("fact_key", "memory"),
            Map.entry("fact.fact_value", "16000000000"),
            Map.entry("session.state", "DONE"),
            Map.entry("run.state", "OK"),
            Map.entry("phase", "DONE"),
            Map.entry("command", "GO"),
            Map.entry("scope", "READ"),
            Map.entry("review", "NONE"),
            Map.entry("currency", "EUR"),
            Map.entry("model.name", "Drift 11"),
            Map.entry("maker.name", "Pellow"),
            Map.entry("content_type", "text/plain;charset=utf-8"),
            Map.entry("hash", HASH),
            Map.entry("stored_file.bytes", FILE),
            Map.entry("reading_samples.points", 3),
            Map.entry("packed", PackedSamples.pack(new double[] {0.1, 1e-300, 4.9e8})),
            Map.entry("value", 1.0 / 3),
            Map.entry("n", 1),
            Map.entry("mean", 1.0 / 3),
            Map.entry("sum_squares", 0.0),
            Map.entry("answer", "{}"),
            Map.entry("position", 0),
            Map.entry("photo", HASH));

    /** Nothing happened that would take the row away again. */
    private static final Set<String> NOTHING = Set.of(
            "taken_back_at",
            "taken_back_by",
            "removed_at",
            "removed_by",
            "retired_at",
            "ended_at",
            "session.ended_at",
            "reason",
            "reason_words",
            "series",
            "formula",
            "choices",
            "x_unit",
            "founder",
            "review");

    private EveryTable() {}

    private static String hash() {
        try {
            return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(FILE));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }

    /**
     * Fills the tables that have no row yet.
     *
     * @return their names
     */
    public static List<String> fill(JdbcTemplate jdbc) {
        List<String> filled = new ArrayList<>();
        List<String> tables = jdbc.queryForList(
                "select table_name from information_schema.tables where table_schema = database() and table_name <> 'flyway_schema_history' order by table_name",
                String.class);
        for (String table : tables) {
            Integer rows = jdbc.queryForObject(
                    "select count(*) from (select 1 from `" + table + "` limit 1) t", Integer.class);
            if (rows != null && rows == 0) {
                fill(jdbc, table);
                filled.add(table);
            }
        }
        return filled;
    }

    private static void fill(JdbcTemplate jdbc, String table) {
        Set<String> own = new HashSet<>(jdbc.queryForList(
                "select column_name from information_schema.key_column_usage where table_schema = database() and table_name = ? and referenced_table_name = ?",
                String.class,
                table,
                table));
        List<String> names = new ArrayList<>();
        List<@Nullable Object> values = new ArrayList<>();
        jdbc.query(
                "select column_name, data_type, is_nullable, character_maximum_length from information_schema.columns where table_schema = database() and table_name = ? and extra not like '%GENERATED%'",
                row -> {
                    String column = row.getString(1);
                    boolean maybe = "YES".equals(row.getString(3));
                    names.add("`" + column + "`");
                    values.add(
                            maybe && (own.contains(column) || NOTHING.contains(column))
                                    ? null
                                    : value(table, column, row.getString(2), row.getLong(4)));
                },
                table);
        // One statement after the other in one connection: the setting belongs to it.
        jdbc.execute((org.springframework.jdbc.core.ConnectionCallback<Void>) connection -> {
            JdbcTemplate one = new JdbcTemplate(
                    new org.springframework.jdbc.datasource.SingleConnectionDataSource(connection, true));
            one.execute("set foreign_key_checks = 0");
            one.update(
                    "insert into `" + table + "` (" + String.join(", ", names) + ") values ("
                            + String.join(", ", Collections.nCopies(names.size(), "?")) + ")",
                    values.toArray());
            one.execute("set foreign_key_checks = 1");
            return null;
        });
    }

    private static Object value(String table, String column, String type, long length) {
        Object known = WORDS.getOrDefault(table + "." + column, WORDS.get(column));
        if (known != null && !(known instanceof Double && (type.contains("char") || type.contains("text")))) {
            return known;
        }
        return switch (type) {
            case "bit" -> true;
            case "double", "decimal" -> 2.5;
            case "datetime", "timestamp" -> LocalDateTime.of(2026, 2, 3, 4, 5, 6, 789_000_000);
            case "date" -> LocalDate.of(2026, 2, 3);
            case "bigint", "int", "smallint", "tinyint" -> 1;
            default -> "word".substring(0, (int) Math.min(4, length));
        };
    }
}
