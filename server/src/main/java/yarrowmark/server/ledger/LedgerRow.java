package yarrowmark.server.ledger;

import java.time.Instant;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.measure.Direction;
import yarrowmark.server.shelf.DeviceClass;

/**
 * One line of the ledger: a reading, or a run that gave none and says why.
 *
 * @param value       in unit; absent where the run gave no reading
 * @param resolution  smallest step the value could show, in unit
 * @param asideReason present while the reading is set aside
 */
public record LedgerRow(long runId, @Nullable Long readingId, long sessionId, long configurationId, long modelId, String maker, String model,
                        DeviceClass deviceClass, String configuration, long testId, String test, int runNumber, int attempt,
                        RunState state, @Nullable Reason reason, @Nullable String reasonWords, Instant finishedAt,
                        @Nullable String metric, @Nullable Double value, @Nullable Double resolution, @Nullable String unit, @Nullable Direction direction,
                        @Nullable String asideReason) { }
