package yarrowmark.server.plan;

import jakarta.persistence.Embeddable;
import jakarta.validation.constraints.DecimalMax;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.Size;
import org.jspecify.annotations.Nullable;

/**
 * One test of a plan. What is null is as the plan, or whoever brings a device to the bench, says.
 *
 * @param pauseMs    before each of its runs, in ms
 * @param pauseUntil a temperature in °C that has to be reached before each of its runs; somebody reads it off
 * @param allowedMs  longest time for one run, in ms
 * @param nice       nice to have: left out when time is short
 * @param timedMs    timed part of each of its runs, in ms, where it is another than that of the rest
 * @param todo       what the person who carries it out should do, and under which conditions
 */
@Embeddable
public record PlanItem(
        long testId,
        @Nullable @Min(1) @Max(30) Integer runs,
        @Nullable @Min(0) @Max(3_600_000) Integer pauseMs,
        @Nullable @DecimalMin("-20") @DecimalMax("100") Double pauseUntil,
        @Nullable @Min(1_000) @Max(86_400_000) Integer allowedMs,
        boolean nice,
        @Nullable @Size(max = 500) String todo,
        @Nullable @Min(20) @Max(1_800_000) Integer timedMs) {
    public static PlanItem of(long testId) {
        return new PlanItem(testId, null, null, null, null, false, null, null);
    }
}
