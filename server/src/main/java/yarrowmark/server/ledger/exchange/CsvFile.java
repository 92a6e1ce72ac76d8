package yarrowmark.server.ledger.exchange;

import java.io.IOException;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import yarrowmark.server.platform.Problem;

/** A CSV file as people have them: with or without a byte order mark, parted by commas, semicolons or tabs. */
public final class CsvFile {
    private static final int MOST_COLUMNS = 600;
    private static final int MOST_ROWS = 500_000;

    /**
     * @param line  in the file, from 1, on which the row ends
     * @param cells as many as the row has
     * @param at    where each column is
     */
    public record Row(long line, String[] cells, Map<String, Integer> at) {
        /** Empty where the column is missing or blank. The apostrophe that guards a formula is taken off. */
        String cell(String column) {
            Integer index = at.get(column);
            return index == null || index >= cells.length ? "" : cell(index);
        }

        String cell(int index) {
            String cell = cells[index].strip();
            return cell.length() > 1 && cell.charAt(0) == '\'' && "=+-@".indexOf(cell.charAt(1)) >= 0
                    ? cell.substring(1)
                    : cell;
        }
    }

    private final List<String> columns;
    private final List<Row> rows;

    private CsvFile(List<String> columns, List<Row> rows) {
        this.columns = columns;
        this.rows = rows;
    }

    /** Rows that came another way than by a CSV. */
    public static CsvFile of(List<String> columns, List<String[]> cells, List<Long> lines) {
        Map<String, Integer> at = new HashMap<>();
        columns.forEach(c -> at.putIfAbsent(c, at.size()));
        List<Row> rows = new ArrayList<>(cells.size());
        for (int i = 0; i < cells.size(); i++) {
            rows.add(new Row(lines.get(i), cells.get(i), at));
        }
        return new CsvFile(columns, rows);
    }

    static CsvFile read(byte[] bytes) {
        String text = decoded(bytes);
        if (text.isBlank()) {
            throw Problem.invalid("file-empty", "The file is empty.");
        }
        String first = text.lines().findFirst().orElse("");
        char delimiter = List.of(',', ';', '\t').stream()
                .max(java.util.Comparator.comparingLong(
                        d -> first.chars().filter(c -> c == d).count()))
                .orElseThrow();
        List<Row> rows = new ArrayList<>();
        try (CSVParser parser = CSVFormat.RFC4180
                .builder()
                .setDelimiter(delimiter)
                .setIgnoreEmptyLines(true)
                .get()
                .parse(new StringReader(text))) {
            List<String> columns = List.of();
            Map<String, Integer> at = new HashMap<>();
            for (CSVRecord record : parser) {
                if (columns.isEmpty()) {
                    columns = header(record);
                    for (String column : columns) {
                        at.putIfAbsent(column, at.size());
                    }
                } else {
                    rows.add(new Row(parser.getCurrentLineNumber(), record.values(), at));
                    if (rows.size() > MOST_ROWS) {
                        throw Problem.invalid(
                                "too-many-rows",
                                "The file has more than " + MOST_ROWS + " rows. Part it into several.");
                    }
                }
            }
            return new CsvFile(columns, rows);
        } catch (UncheckedIOException | IOException | IllegalStateException e) {
            throw Problem.invalid(
                    "not-csv",
                    "The file cannot be read as CSV after line "
                            + (rows.isEmpty() ? 1 : rows.get(rows.size() - 1).line())
                            + ": a quote is probably open. Nothing was stored.");
        }
    }

    private static String decoded(byte[] bytes) {
        int start =
                bytes.length >= 3 && (bytes[0] & 0xff) == 0xef && (bytes[1] & 0xff) == 0xbb && (bytes[2] & 0xff) == 0xbf
                        ? 3
                        : 0;
        ByteBuffer in = ByteBuffer.wrap(bytes, start, bytes.length - start);
        try {
            return StandardCharsets.UTF_8
                    .newDecoder()
                    .onMalformedInput(CodingErrorAction.REPORT)
                    .decode(in)
                    .toString();
        } catch (CharacterCodingException e) {
            long line = 1;
            for (int i = 0; i < in.position(); i++) {
                line += bytes[i] == '\n' ? 1 : 0;
            }
            throw Problem.invalid(
                    "not-utf-8",
                    "The file is not in UTF-8: line " + line
                            + " has bytes that are no letters in it. Save it as UTF-8; it may be in Latin-1 now.");
        }
    }

    private static List<String> header(CSVRecord record) {
        if (record.size() > MOST_COLUMNS) {
            throw Problem.invalid(
                    "too-many-columns",
                    "The file has " + record.size() + " columns; " + MOST_COLUMNS + " are the most.");
        }
        List<String> columns = new ArrayList<>();
        for (String name : record) {
            String plain = name.strip();
            columns.add(
                    plain.regionMatches(true, 0, "fact:", 0, 5)
                            ? "fact:" + plain.substring(5).strip()
                            : plain.toLowerCase(Locale.ROOT));
        }
        List<String> twice = columns.stream()
                .filter(c -> !c.isEmpty() && columns.indexOf(c) != columns.lastIndexOf(c))
                .distinct()
                .toList();
        if (!twice.isEmpty()) {
            throw Problem.invalid("column-twice", "The header has a column twice: " + String.join(", ", twice) + ".");
        }
        return columns;
    }

    List<String> columns() {
        return columns;
    }

    List<Row> rows() {
        return rows;
    }
}
