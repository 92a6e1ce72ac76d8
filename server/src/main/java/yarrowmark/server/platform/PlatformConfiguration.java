package yarrowmark.server.platform;

import java.time.Clock;
import org.springframework.boot.jackson.autoconfigure.JsonMapperBuilderCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import tools.jackson.core.StreamWriteFeature;

@Configuration
class PlatformConfiguration {
    /** The one source of time, so that tests can move it. Milliseconds, as the database keeps them. */
    @Bean
    Clock clock() {
        return Clock.tickMillis(java.time.ZoneOffset.UTC);
    }

    /** Java 17's own way to write a double takes most of the time of an answer with ten thousand of them. */
    @Bean
    JsonMapperBuilderCustomizer fastNumbers() {
        return builder -> builder.enable(StreamWriteFeature.USE_FAST_DOUBLE_WRITER);
    }
}
