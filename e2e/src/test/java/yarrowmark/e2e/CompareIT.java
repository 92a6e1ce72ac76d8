package yarrowmark.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.concurrent.atomic.AtomicReference;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;

/** Comparing on the demo shelf: before and after, several at once, two factors, and what is taken along. */
class CompareIT extends AtTheDemo {
    CompareIT() {
        super(Demo.READ);
    }

    private void folio() {
        browser.open(program.address() + "compare");
        browser.see("//h2[.='Before and after']");
        browser.see("//a[contains(., 'Quenby Folio 14')]").click();
        browser.see("//h2[.='Overall']");
    }

    private String overall() {
        return browser.see("//h2[.='Overall']/following-sibling::p[1]").getText();
    }

    /** That of the overall, behind the words. */
    private double ratio() {
        Matcher found = Pattern.compile("([0-9.]+)× over")
                .matcher(browser.see("//h2[.='Overall']/..").getText());
        assertThat(found.find()).isTrue();
        return Double.parseDouble(found.group(1));
    }

    @Test
    void beforeAndAfterIsProposedAndReadsAsASentence() {
        folio();
        browser.seeText("the change under test");
        browser.seeText("also changed: may explain part of it");
        browser.seeText("Surface temperature: compared by differences");
        String there = overall();
        assertThat(there).as("the answer first, in words").matches("[0-9.]+ % (better|worse)");
        double ratio = ratio();
        browser.keys("x");
        browser.until("the base to be the other one", () -> !overall().equals(there));
        assertThat(ratio() * ratio).isBetween(0.998, 1.002);

        browser.keys(Keys.ARROW_DOWN);
        browser.keys(Keys.ENTER);
        browser.seeText("95 % interval");
        browser.seeText("other configurations as ticks");
        assertThat(browser.driver().getCurrentUrl()).contains("open=");
        browser.keys(Keys.ENTER);
        browser.until(
                "the line to close", () -> !browser.driver().getCurrentUrl().contains("open="));
        assertThat(browser.complaints()).isEmpty();
    }

    @Test
    void theSentenceSaysWhatMattersAndOnWhat() {
        folio();
        browser.keys("m");
        browser.see("//*[@role='option'][contains(., '10 %')]").click();
        browser.until(
                "the address to say so", () -> browser.driver().getCurrentUrl().contains("matters=10"));
        browser.see("//*[@role='row']//*[contains(., ' higher, level')]");
        browser.choose("Tests", "Storage tests");
        browser.until("storage alone", () -> browser.driver()
                .findElements(By.xpath("//*[@role='rowheader'][.='Processor']"))
                .isEmpty());
        browser.see("//*[@role='rowheader'][.='Storage']");
        browser.driver().navigate().refresh();
        browser.see("//*[@role='rowheader'][.='Storage']");
        browser.see("//button[@aria-label='What matters: 10 %']");
        browser.choose("Divided by", "watt of the sustained power limit");
        browser.seeText("Every score is divided: per watt");
    }

    @Test
    void aPartIsLeftOutAndTakenInAgainAndALineOpensIntoItsSessions() {
        folio();
        String whole = overall();
        browser.see("//button[contains(@aria-label, 'exclude Storage')]").sendKeys(Keys.ENTER);
        browser.seeText("Left out here: Storage");
        browser.until("another overall", () -> !overall().equals(whole));
        assertThat(browser.driver().getCurrentUrl()).contains("without");
        browser.driver().navigate().refresh();
        browser.seeText("Left out here: Storage");
        browser.see("//button[@aria-label='include again: Storage']").click();
        browser.until("the whole again", () -> overall().equals(whole));
        browser.seeText("ay to day from 6 devices.");

        // The first on the shelf was measured on two days.
        browser.open(program.address() + "compare?ids=%5B1%2C4%5D&base=1");
        browser.see("//h2[.='Overall']");
        browser.see("(//*[@role='row']//button[@aria-expanded])[1]").click();
        browser.seeText("Its sessions: runs of one session are not independent of each other.");
        // The sentence came after the numbers: to quote in the open line, and on the line itself for who points at it.
        browser.see("//p[contains(., '95 % interval')]/button[contains(@aria-label, 'the sentence')]");
        browser.see("//*[@role='row']//*[contains(@aria-label, '95 % interval') or contains(@title, '95 % interval')]");
        browser.press("Exclude this test");
        browser.seeText("Left out here: Weir hash");
        assertThat(browser.complaints()).isEmpty();
    }

    @Test
    void missingRunsBecomeAPlan() {
        folio();
        browser.press("Plan the missing sessions");
        browser.seeText("Planned as");
        browser.see("//a[.='change the plan']").click();
        browser.see("//h1[contains(., 'lan')]");
        browser.until("the plan's name", () -> browser.driver().findElements(By.tagName("input")).stream()
                .anyMatch(i -> i.getAttribute("value").startsWith("More days, Quenby Folio 14")));
    }

    @Test
    void severalStandInColumnsAndTwoFactorsInAGrid() {
        browser.open(program.address() + "compare");
        browser.see("//h2[.='Before and after']");
        Object ids = browser.driver()
                .executeAsyncScript(
                        """
            const done = arguments[arguments.length - 1];
            fetch('/api/compare/pairs').then((a) => a.json()).then((pairs) => done([...new Set(pairs.filter((p) => p.after.model === 'Drift 13').flatMap((p) => [p.before.id, p.after.id]))].sort((a, b) => a - b).join(',')));""");
        browser.open(program.address() + "compare?ids=%5B" + ids + "%5D");
        browser.see("//*[@role='columnheader']//button[@aria-pressed='true']");
        assertThat(browser.driver().findElements(By.cssSelector("[role=columnheader] button")))
                .hasSize(3);
        browser.press("Two factors");
        browser.seeText("What do power and power mode do by themselves and together");
        browser.see("//*[contains(., 'the gain from') or contains(., 'The gain from')]");
        assertThat(browser.complaints()).isEmpty();
    }

    /** The file with this end, once the browser has written it. */
    private Path taken(Path folder, String end) {
        AtomicReference<Path> found = new AtomicReference<>();
        browser.until("a file that ends in " + end, () -> {
            try (Stream<Path> files = Files.list(folder)) {
                files.filter(f -> f.toString().endsWith(end)).findFirst().ifPresent(found::set);
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
            return found.get() != null;
        });
        return found.get();
    }

    @Test
    void itIsTakenAlongAsAPictureAndATable() throws IOException {
        Path folder = Files.createTempDirectory("yarrowmark-taken");
        browser.cdp("Browser.setDownloadBehavior", Map.of("behavior", "allow", "downloadPath", folder.toString()));
        folio();
        browser.press("Export");
        browser.press("PNG, dark");
        Path png = taken(folder, "-dark.png");
        assertThat(png.getFileName().toString())
                .as("both are named, and which configurations they are")
                .startsWith("quenby-folio-14-firmware-1-11")
                .contains("against-quenby-folio-14-thessaly-5");
        browser.press("CSV");
        Path csv = taken(folder, ".csv");
        browser.keys(Keys.ESCAPE);
        browser.keys(Keys.ARROW_DOWN);
        browser.keys(Keys.ENTER);
        browser.press("Export: readings of Weir hash, one thread");
        browser.press("PNG, transparent");
        browser.until(
                "the readings", () -> Files.exists(folder.resolve("readings-of-weir-hash-one-thread-transparent.png")));
        var picture = ImageIO.read(png.toFile());
        assertThat(picture.getWidth()).isEqualTo(1920);
        assertThat(picture.getHeight()).isEqualTo(1080);
        assertThat(Files.readString(csv, StandardCharsets.UTF_8))
                .contains("Weir hash, one thread", "Overall", "also changed");
    }
}
