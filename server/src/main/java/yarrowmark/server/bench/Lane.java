package yarrowmark.server.bench;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import yarrowmark.server.ledger.record.Reason;
import yarrowmark.server.ledger.record.RunState;
import yarrowmark.server.shelf.configuration.ConfigurationRow;

/**
 * A seat as the reviewer sees it.
 *
 * @param device  what the device says it is, before it has a configuration
 * @param msLeft  estimated time left, in ms
 * @param command what the reviewer wants; the phase says what the device does
 * @param late    finished runs that came after the session was ended, and wait for the reviewer
 * @param sensors what they said lately
 */
public record Lane(
        long seatId,
        String code,
        Instant createdAt,
        Instant expiresAt,
        String planName,
        int runs,
        int timedMs,
        int pauseMs,
        @Nullable String device,
        @Nullable Long sessionId,
        @Nullable ConfigurationRow configuration,
        List<LaneTest> tests,
        Phase phase,
        @Nullable Long phaseTestId,
        @Nullable Integer phaseRun,
        @Nullable Instant phaseUntil,
        Command command,
        @Nullable Instant lastHeardAt,
        long msLeft,
        int late,
        List<LiveSensors.Line> sensors) {
    /**
     * @param runs       one place a planned run, in order
     * @param byHand     whether the reviewer carries it out
     * @param todo       what to do, in the plan's words
     * @param pauseUntil a temperature in °C that somebody waits for before each run
     */
    public record LaneTest(
            long testId,
            String name,
            List<LaneRun> runs,
            boolean byHand,
            @Nullable String todo,
            @Nullable Double pauseUntil) {}

    /**
     * @param state    absent while the run is still to come
     * @param attempts how often it was tried
     */
    public record LaneRun(
            int number,
            @Nullable RunState state,
            @Nullable Reason reason,
            @Nullable String reasonWords,
            int attempts) {}
}
