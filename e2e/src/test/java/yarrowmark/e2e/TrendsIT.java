package yarrowmark.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;

/** The demo's trends: a unit under seven kernels, a ladder of power limits, and a reference device on fourteen days. */
class TrendsIT extends AtTheDemo {
    TrendsIT() {
        super(Demo.CHANGED);
    }

    private void kernels() {
        browser.open(program.address() + "shelf?q=cob%20mini");
        browser.see("//a[.='Ostler Cob mini']").click();
        browser.see("//a[.='Its trends']").click();
        browser.see("//h1[.='Trends']");
        browser.choose("Along", "kernel");
        browser.seeText("6.12");
    }

    @Test
    void whereItJumpedAndWhatElseChangedThereIsSaid() {
        kernels();
        assertThat(browser.text())
                .contains("nothing but kernel changed")
                .contains("also graphics driver")
                .contains("Heron flight: no driver for this kernel")
                .contains("Steps are marked where they are clear after correction for");
        // A line is brought to the front by its name, with the keyboard, and the address keeps it.
        browser.js("document.querySelector('svg [role=button]').focus()");
        browser.keys(Keys.ENTER);
        browser.until(
                "the address to keep it", () -> browser.driver().getCurrentUrl().contains("lit="));
        browser.js("document.activeElement.blur()");
        browser.keys("v");
        browser.see("//ul[@aria-label='A panel for each test']");
        browser.until(
                "each reading as a dot",
                () -> browser.driver()
                                .findElements(
                                        By.xpath("//ul[@aria-label='A panel for each test']/li[1]//*[name()='circle']"))
                                .size()
                        > 14);
        browser.keys("v");
        browser.see("//table//td[starts-with(., 'Lantern valley')]");
        browser.press("Leave out Lantern valley, 1080 off screen");
        browser.until("it left out", () -> browser.driver()
                .findElements(By.xpath("//td[starts-with(., 'Lantern valley')]"))
                .isEmpty());
        browser.press("take in what is left out");
        browser.see("//td[starts-with(., 'Lantern valley')]");
        assertThat(browser.complaints()).isEmpty();
    }

    @Test
    void somethingIsNotedAtAStepAndTakenOffAgain() {
        kernels();
        browser.press("Note something at 6.8");
        browser.keys("new thermal paste", Keys.ENTER);
        browser.see("//li[.//b[.='6.8']][contains(., 'new thermal paste')]");
        browser.press("Remove “new thermal paste”");
        browser.until("it gone", () -> !browser.text().contains("new thermal paste"));
        assertThat(browser.complaints()).isEmpty();
    }

    @Test
    void aBadDayOfTheReferenceDeviceIsSaidAndTheLadderHasItsKnee() {
        browser.open(program.address() + "trends");
        browser.choose("Model", "Ostler Fell");
        browser.seeText("out of the usual range");
        browser.choose("Model", "Ostler Cob mini");
        browser.choose("Unit", "Power unit");
        browser.seeText("35 W");
        browser.seeText("Beyond 12 W no step brings");
        browser.see("//*[@aria-label='Ladder']//tr[contains(., '35 W')][contains(., '°C')]");
        browser.press("steps at equal distances");
        browser.until(
                "the address to keep it", () -> browser.driver().getCurrentUrl().contains("even=true"));
        assertThat(browser.complaints()).isEmpty();
    }

    @Test
    void groupsAreFoldedAndTheTrendBeginsWhereOneWants() {
        kernels();
        browser.press("fold into");
        browser.see("//*[name()='svg']//*[@role='button'][contains(., 'Graphics, 2 tests')]");
        browser.choose("From", "6.4");
        browser.until(
                "the steps before gone",
                () -> browser.driver()
                                .findElements(By.xpath("//ol[@aria-label='Steps']/li"))
                                .size()
                        == 4);
        browser.press("every test by itself");
        browser.see("//*[name()='svg']//*[@role='button'][contains(., 'Heron flight')]");
        assertThat(browser.complaints()).isEmpty();
    }

    @Test
    void anotherModelStandsBesideItAndWhatTheyDoNotShareIsSaid() {
        browser.open(program.address() + "trends");
        browser.choose("Model", "Ostler Cob mini");
        browser.choose("Unit", "Power unit");
        browser.choose("Beside", "Hawkmoor Traverse 16");
        browser.keys(Keys.ESCAPE);
        browser.seeText("has no step in common with Ostler Cob mini, Power unit");
        browser.choose("Test of the lines", "Weir hash, all threads");
        browser.seeText("Weir hash, all threads, in ops/s");
        browser.press("Table");
        browser.see("//td[contains(., 'Hawkmoor Traverse 16')]");
        browser.driver().navigate().refresh();
        browser.see("//td[contains(., 'Hawkmoor Traverse 16')]");
        assertThat(browser.complaints()).isEmpty();
    }

    @Test
    void twoConfigurationsOfAModelAreOpenedAsATrend() {
        browser.open(program.address() + "shelf?q=cob%20mini");
        browser.see("//a[.='Ostler Cob mini']").click();
        browser.see("//a[contains(., 'kernel 6.')]");
        List<String> ids = browser.driver().findElements(By.xpath("//a[contains(., 'kernel 6.')]")).stream()
                .map(a -> a.getDomAttribute("href").replaceAll(".*/", ""))
                .distinct()
                .limit(2)
                .toList();
        browser.open(program.address() + "compare?ids=[" + String.join(",", ids) + "]");
        browser.see("//a[.='As a trend']").click();
        browser.seeText("Long-term unit");
        browser.seeText("6.12");
        assertThat(browser.driver().findElement(By.tagName("main")).getText()).contains("change along kernel");
        assertThat(browser.complaints()).isEmpty();
    }

    /** On a phone the names have no room beside the lines: they are below, and answer a finger. */
    @Test
    void onAPhoneTheLinesHaveTheirNamesBelow() {
        browser.cdp(
                "Emulation.setDeviceMetricsOverride",
                Map.of("width", 390, "height", 844, "deviceScaleFactor", 1, "mobile", false));
        try {
            kernels();
            browser.see("//ul[@aria-label='Lines']//button[contains(., 'Heron flight')]")
                    .click();
            browser.see("//ul[@aria-label='Lines']//button[@aria-pressed='true'][contains(., 'Heron flight')]");
        } finally {
            browser.cdp("Emulation.clearDeviceMetricsOverride", Map.of());
        }
    }

    @Test
    void itIsTakenAlong() throws IOException {
        Path folder = Files.createTempDirectory("yarrowmark-trend");
        browser.cdp("Browser.setDownloadBehavior", Map.of("behavior", "allow", "downloadPath", folder.toString()));
        kernels();
        browser.press("export");
        browser.press("CSV");
        Path csv = folder.resolve("ostler-cob-mini-along-kernel.csv");
        browser.until("the table", () -> Files.exists(csv));
        browser.press("SVG, light");
        Path svg = folder.resolve("ostler-cob-mini-along-kernel-light.svg");
        browser.until("the picture", () -> Files.exists(svg));
        assertThat(Files.readString(csv, StandardCharsets.UTF_8)).contains("corrected p", "6.12", "Overall");
        assertThat(Files.readString(svg, StandardCharsets.UTF_8))
                .contains("Lantern valley")
                .doesNotContain("var(--");
    }
}
