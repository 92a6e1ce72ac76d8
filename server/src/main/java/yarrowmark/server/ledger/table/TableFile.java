package yarrowmark.server.ledger.table;

import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipFile;
import org.apache.commons.compress.utils.SeekableInMemoryByteChannel;
import yarrowmark.core.table.Table;
import yarrowmark.core.table.TableCell;
import yarrowmark.server.platform.Problem;

/** Reads whatever a table may be kept in, by what is in the file and not by its name. Nothing of it is carried out or followed. */
final class TableFile {
    static final int MOST_CELLS = 1_000_000;
    static final int MOST_COLUMNS = 600;
    static final int MOST_SHEETS = 60;
    private static final long MOST_UNPACKED = 400L * 1024 * 1024;
    private static final int MOST_ENTRIES = 5_000;
    private static final byte[] OLD_OFFICE = {(byte) 0xd0, (byte) 0xcf, 0x11, (byte) 0xe0};

    private TableFile() {}

    /** @return its sheets that have something in them, at least one */
    static List<Table> read(byte[] file, String name) {
        if (file.length == 0) {
            throw Problem.invalid("file-empty", "The file is empty.");
        }
        List<Table> sheets;
        try {
            sheets = begins(file, 'P', 'K')
                    ? packed(file)
                    : begins(file, OLD_OFFICE) ? old() : List.of(SeparatedText.read(file, name));
        } catch (IOException | RuntimeException e) {
            if (e instanceof Problem p) {
                throw p;
            }

            throw Problem.invalid(
                    "table-damaged", "The file cannot be read to its end: it is damaged, or not what its name says.");
        }
        List<Table> filled = sheets.stream()
                .filter(t -> t.rows().stream().anyMatch(r -> r.stream().anyMatch(c -> !c.isEmpty())))
                .toList();
        if (filled.isEmpty()) {
            throw Problem.invalid("file-empty", "There is nothing in the file.");
        }
        return filled;
    }

    private static List<Table> old() {
        throw Problem.invalid(
                "old-spreadsheet",
                "This is a workbook of the kind before 2007, or one with a password. Save it as .xlsx, .ods or CSV without one.");
    }

    /** What a zip holds says what it is; how much it holds is found out before anything of it is kept. */
    private static List<Table> packed(byte[] file) throws IOException {
        boolean isWorkbook = false;
        boolean isOpenDocument = false;
        long unpacked = 0;
        int entries = 0;
        byte[] buffer = new byte[64 * 1024];
        try (ZipFile zip = zip(file)) {
            for (ZipArchiveEntry entry : Collections.list(zip.getEntries())) {
                isWorkbook |= entry.getName().equals("xl/workbook.xml");
                isOpenDocument |= entry.getName().equals("content.xml");
                if (++entries > MOST_ENTRIES) {
                    throw tooLarge();
                }
                // What an entry says of its own size is not believed.
                try (InputStream in = zip.getInputStream(entry)) {
                    for (int n = in.read(buffer); n >= 0; n = in.read(buffer)) {
                        unpacked += n;
                        if (unpacked > MOST_UNPACKED) {
                            throw tooLarge();
                        }
                    }
                }
            }
        }
        if (isWorkbook) {
            return Workbook.read(file);
        }
        if (isOpenDocument) {
            return OpenDocument.read(file);
        }
        throw Problem.invalid(
                "no-table", "There is no table in this file. Choose a spreadsheet (.xlsx or .ods) or a CSV.");
    }

    static Problem tooLarge() {
        return Problem.invalid(
                "table-too-large",
                "A table has " + MOST_CELLS + " cells and " + MOST_COLUMNS
                        + " columns at most. Split it into several.");
    }

    private static boolean begins(byte[] file, int... with) {
        for (int i = 0; i < with.length; i++) {
            if (file.length <= i || file[i] != (byte) with[i]) {
                return false;
            }
        }
        return true;
    }

    private static boolean begins(byte[] file, byte[] with) {
        return begins(file, with[0], with[1], with[2], with[3]);
    }

    /** Collects the rows of a sheet, no more than fit. */
    static final class Rows {
        private final List<List<TableCell>> rows = new ArrayList<>();
        private List<TableCell> row = new ArrayList<>();
        private int cells;

        void cell(TableCell cell) {
            if (row.size() >= MOST_COLUMNS || cells++ >= MOST_CELLS) {
                if (cell.isEmpty()) {
                    return;
                }
                throw tooLarge();
            }
            row.add(cell);
        }

        void endRow() {
            while (!row.isEmpty() && row.get(row.size() - 1).isEmpty()) {
                row.remove(row.size() - 1);
            }
            if (rows.size() >= MOST_CELLS) {
                throw tooLarge();
            }
            rows.add(row);
            row = new ArrayList<>();
        }

        Table table(String name) {
            while (!rows.isEmpty() && rows.get(rows.size() - 1).isEmpty()) {
                rows.remove(rows.size() - 1);
            }
            return new Table(name, rows);
        }
    }

    static ZipFile zip(byte[] file) throws IOException {
        return ZipFile.builder()
                .setSeekableByteChannel(new SeekableInMemoryByteChannel(file))
                .get();
    }
}
