package yarrowmark.server.ledger.table;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.math.BigDecimal;
import java.math.MathContext;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import org.dhatim.fastexcel.reader.Cell;
import org.dhatim.fastexcel.reader.CellType;
import org.dhatim.fastexcel.reader.ReadableWorkbook;
import org.dhatim.fastexcel.reader.ReadingOptions;
import org.dhatim.fastexcel.reader.Row;
import org.dhatim.fastexcel.reader.Sheet;
import org.dhatim.fastexcel.reader.SheetVisibility;
import yarrowmark.core.table.Table;
import yarrowmark.core.table.TableCell;

/** An .xlsx workbook, row by row; of formulas the values that were kept with them. */
final class Workbook {
    /** Numbers are kept in binary: 96.2 would otherwise come as 96.200000000000003. */
    private static final MathContext AS_SHOWN = new MathContext(15);

    private static final int MOST_DIGITS = 400;
    private static final double MINUTES_A_DAY = 1440;
    private static final double SECONDS_A_DAY = 86_400;

    private Workbook() {}

    static List<Table> read(byte[] file) throws IOException {
        List<Table> sheets = new ArrayList<>();
        try (ReadableWorkbook book =
                new ReadableWorkbook(new ByteArrayInputStream(file), new ReadingOptions(true, false))) {
            for (Sheet sheet : book.getSheets().limit(TableFile.MOST_SHEETS).toList()) {
                if (sheet.getVisibility() == SheetVisibility.VISIBLE) {
                    sheets.add(sheet(sheet));
                }
            }
        }
        return sheets;
    }

    private static Table sheet(Sheet sheet) throws IOException {
        TableFile.Rows rows = new TableFile.Rows();
        try (Stream<Row> all = sheet.openStream()) {
            int at = 1;
            for (Row row : (Iterable<Row>) all::iterator) {
                for (; at < row.getRowNum(); at++) {
                    rows.endRow();
                }
                for (int column = 0; column < row.getCellCount(); column++) {
                    Cell cell = column < row.getCellCount() ? row.getCell(column) : null;
                    rows.cell(cell == null ? TableCell.EMPTY : cell(cell));
                }
                rows.endRow();
                at++;
            }
        }
        return rows.table(sheet.getName());
    }

    private static TableCell cell(Cell cell) {
        if (cell.getType() == CellType.ERROR) {
            return new TableCell(cell.getText(), TableCell.Form.ERROR);
        }
        if (cell.getType() == CellType.NUMBER || isNumericFormula(cell)) {
            return number(cell);
        }
        String text = cell.getType() == CellType.FORMULA ? cell.getRawValue() : cell.getText();
        return text == null
                ? TableCell.EMPTY
                : text.startsWith("#") && text.endsWith("!")
                        ? new TableCell(text, TableCell.Form.ERROR)
                        : TableCell.of(text);
    }

    private static boolean isNumericFormula(Cell cell) {
        return cell.getType() == CellType.FORMULA
                && cell.getRawValue() != null
                && cell.getRawValue().matches("-?\\d+(?:\\.\\d+)?(?:[eE][-+]?\\d+)?");
    }

    private static TableCell number(Cell cell) {
        BigDecimal value = new BigDecimal(cell.getRawValue()).round(AS_SHOWN);
        String format = cell.getDataFormatString() == null
                ? ""
                : cell.getDataFormatString()
                        .toLowerCase(Locale.ROOT)
                        .replaceAll("\\[\\$[^\\]]*\\]|\"[^\"]*\"|\\\\.", "");
        if (format.contains("%")) {
            return new TableCell(plain(value.movePointRight(2)) + " %", TableCell.Form.NUMBER);
        }
        if (format.contains("y") || format.contains("d") && format.contains("m")) {
            LocalDateTime date = cell.asDate();
            return new TableCell(date.toLocalDate().toString(), TableCell.Form.DATE);
        }
        if (format.contains("h") || format.contains("m:s") || format.contains("mm:ss")) {
            return new TableCell(clock(value.doubleValue(), format.contains("s")), TableCell.Form.TEXT);
        }
        String currency = currency(cell.getDataFormatString());
        return new TableCell(plain(value) + (currency.isEmpty() ? "" : " " + currency), TableCell.Form.NUMBER);
    }

    private static String currency(String format) {
        for (String sign : List.of("€", "£", "$", "EUR", "USD", "GBP", "CHF")) {
            // "[$-409]" is a language and no money.
            if (format != null && format.replaceAll("\\[\\$-[^\\]]*\\]", "").contains(sign)) {
                return sign;
            }
        }
        return "";
    }

    /** A share of a day, as its format shows it: with hours and minutes, or with seconds. */
    private static String clock(double days, boolean hasSeconds) {
        if (!hasSeconds) {
            long minutes = Math.round(days * MINUTES_A_DAY);
            return minutes / 60 + ":" + String.format(Locale.ROOT, "%02d", minutes % 60);
        }
        long seconds = Math.round(days * SECONDS_A_DAY);
        return seconds / 3600 + ":" + String.format(Locale.ROOT, "%02d:%02d", seconds / 60 % 60, seconds % 60);
    }

    static String plain(BigDecimal value) {
        // Written out, 1E999999999 would fill the memory; as it stands it is no score, and that is said.
        if (Math.abs((long) value.scale()) > MOST_DIGITS) {
            return value.toString();
        }
        return value.signum() == 0 ? "0" : value.stripTrailingZeros().toPlainString();
    }
}
