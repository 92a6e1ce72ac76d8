package yarrowmark.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.WebElement;

/** What somebody sees who comes in: where the lab stands, and a way to each part of it. */
class TodayIT extends AtTheDemo {
    TodayIT() {
        super(Demo.READ);
    }

    @Test
    void whoeverSignsInSeesWhereTheLabStandsAndWhatALineSaysIsWhatItsViewSays() {
        browser.open(program.address());
        browser.see("//h1[.='Today']");
        browser.see("//h2[.='On the bench']");
        browser.see("//h2[.='Units to send back']");
        browser.see("//section[h2='Write-ups' or .//h2='Write-ups']//li[contains(., 'agree')]");

        WebElement pair = browser.see("//section[.//h2='What the latest changes came to']//li[1]/a");
        String size = pair.findElement(By.xpath(".//span[contains(@class, 'font-semibold')][contains(., '%')]"))
                .getText();
        pair.click();
        browser.see("//h1[.='Compare']");
        browser.seeText(size);

        browser.open(program.address() + "today");
        WebElement trend = browser.see("//section[.//h2='What moved most']//li[1]/a");
        String device = trend.findElement(By.xpath(".//span[contains(@class, 'font-semibold')]"))
                .getText();
        trend.click();
        browser.see("//h1[.='Trends']");
        browser.see("//h1[.='Trends']/following::p[1][contains(., '" + device + "')]");
        assertThat(browser.complaints()).isEmpty();
    }

    @Test
    void theLogLeadsToWhatItNames() {
        browser.open(program.address() + "today");
        browser.see(
                        "//section[.//h2[starts-with(., 'What was changed') or starts-with(., 'Since you')]]//li//a[starts-with(@href, '/shelf/models/')]")
                .click();
        browser.see("//h2[.='Units' or starts-with(., 'Unit')]");
    }
}
