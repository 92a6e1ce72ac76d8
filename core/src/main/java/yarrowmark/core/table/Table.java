package yarrowmark.core.table;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;

/** One sheet. Rows may be of different lengths; what lies beyond their end is empty. */
public record Table(String name, List<List<TableCell>> rows) {
    public Table {
        rows = rows.stream().map(List::copyOf).toList();
    }

    public int height() {
        return rows.size();
    }

    public int width() {
        return rows.stream().mapToInt(List::size).max().orElse(0);
    }

    public TableCell cell(int row, int column) {
        List<TableCell> cells = row < rows.size() ? rows.get(row) : List.of();
        return column < cells.size() ? cells.get(column) : TableCell.EMPTY;
    }

    public String text(int row, int column) {
        return cell(row, column).text();
    }

    /** How many cells of a row have something in them. */
    public int filled(int row) {
        return (int) rows.get(row).stream().filter(c -> !c.isEmpty()).count();
    }

    /** Its rows as columns. */
    public Table transposed() {
        List<List<TableCell>> turned = new ArrayList<>();
        for (int column = 0; column < width(); column++) {
            int at = column;
            turned.add(IntStream.range(0, height()).mapToObj(r -> cell(r, at)).toList());
        }
        return new Table(name, turned);
    }
}
