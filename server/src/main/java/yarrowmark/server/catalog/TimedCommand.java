package yarrowmark.server.catalog;

import com.fasterxml.jackson.annotation.JsonInclude;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.rule.ScorePattern;

/**
 * A command that the runner carries out and times.
 *
 * @param run          what is timed
 * @param prepare      before each run, untimed
 * @param cleanUp      after each run, untimed, however it ended
 * @param version      prints which version of the program it is; its first line stays with each run
 * @param folder       where all of them run: below the folder that the runner makes for this, or an absolute path
 * @param environment  added to the runner's own
 * @param expectedExit the exit code of a run that is well
 * @param limitSeconds after so long the command and whatever it began are ended
 * @param between      where not the whole is timed
 * @param output       where the score is not the time, but what the command prints
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
public record TimedCommand(
        @NotNull @Valid Step run,
        @Nullable @Valid Step prepare,
        @Nullable @Valid Step cleanUp,
        @Nullable @Valid Step version,
        @Nullable @Size(max = 400) @Pattern(regexp = Step.NO_NUL, message = Step.NUL) String folder,
        @Nullable @Size(max = 50)
                Map<
                                @Pattern(
                                        regexp = "[A-Za-z_][A-Za-z0-9_]{0,99}",
                                        message = "must be letters, digits and underscores")
                                String,
                                @NotNull @Size(max = 4_000) @Pattern(regexp = Step.NO_NUL, message = Step.NUL) String>
                        environment,
        @Min(0) @Max(255) int expectedExit,
        @Min(value = 1, message = "must be 1 s or more") @Max(value = 86_400, message = "must be 86400 s or less")
                int limitSeconds,
        @NotNull Cache cache,
        @Nullable @Valid Marks between,
        @Nullable @Valid Output output) {

    /** @param shell whether the one argument is a script that sh carries out */
    public record Step(
            @NotEmpty @Size(max = 200)
                    List<@NotBlank @Size(max = 8_000) @Pattern(regexp = NO_NUL, message = NUL) String> arguments,
            boolean shell) {
        static final String NO_NUL = "(?s)[^\\x00]*";
        static final String NUL = "must not contain a zero byte";

        @Override
        public String toString() {
            return String.join(" ", arguments);
        }
    }

    /** What the file cache is to hold when a run begins. */
    public enum Cache {
        /** Whatever the preparation left in it. */
        AS_IT_IS,
        /** What an untimed run before the first one left in it. */
        WARM,
        /** Nothing: it is dropped, which only an administrator may do. */
        COLD
    }

    /** Parts of lines that the command prints: timed is from the first line with one to the next with the other. */
    public record Marks(@NotBlank @Size(max = 200) String from, @NotBlank @Size(max = 200) String to) {}

    /** How the score stands in what the command prints, as in a reading rule. */
    public record Output(
            ScorePattern.@NotNull Kind kind,
            @NotBlank @Size(max = 500) String expression,
            @NotBlank @Size(max = 30) String unit,
            @NotNull Direction direction) {
        /** @throws IllegalArgumentException with words for whoever wrote it */
        public ScorePattern pattern() {
            return new ScorePattern("Output", kind, expression, unit, ScorePattern.LAST);
        }
    }

    public static final String WALL = "wall";
    public static final String VALUE = "value";
}
