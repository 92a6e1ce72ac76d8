package yarrowmark.server.ledger.table;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.List;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.dhatim.fastexcel.Worksheet;
import org.junit.jupiter.api.Test;
import yarrowmark.core.table.Table;
import yarrowmark.core.table.TableCell;
import yarrowmark.server.platform.Problem;

class TableFileTest {
    private static Table only(byte[] file) {
        List<Table> sheets = TableFile.read(file, "a");
        assertThat(sheets).hasSize(1);
        return sheets.get(0);
    }

    private static List<String> row(Table table, int row) {
        return table.rows().get(row).stream().map(TableCell::text).toList();
    }

    private static Table text(String text) {
        return only(text.getBytes(StandardCharsets.UTF_8));
    }

    @Test
    void separatorsAndEncodingsAreFound() {
        assertThat(row(text("Device;Export, s\nCob;1,5\n"), 1)).containsExactly("Cob", "1,5");
        assertThat(row(text("Device\tExport\nCob\t1,5\n"), 1)).containsExactly("Cob", "1,5");
        assertThat(row(text("Device,Export\n\"Cob, mini\",1.5\n"), 1)).containsExactly("Cob, mini", "1.5");
        assertThat(row(text("Device|Export\nCob|1.5"), 0)).containsExactly("Device", "Export");
        assertThat(row(only("Gerät;Läufe\nCob;3\n".getBytes(Charset.forName("windows-1252"))), 0))
                .containsExactly("Gerät", "Läufe");
        byte[] wide = "\ufeffGerät;Läufe\nCob;3\n".getBytes(StandardCharsets.UTF_16LE);
        assertThat(row(only(wide), 0)).containsExactly("Gerät", "Läufe");
        assertThat(row(text("\ufeffDevice,Export\nמכשיר,3\n"), 1)).containsExactly("מכשיר", "3");
    }

    @Test
    void aWorkbookGivesKeptValuesAsTheyAreShown() throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (org.dhatim.fastexcel.Workbook book = new org.dhatim.fastexcel.Workbook(out, "a", "1.0")) {
            Worksheet sheet = book.newWorksheet("Minis");
            sheet.value(0, 0, "Device");
            sheet.value(2, 0, "Cob mini");
            sheet.value(2, 1, 96.2);
            sheet.value(2, 2, LocalDate.of(2026, 3, 12));
            sheet.style(2, 2).format("dd.mm.yyyy").set();
            sheet.value(2, 3, 0.45);
            sheet.style(2, 3).format("0 %").set();
            sheet.value(2, 4, 72 / 86_400.0);
            sheet.style(2, 4).format("h:mm:ss").set();
            sheet.value(2, 5, 799);
            sheet.style(2, 5).format("#,##0 [$€-407]").set();
            sheet.formula(2, 6, "1/0");
            book.newWorksheet("Nothing");
        }
        Table table = only(out.toByteArray());
        assertThat(table.name()).isEqualTo("Minis");
        assertThat(table.height()).isEqualTo(3);
        assertThat(row(table, 1)).isEmpty();
        assertThat(row(table, 2).subList(0, 6))
                .containsExactly("Cob mini", "96.2", "2026-03-12", "45 %", "0:01:12", "799 €");
        assertThat(table.cell(2, 2).form()).isEqualTo(TableCell.Form.DATE);
    }

    private static byte[] zip(String name, String content) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            zip.putNextEntry(new ZipEntry(name));
            zip.write(content.getBytes(StandardCharsets.UTF_8));
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
        return out.toByteArray();
    }

    private static byte[] openDocument(String rows) {
        return zip(
                "content.xml",
                """
                <office:document-content xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" xmlns:table="urn:oasis:names:tc:opendocument:xmlns:table:1.0" xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0">
                <office:body><office:spreadsheet><table:table table:name="Phones">"""
                        + rows
                        + "</table:table></office:spreadsheet></office:body></office:document-content>");
    }

    @Test
    void anOpenDocumentGivesItsCellsRepeatedOnesToo() {
        Table table = only(
                openDocument(
                        """
                <table:table-row><table:table-cell office:value-type="string"><text:p>Device</text:p><office:annotation><text:p>a remark</text:p></office:annotation></table:table-cell><table:table-cell table:number-columns-repeated="2"/><table:table-cell office:value-type="string"><text:p>Export</text:p></table:table-cell></table:table-row>
                <table:table-row table:number-rows-repeated="2"><table:table-cell office:value-type="string"><text:p>Wader</text:p></table:table-cell><table:table-cell office:value-type="date" office:date-value="2026-03-12T00:00:00"><text:p>12.03.26</text:p></table:table-cell><table:table-cell office:value-type="currency" office:currency="EUR" office:value="799"><text:p>799 €</text:p></table:table-cell><table:table-cell office:value-type="float" office:value="96.2"><text:p>96,2</text:p></table:table-cell></table:table-row>
                <table:table-row table:number-rows-repeated="1048573"><table:table-cell table:number-columns-repeated="16384"/></table:table-row>"""));
        assertThat(table.name()).isEqualTo("Phones");
        assertThat(table.height()).isEqualTo(3);
        assertThat(row(table, 0)).containsExactly("Device", "", "", "Export");
        assertThat(row(table, 2)).containsExactly("Wader", "2026-03-12", "799 EUR", "96.2");
    }

    @Test
    void aNumberWithoutEndIsNotWrittenOut() {
        Table table = only(
                openDocument(
                        "<table:table-row><table:table-cell office:value-type=\"float\" office:value=\"1E999999999\"/></table:table-row>"));
        assertThat(row(table, 0)).containsExactly("1E+999999999");
    }

    private static void refused(byte[] file, String code) {
        assertThatThrownBy(() -> TableFile.read(file, "a"))
                .isInstanceOfSatisfying(Problem.class, p -> assertThat(p.code()).isEqualTo(code));
    }

    @Test
    void whatIsNoTableIsRefusedWithWords() {
        refused(new byte[0], "file-empty");
        refused(" \n \n".getBytes(StandardCharsets.UTF_8), "file-empty");
        refused(new byte[] {(byte) 0xd0, (byte) 0xcf, 0x11, (byte) 0xe0, 1}, "old-spreadsheet");
        refused(new byte[] {1, 2, 0, 3}, "no-table");
        refused(zip("a.txt", "hello"), "no-table");
        refused("a,\"b\nc,d".repeat(3).getBytes(StandardCharsets.UTF_8), "not-csv");
        refused(zip("content.xml", "<a><b></a>"), "table-damaged");
        refused(new byte[] {'P', 'K', 3, 4, 5}, "table-damaged");
    }

    @Test
    void neitherABombNorATableWithoutEndIsUnpacked() {
        refused(zip("content.xml", "0".repeat(401 * 1024 * 1024)), "table-too-large");
        refused(
                openDocument(
                        "<table:table-row table:number-rows-repeated=\"9999999\"><table:table-cell office:value-type=\"float\" office:value=\"1\"/></table:table-row>"),
                "table-too-large");
        refused(("x" + ",x".repeat(700)).getBytes(StandardCharsets.UTF_8), "table-too-large");
    }

    @Test
    void nothingOutsideOfAFileIsFollowed() {
        byte[] file = zip(
                "content.xml",
                "<!DOCTYPE a [<!ENTITY x SYSTEM \"file:///etc/hostname\">]><office:document-content xmlns:office=\"urn:oasis:names:tc:opendocument:xmlns:office:1.0\" xmlns:table=\"urn:oasis:names:tc:opendocument:xmlns:table:1.0\" xmlns:text=\"urn:oasis:names:tc:opendocument:xmlns:text:1.0\"><table:table table:name=\"a\"><table:table-row><table:table-cell office:value-type=\"string\"><text:p>&x;</text:p></table:table-cell></table:table-row></table:table></office:document-content>");
        assertThatThrownBy(() -> TableFile.read(file, "a")).isInstanceOf(Problem.class);
    }
}
