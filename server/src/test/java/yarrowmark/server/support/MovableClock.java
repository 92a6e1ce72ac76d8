package yarrowmark.server.support;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import org.springframework.boot.test.context.TestConfiguration;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Primary;

/** The real time plus whatever a test has let pass. */
public final class MovableClock extends Clock {
    private volatile Duration passed = Duration.ZERO;

    @TestConfiguration
    static class Wiring {
        @Bean
        @Primary
        MovableClock movableClock() {
            return new MovableClock();
        }
    }

    public void letPass(Duration time) {
        passed = passed.plus(time);
    }

    @Override
    public Instant instant() {
        return Clock.tickMillis(ZoneOffset.UTC).instant().plus(passed);
    }

    @Override
    public ZoneId getZone() {
        return ZoneOffset.UTC;
    }

    @Override
    public Clock withZone(ZoneId zone) {
        return this;
    }
}
