package yarrowmark.server.writeup;

import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.platform.Problem;

/** What may be in a piece of each kind. More than that would be kept without anybody seeing it. */
final class PieceShape {
    /** A long text with its numbers. */
    static final int LONGEST = 200_000;

    private static final int LONGEST_TEXT = 60_000;
    private static final int DEEPEST = 12;
    private static final Pattern HASH = Pattern.compile("[0-9a-f]{64}");

    /** What is said on the stage, for whoever says it. */
    static final String NOTES = "notes";

    private static final Map<PieceKind, Set<String>> FIELDS = Map.of(
            PieceKind.HEADING, Set.of("text"),
            PieceKind.TEXT, Set.of("text", "numbers"),
            PieceKind.FIGURE, Set.of("question", "caption", "alt", NOTES),
            PieceKind.TABLE, Set.of("question", "caption"),
            PieceKind.FACTS, Set.of("configurations", "keys", "caption"),
            PieceKind.PHOTO, Set.of("hash", "caption", "alt", NOTES),
            PieceKind.POINTS, Set.of("strong", "weak", "dropped", "numbers", NOTES),
            PieceKind.VERDICT, Set.of("line", "mark", "numbers", NOTES),
            PieceKind.METHOD, Set.of("configurations", "note"));

    private PieceShape() {}

    /** @throws Problem where it is none of this kind */
    static void check(PieceKind kind, JsonNode body) {
        if (!body.isObject()) {
            throw wrong("it is no object");
        }
        if (body.toString().length() > LONGEST) {
            throw wrong("it is longer than " + LONGEST + " characters. Make two of it");
        }
        Set<String> known = FIELDS.getOrDefault(kind, Set.of());
        body.propertyNames().forEach(name -> {
            if (!known.contains(name)) {
                throw wrong(
                        "there is nothing called “" + (name.length() > 40 ? name.substring(0, 40) : name) + "” in it");
            }
        });
        depth(body, 0);
        JsonNode hash = body.path("hash");
        if (kind == PieceKind.PHOTO && !HASH.matcher(hash.asString("")).matches()) {
            throw wrong("a photo is named by its hash");
        }
        for (String text : new String[] {"text", "line", "caption", "alt", "note", "mark", NOTES}) {
            JsonNode value = body.path(text);
            if (!value.isMissingNode() && !value.isString()) {
                throw wrong(text + " is no text");
            }
            if (value.asString("").length() > LONGEST_TEXT) {
                throw wrong(text + " is longer than " + LONGEST_TEXT + " characters. Make two pieces of it");
            }
        }
    }

    private static void depth(JsonNode node, int at) {
        if (at > DEEPEST) {
            throw wrong("it is too deep");
        }
        node.forEach(child -> depth(child, at + 1));
    }

    private static Problem wrong(String why) {
        return Problem.invalid("piece-shape", "This piece cannot be kept: " + why + ".");
    }
}
