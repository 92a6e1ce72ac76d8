package yarrowmark.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;

/** Writing beside the numbers, publishing, and the stage, as a reviewer and as a reader. */
@Order(5)
class WriteUpIT extends AtTheDemo {
    WriteUpIT() {
        super(Demo.CHANGED);
    }

    private long named(String title) {
        browser.open(program.address() + "write-ups");
        String href = browser.see("//a[.='" + title + "']").getDomAttribute("href");
        return Long.parseLong(href.replaceAll(".*/", ""));
    }

    private void kept() {
        browser.until(
                "everything kept",
                () -> browser.see("//*[@role='status']").getText().contains("saved "));
    }

    private List<WebElement> pieces() {
        return browser.driver().findElements(By.xpath("//ul[@aria-label='Pieces']/li"));
    }

    @Test
    void theDemosNumbersAgreeWithItsLedger() {
        long id = named("Two winters with the Drift 13");
        browser.open(program.address() + "write-ups/" + id);
        browser.seeText("9 numbers");
        browser.seeText("clear gain, day to day from 6 devices");
        assertThat(browser.text()).doesNotContain("agree", "is now", "stands for nothing", "would be other");
        assertThat(browser.complaints()).isEmpty();
    }

    @Test
    void aWriteUpIsBegunWrittenPublishedAndReadByAnybody() {
        browser.open(program.address() + "compare?ids=[4,6]");
        browser.see("//button[.='Write this up']").click();
        browser.see("//textarea[@aria-label='Title']")
                .sendKeys(Keys.chord(Keys.CONTROL, "a"), "A dry summer with the Folio 16");
        browser.see("//input[@aria-label='Subtitle']").sendKeys("Is it worth the weight?");

        // A text with a number, without touching the mouse.
        browser.see("//*[@aria-label='Text: write']").sendKeys(Keys.ENTER);
        WebElement text = browser.see("//textarea[@aria-label='Text']");
        text.sendKeys("It exports with @");
        browser.see("//input[@aria-label='Find a number']").sendKeys("report export");
        browser.see("//li[@role='option'][contains(., 'less time')]");
        browser.see("//input[@aria-label='Find a number']").sendKeys(Keys.ENTER);
        browser.until("the number in the text", () -> browser.see("//textarea[@aria-label='Text']")
                .getDomProperty("value")
                .contains("](number:n1)"));
        browser.see("//textarea[@aria-label='Text']").sendKeys(", which is enough.", Keys.ESCAPE);
        browser.seeText("1 number");
        kept();
        browser.driver().navigate().refresh();
        browser.seeText("which is enough.");
        assertThat(browser.see("//input[@aria-label='Subtitle']").getDomProperty("value"))
                .isEqualTo("Is it worth the weight?");

        // Moved by a key, taken out and brought back.
        int before = pieces().size();
        String second = pieces().get(1).getText();
        pieces().get(1)
                .findElement(By.xpath(".//button[starts-with(@aria-label, 'Move')]"))
                .sendKeys(Keys.ARROW_UP);
        browser.until("it first", () -> pieces().get(0).getText().equals(second));
        pieces().get(0)
                .findElement(By.xpath(".//button[starts-with(@aria-label, 'Move')]"))
                .sendKeys(Keys.DELETE);
        browser.until("one less", () -> pieces().size() == before - 1);
        browser.press("Undo");
        browser.until("it back", () -> pieces().size() == before);

        browser.see("//button[.='Publish']").click();
        browser.see("//*[@role='dialog']//button[normalize-space(.)='Publish']").click();
        String address =
                browser.see("//*[@role='dialog']//a[contains(@href, '/w/')]").getDomAttribute("href");
        try (Browser reader = new Browser()) {
            reader.open(address.startsWith("http") ? address : program.address() + address.substring(1));
            reader.see("//h1[.='A dry summer with the Folio 16']");
            reader.see("//figure//*[name()='svg']");
            reader.see("//a[@class='number']").click();
            reader.see("//li[@id='n1'][contains(., 'Report export')]");
            assertThat(reader.driver().manage().getCookies()).isEmpty();
            assertThat(reader.violations()).isEmpty();
            reader.open(program.address() + "w");
            reader.seeText("A dry summer with the Folio 16");
            assertThat(reader.complaints()).isEmpty();
        }
        assertThat(browser.complaints()).isEmpty();
    }

    @Test
    void ofTwoWhoWriteTheSamePieceNobodyLosesAnything() {
        long id = named("Three tablets in the rain");
        String address = program.address() + "write-ups/" + id;
        browser.open(address);
        browser.see("//*[@aria-label='Verdict: write']").sendKeys(Keys.ENTER);
        try (Browser other = new Browser()) {
            other.signIntoDemo(program.address());
            other.open(address);
            other.see("//*[@aria-label='Verdict: write']").sendKeys(Keys.ENTER);
            // Both begin from the same; neither has seen the other's.
            browser.see("//textarea[@aria-label='Verdict']").sendKeys("The Wader.");
            other.see("//textarea[@aria-label='Verdict']").sendKeys("None of them.");
            other.until(
                    "both kept, or one asked",
                    () -> other.text().contains("changed this piece")
                            || browser.text().contains("changed this piece"));
            Browser asked = other.text().contains("changed this piece") ? other : browser;
            String mine = asked == other ? "None of them." : "The Wader.";
            String theirs = asked == other ? "The Wader." : "None of them.";
            asked.see("//blockquote[contains(., '" + theirs + "')]");
            assertThat(asked.see("//*[@role='alert']/ancestor::li").getText()
                            + asked.js(
                                    "return [...document.querySelectorAll('textarea')].map((t) => t.value).join(' ')"))
                    .contains(mine);
            asked.press("Keep mine");
            Browser following = asked == other ? browser : other;
            following.until("what was kept, at the other", () -> ((String)
                            following.js(
                                    "return document.body.innerText + [...document.querySelectorAll('textarea')].map((t) => t.value).join(' ')"))
                    .contains(mine));
        }
    }

    /** A standing by one test over laptops had become one of everything by the overall, and "without Storage" was lost. */
    @Test
    void whatAViewAsksIsWhatItsWriteUpShows() {
        browser.open(program.address() + "standings?classes=[\"LAPTOP\"]&metric=1");
        browser.see("//h1[.='Standings']");
        browser.seeText("index 100");
        Matcher score = Pattern.compile("([0-9.]+)\\s+index ").matcher(browser.text());
        assertThat(score.find()).isTrue();
        String first = score.group(1);
        browser.see("//button[.='Write this up']").click();
        browser.see("//textarea[@aria-label='Title']");
        browser.until("the scores", () -> browser.text().contains(first));
        browser.until("what it ranks by", () -> written().contains("Standing by Weir hash, one thread"));
        assertThat(browser.see("//a[.='Standings' and contains(@href, 'metric')]")
                        .getDomProperty("href"))
                .contains("metric=1")
                .contains("LAPTOP");

        browser.open(program.address() + "compare?ids=[4,6]&without=[\"group:STORAGE\"]");
        Matcher found = Pattern.compile("([0-9.]+)× over")
                .matcher(browser.see("//h2[.='Overall']/..").getText());
        assertThat(found.find()).isTrue();
        browser.see("//button[.='Write this up']").click();
        browser.see("//*[@aria-label='Text: write']").sendKeys(Keys.ENTER);
        browser.see("//textarea[@aria-label='Text']").sendKeys("All in all @");
        browser.see("//input[@aria-label='Find a number']").sendKeys("overall");
        WebElement offered = browser.see("//li[@role='option'][contains(., 'without Storage')]");
        assertThat(offered.getText())
                .as("the number that Compare showed")
                .contains(String.format(Locale.ROOT, "%.2f×", Double.parseDouble(found.group(1))));
        browser.until("what was left out", () -> written().contains("without Storage"));
        assertThat(browser.complaints()).isEmpty();
    }

    /** Everything that stands on the page, also in fields. */
    private String written() {
        return (String)
                browser.js(
                        "return document.body.innerText + [...document.querySelectorAll('textarea, input')].map((t) => t.value + ' ' + t.placeholder).join(' ')");
    }

    @Test
    void aNumberIsPickedWhereItStandsOnThePage() {
        browser.open(program.address() + "compare?ids=[4,6]");
        browser.see("//button[.='Write this up']").click();
        browser.see("//*[@aria-label='Text: write']").sendKeys(Keys.ENTER);
        browser.see("//textarea[@aria-label='Text']").sendKeys("The hash runs at @");
        browser.press("press it on the page");
        // By keyboard: whoever leaves it has lost nothing.
        browser.seeText("Press a number in a figure");
        browser.keys(Keys.ESCAPE);
        browser.see("//textarea[@aria-label='Text']").sendKeys("@");
        browser.press("press it on the page");
        WebElement number = browser.see("//td[contains(., 'Weir hash, one thread')]/following-sibling::td[1]/button");
        String words = number.getText();
        assertThat(words).endsWith("ops/s");
        number.click();
        browser.see("//textarea[@aria-label='Text']").sendKeys(", by @");
        browser.press("press it on the page");
        WebElement ratio = browser.see("//td[contains(., 'Weir hash, one thread')]/following-sibling::td[3]/button");
        String against = ratio.getText();
        assertThat(against).endsWith("×");
        ratio.click();
        browser.see("//textarea[@aria-label='Text']").sendKeys(" of the other.", Keys.ESCAPE);
        assertThat(browser.see("//*[@role='presentation'][contains(., 'of the other')]")
                        .getText())
                .contains("The hash runs at " + words + ", by " + against + " of the other.");
        browser.seeText("Weir hash, one thread");
        browser.seeText("2 numbers");
        assertThat(browser.text()).doesNotContain("does not agree");
        kept();

        // One that is copied beside the comparison is a number here, too.
        browser.see("//*[@aria-label='Text: write']").sendKeys(Keys.ENTER);
        browser.js(
                """
            const area = document.querySelector('textarea[aria-label="Text"]');
            const data = new DataTransfer();
            data.setData('text/plain', 'And [1.02×](yarrowmark:' + btoa(JSON.stringify({ of: 'ratio', configuration: 6, base: 4, metric: 1 })) + ') so.');
            area.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));""");
        browser.seeText("3 numbers");
        assertThat(browser.complaints()).isEmpty();
    }

    @Test
    void aLabsOwnKindIsWhatAWriteUpBeginsWith() {
        browser.open(program.address() + "write-ups");
        browser.press("Templates");
        browser.press("Make a kind");
        browser.see("//form//input[@maxlength='80']").sendKeys("Two lines");
        browser.choose("What it is begun from", "a trend");
        browser.press("another piece");
        browser.choose("Piece 2", "heading");
        browser.see("//input[@aria-label='Words of piece 2']").sendKeys("What we think");
        browser.press("Piece 2 up");
        browser.press("Save");
        browser.see("//li[contains(., 'Two lines')][contains(., '“What we think”')]");
        browser.keys(Keys.ESCAPE);
        browser.press("Begin one: choose a kind");
        browser.see("//*[@role='menuitem'][contains(., 'Two lines')]").sendKeys(Keys.ENTER);
        browser.until("its two pieces", () -> pieces().size() == 2);
        assertThat(browser.see("//input[@aria-label='Heading']").getDomProperty("value"))
                .isEqualTo("What we think");
        browser.open(program.address() + "write-ups");
        browser.press("Templates");
        browser.press("Delete Two lines");
        browser.press("Undo");
        browser.see("//li[contains(., 'Two lines')]");
        assertThat(browser.complaints()).isEmpty();
    }
}
