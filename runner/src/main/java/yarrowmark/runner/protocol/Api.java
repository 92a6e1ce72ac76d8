package yarrowmark.runner.protocol;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import com.fasterxml.jackson.annotation.JsonInclude;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** What a device and the bench say to each other, as docs/device-protocol.md has it. What the bench says more is not heard. */
public final class Api {
    private Api() {}

    public enum Command {
        GO,
        PAUSE,
        STOP
    }

    /** How one attempt ended. Everything but OK has a reason. */
    public enum RunState {
        OK,
        FAILED,
        COULD_NOT_RUN,
        STOPPED
    }

    public enum Reason {
        NOT_SUPPORTED,
        WRONG_ANSWER,
        ERROR,
        OUT_OF_MEMORY,
        TOO_SLOW,
        NO_SPACE,
        WRITE_LIMIT,
        RELOADED,
        STOPPED_BY_REVIEWER,
        STOPPED_AT_DEVICE,
        OTHER
    }

    public enum Phase {
        RUNNING,
        COOLING,
        PAUSED,
        BY_HAND,
        /** Somebody waits until a temperature is reached, and says so. */
        COOL_UNTIL
    }

    public enum Ending {
        DONE,
        STOPPED
    }

    /** @param metric  key of its main metric. @param pauseUntil a temperature in °C that somebody waits for before each of its runs. @param timedMs its own timed part, where it has one. @param byHand whether the reviewer carries it out */
    @JsonIgnoreProperties(ignoreUnknown = true)
    public record Test(
            long id,
            String key,
            String name,
            String metric,
            int runs,
            int pauseMs,
            @Nullable Double pauseUntil,
            @Nullable Integer allowedMs,
            boolean byHand,
            @Nullable Integer timedMs,
            @Nullable List<Limit> enough,
            @Nullable TimedCommand command) {}

    /** A command that is carried out and timed. What it prints is looked at by the bench alone. */
    @JsonIgnoreProperties(ignoreUnknown = true)
    public record TimedCommand(
            Step run,
            @Nullable Step prepare,
            @Nullable Step cleanUp,
            @Nullable Step version,
            @Nullable String folder,
            @Nullable Map<String, String> environment,
            int expectedExit,
            int limitSeconds,
            Cache cache,
            @Nullable Marks between) {
        public TimedCommand with(Cache other) {
            return new TimedCommand(
                    run, prepare, cleanUp, version, folder, environment, expectedExit, limitSeconds, other, between);
        }
    }

    /** @param shell whether the one argument is a script */
    @JsonIgnoreProperties(ignoreUnknown = true)
    public record Step(List<String> arguments, boolean shell) {}

    public enum Cache {
        AS_IT_IS,
        WARM,
        COLD
    }

    /** Parts of lines that are printed: timed is from the one to the other. */
    @JsonIgnoreProperties(ignoreUnknown = true)
    public record Marks(String from, String to) {}

    /** With so many runs it is enough, where their spread and their rounding are at most these; the bench computed them. */
    @JsonIgnoreProperties(ignoreUnknown = true)
    public record Limit(int runs, double spread, double rounding) {}

    /** @param value and resolution only where runs go on until the mean is known */
    @JsonIgnoreProperties(ignoreUnknown = true)
    public record DoneRun(
            long testId,
            int runNumber,
            int attempt,
            RunState state,
            @Nullable Double value,
            @Nullable Double resolution) {}

    @JsonIgnoreProperties(ignoreUnknown = true)
    public record Seat(
            long seatId,
            String planName,
            int runs,
            int timedMs,
            int pauseMs,
            boolean stopOnFailure,
            List<Test> tests,
            @Nullable Long sessionId,
            List<DoneRun> done,
            String phase,
            Command command,
            int commandRevision) {}

    public record Join(String code, String device, String secret) {}

    @JsonIgnoreProperties(ignoreUnknown = true)
    public record Joined(String token) {}

    @JsonIgnoreProperties(ignoreUnknown = true)
    public record Model(long id, String maker, String name, String deviceClass) {
        @Override
        public String toString() {
            return maker + " " + name;
        }
    }

    @JsonIgnoreProperties(ignoreUnknown = true)
    public record Models(List<Model> rows) {}

    @JsonIgnoreProperties(ignoreUnknown = true)
    public record Unit(long id, String label) {}

    @JsonIgnoreProperties(ignoreUnknown = true)
    public record Units(List<Unit> units) {}

    public record Fact(String key, String value, boolean detected) {}

    public record NewModel(String maker, String name, String deviceClass) {}

    @JsonInclude(JsonInclude.Include.NON_NULL)
    public record Start(
            @Nullable Long modelId,
            @Nullable NewModel newModel,
            @Nullable Long unitId,
            List<Fact> facts,
            @Nullable Boolean onMains,
            @Nullable Double batteryLevel,
            List<Check> checks) {}

    /** A line of the checklist, and whether somebody says that it is so. */
    public record Check(String text, boolean ticked) {}

    public record Reading(String metric, double value, double resolution, List<Double> samples) {}

    @JsonInclude(JsonInclude.Include.NON_NULL)
    public record Run(
            long testId,
            int runNumber,
            int attempt,
            RunState state,
            @Nullable Reason reason,
            @Nullable String reasonWords,
            int durationMs,
            List<Reading> readings,
            @Nullable String disturbed,
            @Nullable Integer timedMs,
            @Nullable String output,
            @Nullable List<Track> tracks) {
        public Run(
                long testId,
                int runNumber,
                int attempt,
                RunState state,
                @Nullable Reason reason,
                @Nullable String reasonWords,
                int durationMs,
                List<Reading> readings,
                @Nullable String disturbed,
                @Nullable Integer timedMs) {
            this(
                    testId,
                    runNumber,
                    attempt,
                    state,
                    reason,
                    reasonWords,
                    durationMs,
                    readings,
                    disturbed,
                    timedMs,
                    null,
                    null);
        }
    }

    /** What a sensor said during a run, at equal steps of time. */
    public record Track(String kind, String name, String unit, int stepMs, List<Double> values) {}

    /** What a sensor says now. */
    public record Sensor(String name, String unit, double value) {}

    @JsonIgnoreProperties(ignoreUnknown = true)
    public record Stored(@Nullable Long runId, String key, boolean late) {}

    @JsonIgnoreProperties(ignoreUnknown = true)
    public record CommandState(Command command, int revision) {}

    @JsonInclude(JsonInclude.Include.NON_NULL)
    public record Progress(
            Phase phase,
            @Nullable Long testId,
            @Nullable Integer run,
            @Nullable Long untilMs,
            @Nullable List<Sensor> sensors) {}

    public record End(Ending how) {}

    @JsonIgnoreProperties(ignoreUnknown = true)
    public record Problem(@Nullable String code, @Nullable String detail) {}
}
