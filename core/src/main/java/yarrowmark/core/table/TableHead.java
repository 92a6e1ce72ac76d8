package yarrowmark.core.table;

import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.IntStream;

/** The rows that name the columns of a table, and what stands above and below them. */
final class TableHead {
    private static final Pattern NUMBER_LIKE = Pattern.compile(
            "[-−+]?[€$£]?\\s?\\d[\\d\\s.,'’]*\\s*(?:[€$£%]|[A-Za-zµ°²/()]{1,8})?|\\d{1,3}:\\d{2}(?::\\d{2})?(?:[.,]\\d+)?");
    /** What stands over columns of runs is no measured number. */
    private static final Pattern RUN_NUMBER = Pattern.compile("[1-9]");

    private static final int HEADER_DEPTH = 12;

    private final Table table;
    private int from;
    private int to;

    /** The first rows in which most cells are words, above one in which most are numbers. */
    TableHead(Table table) {
        this.table = table;
        int width = table.width();
        int best = -1;
        for (int row = 0; row < Math.min(table.height(), HEADER_DEPTH); row++) {
            if (table.filled(row) >= Math.max(2, width / 3) && numbers(row) * 2 <= table.filled(row)) {
                // A first device without numbers looks like a header, too, but says less of what columns are.
                best = best < 0 || saying(row) > saying(best) ? row : best;
                if (row + 1 < table.height() && numbers(row + 1) * 3 >= table.filled(row + 1) && numbers(row + 1) > 0) {
                    break;
                }
            }
        }
        best = Math.max(0, best);
        to = isUnits(best + 1) ? best + 1 : best;
        from = best;
        while (from > 0 && table.filled(from - 1) >= 2 && numbers(from - 1) == 0) {
            from--;
        }
    }

    int from() {
        return from;
    }

    /** The last row of it. */
    int to() {
        return to;
    }

    private boolean isUnits(int row) {
        return row < table.height()
                && table.filled(row) > 0
                && table.rows().get(row).stream()
                        .allMatch(c ->
                                c.isEmpty() || !HeaderWords.unitOf(c.text()).isEmpty());
    }

    private long saying(int row) {
        return table.rows().get(row).stream()
                .map(c -> HeaderWords.of(c.text()))
                .filter(HeaderWords::saysSomething)
                .count();
    }

    private int numbers(int row) {
        return (int) IntStream.range(0, table.width())
                .filter(c -> isNumber(table.cell(row, c))
                        && !RUN_NUMBER.matcher(table.text(row, c)).matches())
                .count();
    }

    static boolean isNumber(TableCell cell) {
        return cell.form() == TableCell.Form.NUMBER
                || cell.form() == TableCell.Form.DATE
                || cell.form() == TableCell.Form.TEXT
                        && NUMBER_LIKE.matcher(cell.text()).matches();
    }

    /**
     * The words above a column. Of two header rows the upper one names what the lower one goes on with: "2" below "Archive",
     * or "multi" where several have it; where the lower one has a name of its own, the upper one is a heading of many.
     */
    String heading(int column) {
        String own = table.text(to, column);
        if (from == to) {
            return own;
        }
        HeaderWords words = HeaderWords.of(own);
        boolean isPart = !own.isEmpty()
                && (words.name().isEmpty()
                        || own.matches("\\d{1,2}")
                        || !HeaderWords.unitOf(own).isEmpty()
                        || isRepeated(own));
        String above = "";
        for (int row = to - 1; row >= from && above.isEmpty(); row--) {
            above = table.text(row, column);
            for (int before = column - 1; isPart && before > 0 && above.isEmpty(); before--) {
                above = table.text(row, before);
            }
        }
        return own.isEmpty() ? above : isPart && !above.isEmpty() ? joined(above, own) : own;
    }

    private static String joined(String above, String own) {
        return own.matches("\\d{1,2}")
                ? above + " run " + own
                : above + (HeaderWords.unitOf(own).isEmpty() ? " " + own : " (" + own + ")");
    }

    private boolean isRepeated(String own) {
        return IntStream.range(0, table.width())
                        .filter(c -> table.text(to, c).equals(own))
                        .count()
                > 1;
    }

    List<TableCell> below(int column) {
        return IntStream.range(to + 1, table.height())
                .filter(r -> table.filled(r) > 1)
                .mapToObj(r -> table.cell(r, column))
                .filter(c -> !c.isEmpty())
                .toList();
    }

    /** What stands above the header. */
    String titles() {
        StringBuilder all = new StringBuilder();
        for (int row = 0; row < from; row++) {
            table.rows().get(row).forEach(c -> all.append(c.text()).append(' '));
        }
        return all.toString();
    }

    /** How many columns have a heading that says what it is, or a unit. */
    double namedColumns() {
        double named = 0;
        Set<ColumnRole> roles = new HashSet<>();
        for (int column = 0; column < table.width(); column++) {
            HeaderWords of = HeaderWords.of(heading(column));
            Optional<ColumnRole> role = of.role();
            if (of.field().isPresent() || of.fact().isPresent()) {
                named += 1;
            } else if (role.isPresent()) {
                // Once each: "Tablet" over every other column is a heading that comes again.
                named += !roles.add(role.get())
                        ? 0
                        : role.get() == ColumnRole.CHECK || role.get() == ColumnRole.IGNORED ? 0.5 : 1;
            } else if (of.saysSomething()) {
                named += 0.7;
            }
        }
        return named;
    }
}
