package yarrowmark.core.table;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * What a table says once its layout is settled: devices, their scores and states, and each cell that could not be read.
 *
 * @param devices in the order of their rows
 * @param remarks cells that are kept as a state, or could not be read, by row and column of the turned table
 */
public record TableReading(List<Device> devices, List<Score> scores, List<Remark> remarks, List<Check> checks) {
    /** A fact that keeps apart what a footnote alone tells apart. */
    public static final String NOTE_FACT = "sheet.note";

    /**
     * @param name    as it stands in the table
     * @param fields  of the model, as people type them
     * @param facts   in their base units
     * @param again   how many rows before have the same model and the same facts
     */
    public record Device(
            int row,
            String name,
            String maker,
            String model,
            Optional<KnownNames.Named> nearest,
            boolean isKnown,
            String deviceClass,
            String unit,
            LocalDate date,
            String session,
            String note,
            Map<String, String> fields,
            Map<String, String> facts,
            int again) {}

    /** @param value absent for a run without one, of which words say why */
    public record Score(
            int row,
            int column,
            ColumnPlan test,
            Optional<Double> value,
            double resolution,
            boolean ran,
            String words) {}

    public record Remark(int row, int column, Kind kind, String words) {
        public enum Kind {
            /** Kept as a run without a value. */
            STATE,
            /** Nothing is made of it. */
            UNREAD
        }
    }

    /** A mean or total of the sheet's own beside what its row comes to. @param rows that differ */
    public record Check(int column, String heading, String of, int agreeing, List<Integer> rows) {}

    public static TableReading of(Table file, TableLayout layout, KnownNames known) {
        return new TableReader(layout.turned(file), layout, known).read();
    }
}
