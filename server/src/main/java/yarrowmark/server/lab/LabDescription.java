package yarrowmark.server.lab;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** The parts of datapackage.json, in the words of the open standard. */
final class LabDescription {
    private LabDescription() {}

    /** @param hash of the CSV, SHA-256 in hexadecimal digits */
    static Map<String, Object> of(LabTable table, String words, long rows, long bytes, String hash) {
        Map<String, Object> schema = new LinkedHashMap<>();
        schema.put("fields", table.columns().stream().map(LabDescription::field).toList());
        schema.put("primaryKey", table.key());
        List<Map<String, Object>> foreign = new ArrayList<>();
        for (LabTable.Reference to : table.refersTo()) {
            // The standard's word for the table itself is an empty one.
            String other = to.table().equals(table.name()) ? "" : to.table();
            foreign.add(Map.of("fields", to.columns(), "reference", Map.of("resource", other, "fields", to.of())));
        }
        if (!foreign.isEmpty()) {
            schema.put("foreignKeys", foreign);
        }
        schema.put("missingValues", List.of(LabColumn.MISSING));
        Map<String, Object> resource = new LinkedHashMap<>();
        resource.put("profile", "tabular-data-resource");
        resource.put("name", table.name());
        resource.put("path", table.path());
        resource.put("description", words);
        resource.put("format", "csv");
        resource.put("mediatype", "text/csv");
        resource.put("encoding", "utf-8");
        resource.put("bytes", bytes);
        resource.put("hash", "sha256:" + hash);
        resource.put("rows", rows);
        resource.put("schema", schema);
        return resource;
    }

    private static Map<String, Object> field(LabColumn column) {
        Map<String, Object> field = new LinkedHashMap<>();
        field.put("name", column.name());
        field.put("type", column.type().word());
        if (column.type() == LabColumn.Type.FILE) {
            field.put("description", "where the file lies in this package");
        }
        if (column.required()) {
            field.put("constraints", Map.of("required", true));
        }
        return field;
    }

    static Map<String, Object> ofFile(String path, String hash, String mediaType, int bytes) {
        Map<String, Object> resource = new LinkedHashMap<>();
        resource.put("name", "file-" + hash);
        resource.put("path", path);
        resource.put("mediatype", mediaType);
        resource.put("bytes", bytes);
        resource.put("hash", "sha256:" + hash);
        return resource;
    }
}
