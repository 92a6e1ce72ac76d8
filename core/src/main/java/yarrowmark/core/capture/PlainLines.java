package yarrowmark.core.capture;

import com.google.gson.JsonElement;
import com.google.gson.JsonParseException;
import com.google.gson.JsonParser;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/**
 * Pasted text as lines that rules can read: escape sequences and other control characters are gone, and each JSON
 * document in it is laid out as one line a value, "children[0].size = 17179869184".
 */
final class PlainLines {
    /** Beyond this, text is no tool's output any more. */
    static final int MOST_LINES = 50_000;

    private static final int DEEPEST = 60;

    /** @param number of the line in the pasted text, from 1; all lines of a JSON document carry that of its first */
    record Line(int number, String text) {}

    private PlainLines() {}

    static List<Line> of(String pasted) {
        String[] raw = pasted.replace("\r\n", "\n").replace('\r', '\n').split("\n", -1);
        List<Line> lines = new ArrayList<>();
        for (int i = 0; i < Math.min(raw.length, MOST_LINES); i++) {
            String text = TerminalText.clean(raw[i]);
            int end = isJsonStart(text) ? jsonEnd(raw, i) : -1;
            if (end >= 0 && layOut(String.join("\n", List.of(raw).subList(i, end + 1)), i + 1, lines)) {
                i = end;
            } else if (!text.isBlank()) {
                lines.add(new Line(i + 1, text));
            }
        }
        return lines;
    }

    private static boolean isJsonStart(String text) {
        return text.equals("{")
                || text.equals("[")
                || text.startsWith("{\"")
                || text.startsWith("[{")
                || text.startsWith("{ \"");
    }

    /** The line that closes the document: the one with which its brackets are even, leaving strings aside. */
    private static int jsonEnd(String[] raw, int start) {
        int depth = 0;
        boolean quoted = false;
        for (int i = start; i < Math.min(raw.length, MOST_LINES); i++) {
            for (int c = 0; c < raw[i].length(); c++) {
                char at = raw[i].charAt(c);
                if (quoted && at == '\\') {
                    c++;
                } else if (at == '"') {
                    quoted = !quoted;
                } else if (!quoted && (at == '{' || at == '[')) {
                    depth++;
                } else if (!quoted && (at == '}' || at == ']')) {
                    depth--;
                }
            }
            if (depth <= 0) {
                return i;
            }
        }
        return -1;
    }

    private static boolean layOut(String json, int number, List<Line> into) {
        try {
            List<Line> lines = new ArrayList<>();
            walk("", JsonParser.parseString(json), number, lines, 0);
            return into.addAll(lines);
        } catch (JsonParseException | IllegalStateException e) {
            // Not JSON after all, or cut off: it is read as plain lines.
            return false;
        }
    }

    private static void walk(String path, JsonElement at, int number, List<Line> into, int depth) {
        if (depth > DEEPEST || into.size() > MOST_LINES) {
            return;
        }
        if (at.isJsonObject()) {
            for (Map.Entry<String, JsonElement> e : at.getAsJsonObject().entrySet()) {
                walk(path.isEmpty() ? e.getKey() : path + "." + e.getKey(), e.getValue(), number, into, depth + 1);
            }
        } else if (at.isJsonArray()) {
            for (int i = 0; i < at.getAsJsonArray().size(); i++) {
                walk(path + "[" + i + "]", at.getAsJsonArray().get(i), number, into, depth + 1);
            }
        } else if (!at.isJsonNull()) {
            into.add(new Line(
                    number, TerminalText.clean((path + " = " + at.getAsString().replace('\n', ' ')))));
        }
    }
}
