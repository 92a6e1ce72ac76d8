package yarrowmark.server.writeup;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.JsonNode;

/**
 * A write-up with all of its numbers, as it is at a moment.
 *
 * @param pieces in order
 * @param number   of the edition; 0 for a draft
 * @param standing where the device stood that it is about, among its class; null where it is about none
 * @param tests    what the tests of shown metrics do, by metric; null in editions of before that was kept
 * @param readings of whoever it speaks of, as {@link ReadingsBehind#COLUMNS} names them; null in editions of before they were kept
 */
public record Frozen(
        String title,
        @Nullable String subtitle,
        String lab,
        @Nullable String accent,
        @Nullable String mark,
        @Nullable String licence,
        List<FrozenPiece> pieces,
        int number,
        @Nullable String changes,
        List<Earlier> earlier,
        String person,
        Instant at,
        @Nullable Shown standing,
        @Nullable List<List<String>> readings,
        @Nullable Map<Long, TestSaid> tests) {

    /** Hash of the photo that leads it; null where it shows none. */
    public @Nullable String photo() {
        return pieces.stream()
                .filter(p -> p.kind() == PieceKind.PHOTO)
                .map(p -> p.body().path("hash").asString(""))
                .filter(hash -> !hash.isEmpty())
                .findFirst()
                .orElse(null);
    }

    /** @param number of an edition before this one */
    public record Earlier(int number, Instant at, @Nullable String changes) {}

    /**
     * @param body  what is stored of it
     * @param shown what it shows, where that is made from records; null where the body is all there is
     */
    public record FrozenPiece(long id, PieceKind kind, JsonNode body, @Nullable Shown shown) {}

    /**
     * What a piece shows of the records at that moment.
     *
     * @param svg     a drawing whose colours are those of the page
     * @param narrow  the same for a screen as wide as a phone; absent where the drawing has one form
     * @param alt     what the drawing shows, in words
     * @param columns of the table behind it
     * @param rows    of the table behind it
     * @param numbers by their ids in the text
     * @param lines   of a method
     * @param metrics that it shows, to say what their tests do; null in editions of before that was said
     */
    public record Shown(
            @Nullable @Size(max = 400_000) String svg,
            @Nullable @Size(max = 400_000) String narrow,
            @Nullable @Size(max = 1_000) String caption,
            @Nullable @Size(max = 2_000) String alt,
            @Nullable @Size(max = 40) List<@NotNull @Size(max = 200) String> columns,
            @Nullable @Size(max = 500) List<@NotNull @Size(max = 40) List<@NotNull @Size(max = 400) String>> rows,
            @Nullable @Size(max = 500) Map<@Size(max = 20) String, @Valid FrozenNumber> numbers,
            @Nullable @Size(max = 100) List<@NotNull @Size(max = 600) String> lines,
            @Nullable @Size(max = 500) List<@NotNull Long> metrics) {}

    /** @param summary what it does, in a sentence */
    public record TestSaid(String name, String summary) {}

    /**
     * A number in a text.
     *
     * @param words as it stands in the text
     * @param says  what it is, of whom and against what, with its interval
     * @param value as it was computed; null for what is no number
     */
    public record FrozenNumber(
            @NotNull @Size(max = 100) String words,
            @NotNull @Size(max = 600) String says,
            @Nullable Double value,
            @Nullable @Size(max = 30) String unit) {}
}
