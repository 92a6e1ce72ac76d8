package yarrowmark.server.platform;

import java.time.Clock;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

@Configuration
class PlatformConfiguration {
    /** The one source of time, so that tests can move it. Milliseconds, as the database keeps them. */
    @Bean
    Clock clock() {
        return Clock.tickMillis(java.time.ZoneOffset.UTC);
    }
}
