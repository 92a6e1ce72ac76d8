package yarrowmark.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;

/** The demo shelf in the standings: the sentence, the table that follows through the views, and the keys. */
class TableIT {
    @Test
    void theSentenceAndTheTableWorkTogether() {
        try (Program program = Program.start("demo", "table"); Browser browser = new Browser()) {
            browser.signIntoDemo(program.address());
            browser.see("//*[@role='row'][@data-line='2']/*[1]").click();
            browser.keys(Keys.ENTER);
            browser.until("one on the table", Browser.PATIENCE, () -> browser.driver().findElements(By.cssSelector("footer [data-base]")).size() == 1);
            browser.keys(Keys.ARROW_DOWN);
            browser.keys(Keys.ARROW_DOWN);
            browser.keys(Keys.ENTER);
            browser.until("two on the table", Browser.PATIENCE, () -> browser.driver().findElements(By.cssSelector("footer [data-base]")).size() == 2);

            browser.keys("2");
            browser.keys("b");
            String base = browser.see("//footer//*[@data-base='true']").getText();
            String model = base.lines().findFirst().orElseThrow();
            browser.until("the sentence to follow", Browser.PATIENCE, () -> browser.see("//button[starts-with(@aria-label, 'Base:')]").getText().equals(model));

            browser.choose("Class of device", "laptop");
            browser.keys(Keys.ESCAPE);
            browser.until("laptops only", Browser.PATIENCE, () -> browser.driver().getCurrentUrl().contains("LAPTOP") && !browser.see("//*[@role='table']").getText().contains("Ostler Shire"));

            browser.choose("Test", "Species list");
            browser.seeText("rounds/min");
            browser.driver().navigate().refresh();
            browser.seeText("rounds/min");
            assertThat(browser.driver().findElements(By.cssSelector("footer [data-base]"))).hasSize(2);

            browser.see("//*[@role='row'][@data-line='1']/*[1]").click();
            browser.keys("w");
            browser.see("//h3[.='Strong in']");
            browser.see("//a[starts-with(., 'Compare the two')]").click();
            browser.see("//h1[.='Compare']");
            browser.see("//h2[.='Overall']");

            browser.keys("g", "l");
            browser.see("//h1[.='Ledger']");
            browser.keys("1");
            browser.keys(Keys.DELETE);
            browser.until("one left", Browser.PATIENCE, () -> browser.driver().findElements(By.cssSelector("footer [data-base]")).size() == 1);
            assertThat(browser.complaints()).isEmpty();
        }
    }
}
