package yarrowmark.server.writeup;

import io.swagger.v3.oas.annotations.media.Schema;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** What is in a piece of a write-up, by its {@link PieceKind}. What is more than this would be kept without anybody seeing it. */
@Schema(
        oneOf = {
            PieceBody.Heading.class,
            PieceBody.Text.class,
            PieceBody.Figure.class,
            PieceBody.Table.class,
            PieceBody.Facts.class,
            PieceBody.Photo.class,
            PieceBody.Points.class,
            PieceBody.Verdict.class,
            PieceBody.Method.class
        })
sealed interface PieceBody {
    int LONGEST_TEXT = 60_000;
    int MOST_NUMBERS = 500;
    String TOO_LONG = "is longer than {max} characters. Make two pieces of it";
    String HASH = "[0-9a-f]{64}";

    record Heading(@NotNull @Size(max = LONGEST_TEXT, message = TOO_LONG) String text) implements PieceBody {}

    /** @param numbers by their names in the text */
    record Text(
            @NotNull @Size(max = LONGEST_TEXT, message = TOO_LONG) String text,
            @Nullable @Size(max = MOST_NUMBERS) Map<@Size(max = 20) String, @NotNull @Valid NumberQuestion> numbers)
            implements PieceBody {}

    /** @param alt what it shows, for whoever cannot see it. @param notes what is said on the stage */
    record Figure(
            @NotNull @Valid FigureQuestion question,
            @Nullable @Size(max = LONGEST_TEXT, message = TOO_LONG) String caption,
            @Nullable @Size(max = LONGEST_TEXT, message = TOO_LONG) String alt,
            @Nullable @Size(max = LONGEST_TEXT, message = TOO_LONG) String notes)
            implements PieceBody {}

    record Table(
            @NotNull @Valid FigureQuestion question,
            @Nullable @Size(max = LONGEST_TEXT, message = TOO_LONG) String caption)
            implements PieceBody {}

    /** @param keys of the facts; null for those that are usually shown */
    record Facts(
            @NotNull @Size(max = FigureQuestion.MOST) List<@NotNull @Min(1) Long> configurations,
            @Nullable @Size(max = 200) List<@NotBlank @Size(max = 80) String> keys,
            @Nullable @Size(max = LONGEST_TEXT, message = TOO_LONG) String caption)
            implements PieceBody {}

    record Photo(
            @NotNull @Pattern(regexp = HASH, message = "is no name of a photo") String hash,
            @Nullable @Size(max = LONGEST_TEXT, message = TOO_LONG) String caption,
            @Nullable @Size(max = LONGEST_TEXT, message = TOO_LONG) String alt,
            @Nullable @Size(max = LONGEST_TEXT, message = TOO_LONG) String notes)
            implements PieceBody {}

    record Points(
            @NotNull @Size(max = MOST_NUMBERS)
                    List<@NotNull @Size(max = LONGEST_TEXT, message = TOO_LONG) String> strong,
            @NotNull @Size(max = MOST_NUMBERS) List<@NotNull @Size(max = LONGEST_TEXT, message = TOO_LONG) String> weak,
            @Nullable @Size(max = MOST_NUMBERS)
                    List<@NotNull @Size(max = LONGEST_TEXT, message = TOO_LONG) String> dropped,
            @Nullable @Size(max = MOST_NUMBERS) Map<@Size(max = 20) String, @NotNull @Valid NumberQuestion> numbers,
            @Nullable @Size(max = LONGEST_TEXT, message = TOO_LONG) String notes)
            implements PieceBody {}

    record Verdict(
            @NotNull @Size(max = LONGEST_TEXT, message = TOO_LONG) String line,
            @Nullable @Size(max = LONGEST_TEXT, message = TOO_LONG) String mark,
            @Nullable @Size(max = MOST_NUMBERS) Map<@Size(max = 20) String, @NotNull @Valid NumberQuestion> numbers,
            @Nullable @Size(max = LONGEST_TEXT, message = TOO_LONG) String notes)
            implements PieceBody {}

    record Method(
            @NotNull @Size(max = FigureQuestion.MOST) List<@NotNull @Min(1) Long> configurations,
            @Nullable @Size(max = LONGEST_TEXT, message = TOO_LONG) String note)
            implements PieceBody {}
}
