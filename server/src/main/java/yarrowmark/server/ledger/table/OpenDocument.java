package yarrowmark.server.ledger.table;

import java.io.IOException;
import java.io.InputStream;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.apache.commons.compress.archivers.zip.ZipFile;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.table.Table;
import yarrowmark.core.table.TableCell;
import yarrowmark.server.platform.Problem;

/** An .ods spreadsheet (OpenDocument 1.2, part 1, section 9), read in one pass. */
final class OpenDocument {
    private static final String OFFICE = "urn:oasis:names:tc:opendocument:xmlns:office:1.0";
    private static final String TABLE = "urn:oasis:names:tc:opendocument:xmlns:table:1.0";
    private static final String TEXT = "urn:oasis:names:tc:opendocument:xmlns:text:1.0";

    private OpenDocument() {}

    static List<Table> read(byte[] file) throws IOException {
        XMLInputFactory factory = XMLInputFactory.newDefaultFactory();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        List<Table> sheets = new ArrayList<>();
        try (ZipFile zip = TableFile.zip(file);
                InputStream content = zip.getInputStream(zip.getEntry("content.xml"))) {
            XMLStreamReader xml = factory.createXMLStreamReader(content);
            while (xml.hasNext() && sheets.size() < TableFile.MOST_SHEETS) {
                if (xml.next() == XMLStreamConstants.START_ELEMENT && is(xml, TABLE, "table")) {
                    sheets.add(sheet(xml));
                }
            }
        } catch (XMLStreamException e) {
            throw Problem.invalid("table-damaged", "The spreadsheet cannot be read to its end.");
        }
        return sheets;
    }

    private static Table sheet(XMLStreamReader xml) throws XMLStreamException {
        String name = attribute(xml, TABLE, "name", "");
        TableFile.Rows rows = new TableFile.Rows();
        int blank = 0;
        while (xml.hasNext()) {
            int event = xml.next();
            if (event == XMLStreamConstants.END_ELEMENT && is(xml, TABLE, "table")) {
                break;
            }
            if (event == XMLStreamConstants.START_ELEMENT && is(xml, TABLE, "table-row")) {
                int times = Integer.parseInt(attribute(xml, TABLE, "number-rows-repeated", "1"));
                List<TableCell> cells = row(xml);
                // Empty rows up to the end of the sheet are written as one, a million times.
                if (cells.isEmpty()) {
                    blank += times;
                } else {
                    for (; blank > 0; blank--) {
                        rows.endRow();
                    }
                    for (int i = 0; i < times; i++) {
                        cells.forEach(rows::cell);
                        rows.endRow();
                    }
                }
            }
        }
        return rows.table(name);
    }

    private static List<TableCell> row(XMLStreamReader xml) throws XMLStreamException {
        List<TableCell> cells = new ArrayList<>();
        int blank = 0;
        while (xml.hasNext()) {
            int event = xml.next();
            if (event == XMLStreamConstants.END_ELEMENT && is(xml, TABLE, "table-row")) {
                break;
            }
            if (event == XMLStreamConstants.START_ELEMENT
                    && (is(xml, TABLE, "table-cell") || is(xml, TABLE, "covered-table-cell"))) {
                int times = Integer.parseInt(attribute(xml, TABLE, "number-columns-repeated", "1"));
                TableCell cell = cell(xml);
                if (cell.isEmpty()) {
                    blank += times;
                } else {
                    if (cells.size() + blank + (long) times > TableFile.MOST_COLUMNS) {
                        throw TableFile.tooLarge();
                    }
                    for (; blank > 0; blank--) {
                        cells.add(TableCell.EMPTY);
                    }
                    for (int i = 0; i < times; i++) {
                        cells.add(cell);
                    }
                }
            }
        }
        return cells;
    }

    private static TableCell cell(XMLStreamReader xml) throws XMLStreamException {
        String type = attribute(xml, OFFICE, "value-type", "");
        String value = attribute(xml, OFFICE, "value", "");
        String date = attribute(xml, OFFICE, "date-value", "");
        String currency = attribute(xml, OFFICE, "currency", "");
        String element = xml.getLocalName();
        StringBuilder shown = new StringBuilder();
        int notes = 0;
        while (xml.hasNext()) {
            int event = xml.next();
            if (event == XMLStreamConstants.START_ELEMENT) {
                notes += is(xml, OFFICE, "annotation") ? 1 : 0;
                if (is(xml, TEXT, "p") && notes == 0 && !shown.isEmpty()) {
                    shown.append(' ');
                }
            } else if (event == XMLStreamConstants.CHARACTERS && notes == 0) {
                shown.append(xml.getText());
            } else if (event == XMLStreamConstants.END_ELEMENT) {
                notes -= is(xml, OFFICE, "annotation") ? 1 : 0;
                if (is(xml, TABLE, element)) {
                    break;
                }
            }
        }
        String text = shown.toString().strip();
        return switch (type) {
            case "float" -> new TableCell(Workbook.plain(new BigDecimal(value)), TableCell.Form.NUMBER);
            case "percentage" ->
                new TableCell(Workbook.plain(new BigDecimal(value).movePointRight(2)) + " %", TableCell.Form.NUMBER);
            case "currency" ->
                new TableCell(
                        Workbook.plain(new BigDecimal(value)) + (currency.isEmpty() ? "" : " " + currency),
                        TableCell.Form.NUMBER);
            case "date" -> new TableCell(date.substring(0, Math.min(10, date.length())), TableCell.Form.DATE);
            default ->
                text.startsWith("#") && text.endsWith("!") || text.startsWith("Err:")
                        ? new TableCell(text, TableCell.Form.ERROR)
                        : TableCell.of(text);
        };
    }

    private static boolean is(XMLStreamReader xml, String space, String name) {
        return name.equals(xml.getLocalName()) && space.equals(xml.getNamespaceURI());
    }

    private static String attribute(XMLStreamReader xml, String space, String name, String otherwise) {
        @Nullable String value = xml.getAttributeValue(space, name);
        return value == null ? otherwise : value;
    }
}
