package yarrowmark.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;

/** What a reviewer does without a device: first start, shelf, table, keys, search. */
class ReviewerIT {
    private static Program program;
    private Browser browser;

    @BeforeAll
    static void emptyShelf() {
        program = Program.start("start", "reviewer");
        try (Browser first = new Browser()) {
            first.open(program.address());
            first.type("Name of your lab", "Saltmarsh Kit Review");
            first.type("Your name", "wren");
            first.type("Password", "short");
            first.press("Open the shelf");
            first.seeText("A password has 10 to 200 characters");
            first.type("Password", "long enough now");
            first.press("Open the shelf");
            first.see("//h1[.='Today']");
            first.seeText("First steps");
            assertThat(first.complaints()).allMatch(c -> c.contains("400") || c.contains("422"));
        }
    }

    @AfterAll
    static void stop() {
        program.close();
    }

    @BeforeEach
    void signIn() {
        browser = new Browser();
        browser.open(program.address());
        browser.type("Name", "wren");
        browser.type("Password", "long enough now");
        browser.press("Sign in");
        browser.see("//nav[@aria-label='Main']");
    }

    @AfterEach
    void leave() {
        browser.close();
    }

    @Test
    void aWrongPasswordIsToldAndTheSignInHasNoDemo() {
        try (Browser stranger = new Browser()) {
            stranger.open(program.address());
            stranger.type("Name", "wren");
            stranger.type("Password", "not the right one");
            assertThat(stranger.text()).doesNotContain("demo");
            stranger.press("Sign in");
            stranger.seeText("do not belong together");
        }
    }

    @Test
    void aModelIsMadeWithoutTheMouseAndFoundAgain() {
        browser.keys("g", "h");
        browser.see("//h1[.='Shelf']");
        browser.keys("n");
        browser.type("Maker", "Dunlin");
        browser.type("Model", "Wader <b>9</b>");
        browser.type("Price", "1 299,50");
        browser.keys(Keys.ENTER);
        browser.see("//h1[.='Dunlin Wader <b>9</b>']");
        browser.seeText("1\u202f299.50 EUR");
        browser.keys("/");
        browser.type("Search", "wader");
        browser.see("//*[@role='option'][contains(., 'Wader <b>9</b>')]");
        browser.keys(Keys.ESCAPE);
    }

    @Test
    void twoPeopleEditingTheSameModelLoseNothing() {
        browser.keys("g", "h");
        browser.see("//h1[.='Shelf']");
        browser.keys("n");
        browser.type("Maker", "Hawkmoor");
        browser.type("Model", "Ridge");
        browser.keys(Keys.ENTER);
        browser.see("//h1[.='Hawkmoor Ridge']");
        String page = browser.driver().getCurrentUrl();
        browser.press("Name: Ridge. Change it");
        browser.type("Name", "Ridge second edition");
        try (Browser other = new Browser()) {
            other.open(program.address());
            other.type("Name", "wren");
            other.type("Password", "long enough now");
            other.press("Sign in");
            other.see("//nav[@aria-label='Main']");
            other.open(page);
            other.press("Name: Ridge. Change it");
            other.type("Name", "Ridge II");
            other.press("Save");
            other.see("//h1[.='Hawkmoor Ridge II']");
        }
        browser.press("Save");
        browser.see("//*[@role='alert'][contains(., 'It is now') and contains(., 'Ridge II')]");
        browser.press("Keep mine");
        browser.see("//h1[.='Hawkmoor Ridge second edition']");
        browser.press("Undo");
        browser.see("//h1[.='Hawkmoor Ridge II']");
    }

    @Test
    void theKeysAreListedAndAnUnknownAddressLeadsOn() {
        browser.open(program.address() + "ledger?state=NONSENSE&page=-3");
        browser.seeText("Nothing was measured yet");
        browser.keys("?");
        browser.seeText("Keys of this view");
        browser.seeText("Go to Standings");
        browser.keys(Keys.ESCAPE);
        browser.open(program.address() + "shelf/nowhere");
        browser.seeText("There is nothing at this address");
    }

    @Test
    void theDarkPaperStaysAfterAReload() {
        browser.press("Saltmarsh Kit Review");
        browser.see("//*[@role='menuitem'][.='Dark paper']").click();
        browser.until("dark paper", () -> "dark".equals(browser.js("return document.documentElement.dataset.theme")));
        browser.driver().navigate().refresh();
        browser.see("//nav[@aria-label='Main']");
        assertThat(browser.driver().findElement(By.tagName("html")).getAttribute("data-theme"))
                .isEqualTo("dark");
    }
}
