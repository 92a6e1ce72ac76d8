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
            assertThat(second.waitFor(30, TimeUnit.SECONDS)).isTrue();
            assertThat(second.exitValue()).isNotZero();
            assertThat(said).contains("is running in").contains("already");
            browser.open(first.address());
            browser.seeText("Name of your lab");
            assertThat(first.database()).as("its files are as they were").hasSize(3);
        }
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
