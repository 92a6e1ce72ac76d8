package yarrowmark.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;

/** Standings on the demo shelf: who is in, by what weights, why a place, in which form, and what is taken along. */
@Order(5)
class StandingsIT extends AtTheDemo {
    StandingsIT() {
        super(Demo.READ);
    }

    private void open(String query) {
        browser.open(program.address() + "standings" + query);
        browser.see("//h1[.='Standings']");
    }

    private WebElement row(int line) {
        return browser.see("//*[@role='row'][@data-line='" + line + "']");
    }

    private String address() {
        return browser.driver().getCurrentUrl();
    }

    @Test
    void theHoursAtHandBecomeAPlanOfTheTestsThatTellMost() {
        browser.open(program.address() + "plans");
        browser.press("Hours at hand");
        browser.seeText("clear pairs of");
        assertThat(address()).contains("hours=180");
        WebElement slider = browser.see("//input[@aria-label='Time at hand']");
        slider.sendKeys(Keys.HOME);
        browser.until("the shortest time", () -> address().endsWith("hours=5"));
        WebElement left = browser.see("//button[starts-with(@aria-label, 'Take ')]");
        String test = left.getAttribute("aria-label").substring("Take ".length());
        left.click();
        browser.see("//button[@aria-label='Undo: must have " + test + "']");
        assertThat(browser.violations()).isEmpty();
        browser.press("Make a plan of these");
        WebElement name = browser.see("//input[contains(@value, '5 min')]");
        assertThat(name.getAttribute("value")).contains("in 5 min");
        browser.seeText(test);
        assertThat(browser.complaints()).isEmpty();
    }

    @Test
    void whoIsInIsSaidByTheSentenceAndKeptByTheAddress() {
        open("");
        browser.see("//button[starts-with(@aria-label, 'Filters')]").click();
        browser.see("//label[contains(., 'the newest')]/input[@type='radio']").click();
        browser.see("//label[contains(., 'Quenby')]/input").click();
        browser.see("//input[@aria-label='Highest price']").sendKeys("1300", Keys.ENTER);
        browser.keys(Keys.ESCAPE);
        String words = "the newest configuration of each model, by Quenby, up to 1\u202f300 EUR";
        browser.until("the sentence to say so", () -> browser.see("//button[starts-with(@aria-label, 'Filters')]")
                .getText()
                .equals(words));
        browser.until(
                "two models",
                () -> browser.driver()
                                .findElements(By.cssSelector("[role=row][data-line]"))
                                .size()
                        == 2);
        browser.driver().navigate().refresh();
        browser.until("the same after a reload", () -> browser.see("//button[starts-with(@aria-label, 'Filters')]")
                .getText()
                .equals(words));
        browser.see("//button[starts-with(@aria-label, 'Filters')]").click();
        browser.press("Reset");
        browser.keys(Keys.ESCAPE);
        browser.until("everybody", () -> !address().contains("makers"));
        assertThat(browser.complaints()).isEmpty();
    }

    @Test
    void everyLevelIsRankedAgainstAnyBase() {
        open("");
        browser.choose("Test", "Storage tests");
        browser.see("//*[@role='columnheader'][contains(., 'Tidegauge Storage')]");
        browser.choose("Base", "the typical one");
        browser.until("the address to say so", () -> address().contains("typical=true"));
        browser.choose("Divided by", "per price");
        browser.seeText("Every score is divided: per price in EUR");
        open("?metric=999999");
        browser.seeText("There is no metric 999999");
        assertThat(browser.complaints()).as("what the server refused").hasSize(1);
    }

    @Test
    void movedWeightsMoveTheOrderAndBecomeAPurpose() {
        open("");
        browser.press("Weigh");
        browser.seeText("How sure is first place? In 1000 random weightings");
        browser.js(
                "const slider = document.querySelector('aside input[type=range]'); Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call(slider, 9); slider.dispatchEvent(new Event('input', { bubbles: true }))");
        browser.see("//*[@role='row']//*[starts-with(@aria-label, 'up ')]");
        browser.see("//*[@role='row']//*[starts-with(@aria-label, 'down ')]");
        browser.type("Name", "dike counting");
        browser.press("Save as a new purpose");
        browser.until("the sentence to name it", () -> browser.see("//button[starts-with(@aria-label, 'Purpose:')]")
                .getText()
                .equals("dike counting"));
        browser.until("no more arrows", () -> browser.driver()
                .findElements(By.xpath("//*[@role='row']//*[starts-with(@aria-label, 'up ')]"))
                .isEmpty());
        assertThat(address()).contains("purpose=");
        assertThat(browser.complaints()).isEmpty();
    }

    @Test
    void whyAPlaceAndAPlanForWhatIsMissing() {
        open("");
        browser.see("//*[@role='row'][@data-line][contains(., 'Dunlin Sanderling')]/*[1]")
                .click();
        browser.keys("w");
        browser.see("//h3[.='Strong in']");
        browser.see("//h3[.='Missing for full coverage']");
        browser.press("Plan the missing tests");
        browser.seeText("Planned as “Fill Sanderling");
        browser.see("//a[.='change the plan']").click();
        browser.until("the plan's name", () -> browser.driver().findElements(By.tagName("input")).stream()
                .anyMatch(i -> i.getAttribute("value").startsWith("Fill Sanderling")));
    }

    @Test
    void ticksAreNamedAndPutOnTheTableByKeyAndPointer() {
        open("");
        row(3).findElement(By.xpath("./*[1]")).click();
        browser.keys(Keys.ARROW_RIGHT);
        String named = browser.see("//*[@data-rail]//*[@role='status']").getText();
        assertThat(named).contains("Hawkmoor Beacon");
        browser.keys("t");
        browser.until("it on the table", () -> browser.see("//footer").getText().contains("Hawkmoor Beacon"));
        browser.keys(Keys.ARROW_LEFT, "t");
        browser.until(
                "another beside it",
                () -> browser.driver()
                                .findElements(By.cssSelector("footer [data-base]"))
                                .size()
                        == 2);
        browser.js("localStorage.removeItem('yarrowmark.table')");
    }

    @Test
    void otherFormsOfTheSame() {
        open("?form=against");
        browser.see("//*[@role='group'][contains(@aria-label, 'on the frontier of best value')]");
        // From mark to mark along the price, and one of them onto the table, without the mouse.
        browser.js("document.querySelector('svg .point').focus()");
        browser.keys(Keys.ARROW_RIGHT, Keys.ARROW_RIGHT);
        String third = (String) browser.js("return document.activeElement.getAttribute('aria-label')");
        browser.seeText(third);
        browser.keys(Keys.ENTER);
        browser.until("it on the table", () -> "true"
                .equals(browser.js("return document.activeElement.getAttribute('aria-pressed')")));
        browser.keys(Keys.ENTER);
        // What one pays for how much is in the table, so it is open.
        browser.see("//th[.='EUR for index 100']");
        browser.see("//td[.='on the frontier']");
        browser.choose("Held against", "release date");
        browser.see("//*[@role='group'][starts-with(@aria-label, 'Index against release date')]");
        open("?form=lines");
        browser.seeText("Larkspur Slate 8");
        browser.seeText("clear gain");
        open("?form=list&classes=%5B%22TABLET%22%2C%22LAPTOP%22%5D");
        browser.seeText("other laptops and tablets, upper third");
        browser.cdp("Emulation.setEmulatedMedia", Map.of("media", "print"));
        String paper = browser.text();
        browser.cdp("Emulation.setEmulatedMedia", Map.of("media", ""));
        assertThat(paper)
                .contains("every configuration", "all-round use", "Hawkmoor Traverse 16")
                .doesNotContain("Export");
        browser.keys("v");
        browser.until("the next form", () -> address().contains("form=charts"));
        assertThat(browser.complaints()).isEmpty();
    }

    @Test
    void aKeptStandingIsReadWithoutSigningIn() {
        open("?form=list");
        browser.seeText("upper third");
        browser.press("Save");
        browser.type("Title", "Autumn on our desks");
        browser.see("//div[@aria-label='Save the standing']//textarea").sendKeys("Two of them surprised us.");
        browser.see("//div[@aria-label='Save the standing']//button[.='Save']").click();
        String kept = browser.see("//a[.='Saved as a page']").getAttribute("href");
        try (Browser reader = new Browser()) {
            reader.open(kept);
            reader.see("//h1[.='Autumn on our desks']");
            reader.seeText("Two of them surprised us.");
            reader.see("//th[.='Storage']");
            reader.seeText("As it was on");
            reader.seeText("Ostler Shire");
            assertThat(reader.driver().findElements(By.xpath("//*[contains(., 'Sign in')]")))
                    .isEmpty();
            reader.open(kept.substring(0, kept.length() - 3) + "abc");
            reader.seeText("What was under this address is not published");
            reader.driver().manage().logs().get("browser");
        }
        browser.open(program.address() + "kept");
        browser.see("//h1[.='Saved standings']");
        browser.see("//a[.='Autumn on our desks']");
    }

    @Test
    void itIsTakenAlong() throws IOException {
        Path folder = Files.createTempDirectory("yarrowmark-standings");
        browser.cdp("Browser.setDownloadBehavior", Map.of("behavior", "allow", "downloadPath", folder.toString()));
        open("");
        row(0);
        browser.press("Export");
        browser.press("CSV");
        Path csv = folder.resolve("standings-the-tests-in-common-use.csv");
        browser.until("the table", () -> Files.exists(csv));
        browser.press("HTML, a table to put into a page");
        Path html = folder.resolve("standings-the-tests-in-common-use.html");
        browser.until("the table to embed", () -> Files.exists(html));
        browser.press("SVG, light");
        Path svg = folder.resolve("standings-the-tests-in-common-use-light.svg");
        browser.until("the picture", () -> Files.exists(svg));
        assertThat(Files.readString(csv, StandardCharsets.UTF_8)).contains("Ostler", "Processor, index in its part");
        assertThat(Files.readString(html, StandardCharsets.UTF_8))
                .contains("<caption>Ranking every class of device", "Pellow Spar");
        assertThat(Files.readString(svg, StandardCharsets.UTF_8))
                .contains("Hawkmoor Traverse 16")
                .endsWith("</svg>");
    }

    @Test
    void theSentenceAndTheTableWorkTogether() {
        open("");
        browser.see("//*[@role='row'][@data-line='2']/*[1]").click();
        browser.keys(Keys.ENTER);
        browser.until(
                "one on the table",
                () -> browser.driver()
                                .findElements(By.cssSelector("footer [data-base]"))
                                .size()
                        == 1);
        browser.keys(Keys.ARROW_DOWN);
        browser.keys(Keys.ARROW_DOWN);
        browser.keys(Keys.ENTER);
        browser.until(
                "two on the table",
                () -> browser.driver()
                                .findElements(By.cssSelector("footer [data-base]"))
                                .size()
                        == 2);

        browser.keys("2");
        browser.keys("b");
        String base = browser.see("//footer//*[@data-base='true']").getText();
        String model = base.lines().findFirst().orElseThrow();
        browser.until("the sentence to follow", () -> browser.see("//button[starts-with(@aria-label, 'Base:')]")
                .getText()
                .contains(model));

        browser.choose("Class of device", "laptop");
        browser.keys(Keys.ESCAPE);
        browser.until(
                "laptops only",
                () -> browser.driver().getCurrentUrl().contains("LAPTOP")
                        && !browser.see("//*[@role='table']").getText().contains("Ostler Shire"));

        browser.choose("Test", "Species list");
        browser.seeText("rounds/min");
        browser.driver().navigate().refresh();
        browser.seeText("rounds/min");
        assertThat(browser.driver().findElements(By.cssSelector("footer [data-base]")))
                .hasSize(2);

        browser.see("//*[@role='row'][@data-line='4']/*[1]").click();
        browser.keys("w");
        browser.see("//a[starts-with(., 'Compare the two')]").click();
        browser.see("//h1[.='Compare']");
        browser.see("//h2[.='Overall']");

        browser.keys("g", "l");
        browser.see("//h1[.='Ledger']");
        browser.keys("1");
        browser.keys(Keys.DELETE);
        browser.until(
                "one left",
                () -> browser.driver()
                                .findElements(By.cssSelector("footer [data-base]"))
                                .size()
                        == 1);
        assertThat(browser.complaints()).isEmpty();
        browser.js("localStorage.removeItem('yarrowmark.table')");
    }

    @Test
    void aChartForEachTestLeavesOneOutAndGoesIntoAWriteUpWhole() {
        open("?classes=%5B%22LAPTOP%22%5D&form=charts");
        browser.see("//section[@aria-label='Map tile crush']//h2");
        String best = browser.see(
                        "//section[@aria-label='Weir hash, one thread']//*[name()='text'][contains(., 'ops')]")
                .getText();
        browser.see("//button[@aria-label='Leave out Map tile crush']").click();
        browser.until("the chart to go", () -> browser.driver()
                .findElements(By.xpath("//section[@aria-label='Map tile crush']"))
                .isEmpty());
        assertThat(address()).contains("without=");
        browser.press("Write this up");
        browser.see("//ul[@aria-label='Pieces']/li[1]//*[name()='text'][.='" + best + "']");
        assertThat(browser.driver()
                        .findElements(
                                By.xpath("//ul[@aria-label='Pieces']/li[1]//*[name()='text'][.='Map tile crush']")))
                .isEmpty();
        assertThat(browser.complaints()).isEmpty();
    }

    @Test
    void aReportCardSaysTheSameAsTheStandingAndGoesIntoAWriteUp() {
        open("?classes=%5B%22LAPTOP%22%5D");
        browser.see("//*[@role='row'][@data-line][contains(., 'Pellow Drift 13')]/*[1]")
                .click();
        browser.keys("w");
        browser.see("//a[.='its report card']").click();
        browser.see("//h1[.='Pellow Drift 13']");
        browser.see("//h2[.='Best at']");
        browser.see("//h2[starts-with(., 'Against the Drift')]");
        String line = "//table[@aria-label='Test by test']//tr[contains(., 'Weir hash, one thread')]";
        String place = browser.see(line + "/td[last() - 1]")
                .getText()
                .lines()
                .findFirst()
                .orElseThrow();
        String value = browser.see(line + "/td[2]").getText();
        browser.see(line + "//button[starts-with(@aria-label, 'Rating of')]").click();
        browser.type("Good", "1");
        browser.type("Poor", "2");
        browser.press("Save");
        browser.seeText("More is better here, so good begins above poor.");
        browser.keys(Keys.ESCAPE);
        browser.press("Write this up");
        browser.see("//*[@role='img'][starts-with(@aria-label, 'Report card of')]");
        browser.see("//ul[@aria-label='Pieces']/li[1]//*[name()='text'][.='" + value + "']");
        browser.see("//ul[@aria-label='Pieces']/li[1]//*[name()='text'][starts-with(., '" + place + "')]");
        assertThat(browser.complaints()).isEmpty();
    }
}
