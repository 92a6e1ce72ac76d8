package yarrowmark.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;

/** What happens around a start: a second one in the same place, and a command that is killed. */
class StartingIT {
    @Test
    void aSecondStartInTheSamePlaceSaysSoAtOnceAndLeavesTheFirstAlone() throws IOException, InterruptedException {
        try (Program first = Program.start("start", "second-start");
                Browser browser = new Browser()) {
            Process second = first.sameAgain();
            String said = new String(second.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
            Patience.until(() -> "the second start did not end", () -> !second.isAlive());
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
        browser.see("//nav[@aria-label='Main']");
        browser.open(program.address() + "shelf");
        browser.seeText("The shelf is empty");
        ProcessHandle database = program.databaseServer();
        // Whoever starts it again is held meanwhile: otherwise it is back before the page has asked for anything.
        long keeper = database.parent().orElseThrow().pid();
        signal("STOP", keeper);
        database.destroyForcibly();
        browser.open(program.address() + "shelf");
        browser.seeText("The records are out of reach");
        signal("CONT", keeper);
        browser.until("a shelf that is read again, without a key or a click", () -> {
            String text = browser.text();
            return text.contains("The shelf is empty") && !text.contains("out of reach");
        });
        assertThat(program.databaseServer().pid()).isNotEqualTo(database.pid());
    }

    private static void signal(String name, long pid) throws IOException, InterruptedException {
        assertThat(new ProcessBuilder("kill", "-" + name, Long.toString(pid))
                        .inheritIO()
                        .start()
                        .waitFor())
                .isZero();
    }

    @Test
    void aCommandThatIsKilledLeavesNothingBehindAndCanBeStartedAgain() throws InterruptedException {
        try (Program program = Program.start("start", "killed-command")) {
            ProcessHandle server = program.server();
            ProcessHandle database = program.databaseServer();
            assertThat(server.isAlive() && database.isAlive()).isTrue();
            program.killCommand();
            server.onExit().orTimeout(10, TimeUnit.MINUTES).join();
            database.onExit().orTimeout(10, TimeUnit.MINUTES).join();
            program.startAgain();
            assertThat(program.server().pid()).isNotEqualTo(server.pid());
            withoutItsDatabaseItEnds(program);
        }
        assertThat(Path.of("target", "records", "killed-command")).exists();
    }

    /**
     * Its database is started again when it dies; where that is given up, a server alone is of no use. At the same
     * program.
     */
    private static void withoutItsDatabaseItEnds(Program program) {
        ProcessHandle server = program.server();
        program.databaseServer().parent().orElseThrow().destroy();
        server.onExit().orTimeout(10, TimeUnit.MINUTES).join();
    }
}
