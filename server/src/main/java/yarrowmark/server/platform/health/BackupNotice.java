package yarrowmark.server.platform.health;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.core.env.Environment;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Component;

/**
 * Says to owners that the daily backup failed, or did not come. What became of the last one stands in a file beside the
 * records, which the command that makes them writes; where there is none, no backups were asked for.
 */
@Component
class BackupNotice implements HealthWarnings {
    /** A day, and time for a large one to be made. */
    private static final Duration OVERDUE = Duration.ofHours(30);

    private final Path state;
    private final Clock clock;

    BackupNotice(Environment environment, Clock clock) {
        this.state = Path.of(environment.getProperty("YARROWMARK_VAR", "var")).resolve("backup.state");
        this.clock = clock;
    }

    @Override
    public List<String> noticed() {
        return isOwner() ? told(clock.instant()) : List.of();
    }

    public List<String> told(Instant now) {
        try {
            // "ok SECONDS" or "failed SECONDS WORDS", in seconds since 1970.
            String[] line =
                    Files.readString(state, StandardCharsets.UTF_8).strip().split(" ", 3);
            Instant at = Instant.ofEpochSecond(Long.parseLong(line[1]));
            if (line[0].equals("failed")) {
                return List.of("The last backup failed: " + (line.length > 2 ? line[2] : "nobody knows why")
                        + (line.length > 2 && line[2].endsWith(".") ? "" : "."));
            }
            long hours = Duration.between(at, now).toHours();
            return Duration.between(at, now).compareTo(OVERDUE) > 0
                    ? List.of("The last backup is " + (hours < 72 ? hours + " hours" : hours / 24 + " days") + " old.")
                    : List.of();
        } catch (IOException | RuntimeException e) {
            return List.of();
        }
    }

    /** When the last one was made; nothing where none are, or the last one failed. */
    Optional<Instant> newest() {
        try {
            String[] line =
                    Files.readString(state, StandardCharsets.UTF_8).strip().split(" ", 3);
            return line[0].equals("ok")
                    ? Optional.of(Instant.ofEpochSecond(Long.parseLong(line[1])))
                    : Optional.empty();
        } catch (IOException | RuntimeException e) {
            return Optional.empty();
        }
    }

    private static boolean isOwner() {
        Authentication who = SecurityContextHolder.getContext().getAuthentication();
        return who != null && who.getAuthorities().stream().anyMatch(a -> "ROLE_OWNER".equals(a.getAuthority()));
    }
}
