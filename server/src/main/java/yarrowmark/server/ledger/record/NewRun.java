package yarrowmark.server.ledger.record;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A run as it is stored.
 *
 * @param reason      present unless the state is OK
 * @param reasonWords words to the reason; for a run that is ok, a note
 * @param person      who carried it out; null where a device ran by itself
 * @param disturbed   what the device noticed meanwhile; null where it noticed nothing
 * @param timedMs     how much of the duration was timed; the rest prepared, warmed up and checked. Null where nobody timed parts
 * @param beside      what else there is to keep of it; null where there is nothing
 */
public record NewRun(
        long testId,
        int runNumber,
        int attempt,
        RunState state,
        @Nullable Reason reason,
        @Nullable String reasonWords,
        int durationMs,
        Instant finishedAt,
        List<NewReading> readings,
        @Nullable String person,
        @Nullable String disturbed,
        @Nullable Integer timedMs,
        Ledger.@Nullable RunAttachments beside) {
    private static final int MOST_DISTURBANCE = 200;

    public NewRun(
            long testId,
            int runNumber,
            int attempt,
            RunState state,
            @Nullable Reason reason,
            @Nullable String reasonWords,
            int durationMs,
            Instant finishedAt,
            List<NewReading> readings,
            @Nullable String person) {
        this(
                testId,
                runNumber,
                attempt,
                state,
                reason,
                reasonWords,
                durationMs,
                finishedAt,
                readings,
                person,
                null,
                null,
                null);
    }

    NewRun withAttempt(int other) {
        return new NewRun(
                testId,
                runNumber,
                other,
                state,
                reason,
                reasonWords,
                durationMs,
                finishedAt,
                readings,
                person,
                disturbed,
                timedMs,
                beside);
    }

    NewRun withNote(String words) {
        return new NewRun(
                testId,
                runNumber,
                attempt,
                state,
                reason,
                words.isEmpty() ? null : words,
                durationMs,
                finishedAt,
                readings,
                person,
                disturbed,
                timedMs,
                beside);
    }

    /** Marked with these words too, as far as there is room for them. */
    public NewRun withDisturbance(List<String> words) {
        if (words.isEmpty()) {
            return this;
        }
        String all = (disturbed == null ? "" : disturbed + " ") + String.join(" ", words);
        return new NewRun(
                testId,
                runNumber,
                attempt,
                state,
                reason,
                reasonWords,
                durationMs,
                finishedAt,
                readings,
                person,
                all.length() > MOST_DISTURBANCE ? all.substring(0, MOST_DISTURBANCE - 1) + "…" : all,
                timedMs,
                beside);
    }

    public NewRun withReadings(List<NewReading> others) {
        return new NewRun(
                testId,
                runNumber,
                attempt,
                state,
                reason,
                reasonWords,
                durationMs,
                finishedAt,
                others,
                person,
                disturbed,
                timedMs,
                beside);
    }

    public NewRun(
            long testId,
            int runNumber,
            int attempt,
            RunState state,
            @Nullable Reason reason,
            @Nullable String reasonWords,
            int durationMs,
            Instant finishedAt,
            List<NewReading> readings) {
        this(
                testId,
                runNumber,
                attempt,
                state,
                reason,
                reasonWords,
                durationMs,
                finishedAt,
                readings,
                null,
                null,
                null,
                null);
    }
}
