package yarrowmark.server.writeup;

import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/** An edition in one sentence or two, for whoever sees a link to it. */
final class EditionDescription {
    private static final int LONGEST = 220;

    private EditionDescription() {}

    /** The verdict where there is one, else how the text begins; null where nothing is said. */
    static @Nullable String of(Frozen edition) {
        return Stream.concat(
                        edition.pieces().stream()
                                .filter(p -> p.kind() == PieceKind.VERDICT)
                                .map(p -> p.body().path("line").asString("")),
                        edition.pieces().stream()
                                .filter(p -> p.kind() == PieceKind.TEXT)
                                .map(p -> p.body().path("text").asString("")))
                .map(MarkedText::plain)
                .filter(words -> !words.isBlank())
                .findFirst()
                .map(EditionDescription::cut)
                .orElse(null);
    }

    private static String cut(String words) {
        if (words.length() <= LONGEST) {
            return words;
        }
        int end = words.lastIndexOf(' ', LONGEST - 1);
        return words.substring(0, end < LONGEST / 2 ? LONGEST - 1 : end) + "…";
    }
}
