package yarrowmark.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;

/** What happens around a start: a second one in the same place, and a command that is killed. */
class StartingIT {
    @Test
    void aSecondStartInTheSamePlaceSaysSoAtOnceAndLeavesTheFirstAlone() throws IOException, InterruptedException {
        try (Program first = Program.start("start", "second-start");
                Browser browser = new Browser()) {
            Process second = first.sameAgain();
            String said = new String(second.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
            assertThat(second.waitFor(30, TimeUnit.SECONDS)).isTrue();
            assertThat(second.exitValue()).isNotZero();
            assertThat(said).contains("is running in").contains("already");
            browser.open(first.address());
            browser.seeText("Name of your lab");
            assertThat(first.database()).as("its files are as they were").hasSize(3);
            aDatabaseThatIsKilledComesBackByItselfAndThePageWithIt(first, browser);
        }
    }

    /** At the same program: starting one takes longer than all of this. */
    private static void aDatabaseThatIsKilledComesBackByItselfAndThePageWithIt(Program program, Browser browser)
            throws IOException, InterruptedException {
        Device.owner(program.address());
        browser.open(program.address());
        browser.see("//input[@autocomplete='username']").sendKeys("wren");
        browser.see("//input[@type='password']").sendKeys("a long password");
        browser.press("Sign in");
        browser.see("//nav[@aria-label='Line of work']");
        ProcessHandle database = program.databaseServer();
        database.destroyForcibly();
        // It is back within a second, so it is killed again for as long as the page has not met it away.
        AtomicInteger looks = new AtomicInteger();
        browser.until("a page that says what is wrong", Browser.PATIENCE, () -> {
            if (browser.text().contains("The records are out of reach")) {
                return true;
            }
            program.killDatabase();
            if (looks.getAndIncrement() % 10 == 0) {
                browser.open(program.address() + "shelf");
            }
            return false;
        });
        browser.until("a shelf that is read again, without a key or a click", Browser.PATIENCE, () -> {
            String text = browser.text();
            return text.contains("The shelf is empty") && !text.contains("out of reach");
        });
        assertThat(program.databaseServer().pid()).isNotEqualTo(database.pid());
    }

    @Test
    void aCommandThatIsKilledLeavesNothingBehindAndCanBeStartedAgain() throws InterruptedException {
        try (Program program = Program.start("start", "killed-command")) {
            ProcessHandle server = program.server();
            ProcessHandle database = program.databaseServer();
            assertThat(server.isAlive() && database.isAlive()).isTrue();
            program.killCommand();
            server.onExit().orTimeout(60, TimeUnit.SECONDS).join();
            database.onExit().orTimeout(60, TimeUnit.SECONDS).join();
            program.startAgain();
            assertThat(program.server().pid()).isNotEqualTo(server.pid());
        }
        assertThat(Path.of("target", "records", "killed-command")).exists();
    }
}
