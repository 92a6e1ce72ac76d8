package yarrowmark.server.platform.health;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.mock.env.MockEnvironment;

/** What owners are told of their daily backups. */
class BackupNoticeTest {
    private static final Instant NOW = Instant.ofEpochSecond(1_800_000_000);

    @TempDir
    private Path var;

    private BackupNotice notice() {
        return new BackupNotice(
                new MockEnvironment().withProperty("YARROWMARK_VAR", var.toString()), Clock.systemUTC());
    }

    private void last(String state, Duration ago, String words) throws IOException {
        Files.writeString(
                var.resolve("backup.state"),
                state + " " + NOW.minus(ago).getEpochSecond() + (words.isEmpty() ? "" : " " + words) + "\n");
    }

    @Test
    void onlyWhatIsWrongIsSaid() throws IOException {
        assertThat(notice().told(NOW)).as("none was asked for").isEmpty();
        last("ok", Duration.ofHours(25), "");
        assertThat(notice().told(NOW)).isEmpty();
        last("ok", Duration.ofHours(31), "");
        assertThat(notice().told(NOW)).containsExactly("The last backup is 31 hours old.");
        last("ok", Duration.ofDays(9), "");
        assertThat(notice().told(NOW)).containsExactly("The last backup is 9 days old.");
        last("failed", Duration.ofHours(1), "there is no room");
        assertThat(notice().told(NOW)).containsExactly("The last backup failed: there is no room.");
        Files.writeString(var.resolve("backup.state"), "");
        assertThat(notice().told(NOW)).isEmpty();
        last("ok", Duration.ofDays(9), "");
        assertThat(notice().noticed()).as("nobody who is an owner asks").isEmpty();
    }
}
