package yarrowmark.server.ledger.exchange;

import java.util.Locale;
import org.jspecify.annotations.Nullable;

/** Under which conditions a session of a file was measured; null where the file does not say. */
record ImportConditions(@Nullable Boolean onMains, @Nullable Boolean recording, @Nullable Boolean otherWork) {
    static final String POWER = "power";
    static final String RECORDING = "recording";
    static final String OTHER_WORK = "other work";
    static final ImportConditions UNKNOWN = new ImportConditions(null, null, null);

    static ImportConditions of(CsvFile.Row row) throws ImportCells.Refused {
        return new ImportConditions(
                choice(row, POWER, "mains", "battery"),
                choice(row, RECORDING, "yes", "no"),
                choice(row, OTHER_WORK, "yes", "no"));
    }

    private static @Nullable Boolean choice(CsvFile.Row row, String column, String yes, String no)
            throws ImportCells.Refused {
        String cell = row.cell(column).strip().toLowerCase(Locale.ROOT);
        if (cell.isEmpty()) {
            return null;
        }
        if (!cell.equals(yes) && !cell.equals(no)) {
            throw new ImportCells.Refused(column, row.cell(column), "Write " + yes + ", " + no + ", or nothing.");
        }
        return cell.equals(yes);
    }
}
