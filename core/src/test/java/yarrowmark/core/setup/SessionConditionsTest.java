package yarrowmark.core.setup;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import org.junit.jupiter.api.Test;
import yarrowmark.core.setup.SessionConditions.Matter;

class SessionConditionsTest {
    private static final Instant DAY = Instant.parse("2026-03-02T10:00:00Z");

    private static SessionConditions session(Boolean mains, Boolean recording, double room, int day) {
        return new SessionConditions(
                Optional.ofNullable(mains),
                Optional.ofNullable(recording),
                Double.isNaN(room) ? OptionalDouble.empty() : OptionalDouble.of(room),
                DAY.plusSeconds(86_400L * day));
    }

    @Test
    void saysWhatDiffersFromBothSides() {
        List<SessionConditions.Difference> found =
                SessionConditions.between(List.of(session(true, false, 20, 0)), List.of(session(false, true, 24.5, 3)));
        assertThat(found)
                .containsExactly(
                        new SessionConditions.Difference(Matter.POWER, "on mains", "on battery", true),
                        new SessionConditions.Difference(
                                Matter.RECORDING, "not recording", "recording the screen", true),
                        new SessionConditions.Difference(Matter.ROOM, "20.0 °C", "24.5 °C", true),
                        new SessionConditions.Difference(Matter.DAYS, "", "3 days later", false));
    }

    @Test
    void sessionsOfBothKindsArePartlySo() {
        assertThat(SessionConditions.between(
                        List.of(session(true, null, Double.NaN, 0)),
                        List.of(session(true, null, Double.NaN, 0), session(false, null, Double.NaN, 0))))
                .containsExactly(new SessionConditions.Difference(Matter.POWER, "on mains", "partly on mains", true));
    }

    @Test
    void whatIsNotKnownOrNearIsNoDifference() {
        assertThat(SessionConditions.between(
                        List.of(session(null, null, Double.NaN, 0)), List.of(session(true, true, 20, 0))))
                .isEmpty();
        assertThat(SessionConditions.between(
                        List.of(session(true, false, 20, 0)), List.of(session(true, false, 21.5, 0))))
                .isEmpty();
        assertThat(SessionConditions.between(List.of(), List.of(session(true, false, 21.5, 0))))
                .isEmpty();
    }
}
