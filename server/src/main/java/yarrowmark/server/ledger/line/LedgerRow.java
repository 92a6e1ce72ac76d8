package yarrowmark.server.ledger.line;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Kind;
import yarrowmark.server.ledger.mark.ReadingMarks;
import yarrowmark.server.ledger.record.Reason;
import yarrowmark.server.ledger.record.RunState;
import yarrowmark.server.shelf.model.DeviceClass;

/**
 * One line of the ledger: a reading, or a run that gave none and says why.
 *
 * @param person      who carried it out; absent where a device ran by itself
 * @param value       in unit; absent where the run gave no reading
 * @param resolution  smallest step the value could show, in unit
 * @param choices     of an ordered list, one a line
 * @param asideReason present while the reading is set aside
 * @param disturbed   what the device noticed while the run went on
 * @param marks       why the reading may not be sound
 */
public record LedgerRow(
        long runId,
        @Nullable Long readingId,
        long sessionId,
        long configurationId,
        long modelId,
        String maker,
        String model,
        DeviceClass deviceClass,
        String configuration,
        long testId,
        String test,
        int runNumber,
        int attempt,
        RunState state,
        @Nullable Reason reason,
        @Nullable String reasonWords,
        Instant finishedAt,
        @Nullable String person,
        @Nullable Long metricId,
        @Nullable String metric,
        @Nullable Double value,
        @Nullable Double resolution,
        @Nullable String unit,
        @Nullable Direction direction,
        @Nullable Kind kind,
        @Nullable String choices,
        @Nullable String asideReason,
        @Nullable String disturbed,
        List<ReadingMarks.ReadingMark> marks) {

    LedgerRow(
            long runId,
            @Nullable Long readingId,
            long sessionId,
            long configurationId,
            long modelId,
            String maker,
            String model,
            DeviceClass deviceClass,
            String configuration,
            long testId,
            String test,
            int runNumber,
            int attempt,
            RunState state,
            @Nullable Reason reason,
            @Nullable String reasonWords,
            Instant finishedAt,
            @Nullable String person,
            @Nullable Long metricId,
            @Nullable String metric,
            @Nullable Double value,
            @Nullable Double resolution,
            @Nullable String unit,
            @Nullable Direction direction,
            @Nullable Kind kind,
            @Nullable String choices,
            @Nullable String asideReason,
            @Nullable String disturbed) {
        this(
                runId,
                readingId,
                sessionId,
                configurationId,
                modelId,
                maker,
                model,
                deviceClass,
                configuration,
                testId,
                test,
                runNumber,
                attempt,
                state,
                reason,
                reasonWords,
                finishedAt,
                person,
                metricId,
                metric,
                value,
                resolution,
                unit,
                direction,
                kind,
                choices,
                asideReason,
                disturbed,
                List.of());
    }

    LedgerRow with(List<ReadingMarks.ReadingMark> found) {
        return new LedgerRow(
                runId,
                readingId,
                sessionId,
                configurationId,
                modelId,
                maker,
                model,
                deviceClass,
                configuration,
                testId,
                test,
                runNumber,
                attempt,
                state,
                reason,
                reasonWords,
                finishedAt,
                person,
                metricId,
                metric,
                value,
                resolution,
                unit,
                direction,
                kind,
                choices,
                asideReason,
                disturbed,
                found);
    }
}
