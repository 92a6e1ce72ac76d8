package yarrowmark.server.platform.records;

import static yarrowmark.server.platform.Require.require;

import java.util.List;
import java.util.stream.Collectors;
import org.springframework.jdbc.core.JdbcTemplate;

/**
 * A copy of all records beside them, in the same database server, that outlives a crash at any moment. It counts from the
 * moment it is whole until it is put back or thrown away; before, the records themselves were not touched yet.
 */
class SchemaCopy {
    private static final String WHOLE = "copy_is_whole";

    private final JdbcTemplate jdbc;
    private final String records;
    private final String copy;

    /** @param jdbc on one connection: it carries settings from one statement to the next */
    SchemaCopy(JdbcTemplate jdbc) {
        this.jdbc = jdbc;
        this.records = require(jdbc.queryForObject("select database()", String.class));
        this.copy = records + "_before";
    }

    /** @return bytes that the records take */
    long size() {
        Long bytes = jdbc.queryForObject(
                "select coalesce(sum(data_length + index_length), 0) from information_schema.tables where table_schema = ?",
                Long.class,
                records);
        return require(bytes);
    }

    void make() {
        throwAway();
        jdbc.execute("create database " + copy);
        copyAll(records, copy);
        jdbc.execute("create table " + copy + "." + WHOLE + " (made_at timestamp not null default current_timestamp)");
    }

    boolean isWhole() {
        return tables(copy).contains(WHOLE);
    }

    /** Makes the records what they were when the copy was made. Cut off, it is done again from its beginning. */
    void putBack() {
        jdbc.execute("set foreign_key_checks = 0");
        try {
            tables(records).forEach(table -> jdbc.execute("drop table " + name(records, table)));
        } finally {
            jdbc.execute("set foreign_key_checks = 1");
        }
        copyAll(copy, records);
        throwAway();
    }

    void throwAway() {
        // First what makes it count: half of a copy must never be put back.
        jdbc.execute("drop table if exists " + copy + "." + WHOLE);
        jdbc.execute("drop database if exists " + copy);
    }

    private void copyAll(String from, String to) {
        jdbc.execute("set foreign_key_checks = 0");
        jdbc.execute("set unique_checks = 0");
        try {
            jdbc.execute("use " + to);
            for (String table : tables(from)) {
                if (!table.equals(WHOLE)) {
                    copyTable(from, to, table);
                }
            }
        } finally {
            jdbc.execute("use " + records);
            jdbc.execute("set unique_checks = 1");
            jdbc.execute("set foreign_key_checks = 1");
        }
    }

    private void copyTable(String from, String to, String table) {
        // Its own words: a table made "like" another loses what it refers to.
        Object made = jdbc.queryForMap("show create table " + name(from, table)).get("Create Table");
        jdbc.execute(require(made).toString());
        String columns = jdbc
                .queryForList(
                        "select column_name from information_schema.columns where table_schema = ? and table_name = ? and extra not like '%GENERATED%' order by ordinal_position",
                        String.class, from, table)
                .stream()
                .map(column -> "`" + column + "`")
                .collect(Collectors.joining(", "));
        jdbc.execute("insert into " + name(to, table) + " (" + columns + ") select " + columns + " from "
                + name(from, table));
    }

    private List<String> tables(String schema) {
        return jdbc.queryForList(
                "select table_name from information_schema.tables where table_schema = ? and table_type = 'BASE TABLE' order by table_name",
                String.class,
                schema);
    }

    private static String name(String schema, String table) {
        return schema + ".`" + table + "`";
    }
}
