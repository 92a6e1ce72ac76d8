package yarrowmark.server.bench;

import jakarta.validation.Valid;
import jakarta.validation.constraints.DecimalMax;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.stats.EnoughRuns;
import yarrowmark.server.catalog.TimedCommand;
import yarrowmark.server.ledger.record.Reason;
import yarrowmark.server.ledger.record.RunState;
import yarrowmark.server.ledger.record.SessionState;
import yarrowmark.server.platform.PlainLine;
import yarrowmark.server.shelf.model.DeviceClass;

/** What a device and the bench say to each other, as docs/device-protocol.md has it. */
final class DeviceMessages {
    /** A week: a tablet that only shows a page runs down in days. */
    private static final int LONGEST_RUN_MS = 7 * 86_400_000;

    private static final int MOST_TRACKS = 64;

    private DeviceMessages() {}

    /** @param secret 32 random bytes of the device's own as base64url: with the same one it may ask again for its seat */
    record DeviceJoinBody(
            @NotBlank @Size(max = 60) String code,
            @Nullable @Size(max = 200) String device,
            @Nullable @Pattern(regexp = "[A-Za-z0-9_-]{43}", message = "must be 32 bytes as base64url, 43 characters")
                    String secret) {}

    record JoinAnswer(String token) {}

    /** What a device's holder needs to say which model it is: no prices, serials, dates or sources. */
    record DeviceModel(long id, String maker, String name, DeviceClass deviceClass) {}

    record DeviceModelUnits(long id, List<DeviceUnit> units) {}

    record DeviceUnit(long id, String label) {}

    record NewModelBody(
            @NotBlank @PlainLine @Size(max = 120) String maker,
            @NotBlank @PlainLine @Size(max = 120) String name,
            @NotNull DeviceClass deviceClass) {}

    record FactBody(
            @NotNull
                    @Pattern(
                            regexp = "[a-z][a-z0-9_.]{0,79}",
                            message = "must be lower-case letters, digits, dots and underscores, at most 80")
                    String key,
            @NotBlank @Size(max = 500) String value,
            boolean detected) {}

    record StartBody(
            @Nullable Long modelId,
            @Nullable @Valid NewModelBody newModel,
            @Nullable Long unitId,
            @NotNull @Size(max = 100) List<@Valid @NotNull FactBody> facts,
            @Nullable Boolean onMains,
            @Nullable @DecimalMin("0") @DecimalMax("1") Double batteryLevel,
            @Nullable @Size(max = 40) List<@Valid @NotNull CheckBody> checks) {}

    /** One line of the checklist, and whether whoever holds the device ticked it. */
    record CheckBody(@NotBlank @Size(max = 200) String text, boolean ticked) {}

    /** @param sensors what its sensors say now */
    record ProgressBody(
            @NotNull Phase phase,
            @Nullable Long testId,
            @Nullable Integer run,
            @Nullable @Min(0) @Max(86_400_000) Long untilMs,
            @Nullable @Size(max = LiveSensors.MOST) List<@Valid @NotNull SensorBody> sensors) {}

    record SensorBody(
            @NotBlank @PlainLine @Size(max = 120) String name,
            @NotBlank @PlainLine @Size(max = 30) String unit,
            double value) {}

    record ReadingBody(
            @NotBlank @Size(max = 80) String metric,
            double value,
            double resolution,
            @NotNull @Size(max = 20_000) List<Double> samples) {}

    record RunBody(
            long testId,
            @Min(1) int runNumber,
            @Min(1) @Max(1_000) int attempt,
            @NotNull RunState state,
            @Nullable Reason reason,
            @Nullable @Size(max = 500) String reasonWords,
            @Min(0) @Max(LONGEST_RUN_MS) int durationMs,
            @NotNull @Size(max = 20) List<@Valid @NotNull ReadingBody> readings,
            @Nullable @Size(max = 200) String disturbed,
            @Nullable @Min(0) @Max(LONGEST_RUN_MS) Integer timedMs,
            @Nullable @Size(max = 70_000) String output,
            @Nullable @Size(max = MOST_TRACKS) List<@Valid @NotNull TrackBody> tracks) {}

    /** What a sensor said during a run. @param kind such as temperature, clock, power. @param stepMs between two values */
    record TrackBody(
            @NotNull @Pattern(regexp = "[a-z][a-z-]{0,29}", message = "must be lower-case letters and hyphens")
                    String kind,
            @NotBlank @PlainLine @Size(max = 120) String name,
            @NotBlank @PlainLine @Size(max = 30) String unit,
            @Min(100) @Max(3_600_000) int stepMs,
            @NotEmpty @Size(max = 4_000) List<@NotNull Double> values) {}

    /**
     * @param runId absent where the run came after the session's end
     * @param key   that the run was delivered under: the device forgets what is confirmed under its own key alone
     * @param late  whether the run is kept for the reviewer, who may take it into the session that was ended
     */
    record Stored(@Nullable Long runId, String key, boolean late) {}

    record EndBody(@NotNull SessionState how) {}

    /**
     * @param metric     key of its main metric
     * @param pauseMs    before each of its runs, in ms
     * @param pauseUntil a temperature in °C that somebody waits for before each of its runs
     * @param allowedMs  longest time for one run, in ms; absent: what its kind usually needs at most
     * @param timedMs    timed part of each run, where it has one of its own
     * @param byHand     whether the reviewer carries it out, and the device waits
     * @param command    that the runner carries out and times
     */
    record DeviceTest(
            long id,
            String key,
            String name,
            String summary,
            String metric,
            int runs,
            int pauseMs,
            @Nullable Double pauseUntil,
            @Nullable Integer allowedMs,
            boolean byHand,
            @Nullable Integer timedMs,
            @Nullable List<EnoughRuns.Limit> enough,
            @Nullable TimedCommand command) {}

    /** @param value and resolution only where runs go on until the mean is known */
    record DoneRun(
            long testId,
            int runNumber,
            int attempt,
            RunState state,
            @Nullable Double value,
            @Nullable Double resolution) {}

    record DeviceSeat(
            long seatId,
            String planName,
            int runs,
            int timedMs,
            int pauseMs,
            boolean stopOnFailure,
            boolean coolByProbe,
            List<DeviceTest> tests,
            @Nullable Long sessionId,
            @Nullable SessionState sessionState,
            List<DoneRun> done,
            Phase phase,
            Command command,
            int commandRevision) {}
}
