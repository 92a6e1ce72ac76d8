package yarrowmark.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.support.ui.Select;

/** Somebody's spreadsheet of years: dropped, looked at, put right where it was read wrongly, and stored. */
@Order(4)
class SpreadsheetIT extends AtTheDemo {
    private static final String PHONES =
            """
            Phone;Tested;Price;Weight;RAM;Export;Archive 1;Archive 2;Harbour avg;1%;Average
            Quenby Fen;12.03.26;799 €;0,186;8 GB;58;96,2;95,8;52,6;31;66,72
            Quenby Fen Pro;14.03.26;979 €;201 g;12 GB;1:12;141,0;139,5;24,1;12;77,72
            Tarn Eddy;20.03.26;449 €;174 g;6 GB;crash on export;118,9;n/a;DNF;–;118,9
            """;

    SpreadsheetIT() {
        super(Demo.CHANGED);
    }

    private Path file(Path folder) throws IOException {
        return Files.writeString(folder.resolve("phones-2026.csv"), PHONES, StandardCharsets.UTF_8);
    }

    private void choose(Path file) {
        browser.open(program.address() + "ledger");
        browser.see("//a[.='Import']").sendKeys(Keys.ENTER);
        browser.see("//h1[.='Import']");
        browser.driver()
                .findElement(By.cssSelector("input[type=file]"))
                .sendKeys(file.toAbsolutePath().toString());
        browser.see("//h1[.='phones-2026.csv']");
        browser.see("//table[@aria-label='The sheet as it is read']");
    }

    private String column(String heading) {
        return "//button[starts-with(@aria-label, '" + heading + ", column')]";
    }

    @Test
    void aSheetIsReadPutRightByKeysAndStored(@TempDir Path folder) throws IOException {
        choose(file(folder));
        browser.seeText("3 devices");
        browser.seeText("11 scores");
        browser.see("//td[.='crash on export'][@title='A run that failed.']");
        browser.see("//p[contains(., 'is the mean of the scores in 3 of 3 rows')]");
        browser.see(
                "//p[contains(., 'no unit stands there')][contains(., 'Archive')][contains(., 'Export') = false()]");
        assertThat(browser.violations()).isEmpty();
        assertThat(browser.complaints()).isEmpty();

        // By keys alone: along the columns, and what two of them are.
        browser.see(column("Export")).sendKeys(Keys.ARROW_RIGHT);
        browser.driver().switchTo().activeElement().sendKeys(Keys.chord(Keys.SHIFT, Keys.ARROW_RIGHT));
        browser.driver().switchTo().activeElement().sendKeys(Keys.ENTER);
        browser.seeText("2 columns");
        new Select(browser.see("//label[contains(., 'better is')]//select")).selectByVisibleText("less");
        browser.until("the order to be kept", () -> browser.driver()
                .findElements(By.xpath("//p[contains(., 'no unit stands there')]"))
                .isEmpty());
        browser.see("//label[span[.='in']]//input").sendKeys(Keys.chord(Keys.CONTROL, "a"), "s", Keys.ENTER);
        browser.see("//button[starts-with(@aria-label, 'Archive 1, column')][contains(@aria-label, 'test · s')]");
        browser.keys(Keys.ESCAPE);

        browser.see("//button[.='Import all'][not(@disabled)]").click();
        browser.seeText("Stored: 11 scores and 3 states in 3 sessions.");
        // A slip can be taken back as a whole, and so can that.
        browser.see("//button[starts-with(@aria-label, 'Undo the import of')]").click();
        browser.seeText("undone by wren");
        browser.see("//button[starts-with(@aria-label, 'Restore the import of')]")
                .click();
        browser.see("//button[starts-with(@aria-label, 'Undo the import of')][not(@disabled)]");
        browser.see("//a[.='See where they stand']").click();
        browser.see("//h1[.='Standings']");
        browser.open(program.address() + "shelf?q=quenby%20fen%20pro");
        browser.see("//a[.='Quenby Fen Pro']").click();
        browser.seeText("979 EUR");
        browser.seeText("201 g");

        // The same file again is nothing new.
        choose(file(folder));
        browser.seeText("are in the ledger already");
        browser.seeText("Everything in it is there already.");
        assertThat(browser.see("//button[.='Import all']").isEnabled()).isFalse();
        assertThat(browser.complaints()).isEmpty();
    }

    @Test
    void cellsThatArePastedOnAnyViewAreReadAndOnAPhoneNothingIsWiderThanIt() {
        browser.open(program.address() + "shelf");
        browser.see("//h1[.='Shelf']");
        browser.js(
                """
                const data = new DataTransfer();
                data.setData('text/plain', 'Tablet\\tExport (s)\\tRank\\nHeron Otter\\t5\\t1\\nHeron Stoat\\t7\\t2\\n');
                document.body.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));""");
        browser.see("//h1[.='Pasted table.tsv']");
        browser.seeText("2 devices");
        browser.cdp(
                "Emulation.setDeviceMetricsOverride",
                Map.of("width", 390, "height", 844, "deviceScaleFactor", 1, "mobile", true));
        assertThat(browser.js("return document.documentElement.scrollWidth")).isEqualTo(390L);
        browser.see("//button[@aria-label='Row 2: a device']").click();
        browser.press("This row is no device");
        browser.seeText("1 device");
        browser.choose("Class of new models", "a tablet");
        assertThat(browser.complaints()).isEmpty();
        browser.cdp(
                "Emulation.setDeviceMetricsOverride",
                Map.of("width", 1280, "height", 800, "deviceScaleFactor", 1, "mobile", false));
    }

    @Test
    void whatIsNoTableIsRefusedWithWordsAndAnotherCanBeChosen(@TempDir Path folder) throws IOException {
        Path old =
                Files.write(folder.resolve("old.xls"), new byte[] {(byte) 0xd0, (byte) 0xcf, 0x11, (byte) 0xe0, 0, 0});
        browser.open(program.address() + "ledger/import");
        browser.see("//h1[.='Import']");
        browser.driver()
                .findElement(By.cssSelector("input[type=file]"))
                .sendKeys(old.toAbsolutePath().toString());
        browser.seeText("Save it as .xlsx, .ods or CSV");
        browser.driver()
                .findElement(By.cssSelector("input[type=file]"))
                .sendKeys(file(folder).toAbsolutePath().toString());
        browser.seeText("3 devices");
        assertThat(browser.complaints()).as("what the server refused").hasSize(1);
    }
}
