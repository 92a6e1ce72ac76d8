package yarrowmark.server.lab;

import java.util.List;
import java.util.stream.Collectors;

/**
 * A table of the records as a package has it.
 *
 * @param key  columns of its primary key, by which its rows are ordered
 * @param refersTo what its columns refer to
 */
record LabTable(String name, List<LabColumn> columns, List<String> key, List<Reference> refersTo) {
    /** @param columns here. @param of what those of the other table are called, in the same order */
    record Reference(List<String> columns, String table, List<String> of) {}

    String path() {
        return "data/" + name + ".csv";
    }

    String quotedColumns() {
        return quoted(columns.stream().map(LabColumn::name).toList());
    }

    String quotedKey() {
        return quoted(key);
    }

    static String quoted(List<String> names) {
        return names.stream().map(n -> "`" + n + "`").collect(Collectors.joining(", "));
    }
}
