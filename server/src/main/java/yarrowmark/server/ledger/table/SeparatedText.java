package yarrowmark.server.ledger.table;

import java.io.IOException;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.Comparator;
import java.util.List;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import yarrowmark.core.table.Table;
import yarrowmark.core.table.TableCell;
import yarrowmark.server.platform.Problem;

/** CSV, TSV and cells copied from a spreadsheet: any usual separator and encoding. */
final class SeparatedText {
    private static final List<Character> SEPARATORS = List.of('\t', ';', ',', '|');
    private static final int LINES_LOOKED_AT = 20;

    private SeparatedText() {}

    static Table read(byte[] bytes, String name) {
        String text = decoded(bytes);
        if (text.indexOf('\0') >= 0) {
            throw Problem.invalid(
                    "no-table",
                    "This is neither a spreadsheet nor a text with a table. Choose an .xlsx, .ods, CSV or TSV file.");
        }
        TableFile.Rows rows = new TableFile.Rows();
        long line = 1;
        try (CSVParser parser = CSVFormat.RFC4180
                .builder()
                .setDelimiter(separator(text))
                .setIgnoreEmptyLines(false)
                .setTrailingData(true)
                .get()
                .parse(new StringReader(text))) {
            for (CSVRecord record : parser) {
                record.forEach(cell -> rows.cell(TableCell.of(unguarded(cell))));
                rows.endRow();
                line = parser.getCurrentLineNumber() + 1;
            }
        } catch (UncheckedIOException | IOException | IllegalStateException e) {
            throw Problem.invalid(
                    "not-csv", "The file cannot be read as a table after line " + line + ": a quote is probably open.");
        }
        return rows.table(name);
    }

    /** The apostrophe that guards a formula is no part of it. */
    private static String unguarded(String cell) {
        return cell.length() > 1 && cell.charAt(0) == '\'' && "=+-@".indexOf(cell.charAt(1)) >= 0
                ? cell.substring(1)
                : cell;
    }

    /** The one that stands in most of the first lines, equally often. A comma within numbers loses against it. */
    private static char separator(String text) {
        List<String> lines =
                text.lines().filter(l -> !l.isBlank()).limit(LINES_LOOKED_AT).toList();
        return SEPARATORS.stream()
                .max(Comparator.comparingDouble(
                        s -> lines.stream().filter(l -> l.indexOf(s) >= 0).count()
                                + (s == '\t' || s == ';' ? 0.5 : 0)
                                - (lines.stream()
                                                        .mapToLong(l -> l.chars()
                                                                .filter(c -> c == s)
                                                                .count())
                                                        .distinct()
                                                        .count()
                                                - 1)
                                        * 0.1))
                .orElse(',');
    }

    private static String decoded(byte[] bytes) {
        if (bytes.length >= 2 && (bytes[0] & 0xff) == 0xff && (bytes[1] & 0xff) == 0xfe) {
            return new String(bytes, 2, bytes.length - 2, StandardCharsets.UTF_16LE);
        }
        if (bytes.length >= 2 && (bytes[0] & 0xff) == 0xfe && (bytes[1] & 0xff) == 0xff) {
            return new String(bytes, 2, bytes.length - 2, StandardCharsets.UTF_16BE);
        }
        boolean isMarked = bytes.length >= 3 && (bytes[0] & 0xff) == 0xef && (bytes[1] & 0xff) == 0xbb;
        try {
            return StandardCharsets.UTF_8
                    .newDecoder()
                    .onMalformedInput(CodingErrorAction.REPORT)
                    .decode(ByteBuffer.wrap(bytes, isMarked ? 3 : 0, bytes.length - (isMarked ? 3 : 0)))
                    .toString();
        } catch (CharacterCodingException e) {
            // What spreadsheets of western Europe write where they do not write UTF-8.
            return new String(bytes, Charset.forName("windows-1252"));
        }
    }
}
