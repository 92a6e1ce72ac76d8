package yarrowmark.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;

/** The demo's shelf: configurations made, copied, corrected and held against each other, mostly without the mouse. */
class ShelfIT extends AtTheDemo {
    ShelfIT() {
        super(Demo.CHANGED);
    }

    private void fact(String label, String text) {
        browser.see("//input[@id=//label[.=\"" + label + "\"]/@for]").sendKeys(Keys.chord(Keys.CONTROL, "a"), text);
    }

    @Test
    void aModelItsConfigurationAndACopyAreMadeAndPutOnTheTableWithoutTheMouse() {
        browser.keys("g", "h");
        browser.see("//h1[.='Shelf']");
        browser.keys("n");
        browser.see("//button[.='Save model']");
        browser.keys("Dunlin", Keys.TAB, "Godwit 13", Keys.ENTER);
        browser.see("//h1[.='Dunlin Godwit 13']");
        browser.see("//input[@placeholder='Label or asset tag']").sendKeys("Tag 7", Keys.ENTER);
        browser.see("//h2[.='Tag 7']");
        browser.js("document.activeElement.blur()");
        browser.keys("n");
        browser.see("//h1[.='New configuration']");
        fact("Processor", "Thessaly 5");
        browser.keys(Keys.ENTER, "6", Keys.ENTER, "4");
        fact("Memory size", "16 GB");
        browser.seeText("1 GB is 1 GiB");
        fact("Firmware", "1.04");
        browser.keyWithCtrl(Keys.ENTER);
        browser.seeText("contradict each other");
        fact("Logical processors", "12");
        browser.keyWithCtrl(Keys.ENTER);
        browser.see("//h1[.='Thessaly 5 · 16 GiB']");

        browser.keys("c");
        browser.see("//h1[.='Copy of Thessaly 5 · 16 GiB']");
        fact("Firmware", "1.11");
        browser.keyWithCtrl(Keys.ENTER);
        browser.see("//h1[.='firmware 1.11']");
        browser.keys(Keys.ENTER);
        browser.until(
                "it on the table",
                () -> browser.driver()
                                .findElements(By.cssSelector("footer [data-base]"))
                                .size()
                        == 1);
        browser.keys("d");
        browser.see("//h1[.='Facts side by side']");
        browser.seeText("1.11 newer");
        // The one change of a copy is marked when it is made.
        browser.seeText("one change under test, nothing else changed");
        browser.press("not this one");
        browser.seeText("no change is marked as the one under test");
        browser.press("this is under test");
        browser.seeText("one change under test, nothing else changed");
        assertThat(browser.complaints().stream().filter(c -> !c.contains("422")))
                .isEmpty();
    }

    @Test
    void rowsAreSortedTakenTogetherAndReturnedToWithoutTheMouse() {
        browser.open(program.address() + "shelf");
        browser.press("Price");
        browser.until("the cheapest first", () -> firstRow().contains("Hawkmoor Ridge"));
        browser.press("Price");
        browser.until("the dearest first", () -> firstRow().contains("Hawkmoor Traverse 16"));
        browser.js("document.activeElement.blur()");
        browser.keys(Keys.ARROW_DOWN, Keys.SPACE, Keys.ARROW_DOWN, Keys.SPACE);
        browser.seeText("2 models selected");
        browser.press("Retire");
        browser.seeText("2 models were retired");
        browser.press("Undo");
        browser.seeText("2 models were put back on the shelf");
        browser.until("them back", () -> firstRow().contains("Hawkmoor Traverse 16"));

        browser.js("document.activeElement.blur()");
        browser.keys(Keys.ARROW_DOWN, Keys.ARROW_DOWN, Keys.ARROW_DOWN);
        String left = (String) browser.js("return document.activeElement.textContent");
        browser.keys(Keys.ENTER);
        browser.see("//h2[starts-with(., 'Unit')]");
        browser.driver().navigate().back();
        browser.until(
                "the row that was left", () -> left.equals(browser.js("return document.activeElement.textContent")));

        browser.press("columns");
        browser.see("//div[@role='option'][contains(., 'Price')]").click();
        browser.until("no price", () -> browser.driver()
                .findElements(By.xpath("//th[contains(., 'Price')]"))
                .isEmpty());
        browser.see("//div[@role='option'][contains(., 'Price')]").click();
        browser.see("//th[contains(., 'Price')]");
        browser.keys(Keys.ESCAPE);
        assertThat(browser.complaints().stream().filter(c -> !c.contains("422")))
                .isEmpty();
    }

    private String firstRow() {
        return (String) browser.js("return document.querySelector('tbody tr')?.textContent ?? ''");
    }

    @Test
    void factsAreReadFromWhatAToolPrintedAndAcceptedOneByOne() {
        browser.open(program.address() + "shelf?q=drift%2011");
        browser.see("//a[.='Pellow Drift 11']").click();
        browser.see("//h1[.='Pellow Drift 11']");
        browser.see("//a[.='copy and change']").click();
        browser.press("Read facts from text");
        browser.see("//textarea")
                .sendKeys("NAME=\"Fenland\"\nVERSION_ID=\"13.0\"\nMemTotal:   7812345 kB\na line of my own\n");
        browser.press("Read it");
        browser.seeText("3 facts recognised, from /proc/meminfo, /etc/os-release");
        browser.seeText("1 of 4 lines were not recognised");
        browser.see("//li[contains(., 'System version')]//button[.='take this one']")
                .click();
        browser.see("//li[contains(., 'System version')]//*[.='accepted']");
        browser.see("//li[contains(., 'Memory the system can use')]//button[.='accept']")
                .click();
        browser.press("Save the copy");
        browser.see("//h1[contains(., 'system 13.0')]");
        browser.see("//div[dt='Memory the system can use']/dd[contains(., 'from a tool')]");
        browser.see("//div[dt='Operating system']/dd[contains(., 'detected')]");
    }

    @Test
    void aFactOfThePastIsCorrectedWithAReasonAndTheChangeIsInTheHistory() {
        browser.open(program.address() + "shelf?q=wayfarer");
        browser.see("//a[.='Quenby Wayfarer']").click();
        browser.see("//section//li//a[contains(., 'firmware 4.9')]").click();
        browser.see("//h1[contains(., 'firmware 4.9')]");
        browser.js("document.querySelector(\"button[aria-label='Correct Firmware']\").click()");
        browser.type("It was", "4.91");
        browser.type("How do you know", "read again from the label");
        browser.press("Correct it");
        browser.see(
                "//h2[.='Corrections']/following-sibling::p[contains(., '4.9') and contains(., '4.91') and contains(., 'read again from the label')]");
        browser.seeText("because: read again from the label");
    }

    @Test
    void theShelfIsFoundByFactsAndTellsWhatMustGoBack() {
        browser.open(program.address() + "shelf");
        browser.seeText("2 days overdue");
        browser.choose("Fact", "memory size");
        browser.choose("How", "at least");
        browser.type("Value of Memory size", "32 GB");
        browser.keys(Keys.ENTER);
        browser.until(
                "three models",
                () -> browser.see("//*[@role='status']").getText().equals("4 models"));
        browser.see("//input[starts-with(@aria-label, 'Words of its name')]").sendKeys("corvane 9");
        browser.until(
                "fewer models",
                () -> browser.see("//*[@role='status']").getText().equals("2 models"));
        browser.driver().navigate().refresh();
        browser.until(
                "the sentence is in the address",
                () -> browser.see("//*[@role='status']").getText().equals("2 models"));
    }

    @Test
    void aPhotoThatIsNoneIsRefusedInWords(@TempDir Path folder) throws java.io.IOException {
        Path file = Files.writeString(
                folder.resolve("photo.png"),
                "<svg xmlns='http://www.w3.org/2000/svg'><script/></svg>",
                StandardCharsets.UTF_8);
        browser.open(program.address() + "shelf?q=fell");
        browser.see("//a[.='Ostler Fell']").click();
        browser.see("//h1[.='Ostler Fell']");
        browser.driver()
                .findElement(By.cssSelector("input[type=file]"))
                .sendKeys(file.toAbsolutePath().toString());
        browser.seeText("Drawings in SVG may hold programs");
    }

    @Test
    void aChecklistIsEditedInPlace() {
        browser.open(program.address() + "shelf/checklists");
        browser.press("Edit the list for a board");
        browser.see("//textarea").sendKeys(Keys.chord(Keys.CONTROL, Keys.END), "\nThe card is in its slot");
        browser.press("Save");
        browser.see("//li[.='The card is in its slot']");
    }

    /** Each score costs its digits and one Enter: 30 of them are typed and then read back from the ledger. */
    @Test
    void aSuiteIsMadeAndThirtyScoresAreTypedWithOneKeyBeyondTheDigits() {
        browser.keys("g", "u");
        browser.see("//h1[.='Suites']");
        browser.keys("n");
        browser.type("Suite", "Meadow tasks");
        StringBuilder lines = new StringBuilder();
        for (int i = 1; i <= 10; i++) {
            lines.append("Task ").append(i).append(", s, less\n");
        }
        browser.see("//textarea").sendKeys(lines);
        browser.seeText("Task 10");
        browser.see("//button[.='Save suite'][not(@disabled)]").click();
        browser.see("//h2[.='Meadow tasks 1']");
        browser.open(program.address() + "shelf?q=shire");
        browser.see("//a[.='Ostler Shire']").click();
        browser.see("//h1[.='Ostler Shire']");
        browser.keys(Keys.ARROW_DOWN);
        browser.keys(Keys.ENTER);
        browser.see("//h2[.='This configuration']");
        browser.keys("s");
        browser.see("//legend//label[contains(., 'Meadow tasks')]//input").click();
        browser.press("Start the session");
        browser.see("//h1[.='Scores of Meadow tasks 1']");
        browser.see("//*[@data-place='active']");
        int beyond = 0;
        for (int i = 0; i < 30; i++) {
            browser.keys(Integer.toString(60 + i));
            browser.keys(Keys.ENTER);
            beyond++;
        }
        assertThat(beyond).isEqualTo(30);
        browser.see("//button[@aria-label='Task 10, run 3: 89 s']");
        assertThat(browser.driver().findElements(By.xpath("//button[contains(@aria-label, 'nothing typed')]")))
                .isEmpty();

        browser.keys(Keys.ARROW_UP);
        browser.keys("430");
        browser.seeText("More than three times away");
        browser.keys(Keys.ENTER);
        browser.see("//button[starts-with(@aria-label, 'Task 9, run 3: 4')]");
        browser.see("//a[.='Its readings']").click();
        browser.until("all of them in the ledger", () -> browser.text().contains("31 "));
    }
}
