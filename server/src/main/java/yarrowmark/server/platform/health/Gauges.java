package yarrowmark.server.platform.health;

import io.micrometer.core.instrument.Gauge;
import io.micrometer.core.instrument.binder.MeterBinder;
import java.time.Clock;
import java.time.Duration;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import yarrowmark.server.platform.change.ChangeFeed;
import yarrowmark.server.platform.change.Revision;

/** Numbers of ours beside those that the libraries count by themselves: requests, connections, memory, threads. */
@Configuration
class Gauges {
    @Bean
    MeterBinder ownNumbers(DiskSpace disk, ChangeFeed feed, Revision revision, BackupNotice backups, Clock clock) {
        return registry -> {
            Gauge.builder("yarrowmark.disk.free", disk, d -> d.room().free())
                    .baseUnit("bytes")
                    .description("Room on the disk with the records")
                    .register(registry);
            Gauge.builder("yarrowmark.commits", revision, Revision::now)
                    .description("Changes of the records since the start")
                    .register(registry);
            Gauge.builder("yarrowmark.mirrors.missed", feed, ChangeFeed::missed)
                    .description("Commits that a mirror could not note")
                    .register(registry);
            Gauge.builder("yarrowmark.backup.age", backups, b -> b.newest()
                            .map(at -> (double)
                                    Duration.between(at, clock.instant()).toSeconds())
                            .orElse(Double.NaN))
                    .baseUnit("seconds")
                    .description("Age of the newest daily backup; not a number where none are made")
                    .register(registry);
        };
    }
}
