package yarrowmark.server.platform.health;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.springframework.boot.health.contributor.Health;
import org.springframework.boot.health.contributor.HealthIndicator;
import org.springframework.boot.health.contributor.Status;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import yarrowmark.server.platform.change.ChangeFeed;
import yarrowmark.server.platform.change.Revision;

/**
 * What is said about the program to whoever watches it: beside the database, the disk, the mirrors and the backups. What is
 * not as it should be, and stops nobody from working, is no reason to start the program again: it needs attention.
 */
@Configuration
class HealthOfParts {
    private static final Status ATTENTION = new Status("ATTENTION");

    private static Health.Builder of(boolean well) {
        return well ? Health.up() : Health.status(ATTENTION);
    }

    @Bean
    HealthIndicator diskHealthIndicator(DiskSpace disk) {
        return () -> {
            DiskSpace.Room room = disk.room();
            return of(!room.isLow())
                    .withDetail("freeBytes", room.free())
                    .withDetail("ofBytes", room.of())
                    .build();
        };
    }

    /** A mirror that could not note a commit may answer with what was there before, until the program is started again. */
    @Bean
    HealthIndicator mirrorsHealthIndicator(ChangeFeed feed, Revision revision) {
        return () -> of(feed.missed() == 0)
                .withDetail("missedCommits", feed.missed())
                .withDetail("revision", revision.now())
                .build();
    }

    @Bean
    HealthIndicator backupHealthIndicator(BackupNotice backups, Clock clock) {
        return () -> {
            Instant now = clock.instant();
            List<String> wrong = backups.told(now);
            Health.Builder health = of(wrong.isEmpty());
            if (!wrong.isEmpty()) {
                health.withDetail("what", wrong.get(0));
            }
            backups.newest()
                    .ifPresentOrElse(
                            at -> health.withDetail(
                                    "ageHours", Duration.between(at, now).toHours()),
                            () -> health.withDetail("ageHours", "no daily backups are made"));
            return health.build();
        };
    }
}
