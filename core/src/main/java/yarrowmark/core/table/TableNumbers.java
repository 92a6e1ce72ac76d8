package yarrowmark.core.table;

import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** How a table writes its numbers, which a single cell often cannot say: "1,234" is one or the other. */
record TableNumbers(boolean decimalComma) {
    private static final Pattern COMMA_DECIMAL =
            Pattern.compile("-?\\d{1,3}(?:[.\\s'’]?\\d{3})*,(?:\\d{1,2}|\\d{4,})\\D*|-?0,\\d+\\D*");
    private static final Pattern POINT_DECIMAL =
            Pattern.compile("-?\\d{1,3}(?:[,\\s'’]?\\d{3})*\\.(?:\\d{1,2}|\\d{4,})\\D*|-?0\\.\\d+\\D*");
    private static final Pattern IN_THOUSANDS =
            Pattern.compile("((?:[€$£]\\s?)?[-−+]?\\d{1,3}(?:,\\d{3})+)((?:\\.\\d+)?)(\\D.*)?");
    private static final Pattern POINTS_IN_THOUSANDS =
            Pattern.compile("((?:[€$£]\\s?)?[-−+]?\\d{1,3}(?:\\.\\d{3})+)((?:,\\d+)?)(\\D.*)?");
    private static final Pattern DECIMAL_COMMA = Pattern.compile("((?:[€$£]\\s?)?[-−+]?\\d[\\d\\s'’]*),(\\d+)(\\D.*)?");

    static TableNumbers of(Table table) {
        int commas = 0;
        int points = 0;
        for (int row = 0; row < table.height(); row++) {
            for (int column = 0; column < table.width(); column++) {
                // A number of the file's own is written with a point whatever the sheet shows.
                if (table.cell(row, column).form() == TableCell.Form.TEXT) {
                    String text = table.text(row, column);
                    commas += COMMA_DECIMAL.matcher(text).matches() ? 1 : 0;
                    points += POINT_DECIMAL.matcher(text).matches() ? 1 : 0;
                }
            }
        }
        return new TableNumbers(commas > points);
    }

    /** A cell with its number as "1234.5", whatever follows it; other cells as they are. */
    String plain(TableCell cell) {
        String text = cell.text();
        if (cell.form() != TableCell.Form.TEXT) {
            return text;
        }
        Matcher thousands = (decimalComma ? POINTS_IN_THOUSANDS : IN_THOUSANDS).matcher(text);
        if (thousands.matches()) {
            return thousands.group(1).replaceAll("[.,]", "")
                    + thousands.group(2).replace(',', '.')
                    + (thousands.group(3) == null ? "" : thousands.group(3));
        }
        Matcher comma = DECIMAL_COMMA.matcher(text);
        return decimalComma && comma.matches()
                ? comma.group(1) + "." + comma.group(2) + (comma.group(3) == null ? "" : comma.group(3))
                : text;
    }
}
