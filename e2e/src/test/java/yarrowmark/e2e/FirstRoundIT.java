package yarrowmark.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.WindowType;

/** A reviewer in one browser, a device in another, from the code to the place in the standings. */
@Order(3)
class FirstRoundIT {
    private static Program program;
    private static Browser reviewer;
    private static int models;

    private Browser device;
    private String model;

    @BeforeAll
    static void demo() {
        program = Program.start("demo", "first-round");
        reviewer = new Browser();
        reviewer.signIntoDemo(program.address());
    }

    @AfterAll
    static void stop() {
        if (reviewer != null) {
            reviewer.close();
        }
        program.close();
    }

    @BeforeEach
    void freshDevice() {
        device = new Browser(900, 700);
        // What the reviewer's page complained about while an earlier test had killed the server is not this test's.
        reviewer.complaints();
        model = "Drift " + (40 + models++);
    }

    @AfterEach
    void leave() {
        device.close();
    }

    private String code(String settings) {
        reviewer.open(program.address() + "bench?" + settings);
        return reviewer.newCode();
    }

    /** The device joins by the address of the QR code, says which model it is, and starts. */
    private void start(String settings) {
        device.open(program.address() + "j/" + code(settings));
        device.press("It is a new model");
        device.type("Maker", "Pellow");
        device.type("Model", model);
        device.press("Start first round");
        device.see("//h1[not(starts-with(., 'Which'))]");
    }

    private WebElement lane() {
        return reviewer.see("//article[@aria-label=\"Pellow " + model + "\"]");
    }

    private void laneSays(String words) {
        reviewer.until("the lane to say " + words, () -> lane().getText().contains(words));
    }

    private void finished() {
        device.until(
                "the device to finish",
                () -> device.driver().findElement(By.tagName("h1")).getText().equals("Finished"));
    }

    private List<WebElement> dots(String words) {
        return lane().findElements(By.cssSelector("svg[aria-label*=\"" + words + "\"]"));
    }

    @Test
    void aBrowserJoinsRunsAndFindsItsPlace() {
        start("runs=2&timed=100&pause=0");
        finished();
        laneSays("finished");
        assertThat(dots(": ok")).hasSize(10);
        assertThat(device.complaints()).isEmpty();

        lane().findElement(By.linkText("Its readings")).click();
        // Two runs of five tests; all threads also say what each of them did.
        reviewer.seeText("12 lines");
        reviewer.until(
                "twelve values",
                () -> reviewer.driver()
                                .findElements(By.cssSelector("button[data-line]"))
                                .size()
                        == 12);
        reviewer.driver()
                .findElements(By.cssSelector("button[data-line]"))
                .get(0)
                .click();
        reviewer.seeText("Timed samples");
        reviewer.seeText("of it timed");
        reviewer.type("Set aside, because", "trying it out");
        reviewer.press("Set aside");
        reviewer.button("Count it again");
        reviewer.seeText("Set aside by wren");
        reviewer.press("Count it again");
        reviewer.seeText("Undone by wren");
        reviewer.keys(Keys.ESCAPE);

        reviewer.open(program.address() + "standings");
        WebElement row = reviewer.see("//*[@role='row'][@data-line='0']");
        row.click();
        // A device that was slow stands far down, and on a machine that is slow each row takes its time.
        reviewer.until("its row", () -> {
            if (reviewer.text().contains("Pellow " + model)) {
                return true;
            }
            reviewer.keys(Keys.ARROW_DOWN);
            return false;
        });
        assertThat(reviewer.complaints()).isEmpty();
    }

    @Test
    void aNewCodeOnADeviceThatIsInARoundIsAskedAboutAndNeverIgnored() {
        start("runs=9&timed=3000&pause=0");
        String first = device.driver().findElement(By.tagName("h1")).getText();
        String other = code("runs=1&timed=100&pause=0");
        device.open(program.address() + "j/" + other);
        device.seeText("This device is in another round");
        assertThat(device.violations()).isEmpty();
        device.press("Go on with First round");
        device.see("//h1[not(starts-with(., 'This device'))]");
        assertThat(first).isNotEmpty();

        device.open(program.address() + "j/" + other);
        device.press("End it, and join with " + other);
        device.press("It is a new model");
        device.type("Maker", "Pellow");
        device.type("Model", model + " b");
        device.press("Start first round");
        finished();
        laneSays("stopped");
        assertThat(device.complaints()).isEmpty();
    }

    @Test
    void aReloadInTheMiddleOfARunLosesNoFinishedRunAndGoesOn() {
        start("runs=2&timed=1500&pause=0");
        reviewer.until("a first finished run", () -> !dots(": ok").isEmpty());
        device.driver().navigate().refresh();
        reviewer.until("the cut-off run to be told", () -> lane().getText().contains("running"));
        reviewer.seeText("The page was reloaded or closed");
        reviewer.until("the run to be repeated", () -> !dots("attempt 2").isEmpty());
        device.press("Stop");
        laneSays("stopped");
        String session = lane().findElement(By.linkText("Its readings"))
                .getAttribute("href")
                .replaceAll(".*session=(\\d+).*", "$1");
        reviewer.open(program.address() + "ledger?session=" + session);
        reviewer.seeText("attempt 2");
        assertThat(reviewer.text()).contains("stopped").contains("ops/s");
    }

    @Test
    void aLostServerLosesNothing() {
        start("runs=1&timed=500&pause=0");
        reviewer.until("a first finished run", () -> !dots(": ok").isEmpty());
        program.kill();
        device.until(
                "the device to say that results wait", () -> device.text().contains("on this device for the server"));
        device.until("the device to have finished its runs", () -> device.text().contains("Sending the last results"));
        // Even opened anew it is there, and says what it keeps.
        device.driver().navigate().refresh();
        device.seeText("runs that no server has yet");
        program.startAgain();
        finished();
        // Whoever was signed in still is.
        reviewer.open(program.address() + "bench");
        laneSays("finished");
        assertThat(dots(": ok")).hasSize(5);
    }

    @Test
    void aHiddenPageStopsTheRunWhichIsThenRepeated() {
        start("runs=1&timed=1500&pause=0");
        laneSays("running");
        String page = device.driver().getWindowHandle();
        device.until(
                "the first test to run",
                () -> device.text().contains("Weir hash, one thread")
                        && device.text().contains("run 1 of 1"));
        device.driver().switchTo().newWindow(WindowType.TAB);
        reviewer.seeText("The page was hidden or the screen slept");
        laneSays("page hidden");
        device.driver().switchTo().window(page);
        reviewer.until("the run to be repeated", () -> !dots("ok, attempt 2").isEmpty());
    }

    @Test
    void pauseHoldsGoOnReleasesAndStopEnds() {
        start("runs=3&timed=500&pause=0");
        laneSays("running");
        lane().findElement(By.xpath(".//button[.='Pause']")).click();
        laneSays("paused");
        device.seeText("Paused by the reviewer");
        lane().findElement(By.xpath(".//button[.='Go on']")).click();
        laneSays("running");
        lane().findElement(By.xpath(".//button[.='Stop']")).click();
        lane().findElement(By.xpath(".//button[.='Stop']")).click();
        laneSays("stopped");
        device.seeText("What was finished before is in the ledger");
    }

    @Test
    void aTestThatCannotRunSaysWhy() {
        device.cdp("Page.addScriptToEvaluateOnNewDocument", Map.of("source", "delete window.OffscreenCanvas"));
        start("runs=1&timed=100&pause=0");
        finished();
        laneSays("can’t run");
        reviewer.seeText("cannot draw on a canvas that is not shown");
    }

    @Test
    void wrongUsedExpiredAndEmptyCodesAreToldApart() throws SQLException {
        device.open(program.address() + "j");
        assertThat(device.button("Join").isEnabled()).isFalse();
        device.type("Code", "NO-22-SUCH");
        device.press("Join");
        device.seeText("No device is expected under this code");
        String code = code("runs=1&timed=100&pause=0");
        try (Browser first = new Browser(390, 844)) {
            // The server's first answer is lost on its way; opened anew, also without the code, it gets its seat.
            first.cdp(
                    "Page.addScriptToEvaluateOnNewDocument",
                    Map.of(
                            "source",
                            """
                const sent = window.fetch;
                window.fetch = async (address, ...more) => {
                  const answer = await sent(address, ...more);
                  if (!String(address).endsWith('/join') || localStorage.getItem('lost')) return answer;
                  localStorage.setItem('lost', 'yes');
                  throw new TypeError('the connection is gone');
                };"""));
            first.open(program.address() + "j/" + code);
            first.seeText("The server cannot be reached");
            first.open(program.address() + "j");
            first.seeText("Which model is this?");
            device.type("Code", code);
            device.press("Join");
            device.seeText("was used already");
        }
        String late = code("runs=1&timed=100&pause=0");
        String[] database = program.database();
        try (Connection connection = DriverManager.getConnection(database[0], database[1], database[2]);
                PreparedStatement tenMinutesPass = connection.prepareStatement(
                        "UPDATE seat SET expires_at = created_at - INTERVAL 1 SECOND WHERE code = ?")) {
            tenMinutesPass.setString(1, late);
            assertThat(tenMinutesPass.executeUpdate()).isEqualTo(1);
        }
        device.type("Code", late);
        device.press("Join");
        device.seeText("no longer valid");
    }
}
