package yarrowmark.server.ledger.record;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A session that is begun.
 *
 * @param batteryLevel 0 to 1
 * @param tests        how many it is to have; null where nobody planned any
 */
public record NewSession(
        long configurationId,
        String planName,
        int runs,
        int timedMs,
        @Nullable Boolean onMains,
        @Nullable Double batteryLevel,
        Instant startedAt,
        List<Ledger.Check> checks,
        String checkedBy,
        Ledger.ByHand byHand,
        @Nullable Integer tests) {
    public NewSession(
            long configurationId,
            String planName,
            int runs,
            int timedMs,
            @Nullable Boolean onMains,
            @Nullable Double batteryLevel,
            Instant startedAt,
            List<Ledger.Check> checks,
            String checkedBy) {
        this(
                configurationId,
                planName,
                runs,
                timedMs,
                onMains,
                batteryLevel,
                startedAt,
                checks,
                checkedBy,
                Ledger.ByHand.NOTHING,
                null);
    }
}
