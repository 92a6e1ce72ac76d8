package yarrowmark.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.support.ui.Select;

/** Scores from anywhere: of every kind, out of text and files, corrected, set aside, and carried out by plan. */
@Order(4)
class ScoresIT extends AtTheDemo {
    ScoresIT() {
        super(Demo.CHANGED);
    }

    private void makeSuite(String name, String lines) {
        browser.open(program.address() + "suites");
        browser.press("New suite n");
        browser.type("Suite", name);
        browser.see("//textarea").sendKeys(lines);
        browser.see("//button[.='Save suite'][not(@disabled)]").click();
        browser.see("//h2//a[.='" + name + " 1']").click();
        browser.see("//h1[.='" + name + " 1']");
    }

    private void startSession(String model, String suite) {
        browser.open(program.address() + "shelf?q=" + model.replace(" ", "%20"));
        browser.see("//a[.='" + model + "']").click();
        browser.see("//h1[.='" + model + "']");
        browser.see("//a[contains(@href, '/shelf/configurations/')]").click();
        browser.see("//h2[.='This configuration']");
        browser.keys("s");
        browser.see("//legend//label[contains(., '" + suite + "')]//input").click();
        browser.see("//button[.='Start the session'][not(@disabled)]").click();
        browser.see("//h1[starts-with(., 'Scores of')]");
    }

    @Test
    void aRuleIsMadeByMarkingAndPastedTextBecomesScoresThatOthersAreComputedFrom(@TempDir Path folder)
            throws IOException {
        makeSuite(
                "Causeway",
                "Started, s, less\nFirmware, s, less\nWakes, check\nRead over size, MB/s, more, curve over B");
        browser.press("Computed value");
        browser.type("Computed value", "System start");
        browser.see("//input[@placeholder='started - firmware']").sendKeys("a - b");
        for (String input : new String[] {"a", "b"}) {
            new Select(browser.see("//select[@aria-label='What " + input + " stands for']"))
                    .selectByVisibleText(input.equals("a") ? "Started (Causeway 1), s" : "Firmware (Causeway 1), s");
        }
        browser.see("//button[.='Add'][not(@disabled)]").click();
        browser.see("//code[.='a - b']");

        browser.press("Reading rule");
        browser.see("//textarea").sendKeys("Started after 14.2 s\nFirmware took 5.1 s\n");
        for (String number : new String[] {"14.2", "5.1"}) {
            browser.js("const t = document.querySelector('textarea'); const i = t.value.indexOf('" + number
                    + "'); t.focus(); t.setSelectionRange(i, i + " + number.length() + ")");
            browser.press("Read the marked number");
            browser.seeText("Reads " + number + " s");
        }
        browser.see("//button[.='Save rule'][not(@disabled)]").click();
        browser.seeText("no longer use it");

        startSession("Ostler Shire", "Causeway");
        browser.press("Paste what a tool printed");
        browser.see("//section[.//button[.='Cancel']]//textarea")
                .sendKeys("Started after 15.0 s\nFirmware took 5.0 s\nStarted after 15.4 s\nFirmware took 5.2 s\n");
        browser.see("//button[.='Store 4 scores'][not(@disabled)]").click();
        browser.see("//button[@aria-label='Started, run 2: 15.4 s']");
        browser.seeText("Computed from these");
        browser.seeText("10.2 s");
        browser.see("//button[starts-with(., 'pasted text')]").click();
        browser.seeText("Firmware took 5.2 s");
        browser.press("Close");

        Path photo = Files.writeString(folder.resolve("log.txt"), "power meter: 31 W", StandardCharsets.UTF_8);
        browser.driver()
                .findElement(By.cssSelector("aside input[type=file][multiple]"))
                .sendKeys(photo.toAbsolutePath().toString());
        browser.see("//button[.='log.txt']");

        browser.see("//button[@aria-label='Wakes, run 1: nothing typed']").click();
        browser.keys("fail: stays dark", Keys.ENTER);
        browser.see("//button[@aria-label='Wakes, run 1: fail: stays dark']");
        browser.see("//button[@aria-label='Read over size, run 1: nothing typed']")
                .click();
        browser.see("//textarea[contains(@placeholder, '128.5')]").sendKeys("512; 40\n4 KiB; 310\n1 MiB; 2100");
        browser.press("Store run 1");
        browser.see("//button[starts-with(@aria-label, 'Read over size, run 1: 2')]");
    }

    @Test
    void aReadingIsCorrectedAndAViewIsSetAsideTakenBackAndSaved() {
        makeSuite("Breakwater", "Export, s, less");
        startSession("Ostler Fell", "Breakwater");
        browser.see("//*[@data-place='active']");
        for (String typed : new String[] {"141", "142", "14.3"}) {
            browser.keys(typed, Keys.ENTER);
        }
        browser.see("//button[@aria-label='Export, run 3: 14.3 s']");
        browser.see("//a[.='Its readings']").click();
        browser.see("//button[contains(., '14.3')]").click();
        browser.press("Correct the value");
        browser.type("Right is", "143");
        browser.type("because", "the point slipped");
        browser.press("Correct it");
        browser.seeText("Stands for");
        browser.press("Close");
        browser.seeText("set aside: Corrected: the point slipped");

        browser.press("Set all aside");
        browser.see("//input[@placeholder='wrong cable, an old firmware']").sendKeys("wrong profile");
        browser.see("//button[.='Set 3 aside'][not(@disabled)]").click();
        browser.seeText("3 readings were set aside");
        browser.until("none counts", () -> browser.driver()
                .findElements(By.xpath("//button[@data-line][not(contains(@class, 'line-through'))]"))
                .isEmpty());
        browser.press("Undo");
        browser.until(
                "three count again",
                () -> browser.driver()
                                .findElements(By.xpath("//button[@data-line][not(contains(@class, 'line-through'))]"))
                                .size()
                        == 3);

        browser.press("Saved views");
        browser.see("//input[@maxlength='80']").sendKeys("Breakwater round");
        browser.see("//button[.='Save'][not(@disabled)]").click();
        browser.see("//button[.='Breakwater round']");
        browser.open(program.address() + "ledger");
        browser.press("Saved views");
        browser.see("//button[.='Breakwater round']").click();
        browser.until("the view is back", () -> browser.driver().getCurrentUrl().contains("session="));
        browser.seeText("4 lines");
    }

    @Test
    void aFileIsLookedAtThenStored(@TempDir Path folder) throws IOException {
        Path file = Files.writeString(
                folder.resolve("scores.csv"),
                "maker,model,class,suite,version,test,measure unit,direction,started,run,value\r\n"
                        + "Pellow,Spar 9,BOARD,Old notes,1,Copy,GB/s,more,2026-03-01T09:10:00Z,1,21.4\r\nPellow,Spar 9,BOARD,Old notes,1,Copy,GB/s,more,2026-03-01T09:10:00Z,2,fast\r\n",
                StandardCharsets.UTF_8);
        browser.open(program.address() + "ledger");
        browser.see("//a[.='Import']").click();
        browser.see("//h1[.='Import']");
        browser.driver()
                .findElement(By.cssSelector("input[accept*=csv]"))
                .sendKeys(file.toAbsolutePath().toString());
        browser.seeText("1 rows cannot be taken");
        assertThat(browser.see("//td[.='fast']").isDisplayed()).isTrue();
        Files.writeString(file, Files.readString(file).replace("fast", "21.6"));
        browser.driver()
                .findElement(By.cssSelector("input[accept*=csv]"))
                .sendKeys(file.toAbsolutePath().toString());
        browser.see("//button[.='Import all']").click();
        browser.seeText("Stored: 2 readings");
        browser.open(program.address() + "shelf?q=spar%209");
        browser.see("//a[.='Pellow Spar 9']");
    }

    @Test
    void aPlanMixesWhatRunsByItselfWithWhatIsCarriedOutByHand() {
        makeSuite("Jetty", "Noise, dB(A), less, Body");
        browser.keys("g", "p");
        browser.see("//h1[.='Plans']");
        browser.keys("n");
        browser.type("Plan", "Jetty round");
        for (String[] test : new String[][] {{"Weir hash, one thread", "1"}, {"Noise", "2"}}) {
            browser.see("//input[@aria-label='Words of a test to add']").sendKeys(test[0], Keys.ENTER);
            browser.see("//li[.//span[starts-with(., '" + test[0] + "')]]//label[.='runs']//input")
                    .sendKeys(test[1]);
        }
        browser.see("//input[@aria-label='What to do for Noise']").sendKeys("Meter at 30 cm, lid open");
        browser.see("//button[.='Save plan'][not(@disabled)]").click();
        browser.see("//section[.//h2[starts-with(., 'Jetty round')]]//a[.='Take it to the bench']")
                .click();
        browser.see("//h1[.='Bench']");
        browser.open(browser.driver().getCurrentUrl() + "&timed=100&pause=0");
        String code = browser.newCode();
        try (Browser device = new Browser()) {
            device.open(program.address() + "j");
            device.type("Code", code);
            device.press("Join");
            device.see("//li//button[contains(., 'Quenby Folio 14')]").click();
            device.press("Start jetty round");
            device.seeText("By hand: Noise");
            device.seeText("Meter at 30 cm");
            browser.seeText("your turn");
            browser.see("//a[.='Type its scores']").click();
            browser.see("//*[@data-place='active']");
            browser.keys("31.5", Keys.ENTER, "31.7", Keys.ENTER);
            device.seeText("Every result is in the ledger");
        }
        browser.open(program.address() + "bench");
        browser.see("//article//span[contains(@class, 'pill')][.='finished']");
    }
}
